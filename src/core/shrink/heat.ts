import { type Problem, plainMm } from "../units";
import type { Weld } from "./weldSchema";

/** Share of the arc's power that reaches the work. ISO/TR 17671-1, table of thermal efficiency (from memory). */
export const PROCESSES = {
  MAG: { label: "MAG / MIG, solid wire", efficiency: 0.8 },
  "flux core": { label: "Flux-cored wire", efficiency: 0.8 },
  stick: { label: "Stick electrode", efficiency: 0.8 },
  TIG: { label: "TIG", efficiency: 0.6 },
} as const;
export type ProcessName = keyof typeof PROCESSES;

/**
 * Heat input per millimetre of bead: Q = eta U I / v, J/mm. Source: ISO/TR 17671-1 (from memory).
 * @param weld settings as read on the machine.
 */
export const heatJPerMm = (weld: Weld): number =>
  (PROCESSES[weld.process].efficiency * weld.volts * weld.amps) / weld.travelMmPerS;

/** Where heat per wall is outside what such tube is welded with, J/mm per mm (common practice, no source). */
const USUAL = { low: 40, high: 300 } as const;

/** @param weld settings. @param wallMm wall. @returns problems at their fields. */
export function weldProblems(weld: Weld, wallMm: number): Problem[] {
  const found: Problem[] = [];
  if (weld.tackLength.mm < 2 || weld.tackLength.mm > 60)
    found.push({
      path: "weld.tackLength",
      message: "A tack is between 2 and 60 mm long. Check the unit.",
      severity: "error",
    });
  const perWall = heatJPerMm(weld) / wallMm;
  if (perWall < USUAL.low || perWall > USUAL.high)
    found.push({
      path: "weld.travelMmPerS",
      message: `${Math.round(heatJPerMm(weld))} J/mm on a wall of ${plainMm(wallMm)} is ${perWall < USUAL.low ? "cold" : "hot"} for such tube: check volts, amps and travel speed.`,
      severity: "warning",
    });
  return found;
}

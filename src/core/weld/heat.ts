import type { MaterialName } from "../frame";
import { type Problem, physical, plainLength, rangeWords, type UnitPreference, wallWords } from "../units";
import type { Weld } from "./weldSchema";

/**
 * Share of the arc's power that reaches the work: ISO/TR 17671-1, table of thermal efficiency (from memory). Heat that a
 * cubic millimetre of deposit takes: 35 for wire after Blodgett's butt rule (from memory), the others own judgement.
 */
export const PROCESSES = {
  MAG: { label: "MAG / MIG, solid wire", efficiency: 0.8, depositJPerMm3: 35 },
  "flux core": { label: "Flux-cored wire", efficiency: 0.8, depositJPerMm3: 35 },
  stick: { label: "Stick electrode", efficiency: 0.8, depositJPerMm3: 45 },
  TIG: { label: "TIG", efficiency: 0.6, depositJPerMm3: 90 },
} as const;
export type ProcessName = keyof typeof PROCESSES;

/**
 * Heat input per millimetre of bead: Q = eta U I / v, J/mm. Source: ISO/TR 17671-1 (from memory).
 * @param weld settings as read on the machine.
 */
export const heatJPerMm = (weld: Pick<Weld, "process" | "volts" | "amps" | "travelMmPerS">): number =>
  (PROCESSES[weld.process].efficiency * weld.volts * weld.amps) / weld.travelMmPerS;

/**
 * Heat input from the size of a fillet, for when no settings are known: area of the deposit times what each mm3 takes.
 * @param legMm leg of the fillet. @returns J/mm.
 */
export const heatFromFillet = (process: ProcessName, legMm: number): number =>
  (PROCESSES[process].depositJPerMm3 * legMm * legMm) / 2;

/** Leg of the fillet that so much heat lays down, mm: the other way round. */
export const filletOfHeat = (process: ProcessName, heat: number): number =>
  Math.sqrt((2 * heat) / PROCESSES[process].depositJPerMm3);

/** Where heat per wall is outside what such tube is welded with, J/mm per mm (common practice, no source). */
const USUAL = { low: 40, high: 300 } as const;

/** Processes that aluminium is not welded with on thin tube. */
const NOT_FOR_ALUMINIUM: readonly ProcessName[] = ["flux core", "stick"];

/** What is doubtful about an arc. @param at its fields. */
export function arcProblems(
  arc: Pick<Weld, "process" | "volts" | "amps" | "travelMmPerS">,
  at: { process: string; travel: string },
  wallMm: number,
  material: MaterialName,
  units: UnitPreference,
): Problem[] {
  const found: Problem[] = [];
  if (material.startsWith("aluminium") && NOT_FOR_ALUMINIUM.includes(arc.process))
    found.push({
      path: at.process,
      message: `Aluminium tube is not welded with ${PROCESSES[arc.process].label.toLowerCase()}: choose MIG or TIG.`,
      severity: "warning",
    });
  const perWall = heatJPerMm(arc) / wallMm;
  if (perWall < USUAL.low || perWall > USUAL.high)
    found.push({
      path: at.travel,
      message: `${physical("heat", heatJPerMm(arc), units)} on a wall of ${wallWords(wallMm, units)} ${perWall < USUAL.low ? "may lap cold without fusing" : "may burn through"}: check volts, amps and travel speed.`,
      severity: "warning",
    });
  return found;
}

/** Share of a face from which a tack on it is no tack any more (own judgement). */
const MOST_OF_A_FACE = 0.7;

/** @param weld settings. @param wallMm wall. @param material of the tube. @param faceMm narrowest face. @returns problems at their fields. */
export function weldProblems(
  weld: Weld,
  wallMm: number,
  material: MaterialName = "mild steel",
  units: UnitPreference = "mm",
  faceMm = Number.POSITIVE_INFINITY,
): Problem[] {
  const at = { process: "weld.process", travel: "weld.travelMmPerS" };
  const found = arcProblems(weld, at, wallMm, material, units);
  if (weld.tackLength.mm < 2 || weld.tackLength.mm > 60)
    found.push({
      path: "weld.tackLength",
      message: `A tack is ${rangeWords(2, 60, units)} long. Check the unit.`,
      severity: "error",
    });
  else if (weld.tackLength.mm > MOST_OF_A_FACE * faceMm)
    found.push({
      path: "weld.tackLength",
      message: `A tack of ${plainLength(weld.tackLength.mm, units)} is most of the narrowest face, ${plainLength(faceMm, units)}: it is a bead as far as shrinkage goes. Shorter ones can still be let go.`,
      severity: "warning",
    });
  for (const other of weld.others ?? []) {
    const path = `weld.others.${other.id}`;
    const its = { process: path, travel: `${path}.travelMmPerS` };
    found.push(...arcProblems({ ...other, process: other.id }, its, wallMm, material, units));
  }
  return found;
}

/**
 * How much more a seam closes for each mm of gap that is filled in it, mm: factor times alpha / (rho c) times what a mm3 of deposit takes; how
 * thick the wall is falls out. Source: one-dimensional heat balance (from memory).
 */
export const closingPerGap = (
  process: ProcessName,
  { alphaPerK, heatJPerMm3K }: { alphaPerK: number; heatJPerMm3K: number },
  transverse: number,
): number => (transverse * alphaPerK * PROCESSES[process].depositJPerMm3) / heatJPerMm3K;

/** Heat that filling a gap takes besides, J per mm of seam: its section times what each mm3 of deposit takes. */
export const heatOfFilling = (process: ProcessName, gapMm: number, wallMm: number): number =>
  PROCESSES[process].depositJPerMm3 * gapMm * wallMm;

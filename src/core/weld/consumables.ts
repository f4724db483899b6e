import type { MaterialName } from "../frame";
import { fixed, formatSmall, physical, type UnitPreference } from "../units";
import type { ArcSettings } from "./seamHow";

/** What an arc takes while it burns. */
export interface Consumed {
  /** Wire from a spool; null where filler is fed by hand, comes as electrodes, or is not known. */
  wire: { diameterMm: number; feedMPerMin: number; lengthM: number; kg: number } | null;
  /** Shielding gas; null where the wire or the electrode makes its own. */
  gas: { flowLPerMin: number; litres: number } | null;
  /** Electrodes, the last one begun counted whole; null with any other process. */
  electrodes: { diameterMm: number; count: number } | null;
}

/**
 * Solid wire of steel by the wall it is taken for, and what it feeds per ampere, m/min: shop rules of 3.5, 2, 1.6 and 1 in/min
 * per ampere for 0.6, 0.8, 0.9 and 1.2 mm (common practice, from memory).
 */
const WIRES = [
  { upToMm: 1.2, diameterMm: 0.6, feedPerA: 3.5 * 0.0254 },
  { upToMm: 3, diameterMm: 0.8, feedPerA: 2 * 0.0254 },
  { upToMm: 6, diameterMm: 0.9, feedPerA: 1.6 * 0.0254 },
  { upToMm: Number.POSITIVE_INFINITY, diameterMm: 1.2, feedPerA: 1 * 0.0254 },
] as const;
/** A tube filled with flux is lighter than a wire of its diameter (own judgement). */
const CORED_SHARE = 0.8;
const STEEL_KG_PER_MM3 = 7.85e-6;
/** Litres a minute (common practice, no source). */
const GAS_L_PER_MIN = { MAG: 12, TIG: 8 } as const;
/** Electrodes by the amps that they are burnt with, and how long one burns, s (common practice, no source). */
const ELECTRODES = [
  { upToA: 60, diameterMm: 2, burnsS: 50 },
  { upToA: 95, diameterMm: 2.5, burnsS: 60 },
  { upToA: 145, diameterMm: 3.2, burnsS: 70 },
  { upToA: Number.POSITIVE_INFINITY, diameterMm: 4, burnsS: 75 },
] as const;

/** The first row that reaches so far; the last one always does. */
const rowFor = <T>(rows: readonly T[], reaches: (row: T) => boolean): T => rows.find(reaches) ?? (rows.at(-1) as T);

/**
 * What welding takes: feed by the current and the wire, times how long the arc burns.
 * @param arcS with the arc on, s. @param wallMm thinnest wall. @param material of the tube: the feed is known of steel alone.
 */
export function consumed(weld: ArcSettings, arcS: number, wallMm: number, material: MaterialName): Consumed {
  const minutes = arcS / 60;
  const gasOf = (flowLPerMin: number) => ({ flowLPerMin, litres: flowLPerMin * minutes });
  const fed = (share: number): Consumed["wire"] => {
    if (material.startsWith("aluminium")) return null;
    const { diameterMm, feedPerA } = rowFor(WIRES, (w) => wallMm <= w.upToMm);
    const feedMPerMin = feedPerA * weld.amps;
    const lengthM = feedMPerMin * minutes;
    const areaMm2 = (Math.PI * diameterMm ** 2) / 4;
    return { diameterMm, feedMPerMin, lengthM, kg: share * areaMm2 * 1000 * lengthM * STEEL_KG_PER_MM3 };
  };
  switch (weld.process) {
    case "MAG":
      return { wire: fed(1), gas: gasOf(GAS_L_PER_MIN.MAG), electrodes: null };
    case "flux core":
      return { wire: fed(CORED_SHARE), gas: null, electrodes: null };
    case "TIG":
      return { wire: null, gas: gasOf(GAS_L_PER_MIN.TIG), electrodes: null };
    case "stick": {
      const { diameterMm, burnsS } = rowFor(ELECTRODES, (e) => weld.amps <= e.upToA);
      return { wire: null, gas: null, electrodes: { diameterMm, count: Math.ceil(arcS / burnsS) } };
    }
  }
}

/** What a machine is set to besides volts and amps, in words: wire and its feed, gas, electrode. */
export function fedWords({ wire, gas, electrodes }: Consumed, units: UnitPreference): string {
  const diameter = (mm: number): string => physical("length", mm, units, units === "mm" ? 1 : 3);
  const parts = [
    ...(wire ? [`wire of ${diameter(wire.diameterMm)}, fed about ${physical("feed", wire.feedMPerMin, units)}`] : []),
    ...(electrodes ? [`electrodes of ${diameter(electrodes.diameterMm)}`] : []),
    ...(gas ? [`gas about ${physical("flow", gas.flowLPerMin, units)}`] : []),
  ];
  return parts.length === 0 ? "" : `${parts.join("; ").replace(/^./, (c) => c.toUpperCase())} (rule of thumb).`;
}

/** The same in words; an empty text where nothing is known. */
export function consumedWords({ wire, gas, electrodes }: Consumed, units: UnitPreference): string {
  const diameter = (mm: number): string => physical("length", mm, units, units === "mm" ? 1 : 3);
  const parts = [
    ...(wire
      ? [
          `wire of ${diameter(wire.diameterMm)} about ${physical("run", wire.lengthM, units)} (${physical("mass", wire.kg, units, 2)}), fed ${physical("feed", wire.feedMPerMin, units)}`,
        ]
      : []),
    ...(electrodes
      ? [
          `about ${fixed(electrodes.count, 0)} ${electrodes.count === 1 ? "electrode" : "electrodes"} of ${diameter(electrodes.diameterMm)}`,
        ]
      : []),
    ...(gas ? [`gas about ${physical("gas", gas.litres, units)} at ${physical("flow", gas.flowLPerMin, units)}`] : []),
  ];
  return parts.length === 0 ? "" : `${parts.join("; ").replace(/^./, (c) => c.toUpperCase())}: rules of thumb.`;
}

/** Bead that one flap disc grinds flush, mm (common practice, no source). */
const FLUSH_MM_PER_DISC = 3000;

/** Discs for beads that are ground flush, in words; an empty text where none is. @param flushMm of bead. */
export const discWords = (flushMm: number, units: UnitPreference): string => {
  const count = Math.ceil(flushMm / FLUSH_MM_PER_DISC);
  return flushMm > 0
    ? `About ${count} flap ${count === 1 ? "disc" : "discs"} for ${formatSmall(flushMm, units, { decimals: 0 })} of bead ground flush: rule of thumb.`
    : "";
};

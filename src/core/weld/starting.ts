import type { MaterialName } from "../frame";
import type { ShrinkFactors } from "./factors";
import type { ProcessName } from "./heat";
import type { Weld } from "./weldSchema";

/** What a process is usually begun with on a wall: volts, amps, travel in mm/s. */
type Row = readonly [wallMm: number, volts: number, amps: number, travelMmPerS: number];

/**
 * Settings to begin with on mild steel tube, flat or horizontal, by wall (from memory and common practice: a bead about as
 * thick as the wall, 85 to 115 J/mm for each mm of it with wire, half as much again with a torch that is fed by hand).
 */
const STARTING: Record<ProcessName, readonly Row[]> = {
  MAG: [
    [1, 15.5, 50, 7],
    [1.5, 16.5, 70, 7],
    [2, 17, 90, 6.5],
    [3, 18, 120, 5],
    [4, 19, 145, 4.8],
    [5, 20, 165, 4.6],
    [6, 21, 180, 4.5],
    [8, 23, 220, 4.5],
    [12, 26, 260, 4],
  ],
  "flux core": [
    [1.5, 15.5, 80, 7],
    [3, 18, 130, 5.5],
    [5, 20, 165, 4.8],
    [8, 24, 210, 4.4],
    [12, 27, 250, 4],
  ],
  stick: [
    [1.5, 21, 45, 5],
    [3, 23, 75, 4],
    [5, 24, 110, 4],
    [8, 24, 130, 3.2],
    [12, 25, 150, 2.6],
  ],
  TIG: [
    [1, 11, 35, 2],
    [1.5, 12, 60, 1.8],
    [3, 13, 110, 1.7],
    [5, 15, 160, 1.6],
    [8, 16, 210, 1.4],
    [12, 17, 240, 1.2],
  ],
};

/**
 * What other materials take of the amps and the travel of mild steel (from memory and common practice): stainless keeps its
 * heat and is welded colder; aluminium carries it away and is welded hotter and faster.
 */
const MATERIAL_SHARE: Record<"steel" | "stainless" | "aluminium", { amps: number; travel: number }> = {
  steel: { amps: 1, travel: 1 },
  stainless: { amps: 0.9, travel: 1.05 },
  aluminium: { amps: 1.15, travel: 1.8 },
};
const familyOf = (material: MaterialName): keyof typeof MATERIAL_SHARE =>
  material.startsWith("stainless") ? "stainless" : material.startsWith("aluminium") ? "aluminium" : "steel";

/** What a seam is, and how it lies while it is welded. */
export const SEAM_KINDS = ["groove", "fillet", "outside corner"] as const;
export const SEAM_POSITIONS = ["flat", "horizontal", "vertical", "overhead"] as const;
export type SeamKind = (typeof SEAM_KINDS)[number];
export type SeamPosition = (typeof SEAM_POSITIONS)[number];

/**
 * What a seam takes of the heat to begin with (from memory and common practice): a fillet loses heat three ways, an open
 * corner two; upward one goes slower, overhead and across colder.
 */
const SEAM_SHARE: Record<SeamKind, number> = { groove: 1, fillet: 1.1, "outside corner": 0.9 };
const POSITION_SHARE: Record<SeamPosition, number> = { flat: 1, horizontal: 0.95, vertical: 1.1, overhead: 0.9 };

/** Share of the heat to begin with that a seam takes. */
export const seamShare = (kind: SeamKind, position: SeamPosition): number =>
  SEAM_SHARE[kind] * POSITION_SHARE[position];

/** The least and the most that any seam takes of it. */
export const SEAM_SHARES: readonly [number, number] = [
  Math.min(...Object.values(SEAM_SHARE)) * Math.min(...Object.values(POSITION_SHARE)),
  Math.max(...Object.values(SEAM_SHARE)) * Math.max(...Object.values(POSITION_SHARE)),
];

/**
 * Settings to begin with, between the rows of the table in proportion to the wall, the last row beyond it.
 * @param wallMm thinnest wall that is welded. @param material of the tube.
 */
export function startingSettings(
  process: ProcessName,
  wallMm: number,
  material: MaterialName = "mild steel",
): Pick<Weld, "volts" | "amps" | "travelMmPerS"> {
  const take = MATERIAL_SHARE[familyOf(material)];
  const rows = STARTING[process];
  const above = rows.findIndex(([wall]) => wall >= wallMm);
  const high = rows[above === -1 ? rows.length - 1 : above] as Row;
  const low = rows[Math.max(0, (above === -1 ? rows.length : above) - 1)] as Row;
  const share = high[0] === low[0] ? 0 : Math.min(1, Math.max(0, (wallMm - low[0]) / (high[0] - low[0])));
  const between = (i: 1 | 2 | 3, step: number): number =>
    Math.round((low[i] + share * (high[i] - low[i])) / step) * step;
  return {
    volts: Math.round(2 * between(1, 0.5)) / 2,
    amps: 5 * Math.round((take.amps * between(2, 5)) / 5),
    travelMmPerS: Math.round(10 * take.travel * between(3, 0.1)) / 10,
  };
}

/**
 * Tacks to begin with: a little over three times the wall, neither a spot nor a bead, and no more than two fifths of a face, so that most of it is
 * still open (common practice, from memory).
 */
const TACK = { overWall: 10 / 3, leastMm: 5, mostMm: 12, ofFace: 0.4 } as const;

/** Length of a tack to begin with, mm. @param wallMm thinnest wall that is welded. @param faceMm narrowest face. */
export const startingTackMm = (wallMm: number, faceMm: number): number =>
  Math.min(TACK.ofFace * faceMm, TACK.mostMm, Math.max(TACK.leastMm, TACK.overWall * wallMm));

/** How far starting settings may be from what the machine will really do, as a share of the heat (own judgement). */
const UNSURE_CV = 0.3;

/** Factors for heat that nobody has read off a machine: contraction scatters by that besides. */
export function unsureHeat(factors: ShrinkFactors): ShrinkFactors {
  const wider = <F extends { cv: number }>(f: F): F => ({ ...f, cv: Math.hypot(f.cv, UNSURE_CV) });
  return { ...factors, transverse: wider(factors.transverse), longitudinal: wider(factors.longitudinal) };
}

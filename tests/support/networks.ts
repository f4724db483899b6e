import type { Vec2 } from "@/core/numeric";
import { ideal, type Reading } from "@/core/square";

/** A frame of 1200 by 800. */
export const QUAD: Record<string, Vec2> = {
  A: { x: 0, y: 0 },
  B: { x: 1200, y: 0 },
  C: { x: 1200, y: 800 },
  D: { x: 0, y: 800 },
};
/** The same with a cross member in the middle. */
export const PANELS: Record<string, Vec2> = { ...QUAD, M1AB: { x: 600, y: 0 }, M1CD: { x: 600, y: 800 } };
export const tape = (from: string, to: string, uMm = 0.5): Reading => ({
  kind: "distance",
  id: from.length + to.length === 2 ? from + to : `${from}-${to}`,
  from,
  to,
  valueMm: 0,
  uMm,
});
export const angle = (from: string, at: string, to: string): Reading => ({
  kind: "angle",
  id: `${from}^${at}^${to}`,
  from,
  at,
  to,
  valueRad: 0,
  uRad: (0.1 * Math.PI) / 180,
});
/** Four sides and two diagonals. */
export const SIX = ["AB", "BC", "CD", "DA", "AC", "BD"].map((s) => tape(s[0] as string, s[1] as string));
/** What these readings would read on a frame of such places. */
export const readOff = (nodes: Record<string, Vec2>, set: readonly Reading[]): Reading[] =>
  set.map((r) => ideal(r, nodes));

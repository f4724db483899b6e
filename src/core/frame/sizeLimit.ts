import { entry, type Vec3 } from "../numeric";
import { plainLength, type UnitPreference } from "../units";
import type { Structure } from "./structure";

/** Where a frame is parted so that every piece fits. */
interface SplitPlan {
  axis: "x" | "y" | "z";
  /** Planes, mm, from low to high. */
  at: number[];
  /** Members that are cut, for each plane. */
  cuts: string[][];
  why: string;
}

const AXES = ["x", "y", "z"] as const;
/** A cut nearer to a joint than this leaves no room for a sleeve and its beads, mm (own judgement). */
const ROOM_MM = 60;

/** Whether a box goes into another in any of the six ways to turn it. */
export const fits = (size: Vec3, room: Vec3): boolean => {
  const [a, b] = [[...size].sort((x, y) => x - y), [...room].sort((x, y) => x - y)];
  return a.every((v, i) => v <= entry(b, i) + 1e-9);
};

/**
 * Where to part a frame that is too large for a tank, a lorry or a doorway: across its longest axis, at planes that cut the
 * fewest members and keep away from joints.
 * @param room largest size that goes in, mm.
 * @returns null when it fits as it is; `at` empty when no parting across its longest axis helps.
 */
export function splitForSize(structure: Structure, room: Vec3, units: UnitPreference = "mm"): SplitPlan | null {
  const size = structure.high.map((v, i) => v - entry(structure.low, i)) as unknown as Vec3;
  if (fits(size, room)) return null;
  const longest = size.indexOf(Math.max(...size)) as 0 | 1 | 2;
  const axis = AXES[longest];
  const total = size[longest];
  const others = size.filter((_, i) => i !== longest);
  // The longest that a piece may be, with the other two sizes as they are.
  const most = [...new Set(room)]
    .sort((a, b) => b - a)
    .find((r) => {
      const rest = [...room];
      rest.splice(rest.indexOf(r), 1);
      const [a, b] = [[...others].sort((x, y) => x - y), rest.sort((x, y) => x - y)];
      return a.every((v, i) => v <= entry(b, i) + 1e-9);
    });
  if (!most || most < 2 * ROOM_MM)
    return { axis, at: [], cuts: [], why: "Its other two sizes do not fit either: no cut across its length helps." };
  const spans = structure.members.map((m) => {
    const ends = [m.ends.from.at[longest], m.ends.to.at[longest]];
    return { id: m.id, low: Math.min(...ends), high: Math.max(...ends) };
  });
  const joints = structure.joints.map((j) => j.at[longest]);
  const low = structure.low[longest];
  const cutAt = (x: number) => spans.filter((s) => s.low < x - 1 && s.high > x + 1).map((s) => s.id);
  const near = (x: number): number => Math.min(...joints.map((j) => Math.abs(j - x)), Number.POSITIVE_INFINITY);
  const pieces = Math.ceil(total / most - 1e-9);
  const at: number[] = [];
  for (let k = 1; k < pieces; k++) {
    const from = Math.max(at.at(-1) ?? low, low + total - (pieces - k) * most);
    const to = (at.at(-1) ?? low) + most;
    const wish = low + (k * total) / pieces;
    let best: { x: number; cost: number } | null = null;
    for (let i = 0; i <= 200; i++) {
      const x = from + ((to - from) * i) / 200;
      const cost = cutAt(x).length + (near(x) < ROOM_MM ? 1000 : 0) + Math.abs(x - wish) / total;
      if (!best || cost < best.cost) best = { x, cost };
    }
    at.push(Math.round((best as { x: number }).x));
  }
  const cuts = at.map(cutAt);
  return {
    axis,
    at,
    cuts,
    why: `${plainLength(Math.round(total), units)} along ${axis} does not go in: ${pieces} pieces of at most ${plainLength(Math.round(most), units)}, each cut ${plainLength(ROOM_MM, units)} or more from a joint, so that a sleeve and its beads have room.`,
  };
}

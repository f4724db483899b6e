import { norm, sub, type Vec2 } from "../numeric";
import { type BestFit, bestFit } from "./bestFit";
import { movable } from "./movable";
import { adjustNetwork, type NetworkFit, openPlaces, type Reading, type Tape } from "./network";
import { laidBy } from "./places";
import type { Measured } from "./squareCheck";

/** One tap: which place, which way, how far. */
export interface Tap {
  place: string;
  mm: number;
  uMm: number;
  /** The place that it is pushed toward or away from, whichever lies nearer to its way. */
  toward: { place: string; away: boolean } | null;
}

/** A place with how far it is off, mm. */
type FarOff = Measured & { place: string };

/** What the readings of any frame say about where its places lie. */
export interface GeneralCheck {
  fit: NetworkFit;
  /** Places that too few readings reach, left out. */
  untied: string[];
  /** Distances to such places, against the drawing: spacings along a side, how far a branch is off centre. mm. */
  apart: { id: string; from: string; to: string; offMm: number; uMm: number }[];
  /** Null when the readings do not fix the shape. */
  bestFit: BestFit | null;
  /** Farthest place from where it belongs, with its uncertainty. */
  farthest: FarOff | null;
  /** The farthest of those beyond the corners of a frame that has such; null where none was read. */
  farthestBeyond: FarOff | null;
  /** Places to tap, farthest off first; those that the tape cannot tell from right are left. */
  taps: Tap[];
}

const touched = (r: Reading): string[] =>
  r.kind === "distance" ? [r.from, r.to] : r.kind === "angle" ? [r.from, r.at, r.to] : [r.of, r.from, r.to];

/** Directions less apart than this, sine, fix a place along one line only. */
const PARALLEL = 0.05;

/** Whether readings fix a place to both sides: two distances that are not in line, or an angle or offset besides. */
function isFixed(place: string, readings: readonly Reading[], nodes: Record<string, Vec2>): boolean {
  let first: Vec2 | null = null;
  for (const r of readings) {
    if (!touched(r).includes(place)) continue;
    if (r.kind !== "distance") {
      if (first) return true;
      continue;
    }
    const way = sub(nodes[r.to], nodes[r.from]);
    const n = norm(way) || 1;
    const d = { x: way.x / n, y: way.y / n };
    if (first && Math.abs(first.x * d.y - first.y * d.x) > PARALLEL) return true;
    first ??= d;
  }
  return false;
}

/**
 * Readings of which every place is fixed to both sides: one that is not is left out with what reaches it, until nothing more
 * falls out.
 * @param nodes nominal places, mm.
 */
export function tied(
  readings: readonly Reading[],
  nodes: Record<string, Vec2>,
): { readings: Reading[]; untied: string[] } {
  let left = [...readings];
  const untied = new Set<string>();
  for (;;) {
    const places = new Set(left.flatMap(touched));
    const open = [...places].filter((p) => !isFixed(p, left, nodes));
    if (open.length === 0) return { readings: left, untied: [...untied] };
    for (const p of open) untied.add(p);
    left = left.filter((r) => !touched(r).some((p) => open.includes(p)));
  }
}

/** The place that lies most nearly along a move from `from`, ahead of it or behind. */
function towards(from: string, move: Vec2, nodes: Record<string, Vec2>): Tap["toward"] {
  const start = nodes[from];
  const size = norm(move);
  let best: { place: string; along: number } | null = null;
  for (const [place, at] of Object.entries(nodes)) {
    const way = sub(at, start);
    const far = norm(way);
    if (place === from || far === 0) continue;
    const along = (way.x * move.x + way.y * move.y) / (far * size);
    if (!best || Math.abs(along) > Math.abs(best.along) + 1e-9) best = { place, along };
  }
  return best && Math.abs(best.along) > 0.5 ? { place: best.place, away: best.along < 0 } : null;
}

/** Fit of the places that the readings fix; those that they leave open are left out one after the other, and named. */
function fitted(nodes: Record<string, Vec2>, readings: readonly Reading[], tapes: Record<string, Tape>) {
  const untied = new Set<string>();
  let left = [...readings];
  for (;;) {
    const use = tied(left, nodes);
    for (const p of use.untied) untied.add(p);
    const used = Object.fromEntries(
      Object.entries(nodes).filter(([n]) => use.readings.some((r) => touched(r).includes(n))),
    );
    const done = (fit: NetworkFit) => ({ fit, kept: use.readings, untied: [...untied], used });
    if (Object.keys(used).length < 3) return done(adjustNetwork({ nodes, readings: [], tapes }));
    const fit = adjustNetwork({ nodes: used, readings: use.readings, tapes });
    const open = fit.status === "undetermined" ? openPlaces({ nodes: used, readings: use.readings }) : [];
    if (open.length === 0) return done(fit);
    for (const p of open) untied.add(p);
    left = use.readings.filter((r) => !touched(r).some((p) => open.includes(p)));
  }
}

/**
 * Where the places of any frame lie, by least squares, and how each must move.
 * @param nodes nominal places, mm. @param readings distances, angles and offsets between them. @param tapes shared errors.
 * @param wanted where they shall be; nominal when left out. @param rods places of each member in order along it: what is told
 * to be tapped stretches and bends none of them. @param points places that are no part of the frame: never moved.
 * @param beyond places beyond the corners of a frame: it is laid over by those then.
 */
export function generalCheck(
  nodes: Record<string, Vec2>,
  readings: readonly Reading[],
  tapes: Record<string, Tape> = {},
  wanted: Record<string, Vec2> = nodes,
  rods: readonly (readonly string[])[] = [],
  points: Readonly<Record<string, Vec2>> = {},
  beyond: readonly string[] = [],
): GeneralCheck {
  const { fit, kept, untied, used } = fitted(nodes, readings, tapes);
  const apart = readings.flatMap((r) => {
    if (r.kind !== "distance" || kept.includes(r)) return [];
    const drawn = norm(sub(wanted[r.to], wanted[r.from]));
    const tape = r.tape ? tapes[r.tape] : undefined;
    return [
      {
        id: r.id,
        from: r.from,
        to: r.to,
        offMm: r.valueMm - drawn,
        uMm: Math.hypot(r.uMm, tape?.uZeroMm ?? 0, (tape?.uScale ?? 0) * r.valueMm),
      },
    ];
  });
  const names = Object.keys(used).filter((n) => !points[n]);
  const ofFrame = (all: Record<string, Vec2>): Record<string, Vec2> =>
    Object.fromEntries(Object.entries(all).filter(([n]) => !points[n]));
  if (fit.status === "undetermined")
    return { fit, untied, apart, bestFit: null, farthest: null, farthestBeyond: null, taps: [] };
  const laid = (p: Record<string, Vec2>): BestFit => bestFit(ofFrame(p), wanted, laidBy(beyond));
  const found = laid(fit.points);
  const uOf = (place: string): number => fit.uOf((p) => norm(laid(p).moves[place]));
  const farthestOf = (of: readonly string[]): FarOff | null => {
    const first = of
      .map((place) => ({ place, value: norm(found.moves[place]) }))
      .reduce<{ place: string; value: number } | null>((a, b) => (a && a.value >= b.value ? a : b), null);
    return first && { ...first, u: uOf(first.place) };
  };
  const made = movable(found.moves, ofFrame(used), rods, laidBy(beyond));
  const taps = names
    .map((place): Tap & { move: Vec2 } => {
      const move = made[place];
      return { place, mm: norm(move), uMm: uOf(place), toward: null, move };
    })
    .sort((a, b) => b.mm - a.mm);
  return {
    fit,
    untied,
    apart,
    bestFit: found,
    farthest: farthestOf(names),
    farthestBeyond: farthestOf(names.filter((n) => beyond.includes(n))),
    taps: taps
      .filter((t) => t.mm > 2 * t.uMm)
      .map(({ move, ...t }) => ({ ...t, toward: towards(t.place, move, used) })),
  };
}

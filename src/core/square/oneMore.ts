import type { Vec2 } from "../numeric";
import { adjustNetwork, type NetworkFit, type Reading, type Tape } from "./network";

/** Readings that could be taken together, with what they cost: tapes one each, an angle two, what is written down nothing. */
export interface Candidate {
  readings: readonly Reading[];
  cost: number;
}

/** A set of readings that could be taken next, and what it would do. */
interface OneMore {
  ids: string[];
  /** Likeness of the tests of the two most alike suspects afterwards, 0 to 1. */
  alike: number;
}

/** Tests that are less alike than this tell a slip in one reading from a slip in the other. */
const APART = 0.9;

/** The same network with every reading as it would be if nothing were wrong. */
function planned(nodes: Record<string, Vec2>, readings: readonly Reading[], tapes: Record<string, Tape>): NetworkFit {
  return adjustNetwork({ nodes, readings: readings.map((r) => ideal(r, nodes)), tapes });
}

/** A reading of the nominal frame. */
export function ideal(r: Reading, nodes: Record<string, Vec2>): Reading {
  const at = (n: string): Vec2 => nodes[n];
  if (r.kind === "distance") return { ...r, valueMm: Math.hypot(at(r.to).x - at(r.from).x, at(r.to).y - at(r.from).y) };
  if (r.kind === "angle") {
    const [a, b] = [r.from, r.to].map((n) => ({ x: at(n).x - at(r.at).x, y: at(n).y - at(r.at).y })) as [Vec2, Vec2];
    return { ...r, valueRad: Math.atan2(Math.abs(a.x * b.y - a.y * b.x), a.x * b.x + a.y * b.y) };
  }
  const [a, b, p] = [at(r.from), at(r.to), at(r.of)];
  const length = Math.hypot(b.x - a.x, b.y - a.y);
  return { ...r, valueMm: ((b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x)) / length };
}

const idsOf = (set: readonly Candidate[]): string[] => set.flatMap((c) => c.readings.map((r) => r.id));

const worstAlike = (fit: NetworkFit, suspects: readonly string[]): number => {
  let worst = 0;
  for (let i = 0; i < suspects.length; i++)
    for (let j = i + 1; j < suspects.length; j++) worst = Math.max(worst, fit.alike(suspects[i], suspects[j]));
  return worst;
};

/**
 * What to measure besides, when readings contradict each other and the numbers cannot say which is wrong: the cheapest one or
 * two readings that would tell the suspects apart; the most telling ones when none quite does.
 * Source: correlation of the tests of single readings (Baarda; from memory).
 * @param suspects ids of readings that may be wrong. @param candidates what could be read besides.
 * @returns null when nothing would help.
 */
export function oneMore(
  nodes: Record<string, Vec2>,
  readings: readonly Reading[],
  tapes: Record<string, Tape>,
  suspects: readonly string[],
  candidates: readonly Candidate[],
): OneMore | null {
  const now = worstAlike(planned(nodes, readings, tapes), suspects);
  let best: (OneMore & { cost: number }) | null = null;
  const consider = (set: readonly Candidate[]): void => {
    const cost = set.reduce((s, c) => s + c.cost, 0);
    if (best && best.alike < APART && cost >= best.cost) return;
    const fit = planned(nodes, [...readings, ...set.flatMap((c) => c.readings)], tapes);
    if (fit.status === "undetermined") return;
    const alike = worstAlike(fit, suspects);
    const better =
      !best ||
      (alike < APART && (best.alike >= APART || cost < best.cost)) ||
      (best.alike >= APART && alike < best.alike - 1e-6);
    if (better) best = { ids: idsOf(set), alike, cost };
  };
  for (const c of candidates) consider([c]);
  if (!best || (best as OneMore).alike >= APART)
    candidates.forEach((c, i) => {
      for (const d of candidates.slice(i + 1)) consider([c, d]);
    });
  const found = best as (OneMore & { cost: number }) | null;
  return found && found.alike < now - 0.01 ? { ids: found.ids, alike: found.alike } : null;
}

/** What a set of readings that is not taken yet would be able to prove. */
export interface PlannedSet {
  ids: string[];
  cost: number;
  /** Standard uncertainty of what was asked for. */
  u: number;
  /** Smallest slip of a tape that would be noticed, in the worst place, mm; infinite when one of them would pass unseen. */
  detectableMm: number;
  /** Whether a slip that is noticed can be laid on one reading. */
  locates: boolean;
}

function judged(
  nodes: Record<string, Vec2>,
  set: readonly Candidate[],
  tapes: Record<string, Tape>,
  uOf: (fit: NetworkFit) => number,
): PlannedSet | null {
  const fit = planned(
    nodes,
    set.flatMap((c) => c.readings),
    tapes,
  );
  if (fit.status === "undetermined") return null;
  const ids = idsOf(set);
  const lengths = new Set(set.flatMap((c) => c.readings).flatMap((r) => (r.kind === "angle" ? [] : [r.id])));
  const checked = fit.readings.filter((r) => lengths.has(r.id));
  return {
    ids,
    cost: set.reduce((s, c) => s + c.cost, 0),
    u: uOf(fit),
    detectableMm: Math.max(...checked.map((r) => (r.controlled ? r.detectable : Number.POSITIVE_INFINITY))),
    locates: checked.every((r) => r.controlled) && worstAlike(fit, [...lengths]) < APART,
  };
}

/** Cheapest sets for three aims, each the least that does it. */
interface CheapestSets {
  /** Enough to know the shape as well as is needed. */
  decides: PlannedSet | null;
  /** Shows, besides, that a tape was misread. */
  notices: PlannedSet | null;
  /** Says, besides, which. */
  locates: PlannedSet | null;
}

/** Sets that are tried at most: beyond, the search goes on by adding the reading that helps most. */
const MOST_CANDIDATES = 12;

/**
 * The cheapest sets of readings that suffice, found before anything is measured.
 * @param candidates what could be read (at most a dozen are weighed against each other).
 * @param uOf standard uncertainty of what is to be decided, from a fit. @param wantedU what it may be at most.
 */
export function cheapestSets(
  nodes: Record<string, Vec2>,
  candidates: readonly Candidate[],
  tapes: Record<string, Tape>,
  uOf: (fit: NetworkFit) => number,
  wantedU: number,
): CheapestSets {
  const list = candidates.slice(0, MOST_CANDIDATES);
  const places = Object.keys(nodes).length;
  const least = 2 * places - 3;
  const out: CheapestSets = { decides: null, notices: null, locates: null };
  const sets: Candidate[][] = [];
  for (let mask = 1; mask < 1 << list.length; mask++) {
    const set = list.filter((_, i) => mask & (1 << i));
    if (set.reduce((s, c) => s + c.readings.length, 0) >= least) sets.push(set);
  }
  const costOf = (set: readonly Candidate[]): number => set.reduce((s, c) => s + c.cost, 0);
  sets.sort((a, b) => costOf(a) - costOf(b) || a.length - b.length);
  for (const set of sets) {
    if (out.decides && out.notices && out.locates) break;
    // A set that is no cheaper than what is found for every aim it could serve is not worked out.
    const got = judged(nodes, set, tapes, uOf);
    if (!got || got.u > wantedU * (1 + 1e-9)) continue;
    out.decides ??= got;
    if (Number.isFinite(got.detectableMm)) out.notices ??= got;
    if (got.locates) out.locates ??= got;
  }
  return out;
}

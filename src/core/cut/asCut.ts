import { leansAsDrawn, type Quadrilateral, type Structure, TOLERANCES } from "../frame";
import { formatSmall, type UnitPreference } from "../units";
import type { CutPiece } from "./cutList";

/** A piece as it was measured, long point to long point, mm. */
interface CutReading {
  mm: number;
  /** Standard uncertainty that is new in each reading: zero and scale are shared by readings of one instrument. */
  uMm: number;
}

/** One piece against what it was to be cut to. */
interface CutPieceCheck {
  member: string;
  targetMm: number;
  line: CutPiece;
  mm: number;
  /** Read less target. */
  offMm: number;
  uMm: number;
}

type PairWord = "match" | "do not match" | "too close to call";

/** Two pieces that lie opposite each other. */
export interface PairCheck {
  members: [string, string];
  longer: string;
  /** How much longer the longer one is. */
  byMm: number;
  uMm: number;
  word: PairWord;
  /** What the difference alone does to the corners, mm per metre. */
  skewMmPerM: number;
}

export interface AsCut {
  pieces: CutPieceCheck[];
  pairs: PairCheck[];
  /** Other pieces of one kind that were read: the longest and the shortest, and their difference. */
  alike: { members: string[]; longest: string; shortest: string; byMm: number; word: PairWord }[];
  /** Four equal sides: which pieces to put opposite each other so that pairs match best; null when they stand so already. */
  swap: { pairs: [[string, string], [string, string]]; worstMm: number } | null;
  missing: string[];
}

/** Opposite sides may differ by this (common practice, no source): more, and equal diagonals prove nothing. */
const PAIR_MM = 0.5;
/** 95 % one-sided, as for limits. */
const GUARD = 1.645;

/** Sides across from each other. */
const acrossOf = ({ sides }: Pick<Quadrilateral, "sides">): [string, string][] => [
  [sides.AB, sides.CD],
  [sides.BC, sides.DA],
];

/** Sides across from each other that are drawn alike, two and two: these shall match. */
export function alikeSides({ quad, members }: Pick<Structure, "quad" | "members">): [string, string][] {
  if (!quad) return [];
  const long = new Map(members.map((m) => [m.id, m.longMm]));
  return acrossOf(quad).filter(([a, b]) => Math.abs((long.get(a) ?? 0) - (long.get(b) ?? 0)) <= TOLERANCES.samePieceMm);
}

/** What must match before the first cut, in a sentence; null where nothing lies across from its like. */
export function matchWords(structure: Pick<Structure, "quad" | "members">, units: UnitPreference): string | null {
  const pairs = alikeSides(structure);
  const within = `must match within ${formatSmall(PAIR_MM, units)}`;
  const [pair] = pairs;
  if (!pair || !structure.quad) return null;
  if (pairs.length < 2) return `${pair.join(" and ")} ${within}.`;
  return `Opposite sides ${within}${leansAsDrawn(structure.quad) ? "" : ", or equal diagonals prove nothing"}.`;
}

function wordOf(byMm: number, uMm: number): PairWord {
  if (byMm > PAIR_MM + GUARD * uMm) return "do not match";
  return byMm <= PAIR_MM - GUARD * uMm ? "match" : "too close to call";
}

/**
 * Pairs pieces of one length so that the two of each pair differ least: the sorted neighbours. No other pairing has a
 * smaller largest difference, nor a smaller sum. Source: exchange argument (closed form).
 * @param lengths an even number of pieces. @returns names in pairs.
 */
export function bestPairs(lengths: Readonly<Record<string, number>>): [string, string][] {
  const names = Object.keys(lengths).sort((a, b) => (lengths[a] as number) - (lengths[b] as number));
  return Array.from({ length: Math.floor(names.length / 2) }, (_, i) => [
    names[2 * i] as string,
    names[2 * i + 1] as string,
  ]);
}

/**
 * Checks pieces as they were cut: against their targets, opposite ones against each other.
 * @param cut the cut list. @param readings by member. @param quad tells which pieces lie opposite each other, if any.
 */
export function asCut(
  cut: readonly CutPiece[],
  readings: Readonly<Record<string, CutReading>>,
  quad: Pick<Quadrilateral, "sides"> | null,
): AsCut {
  const opposite = quad ? acrossOf(quad) : [];
  const all = cut.flatMap((p) => p.members.map((member) => ({ member, targetMm: p.cutLongPointMm, line: p })));
  const pieces = all.flatMap(({ member, targetMm, line }): CutPieceCheck[] => {
    const r = readings[member];
    return r ? [{ member, targetMm, line, mm: r.mm, offMm: r.mm - targetMm, uMm: r.uMm }] : [];
  });
  const of = (member: string): CutPieceCheck | undefined => pieces.find((p) => p.member === member);
  const pairs = opposite.flatMap(([a, b], i): PairCheck[] => {
    const [p, q] = [of(a), of(b)];
    const across = opposite[1 - i]?.map((m) => all.find((x) => x.member === m)?.targetMm ?? 0)[0];
    // A pair that is drawn unequal is no pair.
    if (!p || !q || Math.abs(p.line.longPointMm - q.line.longPointMm) > TOLERANCES.samePieceMm) return [];
    const byMm = Math.abs(p.mm - q.mm);
    const uMm = Math.hypot(p.uMm, q.uMm);
    return [
      {
        members: [a, b],
        longer: p.mm >= q.mm ? a : b,
        byMm,
        uMm,
        word: wordOf(byMm, uMm),
        // The two corners at either end share it: half each over the sides across.
        skewMmPerM: across ? (1000 * byMm) / (2 * across) : 0,
      },
    ];
  });
  const inPairs = new Set(opposite.flat());
  const alike = cut.flatMap((line): AsCut["alike"] => {
    const read = line.members.flatMap((m) => (inPairs.has(m) ? [] : (of(m) ?? []))).sort((a, b) => a.mm - b.mm);
    const [shortest, longest] = [read[0], read.at(-1)];
    if (!shortest || !longest || read.length < 2) return [];
    const byMm = longest.mm - shortest.mm;
    return [
      {
        members: read.map((r) => r.member),
        longest: longest.member,
        shortest: shortest.member,
        byMm,
        word: wordOf(byMm, Math.hypot(longest.uMm, shortest.uMm)),
      },
    ];
  });
  const square = quad !== null && cut.some((line) => opposite.flat().every((m) => line.members.includes(m)));
  const sides = Object.fromEntries(opposite.flat().flatMap((m) => (of(m) ? [[m, of(m)?.mm ?? 0]] : [])));
  let swap: AsCut["swap"] = null;
  if (square && Object.keys(sides).length === 4) {
    const [first, second] = bestPairs(sides) as [[string, string], [string, string]];
    const gap = ([a, b]: readonly [string, string]): number => Math.abs((sides[a] as number) - (sides[b] as number));
    const worstMm = Math.max(gap(first), gap(second));
    const now = Math.max(...opposite.map((p) => gap(p)));
    if (worstMm < now - 1e-9) swap = { pairs: [first, second], worstMm };
  }
  return {
    pieces,
    pairs,
    alike,
    swap,
    missing: all.filter((x) => !of(x.member)).map((x) => x.member),
  };
}

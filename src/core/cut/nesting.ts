import { entry, radians } from "../numeric";
import type { BarPiece } from "./alsoPieces";
import type { Stock } from "./stockSchema";

/** A way to cut one kind of bar. */
export interface Pattern {
  bar: number;
  /** How many of each piece. */
  counts: number[];
}

/** Bars and pieces put as an integer program: choose how often each pattern is cut. */
export interface NestingProblem {
  pieces: { members: string[]; quantity: number; longMm: number; needMm: number }[];
  bars: { id: string; lengthMm: number; usableMm: number; offcut: boolean; quantity: number; cost: number }[];
  patterns: Pattern[];
  byPrice: boolean;
  /** Whether every way to cut is in it; else ways are added as they are found to be worth it. */
  complete: boolean;
  kerfMm: number;
}

/** One bar as it is cut. */
export interface CutBar {
  id: string;
  offcut: boolean;
  lengthMm: number;
  /** Names and long-point lengths, from the first cut on. */
  pieces: { member: string; longMm: number }[];
  usedMm: number;
  leftMm: number;
  /** Long enough to keep. */
  keep: boolean;
}

export interface Nesting {
  bars: CutBar[];
  /** Of each length to buy. */
  buy: { id: string; lengthMm: number; count: number }[];
  price: number | null;
  boughtMm: number;
  piecesMm: number;
  /** Pieces that what is at hand does not yield. */
  missing: string[];
  /** No plan buys less (or, with prices, for less). */
  proven: boolean;
  /** What any plan must cost at least, as a share of this one; 1 when proven. */
  bound: number;
}

/** What a solver of linear and mixed-integer programs gives back. */
export interface Solved {
  optimal: boolean;
  /** Value of each variable by its name. */
  values: Record<string, number>;
  /** What one more of each row would cost, by its name; of a linear program only. */
  duals: Record<string, number>;
}

/** More ways to cut than a plan for one frame needs. */
const MOST_PATTERNS = 300;

/** An offcut costs next to nothing, the shorter the less: it goes first. */
const OFFCUT_COST = 1e-3;

const number = (v: number): string => (+v.toFixed(6) === 0 ? "0" : String(+v.toFixed(6)));

/**
 * Puts the buying of bars as an integer program over cutting patterns (Gilmore and Gomory, 1961, from memory).
 * Mitred pieces that are turned over in turn share their cuts: each takes its centre length, and a bar loses one end.
 * @param cut the cut list. @param stock bars and saw. @param faceMm width of the tube seen at the saw.
 * @returns the problem, or which piece is longer than any bar.
 */
export function nestingProblem(
  cut: readonly BarPiece[],
  stock: Stock,
  faceMm: number,
): NestingProblem | { tooLong: string } {
  const kerf = stock.kerf.mm;
  // Only equal cuts fall into each other when every other piece is turned over.
  const mitred = (p: BarPiece): boolean =>
    p.cuts === "opposed" && p.sawDeg[0] !== 0 && Math.abs(p.sawDeg[0] - p.sawDeg[1]) < 0.005;
  // Parallel cuts fall into each other as they are: the piece is slid on, not turned over.
  const shares = (p: BarPiece): boolean =>
    (stock.flip && mitred(p)) ||
    (p.cuts === "parallel" && Math.abs(Math.abs(p.sawDeg[0]) - Math.abs(p.sawDeg[1])) < 0.005);
  const tilt = (p: BarPiece): number => Math.cos(radians(p.sawDeg[0]));
  const pieces = cut.map((p) => ({
    members: p.members,
    quantity: p.quantity,
    longMm: p.cutLongPointMm,
    needMm: shares(p) ? (p.cutLongPointMm + p.cutShortPointMm) / 2 + kerf / tilt(p) : p.cutLongPointMm + kerf / tilt(p),
  }));
  // Turned over in turn, a row of mitred pieces still starts and ends on a slant.
  const slant = Math.max(0, ...cut.filter(shares).map((p) => faceMm * Math.tan(Math.abs(radians(p.sawDeg[0])))));
  const byPrice = stock.bars.length > 0 && stock.bars.every((b) => b.price !== null);
  const bars = [
    ...stock.offcuts.map((o) => ({
      id: o.id,
      lengthMm: o.length.mm,
      offcut: true,
      quantity: o.quantity,
      cost: OFFCUT_COST * o.length.mm * (byPrice ? 1e-3 : 1),
    })),
    ...stock.bars.map((b) => ({
      id: b.id,
      lengthMm: b.length.mm,
      offcut: false,
      quantity: Number.POSITIVE_INFINITY,
      cost: byPrice ? (b.price ?? 0) : b.length.mm,
    })),
  ].map((b) => ({ ...b, usableMm: b.lengthMm - stock.grip.mm - slant }));
  // The last cut of a bar may fall off its end.
  const fits = (bar: (typeof bars)[number], need: number): boolean => need <= bar.usableMm + kerf + 1e-9;
  const longest = pieces.find(
    (p) => !bars.some((b) => !b.offcut && fits(b, p.needMm)) && !bars.some((b) => fits(b, p.needMm)),
  );
  if (longest) return { tooLong: longest.members.join(", ") };
  const patterns: Pattern[] = [];
  bars.forEach((bar, index) => {
    const counts = pieces.map(() => 0);
    const walk = (i: number, used: number): void => {
      if (patterns.length >= MOST_PATTERNS) return;
      const piece = pieces[i];
      if (!piece) {
        // Only patterns into which no further piece fits can be of use.
        const full = pieces.every((p, k) => entry(counts, k) >= p.quantity || !fits(bar, used + p.needMm));
        if (full && counts.some((c) => c > 0)) patterns.push({ bar: index, counts: [...counts] });
        return;
      }
      const most = Math.min(piece.quantity, Math.floor((bar.usableMm + kerf + 1e-9 - used) / piece.needMm));
      for (let c = Math.max(0, most); c >= 0; c--) {
        counts[i] = c;
        walk(i + 1, used + c * piece.needMm);
      }
      counts[i] = 0;
    };
    walk(0, 0);
  });
  return { pieces, bars, patterns, byPrice, complete: patterns.length < MOST_PATTERNS, kerfMm: kerf };
}

/** The program in LP form. @param whole patterns are cut a whole number of times; else the linear program under it. */
export function nestingLp({ pieces, bars, patterns }: NestingProblem, whole: boolean): string {
  const sum = (of: (p: Pattern) => number): string =>
    patterns
      .flatMap((p, k) => {
        const v = of(p);
        return v === 0 ? [] : [`${number(v)} x${k}`];
      })
      .join(" + ") || "0 x0";
  return [
    "Minimize",
    ` cost: ${sum((p) => bars[p.bar]?.cost ?? 0)}`,
    "Subject To",
    ...pieces.map((p, i) => ` piece${i}: ${sum((q) => q.counts[i] ?? 0)} >= ${p.quantity}`),
    ...bars.flatMap((b, i) =>
      Number.isFinite(b.quantity) ? [` bar${i}: ${sum((q) => (q.bar === i ? 1 : 0))} <= ${b.quantity}`] : [],
    ),
    ...(whole ? ["General", ` ${patterns.map((_, k) => `x${k}`).join(" ")}`] : []),
    "End",
    "",
  ].join("\n");
}

/** Reads a solution back into bars. @param stock for what is worth keeping. */
export function nestingOf(problem: NestingProblem, solved: Solved, stock: Stock): Nesting {
  const { pieces, bars, patterns, byPrice } = problem;
  const left = pieces.map((p) => p.quantity);
  const given = pieces.map(() => 0);
  const cutBars: CutBar[] = [];
  patterns.forEach((pattern, k) => {
    const times = Math.round(solved.values[`x${k}`] ?? 0);
    const bar = bars[pattern.bar];
    if (!bar) return;
    for (let t = 0; t < times; t++) {
      const made: CutBar["pieces"] = [];
      let need = 0;
      pattern.counts.forEach((count, i) => {
        const piece = pieces[i];
        if (!piece) return;
        // A pattern may hold more of a piece than is still wanted: that room stays offcut.
        for (let c = 0; c < count && entry(left, i) > 0; c++) {
          left[i] = entry(left, i) - 1;
          made.push({ member: piece.members[entry(given, i)] ?? piece.members.join(), longMm: piece.longMm });
          given[i] = entry(given, i) + 1;
          need += piece.needMm;
        }
      });
      if (made.length === 0) continue;
      const usedMm = Math.min(bar.lengthMm, need + (bar.lengthMm - bar.usableMm));
      const leftMm = bar.lengthMm - usedMm;
      cutBars.push({
        id: bar.id,
        offcut: bar.offcut,
        lengthMm: bar.lengthMm,
        pieces: made,
        usedMm,
        leftMm,
        keep: leftMm >= stock.least.mm && leftMm > 0,
      });
    }
  });
  const bought = cutBars.filter((b) => !b.offcut);
  const buy = stock.bars.flatMap((b) => {
    const count = bought.filter((c) => c.id === b.id).length;
    return count > 0 ? [{ id: b.id, lengthMm: b.length.mm, count }] : [];
  });
  const cost = cutBars.reduce((s, b) => s + (bars.find((x) => x.id === b.id)?.cost ?? 0), 0);
  return {
    bars: cutBars,
    buy,
    price: byPrice ? bought.reduce((s, c) => s + (stock.bars.find((b) => b.id === c.id)?.price ?? 0), 0) : null,
    boughtMm: bought.reduce((s, b) => s + b.lengthMm, 0),
    piecesMm: pieces.reduce((s, p) => s + p.quantity * p.longMm, 0),
    missing: pieces.flatMap((p, i) => p.members.slice(entry(given, i))),
    proven: solved.optimal && problem.complete,
    bound: (solved.optimal && problem.complete) || cost === 0 ? 1 : Math.min(1, leastCost(problem) / cost),
  };
}

/** What any plan costs at least: every mm of the pieces at the best price per mm. */
export function leastCost({ pieces, bars }: NestingProblem): number {
  const perMm = Math.min(...bars.map((b) => b.cost / b.usableMm).filter((v) => v > 0));
  return pieces.reduce((s, p) => s + p.quantity * p.needMm, 0) * perMm * 0.999;
}

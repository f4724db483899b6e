import { normalCdf } from "../../numeric";

/** A quantity as it was read, and what is allowed of it. */
export interface Stands {
  value: number;
  u: number;
  low: number | null;
  high: number | null;
}

/** Something that can be done, with what one unit of it does. */
export interface RemedyOption {
  id: string;
  /** Change of each quantity per unit. */
  effect: Readonly<Record<string, number>>;
  /** Most of it. */
  max: number;
  /** Only whole units: a bead is laid or not. */
  unitSteps?: boolean;
  /** Coefficient of variation of its effect. */
  cv: number;
  effortMin: number;
  /** Chance that it spoils the frame. */
  risk: number;
  loosens?: boolean;
}

/** What is done, in order. */
export interface CorrectionSteps {
  steps: { remedy: string; amount: number }[];
  /** Chance that every quantity is then inside. */
  chance: number;
  effortMin: number;
}

export interface CorrectionChoice {
  best: CorrectionSteps;
  doNothing: number;
  /** How many were tried, and the best chance of any of them. */
  considered: number;
  bestChance: number;
  /** All that were kept, best first: sets within a hair of each other by their effort. */
  ranked: CorrectionSteps[];
}

/** Hermite's places and weights for a standard normal variable, seven of them. Source: Abramowitz and Stegun, table 25.10 (from memory). */
const HERMITE = [
  [0, 0.4571428571428571],
  [1.154405394739968, 0.2401231786050127],
  [2.366759410734541, 0.0307571239675865],
  [3.750439717725742, 0.0005482688559722],
].flatMap(([x = 0, w = 0]) => (x === 0 ? [[0, w] as const] : [[-x, w] as const, [x, w] as const]));

/** Chances nearer than this are equal; then the least effort counts. */
export const EQUAL_CHANCE = 0.01;
/** Of many remedies only the best by themselves are put together in pairs. */
const KEPT = 12;
const GRID = 5;
/** Halvings of the grid about the best. */
const REFINED = 2;

const logSd = (cv: number): number => Math.sqrt(Math.log(1 + cv * cv));

/** So many standard deviations off, the rest is less than what a number holds. */
const FAR = 8.5;
const below = (t: number): number => (t > FAR ? 1 : t < -FAR ? 0 : normalCdf(t));

/** Chance that all quantities are inside after so much of some remedies: over the scatter of each one's effect. */
export function chanceAfter(
  quantities: Readonly<Record<string, Stands>>,
  does: readonly { remedy: RemedyOption; amount: number }[],
): number {
  const names = Object.keys(quantities);
  const start = names.map((n) => quantities[n]?.value ?? 0);
  const limits = names.map((n) => quantities[n] as Stands);
  const inside = (at: readonly number[]): number => {
    let p = 1;
    for (let i = 0; i < limits.length && p > 0; i++) {
      const { high, low, u } = limits[i] as Stands;
      const x = at[i] ?? 0;
      const over = high === null ? 1 : below((high - x) / u);
      const under = low === null ? 0 : below((low - x) / u);
      p *= Math.max(0, over - under);
    }
    return p;
  };
  const from = (index: number, at: readonly number[]): number => {
    const go = does[index];
    if (!go) return inside(at);
    const sd = logSd(go.remedy.cv);
    return HERMITE.reduce((sum, [z, w]) => {
      const share = go.amount * Math.exp(sd * z);
      return (
        sum +
        w *
          from(
            index + 1,
            at.map((v, i) => v + share * (go.remedy.effect[names[i] ?? ""] ?? 0)),
          )
      );
    }, 0);
  };
  return from(0, start) * does.reduce((p, d) => p * (1 - d.remedy.risk), 1);
}

const amountsOf = (r: RemedyOption, places: number): number[] =>
  r.unitSteps
    ? Array.from({ length: Math.floor(r.max) }, (_, i) => i + 1)
    : Array.from({ length: places }, (_, i) => (r.max * (i + 1)) / places);

interface Single {
  of: RemedyOption;
  plan: CorrectionSteps;
}

/**
 * The remedies that are put together: of each quantity by itself those that do most for it, then those that do most for all. By the chance of
 * all alone, what mends one of two faults would stand behind many that half mend the other.
 */
function keptOf(quantities: Readonly<Record<string, Stands>>, singles: readonly Single[]): Single[] {
  const keys = Object.keys(quantities);
  const by = (list: readonly Single[], worth: (s: Single) => number): Single[] =>
    [...list]
      .map((s) => ({ s, w: worth(s) }))
      .sort((a, b) => b.w - a.w || a.s.plan.effortMin - b.s.plan.effortMin)
      .map((x) => x.s);
  const outside = keys.filter((k) => chanceAfter({ [k]: quantities[k] as Stands }, []) < CLEAR);
  const each = Math.max(1, Math.floor(KEPT / (outside.length + 1)));
  const own = outside.flatMap((k) =>
    by(
      singles.filter((s) => s.of.effect[k] !== undefined),
      (s) => {
        const q = { [k]: quantities[k] as Stands };
        const amounts = amountsOf(s.of, GRID);
        return Math.max(...amounts.map((amount) => chanceAfter(q, [{ remedy: s.of, amount }])));
      },
    ).slice(0, each),
  );
  return [...new Set([...own, ...by(singles, (s) => s.plan.chance)])].slice(0, KEPT);
}
/** A quantity that is inside with this chance needs nothing. */
const CLEAR = 0.95;

/** What loosens goes first, then what takes less of its most. */
const inOrder = (does: readonly { remedy: RemedyOption; amount: number }[]) =>
  [...does].sort(
    (a, b) =>
      Number(b.remedy.loosens ?? false) - Number(a.remedy.loosens ?? false) ||
      a.amount - b.amount ||
      a.remedy.id.localeCompare(b.remedy.id),
  );

/**
 * What to do about a frame that is outside its limits: none, one or two remedies, by the chance that every limit is then met, and of equal
 * ones by the least effort. Amounts are tried on a grid, and refined about the best.
 * @param places of the grid per remedy. @param most remedies in one way. @param refined halvings of the grid about the best.
 */
export function planCorrection(
  quantities: Readonly<Record<string, Stands>>,
  remedies: readonly RemedyOption[],
  places = GRID,
  most: 2 | 3 = 2,
  refined = REFINED,
): CorrectionChoice {
  const doNothing = chanceAfter(quantities, []);
  const best = (does: readonly RemedyOption[]): CorrectionSteps => {
    const grids = does.map((r) => amountsOf(r, places));
    let top: { amounts: number[]; chance: number } = { amounts: [], chance: -1 };
    const go = (index: number, amounts: number[], of: readonly number[][]): void => {
      if (index === does.length) {
        const chance = chanceAfter(
          quantities,
          does.map((remedy, i) => ({ remedy, amount: amounts[i] ?? 0 })),
        );
        if (chance > top.chance + 1e-12) top = { amounts, chance };
        return;
      }
      for (const a of of[index] ?? []) go(index + 1, [...amounts, a], of);
    };
    go(0, [], grids);
    const step = does.map((r) => r.max / places);
    for (let round = 0; round < refined; round++) {
      const about = does.map((r, i) => {
        const at = top.amounts[i] ?? 0;
        if (r.unitSteps) return [at];
        const half = (step[i] ?? 0) / 2 ** (round + 1);
        return [at - half, at, at + half].filter((a) => a > 0 && a <= r.max);
      });
      go(0, [], about);
    }
    const steps = inOrder(does.map((remedy, i) => ({ remedy, amount: top.amounts[i] ?? 0 })));
    return {
      steps: steps.map(({ remedy, amount }) => ({ remedy: remedy.id, amount })),
      chance: top.chance,
      effortMin: does.reduce((s, r) => s + r.effortMin, 0),
    };
  };
  const none: CorrectionSteps = { steps: [], chance: doNothing, effortMin: 0 };
  const singles = remedies.map((r) => ({ of: r, plan: best([r]) }));
  const kept = keptOf(quantities, singles);
  const pairs = kept.flatMap((a, i) => kept.slice(i + 1).map((b) => best([a.of, b.of])));
  // Where three things are wrong at once the best two are gone on from.
  const [first] = [...pairs].sort((a, b) => b.chance - a.chance);
  const threes =
    most > 2 && first
      ? kept.flatMap(({ of }) => {
          const two = first.steps.flatMap((s) => remedies.find((r) => r.id === s.remedy) ?? []);
          return two.length === 2 && !two.includes(of) ? [best([...two, of])] : [];
        })
      : [];
  const all = [none, ...singles.map((s) => s.plan), ...pairs, ...threes];
  const bestChance = Math.max(...all.map((p) => p.chance));
  const near = (p: CorrectionSteps): boolean => p.chance >= bestChance - EQUAL_CHANCE;
  const ranked = [...all].sort(
    (a, b) =>
      Number(near(b)) - Number(near(a)) ||
      (near(a) && near(b) ? a.effortMin - b.effortMin || b.chance - a.chance : b.chance - a.chance),
  );
  return { best: ranked[0] ?? none, doNothing, considered: all.length, bestChance, ranked };
}

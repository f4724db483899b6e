import {
  type CorrectionSteps,
  chanceAfter,
  EQUAL_CHANCE,
  type Go,
  nextAmount,
  nextPush,
  type Pushed,
  planCorrection,
  type RemedyId,
  remedyKey,
  type Stands,
} from "../check";
import type { Structure } from "../frame";
import { partOf } from "../numeric";
import { placesOf } from "../square";
import { builtOf } from "./built";
import { type Done, doneOf, standingOf } from "./correctionStand";
import { evaluate } from "./evaluate";
import type { Job } from "./jobSchema";
import { type Remedy, remedyOptions } from "./remedies";

/** One way out: what is done, in order, and what comes of it. */
export interface CorrectionWay extends CorrectionSteps {
  /** How each quantity is then likely to stand, and its standard uncertainty. */
  leaves: Record<string, { value: number; u: number }>;
}

/** What to do first with a remedy whose effect is unsure, by what was tried. */
export interface FirstGo {
  remedy: Remedy;
  /** The quantity that it is for, and how much of it is wanted. */
  quantity: string;
  wanted: number;
  /** How far to push beyond where it lies, mm, or how many; so that it overshoots in one of twenty. */
  amount: number;
  /** What comes back of a push, likely and nine in ten, mm. */
  springback: { likely: number; low: number; high: number } | null;
  /** Goes that were made with it and read. */
  goes: number;
}

/** What can be done about a cold frame. */
export interface Correction {
  quantities: Record<string, Stands>;
  /** Limits that are not kept and that no remedy here moves. */
  aside: string[];
  doNothing: number;
  /** Best first; the first is advised unless it is no better than doing nothing. */
  ways: CorrectionWay[];
  /** What is advised: leave it, one of the ways, or make it anew. */
  advice: "leave it" | "correct it" | "make it anew";
  remedies: Remedy[];
  refused: string[];
  /** What it is about. */
  structure: Structure;
  /** Minutes to make it anew (own judgement). */
  anewMin: number;
  /** Something was done that was not read again yet. */
  unread: Done | null;
  done: Done[];
}

/** As good as sure: nothing is to be done. Where correcting does not bring so much, making it anew is said. Source: own judgement. */
const SURE = 0.95;
const HOPE = 0.5;
/** Better by less than this is not worth doing. */
const WORTH = 0.02;
/** Minutes a joint that making it anew takes. Source: own judgement. */
const ANEW_MIN_PER_JOINT = 15;
const WAYS = 5;
/** Amounts are found to a hundredth of their most: a coarse one makes a needless second remedy look better. */
const FINE = 4;

/**
 * What to do about a cold frame by what was read of it: doing nothing and every remedy against each other, by the chance that all limits
 * that were read are then met. A generator: yields the share done.
 * @returns null while nothing was read cold, or where the frame has errors.
 */
export function* correcting(job: Job): Generator<number, Correction | null> {
  const { structure } = builtOf(job.plan);
  const evaluation = evaluate(job, null);
  const round = evaluation.cold;
  if (!structure || !round || round.impossible) return null;
  if ((round.square?.fit ?? round.general?.fit)?.agree === false) return null;
  const places = placesOf(structure);
  const { quantities, aside } = standingOf(round, places);
  const done = doneOf(job, evaluation.frameRounds, places);
  const last = done.at(-1);
  const unread = last && !last.after ? last : null;
  const doNothing = chanceAfter(quantities, []);
  const none: CorrectionWay = { steps: [], chance: doNothing, effortMin: 0, leaves: leavesOf(quantities, [], []) };
  const anewMin = ANEW_MIN_PER_JOINT * structure.joints.length;
  const base = { structure, quantities, aside, doNothing, anewMin, unread, done };
  if (Object.keys(quantities).length === 0 || doNothing >= SURE)
    return { ...base, ways: [none], advice: "leave it", remedies: [], refused: [] };
  const { remedies, refused } = yield* partOf(remedyOptions(job.plan, quantities), 0, 0.85);
  // What moves nothing that is outside, or nothing for the better, is not tried.
  const useful = remedies.filter((r) => helps(r, quantities));
  const choice = planCorrection(
    quantities,
    useful.map((r) => r.option),
    undefined,
    3,
    FINE,
  );
  yield 0.95;
  const ways = choice.ranked
    .filter((w) => w.steps.length === 0 || w.chance > doNothing + WORTH)
    // Of those that do the same at another corner only the best is told.
    .filter((w, i, all) => all.findIndex((o) => makeOf(o, remedies) === makeOf(w, remedies)) === i)
    // What does more than another way and brings no more is none of its own.
    .filter((w, _, all) => !all.some((o) => o !== w && isPartOf(o, w) && w.chance <= o.chance + EQUAL_CHANCE))
    .slice(0, WAYS)
    .map((w): CorrectionWay => ({ ...w, leaves: leavesOf(quantities, w.steps, remedies) }));
  const best = ways[0] ?? none;
  const advice =
    best.steps.length === 0
      ? doNothing >= HOPE
        ? "leave it"
        : "make it anew"
      : best.chance < HOPE
        ? "make it anew"
        : "correct it";
  return { ...base, ways, advice, remedies, refused };
}

/** What is done, whatever joint or member it is done at. */
const makeOf = (w: CorrectionSteps, remedies: readonly Remedy[]): string =>
  w.steps
    .map((s) => remedies.find((r) => r.option.id === s.remedy)?.id.do ?? "")
    .sort()
    .join();

/** Whether a way does all that another does not do besides. */
const isPartOf = (less: CorrectionSteps, more: CorrectionSteps): boolean =>
  less.steps.length > 0 &&
  less.steps.length < more.steps.length &&
  less.steps.every((s) => more.steps.some((m) => m.remedy === s.remedy));

/** How far outside of its limit a quantity stands, in its own unit. */
const beyond = (q: Stands, value: number): number =>
  Math.max(0, q.high === null ? 0 : value - q.high, q.low === null ? 0 : q.low - value);

/** Whether some of it brings something that is outside, or near its limit, nearer. */
function helps({ option }: Remedy, quantities: Readonly<Record<string, Stands>>): boolean {
  const sum = (of: (k: string) => number): number =>
    Object.keys(quantities).reduce((s, k) => {
      const q = quantities[k];
      return q
        ? s +
            beyond(
              { ...q, low: q.low === null ? null : q.low + 2 * q.u, high: q.high === null ? null : q.high - 2 * q.u },
              of(k),
            ) /
              q.u
        : s;
    }, 0);
  const now = sum((k) => quantities[k]?.value ?? 0);
  const some = option.unitSteps ? 1 : option.max / 2;
  return sum((k) => (quantities[k]?.value ?? 0) + some * (option.effect[k] ?? 0)) < now - 1e-9;
}

function leavesOf(
  quantities: Readonly<Record<string, Stands>>,
  steps: CorrectionSteps["steps"],
  remedies: readonly Remedy[],
): CorrectionWay["leaves"] {
  return Object.fromEntries(
    Object.entries(quantities).map(([k, q]) => {
      const parts = steps.map(({ remedy, amount }) => {
        const option = remedies.find((r) => r.option.id === remedy)?.option;
        const by = amount * (option?.effect[k] ?? 0);
        return { by, u: by * (option?.cv ?? 0) };
      });
      return [
        k,
        {
          value: parts.reduce((s, p) => s + p.by, q.value),
          u: Math.hypot(q.u, ...parts.map((p) => p.u)),
        },
      ];
    }),
  );
}

/** How unsure a spring-back is that was worked out from the section and a stated yield. Source: own judgement. */
const SPRINGBACK_CV = 0.12;

/** The quantity that a remedy is for: of those that it moves, the one that is farthest outside. */
function quantityFor(remedy: Remedy, quantities: Readonly<Record<string, Stands>>): string | null {
  const own = Object.keys(remedy.option.effect).filter((k) => quantities[k]);
  const by = (k: string): number => {
    const q = quantities[k];
    return q ? beyond(q, q.value) / q.u + Math.abs(q.value * (remedy.option.effect[k] ?? 0)) * 1e-6 : 0;
  };
  return own.reduce<string | null>((best, k) => (best === null || by(k) > by(best) ? k : best), null);
}

/**
 * What to do now with a remedy, by what its goes did so far: push a little, read, push further.
 * @param amount of the quantity's change that is wanted, by the plan; what is left of it after the goes counts.
 */
export function firstGo(correction: Correction, id: RemedyId, amount: number): FirstGo | null {
  const remedy = correction.remedies.find((r) => remedyKey(r.id) === remedyKey(id));
  const quantity = remedy && (remedy.push?.of ?? quantityFor(remedy, correction.quantities));
  if (!remedy || !quantity) return null;
  const per = Math.abs(remedy.option.effect[quantity] ?? 0);
  const own = correction.done.filter((d) => remedyKey(d.entry.remedy) === remedyKey(id));
  const tried = own.flatMap((d) => {
    const [a, b] = [d.before?.[quantity], d.after?.[quantity]];
    const sign = Math.sign(remedy.option.effect[quantity] ?? 0);
    return a && b ? [{ amount: amountOf(d), effect: (b.value - a.value) * sign, u: Math.hypot(a.u, b.u) }] : [];
  });
  if (remedy.push && remedy.push.springbackMm > 0) {
    const { springbackMm, mmPerUnit } = remedy.push;
    const pushes: Pushed[] = tried.map((t) => ({ push: t.amount, moved: t.effect * mmPerUnit, u: t.u * mmPerUnit }));
    // What is wanted now comes on top of what the goes left.
    const wanted = amount * per * mmPerUnit + pushes.reduce((s, p) => s + p.moved, 0);
    const next = nextPush(wanted, springbackMm, SPRINGBACK_CV, pushes);
    return {
      ...{ remedy, quantity, wanted: amount * per, amount: next.pushMm, goes: pushes.length },
      springback: { likely: next.springbackMm, low: next.springbackLow, high: next.springbackHigh },
    };
  }
  const unit = remedy.push ? 1 / remedy.push.mmPerUnit : per;
  const goes: Go[] = tried;
  const wanted = amount * per + goes.reduce((s, g) => s + g.effect, 0);
  const next = nextAmount(wanted, unit, remedy.option.cv, goes);
  return {
    ...{ remedy, quantity, wanted: amount * per, goes: goes.length, springback: null },
    // What is counted is begun with as many as surely are not too many, and with one at least.
    amount: remedy.option.unitSteps ? Math.max(1, Math.floor(Math.min(next.amount, remedy.option.max))) : next.amount,
  };
}

const amountOf = ({ entry }: Done): number => (typeof entry.amount === "number" ? entry.amount : entry.amount.mm);

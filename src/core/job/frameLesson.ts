import {
  beliefIn,
  expected,
  type FrameLesson,
  information,
  type Learnable,
  linearOf,
  type Surprise,
  scatterOf,
  surprise,
} from "../learn";
import { drain, type Rows } from "../numeric";
import { heldMechanics, loadSteps } from "../plan";
import { frameOutcomes, frameOutputs, outcomeKey, type SimulatedOutcome, simulate } from "../shrink";
import { FACTORS, factorsFor, type ShrinkFactors } from "../weld";
import { builtOf } from "./built";
import { evaluate } from "./evaluate";
import { evaluationContext } from "./evaluationContext";
import { cellOfPlan } from "./factorsOf";
import { gateOf } from "./forecast";
import type { FrameRound } from "./frameRound";
import { heldOf } from "./held";
import type { Job } from "./jobSchema";
import { quantityKey, quantityWords, spanOf } from "./quantityId";
import type { Mean } from "./rounds";
import { weldOf } from "./settings";

/** What a job could teach its shop, worked out of its record. */
export interface FrameTeaching {
  lesson: Omit<FrameLesson, "id" | "at" | "origin" | "kind">;
  /** How it stands to what was predicted before it was welded. */
  surprise: Surprise;
  /** How far it would narrow each factor of its cell, as a share of what it is. */
  narrowedTo: Record<string, number>;
}

/** A pair of rounds between which only tacks or beads, and nothing by hand, moved the frame. */
interface Between {
  from: FrameRound;
  to: FrameRound;
  /** Steps that lie between them, by their keys: first excluded, last included; null for the beginning, and the end. */
  fromKey: string | null;
  toKey: string | null;
}

/** A share by which a factor is moved to find what hangs on it. */
const STEP = 0.1;
/** More readings than this a lesson does not hold. */
const MOST_READINGS = 40;

/**
 * What a finished frame teaches: its readings from one gate to the next, and how they hang on each bead and factor.
 * A generator: yields the share done.
 * @returns why it cannot teach, or what it teaches.
 */
export function* frameTeaching(
  job: Job,
): Generator<number, { ok: false; why: string } | { ok: true; taught: FrameTeaching }> {
  const { plan } = job;
  const { structure, order, on } = builtOf(plan);
  if (!structure || !order) return no("The frame has errors.");
  const { pairs, doubts, why } = pairsOf(job);
  if (pairs.length === 0) return no(why);
  const held = heldOf(structure, plan);
  const { mechanics, by } = heldMechanics(structure, on, held);
  const steps = loadSteps(structure, weldOf(plan), order.steps, by);
  const table = factorsFor(structure.members[0]?.material === "mild steel", FACTORS);
  const runs: Partial<Record<Run, SimulatedOutcome[]>> = {};
  for (const [i, run] of RUNS.entries()) {
    const input = {
      frame: mechanics.frame,
      steps,
      outputs: frameOutputs(structure, mechanics.joints),
      outcomes: frameOutcomes(structure, mechanics.joints),
      factors: moved(table, run),
      draws: 0,
      ...(run === "joint" ? { jointShare: 1 + STEP } : {}),
    };
    const work = simulate(input);
    for (let step = work.next(); ; step = work.next()) {
      if (step.done) {
        runs[run] = step.value.outcomes;
        break;
      }
      yield (i + step.value) / RUNS.length;
    }
  }
  const stepIds = steps.map((s) => s.id);
  const welds = new Map(steps.map((s) => [s.id, s.do]));
  const readings = pairs
    .flatMap((p) => readingsOf(p, runs as Record<Run, SimulatedOutcome[]>, stepIds))
    .slice(0, MOST_READINGS);
  if (readings.length === 0)
    return no("None of what was read both before and after welding is predicted: sides, diagonals, twist, a mouth.");
  const cell = cellOfPlan(plan);
  const teaching = teachingOf(readings, welds);
  const belief = beliefIn(plan.learned, cell);
  const teaches = { ...teaching, linear: linearOf(teaching.linear), noise: { cov: teaching.cov } };
  const told = expected(belief, teaches, scatterOf());
  return {
    ok: true,
    taught: {
      lesson: {
        jobId: job.id,
        name: plan.name,
        cell,
        readings: readings.map(({ what, from, to }) => ({ what, from, to })),
        teaching,
        told: { mean: told.mean, cov: told.cov },
        doubts,
      },
      surprise: surprise(belief, teaches, scatterOf()),
      narrowedTo: information(belief, teaches, scatterOf()).narrowedTo,
    },
  };
}

/** The same in one go. */
export const frameTeachingOf = (job: Job) => drain(frameTeaching(job));

const no = (why: string): { ok: false; why: string } => ({ ok: false, why });

/** Simulations: as the tables say, and with one factor moved in each. */
const RUNS = ["table", "longitudinal", "filletClosing", "tackHeat", "gap", "joint"] as const;
type Run = (typeof RUNS)[number];

const moved = (factors: ShrinkFactors, run: Run): ShrinkFactors =>
  run === "table" || run === "joint"
    ? factors
    : { ...factors, [run]: { ...factors[run], value: factors[run].value * (1 + STEP) } };

/** Rounds that teach, with what is doubtful about them. */
function pairsOf(job: Job): { pairs: Between[]; doubts: string[]; why: string } {
  const context = evaluationContext(job, null);
  const evaluation = evaluate(job, null);
  const { steps, ticked, frameRounds } = evaluation;
  const firstBead = job.entries.find((e) => e.kind === "tick" && e.done && e.step.do === "bead");
  const corrected = job.entries.find((e) => e.kind === "corrected");
  const isBefore = (r: FrameRound, at: string | undefined): boolean => at === undefined || r.round.at <= at;
  const read = frameRounds.filter((r) => r.means.size > 0 && r.square?.fit.agree !== false);
  const unwelded = read.filter((r) => ["dry fit", "tacked"].includes(r.round.gate) && isBefore(r, firstBead?.at));
  const cold = read.find((r) => r.round.gate === "cold" && isBefore(r, corrected?.at));
  const dry = unwelded.findLast((r) => r.round.gate === "dry fit");
  const tacked = unwelded.filter((r) => r.round.gate === "tacked");
  const key = (r: FrameRound): string | null => gateOf(context, unwelded, r);
  const pairs: Between[] = [];
  const [firstTacked, lastTacked] = [tacked[0], tacked.at(-1)];
  if (dry && firstTacked && key(dry) !== null && key(firstTacked) !== null)
    pairs.push({ from: dry, to: firstTacked, fromKey: key(dry), toKey: key(firstTacked) });
  const last = lastTacked ?? dry;
  if (last && cold) pairs.push({ from: last, to: cold, fromKey: key(last), toKey: null });
  const beads = steps.filter((s) => s.id.do === "bead");
  const left = beads.filter((s) => !ticked.has(s.key)).length;
  const doubts = [
    ...(cold && left > 0
      ? [`${left} of ${beads.length} beads are not ticked: they are taken as laid, in the planned order.`]
      : []),
    ...(corrected && cold ? ["It was corrected after its first cold reading: what was read before that teaches."] : []),
    ...(weldOf(job.plan).from === "starting"
      ? ["Its settings were not read on the machine: what it teaches holds for such settings."]
      : []),
    ...(last && cold && key(last) === null
      ? ["Its last reading before welding was at no gate of the order: all tacks are taken to come after it."]
      : []),
  ];
  const why = !cold
    ? corrected
      ? "It was corrected before it was read cold: what it was by itself is not known."
      : "It has not been read cold yet."
    : "Nothing was read before welding that was read cold again: a change needs both.";
  return { pairs, doubts, why };
}

/** One reading from gate to gate, with what each step does to it by each factor. */
interface Taught {
  what: string;
  from: string;
  to: string;
  change: number;
  /** New in the two readings, and what both share with others of the pair, as rows of standard uncertainty, mm. */
  u: number;
  shared: { tape: string; zeroMm: number; scaleMm: number }[];
  /** By step: all of it, and what goes with each factor besides. */
  steps: { id: string; all: number; longitudinal: number; filletClosing: number; tackHeat: number }[];
  gap: number;
  joint: number;
}

/** The outcome that a reading is of; null for one that is not predicted. */
function outcomeOf(mean: Mean): string | null {
  const { what } = mean;
  if (what.kind !== "distance") return null;
  const span = spanOf(what);
  return span ? outcomeKey({ kind: "span", span }) : outcomeKey({ kind: "mouth", from: what.from, to: what.to });
}

const CORNER_HEIGHTS = (["A", "B", "C", "D"] as const).map((at) => quantityKey({ kind: "height", at }));

function readingsOf(pair: Between, runs: Record<Run, SimulatedOutcome[]>, stepIds: readonly string[]): Taught[] {
  const begin = pair.fromKey === null ? -1 : stepIds.lastIndexOf(pair.fromKey);
  const end = pair.toKey === null ? stepIds.length - 1 : stepIds.lastIndexOf(pair.toKey);
  const of = (key: string, base: Omit<Taught, "steps" | "gap" | "joint">): Taught[] => {
    const by = Object.fromEntries(RUNS.map((r) => [r, runs[r].find((o) => outcomeKey(o.id) === key)])) as Record<
      Run,
      SimulatedOutcome | undefined
    >;
    const table = by.table;
    if (!table) return [];
    const does = (run: Run, i: number): number => {
      const after = by[run]?.after;
      return after ? (after[i] ?? 0) - (i > 0 ? (after[i - 1] ?? 0) : 0) : 0;
    };
    const apart = (run: Run, i: number): number => (does(run, i) - does("table", i)) / STEP;
    const steps: Taught["steps"] = [];
    let [gap, joint] = [0, 0];
    for (let i = begin + 1; i <= end; i++) {
      steps.push({
        id: stepIds[i] ?? "",
        all: does("table", i),
        longitudinal: apart("longitudinal", i),
        filletClosing: apart("filletClosing", i),
        tackHeat: apart("tackHeat", i),
      });
      gap += (does("gap", i) - does("table", i)) / Math.log(1 + STEP);
      joint += (does("joint", i) - does("table", i)) / Math.log(1 + STEP);
    }
    return [{ ...base, steps, gap, joint }];
  };
  const gates = { from: pair.from.round.gate, to: pair.to.round.gate };
  const out = [...pair.to.means].flatMap(([name, last]): Taught[] => {
    const first = pair.from.means.get(name);
    const key = outcomeOf(last);
    if (!first || !key) return [];
    // One tape for both: its zero and scale error drop out of the difference.
    const one = first.tape !== null && first.tape.id === last.tape?.id;
    const tapes = one ? [] : [first, last].flatMap((m) => (m.tape ? [{ ...m.tape, mm: m.mm }] : []));
    return of(key, {
      what: quantityWords(last.what),
      ...gates,
      change: last.mm - first.mm,
      u: Math.hypot(first.uMm, last.uMm),
      shared: tapes.map((t) => ({ tape: t.id, zeroMm: t.uZeroMm, scaleMm: t.uScale * t.mm })),
    });
  });
  const [before, after] = [pair.from.twist, pair.to.twist];
  const names = CORNER_HEIGHTS;
  if (before && after && names.every((n) => pair.from.means.has(n)))
    out.push(
      ...of(outcomeKey({ kind: "twist" }), {
        what: "Twist, A and C above B and D",
        ...gates,
        change: after.twistMm - before.twistMm,
        u: Math.hypot(before.uTwistMm, after.uTwistMm),
        shared: [],
      }),
    );
  return out;
}

/** Effects below this are nothing, mm. */
const NOTHING_MM = 1e-7;

function teachingOf(readings: readonly Taught[], welds: ReadonlyMap<string, string>): FrameLesson["teaching"] {
  const ids = [...new Set(readings.flatMap((r) => r.steps.map((s) => s.id)))];
  const sources = ids.flatMap((bead) => {
    const own = readings.map((r) => r.steps.filter((s) => s.id === bead));
    const sum = (part: keyof Omit<Taught["steps"][number], "id">): number[] =>
      own.map((list) => list.reduce((s, x) => s + x[part], 0));
    const isTack = welds.get(bead) === "tack";
    const [all, along, fillet, tack] = [sum("all"), sum("longitudinal"), sum("filletClosing"), sum("tackHeat")];
    // A tack goes with its own heat whole; what else a step does by tacks (a clamp let go) goes with theirs.
    const across = all.map((v, i) => v - (along[i] ?? 0) - (fillet[i] ?? 0) - (isTack ? 0 : (tack[i] ?? 0)));
    const also: Learnable[] = isTack ? ["tackHeat"] : [];
    const parts: { factors: Learnable[]; effect: number[] }[] = [
      { factors: ["transverse", ...also], effect: across },
      { factors: ["transverse", "filletClosing", ...also], effect: fillet },
      { factors: ["longitudinal", ...also], effect: along },
      ...(isTack ? [] : [{ factors: ["transverse", "tackHeat"] as Learnable[], effect: tack }]),
    ];
    return parts.flatMap((p) => (p.effect.some((v) => Math.abs(v) > NOTHING_MM) ? [{ bead, ...p }] : []));
  });
  const cov: Rows = readings.map((a, i) =>
    readings.map((b, j) => {
      const own = i === j ? a.u ** 2 : 0;
      if (a.from !== b.from || a.to !== b.to) return own;
      // Zero and scale of a tape are the same in everything that it read.
      return a.shared.reduce(
        (s, x) =>
          s +
          b.shared
            .filter((y) => y.tape === x.tape)
            .reduce((t, y) => t + x.zeroMm * y.zeroMm + x.scaleMm * y.scaleMm, 0),
        own,
      );
    }),
  );
  return {
    sources,
    linear: { gap: readings.map((r) => r.gap), joint: readings.map((r) => r.joint) },
    change: readings.map((r) => r.change),
    cov,
  };
}

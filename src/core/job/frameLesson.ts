import type { Structure } from "../frame";
import {
  beliefIn,
  expected,
  type FrameLesson,
  information,
  type Learnable,
  type Surprise,
  scatterOf,
  surprise,
  taughtBy,
} from "../learn";
import { cholesky, drain, type Rows } from "../numeric";
import { heldMechanics, loadSteps } from "../plan";
import { frameOutcomes, frameOutputs, type SimulatedOutcome, type SimulationStep, simulate } from "../shrink";
import { placesOf } from "../square";
import { FACTORS, factorsFor, type ShrinkFactors } from "../weld";
import { builtOf } from "./built";
import { evaluate } from "./evaluate";
import { evaluationContext } from "./evaluationContext";
import { cellOfPlan } from "./factorsOf";
import { gateOf } from "./forecast";
import type { FrameRound } from "./frameRound";
import { heldOf } from "./held";
import type { Job } from "./jobSchema";
import { paceOf } from "./pace";
import { quantityKey } from "./quantityId";
import { fullU } from "./rounds";
import { weldOf } from "./settings";
import { type Between, RUNS, type Run, readingsOf, type Span, STEP, type Taught } from "./taughtReadings";

/** What a job could teach its shop, worked out of its record. */
export interface FrameTeaching {
  lesson: Omit<FrameLesson, "id" | "at" | "origin" | "kind">;
  /** How it stands to what was predicted before it was welded. */
  surprise: Surprise;
  /** How far it would narrow each factor of its cell, as a share of what it is. */
  narrowedTo: Record<string, number>;
}

/** More readings than this a lesson does not hold. */
const MOST_READINGS = 40;

/** Whether a step puts back what is measured of a frame; of another sub-assembly it leaves the ring as it is. */
function isPutBack({ quad }: Structure, step: SimulationStep): boolean {
  if (step.do !== "square up") return false;
  const { members } = step;
  const ring = quad ? Object.values(quad.sides) : [];
  return !members || ring.length === 0 || members.some((m) => ring.includes(m));
}

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
  const ids = steps.map((s) => s.id);
  const spans = pairs
    .map((p) => spanIn(p, ids))
    // Put back into shape by hand in between: what is left of it tells of the hand.
    .filter(({ begin, end }) => !steps.slice(begin + 1, end + 1).some((s) => isPutBack(structure, s)));
  const gates = [...new Set(spans.flatMap(({ begin, end }) => [ids[begin] ?? [], ids[end] ?? []].flat()))];
  const runs: Partial<Record<Run, SimulatedOutcome[]>> = {};
  for (const [i, run] of RUNS.entries()) {
    const work = simulate({
      frame: mechanics.frame,
      steps,
      outputs: frameOutputs(structure, mechanics.joints),
      outcomes: frameOutcomes(structure, mechanics.joints),
      factors: run === "beads" ? withoutShared(table) : moved(table, run),
      draws: run === "beads" ? BEAD_DRAWS : 0,
      gates,
      ...(run === "joint" ? { jointShare: 1 + STEP } : {}),
    });
    for (let step = work.next(); ; step = work.next()) {
      if (step.done) {
        runs[run] = step.value.outcomes;
        break;
      }
      yield (i + step.value) / RUNS.length;
    }
  }
  const readings = spans
    .flatMap((p) => readingsOf(p, runs as Record<Run, SimulatedOutcome[]>, ids, placesOf(structure)))
    .slice(0, MOST_READINGS);
  if (readings.length === 0)
    return no(
      "Nothing teaches: it was put right by hand between its readings, or none of them is predicted (sides, diagonals, ways between places, twist, a mouth, a bow).",
    );
  const cell = cellOfPlan(plan);
  const teaching = teachingOf(readings);
  const belief = beliefIn(plan.learned, cell);
  const teaches = taughtBy(teaching);
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
        ...welder(job),
        times: timesOf(job),
      },
      surprise: surprise(belief, teaches, scatterOf()),
      narrowedTo: information(belief, teaches, scatterOf()).narrowedTo,
    },
  };
}

/** Who ticked most of the beads. */
function welder(job: Job): { by?: string } {
  const laid = new Map<string, number>();
  for (const e of job.entries) {
    if (e.kind !== "tick" || !e.done || e.step.do !== "bead") continue;
    // A person may have worked at several devices.
    const who = e.origin.split(",")[0]?.trim() || e.origin;
    laid.set(who, (laid.get(who) ?? 0) + 1);
  }
  const [most] = [...laid].sort((a, b) => b[1] - a[1]);
  return most ? { by: most[0] } : {};
}

/** How long handling took, of what its ticks tell. */
function timesOf(job: Job): NonNullable<FrameLesson["times"]> {
  const { handling, from } = paceOf(job);
  return Object.entries(from).map(([kind, n]) => ({
    kind,
    seconds: handling[kind as keyof typeof handling],
    from: n,
  }));
}

/** The same in one go. */
export const frameTeachingOf = (job: Job) => drain(frameTeaching(job));

const no = (why: string): { ok: false; why: string } => ({ ok: false, why });

/** Draws that the scatter of beads is taken from. */
const BEAD_DRAWS = 160;

const moved = (factors: ShrinkFactors, run: Exclude<Run, "beads">): ShrinkFactors =>
  run === "table" || run === "joint"
    ? factors
    : { ...factors, [run]: { ...factors[run], value: factors[run].value * (1 + STEP) } };

/** Without what a whole frame shares: what is left differs from bead to bead, from joint to joint. */
function withoutShared(factors: ShrinkFactors): ShrinkFactors {
  const still = <F extends { cv: number }>(f: F): F => ({ ...f, cv: 0 });
  return {
    ...factors,
    transverse: still(factors.transverse),
    longitudinal: still(factors.longitudinal),
    filletClosing: still(factors.filletClosing),
    tackHeat: still(factors.tackHeat),
    day: still(factors.day),
    otherMaterial: still(factors.otherMaterial),
    joint: still(factors.joint),
  };
}

const spanIn = (pair: Between, ids: readonly string[]): Span => ({
  ...pair,
  begin: pair.fromKey === null ? -1 : ids.lastIndexOf(pair.fromKey),
  // What was read at a gate was read before anything was put right there.
  end: pair.toKey === null ? ids.length - 1 : ids.indexOf(pair.toKey) - 1,
});

/** Rounds that teach, with what is doubtful about them. */
function pairsOf(job: Job): { pairs: Between[]; doubts: string[]; why: string } {
  const context = evaluationContext(job, null);
  const evaluation = evaluate(job, null);
  const { steps, ticked, frameRounds } = evaluation;
  const firstBead = job.entries.find((e) => e.kind === "tick" && e.done && e.step.do === "bead");
  const corrected = job.entries.find((e) => e.kind === "corrected");
  const isBefore = (r: FrameRound, at: string | undefined): boolean => at === undefined || r.round.at <= at;
  const disagrees = ({ square, general }: FrameRound): boolean => (square?.fit ?? general?.fit)?.agree === false;
  const read = frameRounds.filter((r) => r.means.size > 0 && !disagrees(r));
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
    ...(last && cold
      ? [...last.means.values()].flatMap(({ what, mm, ...mean }) =>
          what.kind === "straightness" &&
          Math.abs(mm) > 2 * fullU({ what, mm, ...mean }) &&
          cold.means.has(quantityKey(what))
            ? [
                `${what.at} was bowed before it was welded, and a gap tells no way: it is taken to have been bowed the way that welding bows it.`,
              ]
            : [],
        )
      : []),
    ...(last && cold && key(last) === null
      ? ["Its last reading before welding was at no gate of the order: all tacks are taken to come after it."]
      : []),
  ];
  const contradicts = frameRounds.some((r) => r.round.gate === "cold" && disagrees(r));
  const why =
    !cold && contradicts
      ? "Its cold readings contradict each other: one of them is misread. Mend that first."
      : !cold
        ? corrected
          ? "It was corrected before it was read cold: what it was by itself is not known."
          : "It has not been read cold yet."
        : "Nothing was read before welding that was read cold again: a change needs both.";
  return { pairs, doubts, why };
}

/** Effects below this are nothing, mm. */
const NOTHING_MM = 1e-7;

/** Vectors whose squares add up to the covariance of what was drawn. Source: Cholesky factor, its columns. */
function vectorsOf(draws: readonly number[][], share: number): number[][] {
  const n = draws[0]?.length ?? 0;
  if (n === 0) return [];
  const cov: Rows = draws.map((a) => draws.map((b) => a.reduce((s, v, d) => s + v * (b[d] ?? 0), 0) / n / share ** 2));
  // Readings that move together all alike (a twist read twice) leave nothing for the last: a hair keeps it whole.
  const l = cholesky(cov.map((row, i) => row.map((v, j) => (i === j ? v + HAIR_MM2 : v))));
  return l ? draws.map((_, k) => l.map((row) => row[k] ?? 0)) : [];
}
const HAIR_MM2 = 1e-8;

function teachingOf(readings: readonly Taught[]): FrameLesson["teaching"] {
  const sum = (part: "all" | "longitudinal" | "filletClosing" | "tackHeat"): number[] => readings.map((r) => r[part]);
  const [along, fillet, tack] = [sum("longitudinal"), sum("filletClosing"), sum("tackHeat")];
  const across = sum("all").map((v, i) => v - (along[i] ?? 0) - (fillet[i] ?? 0) - (tack[i] ?? 0));
  const parts: { factors: Learnable[]; effect: number[] }[] = [
    { factors: ["transverse"], effect: across },
    { factors: ["transverse", "filletClosing"], effect: fillet },
    { factors: ["longitudinal"], effect: along },
    { factors: ["transverse", "tackHeat"], effect: tack },
  ];
  const sources = parts.filter((p) => p.effect.some((v) => Math.abs(v) > NOTHING_MM));
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
    beads: vectorsOf(
      readings.map((r) => r.draws),
      scatterOf().beadCv,
    ),
    linear: { gap: readings.map((r) => r.gap), joint: readings.map((r) => r.joint) },
    change: readings.map((r) => r.change),
    cov,
  };
}

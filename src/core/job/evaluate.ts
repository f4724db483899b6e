import type { Footprint } from "../bed";
import { type Limit, limitName, type Overall } from "../check";
import type { CutPiece } from "../cut";
import type { Structure } from "../frame";
import type { Order, Step } from "../plan";
import type { Prediction } from "../shrink";
import type { Places, SetUp } from "../square";
import type { Problem } from "../units";
import { type BedRound, workOutBedRound } from "./bedRound";
import { type CutRound, type EvaluationContext, evaluationContext, type Pieces, piecesOf } from "./evaluationContext";
import { type Forecast, forecasts, gateOf, lastRead } from "./forecast";
import { type FrameRound, isLocked, workOutFrameRound } from "./frameRound";
import { type GateAdvice, gateAdvice } from "./gateAdvice";
import { AT_ANY_GATE, gateReading } from "./gateReading";
import type { Job } from "./jobSchema";
import { partJob } from "./partJob";
import type { Plan } from "./planSchema";
import { type Loss, lossesOf, type ShapeChange, shapeChanges } from "./predictedMeasured";
import type { Round } from "./rounds";
import type { Stage } from "./stages";
import { CLOSE, tickKey } from "./tickId";

/** Verdict of a job for lists. */
export interface Summary {
  stage: Stage;
  verdict: Overall;
  /** What the verdict is about, for example `square, tacked, round 2`. */
  about: string;
}

/** Everything that screens, printouts and the command say about a job. */
export interface Evaluation {
  problems: Problem[];
  /** What is built, in space; null while the plan has errors. */
  structure: Structure | null;
  /** Places between which one measures; null while the plan has errors. */
  places: Places | null;
  /** What lies over the bed, seen from above. */
  footprint: Footprint | null;
  /** Null while the plan has errors, and while it is being worked out. */
  prediction: Prediction | null;
  setUp: SetUp | null;
  cut: CutPiece[];
  limits: Limit[];
  cutRounds: CutRound[];
  bedRounds: BedRound[];
  frameRounds: FrameRound[];
  /** Rounds of sub-assemblies that were measured by themselves, by their ids. */
  parts: ReadonlyMap<string, FrameRound[]>;
  /** Schools that made the order, with its steps; null while the plan has errors. */
  order: Order | null;
  steps: Step[];
  /** Keys of what stands ticked. */
  ticked: Set<string>;
  /** Last cold round with a reading. */
  cold: FrameRound | null;
  /** Chance to pass each limit, by the order as planned; empty without a prediction. */
  forecasts: Forecast[];
  /** What the last reading before welding asks for; null where there is none, or nothing is predicted. */
  atGate: GateAdvice | null;
  losses: Loss[];
  shapes: ShapeChange[];
  closed: boolean;
  summary: Summary;
}

/** Rounds of the frame itself, put together. */
const ofFrame = (r: Round): boolean => r.round.gate !== "bed" && r.round.gate !== "cut";

/** Rounds already worked out under one plan: a reading changes one round, and the others need not be worked out again. */
type Memory<R> = WeakMap<Plan, Map<string, R>>;
const FRAME_ROUNDS: Memory<FrameRound> = new WeakMap();
const BED_ROUNDS: Memory<BedRound> = new WeakMap();

/** Entries are never changed, so a round with the same last reading and as many of them under the same plan is the same. */
function remembered<R>(
  memory: Memory<R>,
  { job, target, prediction }: EvaluationContext,
  r: Round,
  work: () => R,
  also = "",
): R {
  const known = memory.get(job.plan) ?? new Map<string, R>();
  memory.set(job.plan, known);
  const key = `${r.round.id}/${r.number}/${r.all.length}/${r.all.at(-1)?.id ?? ""}/${job.instruments.length}/${target ? Object.values(target.targets).join() : ""}/${prediction?.twistNPerMm ?? ""}/${also}`;
  const done = known.get(key) ?? work();
  known.set(key, done);
  return done;
}

const evaluateFrameRound = (context: EvaluationContext, places: Places, r: Round): FrameRound =>
  remembered(
    FRAME_ROUNDS,
    context,
    r,
    () => workOutFrameRound(context, places, r),
    // Gaps and steps of earlier rounds stand until they are read again.
    `${isLocked(context)} ${context.rounds.filter((x) => ofFrame(x) && x !== r).reduce((n, x) => n + x.all.length, 0)}`,
  );
const evaluateBedRound = (context: EvaluationContext, r: Round, before: BedRound | null): BedRound =>
  remembered(BED_ROUNDS, context, r, () => workOutBedRound(context, r, before), before?.all.at(-1)?.id);

/** Rounds of the bed, each with what the one before it asked for. */
function bedRoundsOf(context: EvaluationContext): BedRound[] {
  const done: BedRound[] = [];
  for (const r of context.rounds)
    if (r.round.gate === "bed") done.push(evaluateBedRound(context, r, done.at(-1) ?? null));
  return done;
}

/** Rounds read at a gate before welding, and begun before the first bead was ticked: what welding changes, it changes from these. */
function beforeFirstBead({ entries }: Job): (r: Round) => boolean {
  const bead = entries.findIndex((e) => e.kind === "tick" && e.done && e.step.do === "bead");
  const begun = new Set(entries.slice(0, bead === -1 ? entries.length : bead).map((e) => e.id));
  return (r) => ["dry fit", "tacked"].includes(r.round.gate) && begun.has(r.round.id);
}

const isRead = (r: Round): boolean => r.readings.size + r.slants.size > 0;
const isCold = (r: Round): boolean => r.round.gate === "cold" && isRead(r);

/**
 * Stage and verdict of a job, for lists: the same that `evaluate` gives, without working out every round.
 * No verdict rests on the prediction: it moves what to set up to, not what is square.
 * @param job a valid job.
 */
export function summaryOf(job: Job): Summary {
  const context = evaluationContext(job, null);
  const { structure, places, rounds, order, ticked } = context;
  const quad = structure?.quad ?? null;
  const bed = rounds.findLast((r) => r.round.gate === "bed" && isRead(r));
  const cold = places ? rounds.findLast(isCold) : undefined;
  let stage: Stage = places ? "frame" : "job";
  if (places && rounds.some((r) => r.round.gate === "cut" && r.readings.size > 0)) stage = "cut";
  if (bed) stage = "bed";
  if (places && rounds.some((r) => ofFrame(r) && isRead(r))) stage = "square";
  if (order?.steps.some((s) => ticked.has(s.key))) stage = "weld";
  if (cold) stage = "check";
  if ([...ticked].some((key) => key.startsWith("finish/"))) stage = "finish";
  if (ticked.has(tickKey(CLOSE))) stage = "log";
  const named = (r: Round) => `${r.round.gate}, round ${r.number}`;
  if (places && cold)
    return {
      stage,
      verdict: evaluateFrameRound(context, places, cold).overall,
      about: `cold frame, round ${cold.number}`,
    };
  if (places)
    for (const round of rounds.filter((r) => ofFrame(r) && isRead(r)).reverse()) {
      const done = evaluateFrameRound(context, places, round);
      // What fails at a gate is not hidden behind what is square.
      const failed = done.verdicts.find((v) => AT_ANY_GATE.includes(v.limit.kind) && v.result?.verdict === "fail");
      if (failed) return { stage, verdict: "fail", about: `${limitName(failed.limit)}, ${named(round)}` };
      if (quad ? !done.square?.corners : !done.general?.farthest) continue;
      const square = done.verdicts.find((v) => v.limit.id === (quad ? "square" : "place"));
      if (square?.result) return { stage, verdict: square.result.verdict, about: `square, ${named(round)}` };
      break;
    }
  const flat = bed && evaluateBedRound(context, bed, null).verdict.flat;
  return flat
    ? { stage, verdict: flat.verdict, about: `bed, round ${bed.number}` }
    : { stage, verdict: "not measured", about: "" };
}

/**
 * How a job's cold frame is likely to stand against its limits, for outcomes that come to something else than the prediction's: one draw
 * of many, or another order from the same start.
 * @param predicted what the frame is set up by. @returns a forecast of every limit, and whether it starts from what was read.
 */
export function forecasting(
  job: Job,
  predicted: Prediction,
): {
  /** @param setUp how it is set up, where not as predicted. */
  of: (outcomes: Prediction["outcomes"], setUp?: Partial<Prediction["setUp"]>) => Forecast[];
  isRead: boolean;
  gate: string | null;
} {
  const context = evaluationContext(job, predicted);
  const { places, rounds, prediction } = context;
  const before = beforeFirstBead(job);
  const unwelded = places
    ? rounds.filter((r) => ofFrame(r) && before(r)).map((r) => evaluateFrameRound(context, places, r))
    : [];
  return {
    of: (outcomes, setUp = {}) =>
      forecasts(
        { ...context, prediction: prediction && { ...prediction, outcomes, setUp: { ...prediction.setUp, ...setUp } } },
        unwelded,
      ),
    isRead: lastRead(unwelded) !== null,
    gate: gateOf(context, unwelded, lastRead(unwelded)),
  };
}

/** Rounds of sub-assemblies that were measured by themselves, worked out as those of a frame of its own. */
function roundsOfParts(job: Job, pieces: Pieces): Map<string, FrameRound[]> {
  const measured = new Set(job.entries.flatMap((e) => (e.kind === "round" && e.part !== undefined ? [e.part] : [])));
  return new Map(
    [...measured].flatMap((id): [string, FrameRound[]][] => {
      const part = partJob(job, id);
      return part ? [[id, evaluate(part, null, pieces).frameRounds]] : [];
    }),
  );
}

/**
 * Evaluates a whole job. Pure: the same job gives the same answer in a browser, on the server and on the command line.
 * @param job a valid job. @param predicted of its plan (see predict.ts); null while it is being worked out.
 * @param whole pieces of the whole, where the job is of one of its sub-assemblies (see partJob.ts).
 */
export function evaluate(job: Job, predicted: Prediction | null, whole: Pieces | null = null): Evaluation {
  const context = evaluationContext(job, predicted, whole);
  const { problems, structure, places, prediction, target, limits, rounds, order, ticked } = context;
  const frameRounds = places ? rounds.filter(ofFrame).map((r) => evaluateFrameRound(context, places, r)) : [];
  const cold = frameRounds.findLast(isCold) ?? null;
  const steps = order?.steps ?? [];
  const parts = roundsOfParts(job, piecesOf(context));
  const read = { structure, steps, ticked, frameRounds, parts };
  const unwelded = frameRounds.filter(beforeFirstBead(job));
  const since = (round: FrameRound): string | null => gateOf(context, unwelded, round);
  const likely = forecasts(context, unwelded);
  const last = lastRead(unwelded);
  return {
    problems,
    structure,
    places,
    footprint: context.footprint,
    prediction,
    setUp: target,
    cut: context.cut,
    limits,
    cutRounds: context.cutRounds,
    bedRounds: bedRoundsOf(context),
    frameRounds,
    parts,
    order,
    steps,
    // What was read at a gate, and is not outside its limit, is done without a tick.
    ticked: new Set([...ticked, ...steps.flatMap((s) => (gateReading(s, read)?.state === "read" ? [s.key] : []))]),
    cold,
    forecasts: likely,
    atGate:
      last &&
      gateAdvice(
        likely,
        forecasts(
          context,
          unwelded.filter((r) => r !== last),
        ),
        last.locked,
      ),
    losses: prediction ? lossesOf(prediction, unwelded, cold, since, context.places) : [],
    shapes: prediction ? shapeChanges(prediction, unwelded, cold, since) : [],
    closed: ticked.has(tickKey(CLOSE)),
    summary: summaryOf(job),
  };
}

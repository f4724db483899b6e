import { fourCorners, opticalLevel } from "../bed";
import {
  type BedVerdict,
  bedVerdict,
  type Limit,
  type LimitVerdict,
  type Lying,
  lying,
  type Overall,
  overall,
  resolveLimits,
  verdicts,
} from "../check";
import { type AsCut, asCut, type CutPiece, cutList, type FreePiece, freeCutList } from "../cut";
import { CORNERS, footprint, type ResolvedFrame, SIDES, type Side, type Span, type Structure } from "../frame";
import type { Step } from "../plan";
import type { Prediction } from "../shrink";
import {
  type Impossible,
  impossible,
  type Measured,
  type SetUp,
  type SquareCheck,
  setUp,
  squareCheck,
} from "../square";
import type { Estimate, Problem } from "../units";
import { builtOf } from "./built";
import { CLOSE_STEP } from "./entries";
import type { Job } from "./jobSchema";
import { orderOf } from "./orderOf";
import { planProblems } from "./plan";
import type { Plan } from "./planSchema";
import { type Round, roundsOf, spansOf, uOfHeights, uOfReading } from "./rounds";

/** A bed round with its verdict. */
export interface BedRound extends Round {
  verdict: BedVerdict;
  /** How the frame would lie on it; null until every rest is read. */
  lying: Lying | null;
}

/** A round of pieces as they were cut. */
export interface CutRound extends Round {
  asCut: AsCut;
}

/** A round of sides, diagonals and corner heights with what follows from it. */
export interface FrameRound extends Round {
  square: SquareCheck | null;
  impossible: Impossible | null;
  verdicts: LimitVerdict[];
  overall: Overall;
}

/** Predicted against measured for one side. Losses are positive when the side got shorter, mm. */
export interface SideLoss {
  side: Side;
  predicted: Estimate;
  /** From the last round before welding to the last cold one; null until both are read. */
  measured: Measured | null;
  agrees: "inside the band" | "more than predicted" | "less than predicted" | "cannot tell" | null;
}

/** Predicted against measured change of shape, mm: AC less BD, or the twist of the corners. */
export interface ShapeChange {
  id: "square" | "twist";
  label: string;
  predicted: Estimate;
  /** From the last round before welding to the last cold one; null until both are read. */
  measured: Measured | null;
  agrees: "inside the band" | "outside the band" | "cannot tell" | null;
}

export const STAGES = ["job", "frame", "cut", "bed", "square", "weld", "check", "log"] as const;
export type Stage = (typeof STAGES)[number];

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
  /** The rectangle that is squared; null while the plan has errors, and for a frame that has none. */
  frame: ResolvedFrame | null;
  /** What lies over the bed, seen from above: the rectangle, or the box round a frame that has none. */
  footprint: ResolvedFrame | null;
  /** Null while the plan has errors, and while it is being worked out. */
  prediction: Prediction | null;
  setUp: SetUp | null;
  /** Lines of the cut list; of a free frame each with its section and both ends. */
  cut: (CutPiece | FreePiece)[];
  limits: Limit[];
  cutRounds: CutRound[];
  bedRounds: BedRound[];
  frameRounds: FrameRound[];
  steps: Step[];
  /** Keys of the steps that stand ticked. */
  ticked: Set<string>;
  /** Last cold round with a reading. */
  cold: FrameRound | null;
  losses: SideLoss[];
  shapes: ShapeChange[];
  closed: boolean;
  summary: Summary;
}

/** Readings may contradict the triangle rule by this before it is called impossible, mm. */
const SLACK_MM = 5;

function workOutFrameRound({ job, limits, target }: Ground, frame: ResolvedFrame, round: Round): FrameRound {
  const { spans, tapes } = spansOf(round, job.instruments);
  const mm = Object.fromEntries(Object.entries(spans).map(([k, v]) => [k, v.mm])) as Partial<Record<Span, number>>;
  const wrong = impossible(mm, SLACK_MM);
  const before = round.round.gate !== "cold" && round.round.gate !== "hot";
  const square =
    wrong || Object.keys(spans).length === 0
      ? null
      : squareCheck(frame.lengthMm, frame.widthMm, spans, tapes, before && target ? target.squareDifferenceMm2 : 0);
  const z = Object.fromEntries(CORNERS.map((c) => [c, round.readings.get(`z${c}`)?.value.mm]));
  const heights = CORNERS.every((c) => z[c] !== undefined) ? (z as Record<(typeof CORNERS)[number], number>) : null;
  const four = heights
    ? fourCorners(
        heights,
        uOfHeights(
          round,
          CORNERS.map((c) => `z${c}`),
          job.instruments,
        ),
      )
    : null;
  const list = verdicts(
    limits,
    {
      sides: Object.fromEntries(
        SIDES.flatMap((s) => {
          const read = round.readings.get(s);
          return read ? [[s, { value: read.value.mm, u: uOfReading(round, s, job.instruments) }]] : [];
        }),
      ),
      square,
      flatMm: four ? { value: four.flatnessMm, u: four.uFlatnessMm } : null,
    },
    job.plan.units,
  );
  return { ...round, square, impossible: wrong, verdicts: list, overall: overall(list) };
}

function sideLosses(job: Job, prediction: Prediction, rounds: FrameRound[], cold: FrameRound | null): SideLoss[] {
  const before = [...rounds]
    .reverse()
    .find((r) => ["dry fit", "tacked"].includes(r.round.gate) && SIDES.every((s) => r.readings.has(s)));
  const { sidesMm } = prediction;
  if (!sidesMm) return [];
  return SIDES.map((side): SideLoss => {
    const predicted = sidesMm[side];
    const first = before?.readings.get(side);
    const last = cold?.readings.get(side);
    if (!before || !cold || !first || !last) return { side, predicted, measured: null, agrees: null };
    // One tape for both: its zero and scale error drop out of the difference.
    const u = (round: FrameRound) =>
      first.instrumentId === last.instrumentId
        ? uOfHeights(round, [side], job.instruments)
        : uOfReading(round, side, job.instruments);
    const measured = { value: first.value.mm - last.value.mm, u: Math.hypot(u(before), u(cold)) };
    const off = 2 * measured.u;
    // A tape that may be off by more than the whole loss says nothing about it.
    const agrees: SideLoss["agrees"] =
      off > predicted.high
        ? "cannot tell"
        : measured.value - off > predicted.high
          ? "more than predicted"
          : measured.value + off < predicted.low
            ? "less than predicted"
            : measured.value >= predicted.low && measured.value <= predicted.high
              ? "inside the band"
              : "cannot tell";
    return { side, predicted, measured, agrees };
  });
}

/** Whether a change of shape lies in its band; a reading less sure than the band is wide says nothing. */
function shapeAgreement(predicted: Estimate, { value, u }: Measured): ShapeChange["agrees"] {
  const off = 2 * u;
  if (off > (predicted.high - predicted.low) / 2) return "cannot tell";
  if (value - off > predicted.high || value + off < predicted.low) return "outside the band";
  return value >= predicted.low && value <= predicted.high ? "inside the band" : "cannot tell";
}

function shapeChanges(job: Job, prediction: Prediction, rounds: FrameRound[], cold: FrameRound | null): ShapeChange[] {
  const diagonals = ["AC", "BD"];
  const before = rounds.findLast(
    (r) => ["dry fit", "tacked"].includes(r.round.gate) && diagonals.every((d) => r.readings.has(d)),
  );
  const difference = (r: FrameRound): number =>
    (r.readings.get("AC")?.value.mm ?? 0) - (r.readings.get("BD")?.value.mm ?? 0);
  // Zero and scale of the tape drop out of the difference of two lengths that are nearly alike.
  const uOf = (r: FrameRound): number => Math.SQRT2 * uOfHeights(r, diagonals, job.instruments);
  const square: Measured | null =
    before && cold && diagonals.every((d) => cold.readings.has(d))
      ? { value: difference(cold) - difference(before), u: Math.hypot(uOf(before), uOf(cold)) }
      : null;
  const names = CORNERS.map((c) => `z${c}`);
  const z = names.map((n) => cold?.readings.get(n)?.value.mm);
  const twist: Measured | null =
    cold && z.every((v) => v !== undefined)
      ? {
          value: z.reduce<number>((sum, v, i) => sum + (i % 2 === 0 ? 1 : -1) * (v ?? 0), 0),
          u: 2 * uOfHeights(cold, names, job.instruments),
        }
      : null;
  return (["square", "twist"] as const).flatMap((id): ShapeChange[] => {
    const found = prediction.quantities.find((q) => q.id === id);
    if (!found) return [];
    const measured = id === "square" ? square : twist;
    return [
      {
        id,
        label: id === "square" ? "AC less BD" : "Twist, A and C above B and D",
        predicted: found.estimate,
        measured,
        agrees: measured && shapeAgreement(found.estimate, measured),
      },
    ];
  });
}

/** What every part of an evaluation starts from. */
interface Ground {
  job: Job;
  problems: Problem[];
  structure: Structure | null;
  frame: ResolvedFrame | null;
  footprint: ResolvedFrame | null;
  prediction: Prediction | null;
  target: SetUp | null;
  limits: Limit[];
  rounds: Round[];
  steps: Step[];
  ticked: Set<string>;
}

function groundOf(job: Job, predicted: Prediction | null): Ground {
  const { plan } = job;
  const problems = planProblems(plan);
  const broken = (area: string) => problems.some((p) => p.severity === "error" && p.path.startsWith(area));
  const { structure, frame } = builtOf(plan);
  const over = frame ?? (structure && footprint(structure));
  const prediction = structure && !broken("weld") ? predicted : null;
  const ticked = new Set<string>();
  for (const entry of job.entries) {
    if (entry.kind !== "tick") continue;
    if (entry.done) ticked.add(entry.step);
    else ticked.delete(entry.step);
  }
  return {
    job,
    problems,
    structure,
    frame,
    footprint: over,
    prediction,
    target: frame && prediction?.cornerMovesMm ? setUp(frame.corners, prediction.cornerMovesMm) : null,
    limits:
      over && !broken("limits")
        ? resolveLimits(plan.limits, over).filter((l) => frame !== null || l.id === "flat")
        : [],
    rounds: roundsOf(job.entries),
    steps: orderOf(plan),
    ticked,
  };
}

function workOutBedRound({ job, limits, problems, footprint: over, prediction }: Ground, r: Round): BedRound {
  const { plan } = job;
  const names = [...r.readings.keys()];
  const read = [...r.readings.values()].map((reading) => reading.value.mm);
  const u = uOfHeights(r, names, job.instruments);
  const z = r.round.method === "rod" ? opticalLevel(read, u).z : read;
  const pitchWrong = problems.some((p) => p.severity === "error" && p.path === "bed.pitch");
  const heights = Object.fromEntries(names.map((name, i) => [name, z[i] ?? 0]));
  const places = plan.bed.rests.map((rest) => ({ id: rest.id, x: rest.x.mm, y: rest.y.mm }));
  const verdict = bedVerdict(
    places,
    heights,
    u,
    limits.find((l) => l.id === "flat")?.upper ?? null,
    plan.limits.levelMmPerM,
    { by: plan.bed.adjust, mode: plan.bed.mode, pitchMm: pitchWrong ? 1 : plan.bed.pitch.mm, thread: plan.bed.thread },
    plan.units,
  );
  return {
    ...r,
    verdict,
    lying: over ? lying(places, heights, over, prediction?.twistNPerMm ?? null, plan.units) : null,
  };
}

function cutRoundOf({ job }: Ground, cut: readonly CutPiece[], r: Round): CutRound {
  const readings = [...r.readings].map(([what, reading]) => [
    what,
    { mm: reading.value.mm, uMm: uOfHeights(r, [what], job.instruments) },
  ]);
  return { ...r, asCut: asCut(cut, Object.fromEntries(readings)) };
}

/** Rounds of the frame itself, put together. */
const ofFrame = (r: Round): boolean => r.round.gate !== "bed" && r.round.gate !== "cut";

/** Rounds already worked out under one plan: a reading changes one round, and the others need not be worked out again. */
type Memory<R> = WeakMap<Plan, Map<string, R>>;
const FRAME_ROUNDS: Memory<FrameRound> = new WeakMap();
const BED_ROUNDS: Memory<BedRound> = new WeakMap();

/** Entries are never changed, so a round with the same last reading and as many of them under the same plan is the same. */
function remembered<R>(memory: Memory<R>, { job, target, prediction }: Ground, r: Round, work: () => R): R {
  const known = memory.get(job.plan) ?? new Map<string, R>();
  memory.set(job.plan, known);
  const key = `${r.round.id}/${r.number}/${r.all.length}/${r.all.at(-1)?.id ?? ""}/${job.instruments.length}/${target?.squareDifferenceMm2 ?? ""}/${prediction?.twistNPerMm ?? ""}`;
  const done = known.get(key) ?? work();
  known.set(key, done);
  return done;
}

const evaluateFrameRound = (ground: Ground, frame: ResolvedFrame, r: Round): FrameRound =>
  remembered(FRAME_ROUNDS, ground, r, () => workOutFrameRound(ground, frame, r));
const evaluateBedRound = (ground: Ground, r: Round): BedRound =>
  remembered(BED_ROUNDS, ground, r, () => workOutBedRound(ground, r));

/** A pair of sides is cut to one length: the mean of what the two lose. */
function lossOfPair(prediction: Prediction | null, a: Side, b: Side): Estimate {
  const mean = (of: keyof Estimate): number =>
    prediction?.sidesMm ? (prediction.sidesMm[a][of] + prediction.sidesMm[b][of]) / 2 : 0;
  return { value: mean("value"), low: mean("low"), high: mean("high") };
}

const isCold = (r: Round): boolean => r.round.gate === "cold" && r.readings.size > 0;

/**
 * Stage and verdict of a job, for lists: the same that `evaluate` gives, without working out every round.
 * No verdict rests on the prediction: it moves what to set up to, not what is square.
 * @param job a valid job.
 */
export function summaryOf(job: Job): Summary {
  const ground = groundOf(job, null);
  const { frame, rounds, steps, ticked } = ground;
  const bed = rounds.findLast((r) => r.round.gate === "bed" && r.readings.size > 0);
  const cold = frame ? rounds.findLast(isCold) : undefined;
  let stage: Stage = frame ? "frame" : "job";
  if (frame && rounds.some((r) => r.round.gate === "cut" && r.readings.size > 0)) stage = "cut";
  if (bed) stage = "bed";
  if (frame && rounds.some((r) => ofFrame(r) && r.readings.size > 0)) stage = "square";
  if (steps.some((s) => ticked.has(s.key))) stage = "weld";
  if (cold) stage = "check";
  if (ticked.has(CLOSE_STEP)) stage = "log";
  const named = (r: Round) => `${r.round.gate}, round ${r.number}`;
  if (frame && cold)
    return {
      stage,
      verdict: evaluateFrameRound(ground, frame, cold).overall,
      about: `cold frame, round ${cold.number}`,
    };
  if (frame)
    for (const round of rounds.filter((r) => ofFrame(r) && r.readings.size > 0).reverse()) {
      const done = evaluateFrameRound(ground, frame, round);
      if (!done.square?.corners) continue;
      const square = done.verdicts.find((v) => v.limit.id === "square");
      if (square?.result) return { stage, verdict: square.result.verdict, about: `square, ${named(round)}` };
      break;
    }
  const flat = bed && evaluateBedRound(ground, bed).verdict.flat;
  return flat
    ? { stage, verdict: flat.verdict, about: `bed, round ${bed.number}` }
    : { stage, verdict: "not measured", about: "" };
}

/**
 * Evaluates a whole job. Pure: the same job gives the same answer in a browser, on the server and on the command line.
 * @param job a valid job. @param predicted of its plan (see predict.ts); null while it is being worked out.
 */
export function evaluate(job: Job, predicted: Prediction | null): Evaluation {
  const ground = groundOf(job, predicted);
  const { problems, structure, frame, prediction, target, limits, rounds, steps, ticked } = ground;
  const frameRounds = frame ? rounds.filter(ofFrame).map((r) => evaluateFrameRound(ground, frame, r)) : [];
  const cold = frameRounds.findLast(isCold) ?? null;
  const cut: Evaluation["cut"] = job.plan.free
    ? structure
      ? freeCutList(structure, prediction?.spansMm)
      : []
    : frame
      ? cutList(frame, { lengthMm: lossOfPair(prediction, "AB", "CD"), widthMm: lossOfPair(prediction, "BC", "DA") })
      : [];
  return {
    problems,
    structure,
    frame,
    footprint: ground.footprint,
    prediction,
    setUp: target,
    cut,
    limits,
    cutRounds: rounds.filter((r) => r.round.gate === "cut").map((r) => cutRoundOf(ground, cut, r)),
    bedRounds: rounds.filter((r) => r.round.gate === "bed").map((r) => evaluateBedRound(ground, r)),
    frameRounds,
    steps,
    ticked,
    cold,
    losses: prediction ? sideLosses(job, prediction, frameRounds, cold) : [],
    shapes: prediction ? shapeChanges(job, prediction, frameRounds, cold) : [],
    closed: ticked.has(CLOSE_STEP),
    summary: summaryOf(job),
  };
}

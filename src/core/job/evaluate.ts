import { fourCorners } from "../bed";
import {
  type BedVerdict,
  bedVerdict,
  type Limit,
  type LimitVerdict,
  type Overall,
  overall,
  resolveLimits,
  verdicts,
} from "../check";
import { type CutPiece, cutList } from "../cut";
import { CORNERS, type ResolvedFrame, resolveFrame, SIDES, type Side, SPANS, type Span } from "../frame";
import { orderOfWork, type Step } from "../plan";
import { heatJPerMm, type Prediction, predictClosedForm } from "../shrink";
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
import { CLOSE_STEP } from "./entries";
import type { Job } from "./job";
import { planProblems } from "./plan";
import { type Round, roundsOf, spansOf, uOfHeights, uOfReading } from "./rounds";

/** A bed round with its verdict. */
export interface BedRound extends Round {
  verdict: BedVerdict;
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
  /** Null while the plan has errors. */
  frame: ResolvedFrame | null;
  prediction: Prediction | null;
  setUp: SetUp | null;
  cut: CutPiece[];
  limits: Limit[];
  bedRounds: BedRound[];
  frameRounds: FrameRound[];
  steps: Step[];
  /** Keys of the steps that stand ticked. */
  ticked: Set<string>;
  /** Last cold round with a reading. */
  cold: FrameRound | null;
  losses: SideLoss[];
  closed: boolean;
  summary: Summary;
}

/** Readings may contradict the triangle rule by this before it is called impossible, mm. */
const SLACK_MM = 5;

function evaluateFrameRound(
  job: Job,
  round: Round,
  frame: ResolvedFrame,
  limits: Limit[],
  target: SetUp | null,
): FrameRound {
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
  return SIDES.map((side): SideLoss => {
    const predicted = prediction.sidesMm[side];
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

function summarise(e: Omit<Evaluation, "summary">): Summary {
  const named = (r: Round) => `${r.round.gate}, round ${r.number}`;
  const lastFrame = [...e.frameRounds].reverse().find((r) => r.square?.corners);
  const lastBed = [...e.bedRounds].reverse().find((r) => r.readings.size > 0);
  let stage: Stage = e.frame ? "frame" : "job";
  if (lastBed) stage = "bed";
  if (e.frameRounds.some((r) => r.readings.size > 0)) stage = "square";
  if (e.steps.some((s) => e.ticked.has(s.key))) stage = "weld";
  if (e.cold) stage = "check";
  if (e.closed) stage = "log";
  if (e.cold) return { stage, verdict: e.cold.overall, about: `cold frame, round ${e.cold.number}` };
  const square = lastFrame?.verdicts.find((v) => v.limit.id === "square");
  if (lastFrame && square?.result)
    return { stage, verdict: square.result.verdict, about: `square, ${named(lastFrame)}` };
  if (lastBed?.verdict.flat)
    return { stage, verdict: lastBed.verdict.flat.verdict, about: `bed, round ${lastBed.number}` };
  return { stage, verdict: "not measured", about: "" };
}

/**
 * Evaluates a whole job. Pure: the same job gives the same answer in a browser, on the server and on the command line.
 * @param job a valid job.
 */
export function evaluate(job: Job): Evaluation {
  const { plan } = job;
  const problems = planProblems(plan);
  const broken = (area: string) => problems.some((p) => p.severity === "error" && p.path.startsWith(area));
  const frame = broken("frame") ? null : resolveFrame(plan.frame);
  const prediction = frame && !broken("weld") && heatJPerMm(plan.weld) > 0 ? predictClosedForm(frame, plan.weld) : null;
  const target = frame && prediction ? setUp(frame.corners, prediction.cornerMovesMm) : null;
  const limits = frame && !broken("limits") ? resolveLimits(plan.limits, plan.frame) : [];
  const rounds = roundsOf(job.entries);
  const flatLimit = limits.find((l) => l.id === "flat")?.upper ?? null;
  const places = plan.bed.rests.map((r) => ({ id: r.id, x: r.x.mm, y: r.y.mm }));
  const bedRounds = rounds
    .filter((r) => r.round.gate === "bed")
    .map((r): BedRound => {
      const up = r.round.method === "rod" ? -1 : 1;
      const heights = Object.fromEntries([...r.readings].map(([id, reading]) => [id, up * reading.value.mm]));
      const u = uOfHeights(r, [...r.readings.keys()], job.instruments);
      return {
        ...r,
        verdict: bedVerdict(
          places,
          heights,
          u,
          flatLimit,
          plan.limits.levelMmPerM,
          {
            by: plan.bed.adjust,
            mode: plan.bed.mode,
            pitchMm: broken("bed.pitch") ? 1 : plan.bed.pitch.mm,
            thread: plan.bed.thread,
          },
          plan.units,
        ),
      };
    });
  const frameRounds = frame
    ? rounds.filter((r) => r.round.gate !== "bed").map((r) => evaluateFrameRound(job, r, frame, limits, target))
    : [];
  const cold = [...frameRounds].reverse().find((r) => r.round.gate === "cold" && r.readings.size > 0) ?? null;
  const steps = frame ? orderOfWork(frame) : [];
  const ticked = new Set<string>();
  for (const entry of job.entries) {
    if (entry.kind !== "tick") continue;
    if (entry.done) ticked.add(entry.step);
    else ticked.delete(entry.step);
  }
  const zero: Estimate = { value: 0, low: 0, high: 0 };
  const result = {
    problems,
    frame,
    prediction,
    setUp: target,
    cut: frame
      ? cutList(frame, { lengthMm: prediction?.sidesMm.AB ?? zero, widthMm: prediction?.sidesMm.BC ?? zero })
      : [],
    limits,
    bedRounds,
    frameRounds,
    steps,
    ticked,
    cold,
    losses: prediction ? sideLosses(job, prediction, frameRounds, cold) : [],
    closed: ticked.has(CLOSE_STEP),
  };
  return { ...result, summary: summarise(result) };
}

/** Walking order for taping a frame: round the sides, then the diagonals, then the corner heights. */
export const FRAME_READINGS = [...SPANS, ...CORNERS.map((c) => `z${c}`)] as const;

import { flatness, type Survey } from "../bed";
import {
  type AdjustStep,
  adjustStep,
  type BedVerdict,
  bedVerdict,
  type Limit,
  type LimitVerdict,
  type Lying,
  lying,
  type OnThree,
  type Overall,
  onThreeRests,
  overall,
  resolveLimits,
  verdicts,
} from "../check";
import { type AsCut, asCut, type CutPiece, cutList, type FreePiece, freeCutList } from "../cut";
import {
  CORNERS,
  footprint,
  MATERIALS,
  type ResolvedFrame,
  SIDES,
  type Side,
  type Span,
  type Structure,
} from "../frame";
import type { Step } from "../plan";
import type { Prediction } from "../shrink";
import {
  type GeneralCheck,
  generalCheck,
  type Impossible,
  impossible,
  type Measured,
  type Places,
  placesOf,
  type Reading,
  type SetUp,
  type SquareCheck,
  setUp,
  squareCheck,
  type Tape,
} from "../square";
import type { Estimate, Problem } from "../units";
import { bedSurvey, heightsOf } from "./bedSurvey";
import { builtOf } from "./built";
import { CLOSE_STEP } from "./entries";
import type { Job } from "./jobSchema";
import { orderOf } from "./orderOf";
import { planProblems } from "./plan";
import type { Plan } from "./planSchema";
import { fullU, type Mean, meansOf, type Round, roundsOf, spansOf, uOfHeights } from "./rounds";
import { quantityOf } from "./what";

/** A bed round with its verdict. */
export interface BedRound extends Round {
  means: ReadonlyMap<string, Mean>;
  survey: Survey;
  /** Readings that name a rest which is no longer there, by key. */
  homeless: string[];
  verdict: BedVerdict;
  /** The next thing to do at the rests; null while some are still to be read. */
  next: AdjustStep | null;
  /** The frame on the best three of them. */
  three: OnThree | null;
  /** How the frame would lie on it; null until every rest is read. */
  lying: Lying | null;
}

/** A round of pieces as they were cut. */
export interface CutRound extends Round {
  means: ReadonlyMap<string, Mean>;
  asCut: AsCut;
}

/** A round of sides, diagonals and corner heights with what follows from it. */
export interface FrameRound extends Round {
  means: ReadonlyMap<string, Mean>;
  /** Null for a frame without corners A to D, and before anything is taped. */
  square: SquareCheck | null;
  /** Where all places that were measured lie, and how they would have to move. */
  general: GeneralCheck | null;
  /** Flatness from heights, or from a rock, mm. */
  flatMm: (Measured & { by: string }) | null;
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
  /** Places between which one measures; null while the plan has errors. */
  places: Places | null;
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

/** Readings of distances, angles and offsets besides the sides and diagonals, for the fit. */
function moreReadings(
  means: ReadonlyMap<string, Mean>,
  places: Places,
): { readings: Reading[]; tapes: Record<string, Tape> } {
  const readings: Reading[] = [];
  const tapes: Record<string, Tape> = {};
  const known = (...names: string[]): boolean =>
    names.every((n) => places.nodes[n]) && new Set(names).size === names.length;
  for (const [id, mean] of means) {
    const q = quantityOf(id);
    const tape = mean.tape ? { tape: mean.tape.id } : {};
    if (q.kind === "distance" && known(q.from, q.to))
      readings.push({ kind: "distance", id, from: q.from, to: q.to, valueMm: mean.mm, uMm: mean.uMm, ...tape });
    else if (q.kind === "angle" && known(q.from, q.at, q.to)) {
      // Angles are kept as the arc at one metre.
      const valueRad = mean.mm / 1000;
      readings.push({ kind: "angle", id, from: q.from, at: q.at, to: q.to, valueRad, uRad: fullU(mean) / 1000 });
    } else if (q.kind === "offset" && known(q.of, q.from, q.to))
      readings.push({ kind: "offset", id, of: q.of, from: q.from, to: q.to, valueMm: mean.mm, uMm: mean.uMm });
    else continue;
    if (mean.tape) tapes[mean.tape.id] = { uZeroMm: mean.tape.uZeroMm, uScale: mean.tape.uScale };
  }
  return { readings, tapes };
}

/** Flatness from heights at places, or else from a rock: half of what rocks. */
function flatOf(means: ReadonlyMap<string, Mean>, places: Places): FrameRound["flatMm"] {
  const heights = [...means].flatMap(([key, mean]) => {
    const q = quantityOf(key);
    const at = q.kind === "height" ? places.nodes[q.name] : undefined;
    return at ? [{ at, mm: mean.mm, key }] : [];
  });
  const u = uOfHeights(
    means,
    heights.map((h) => h.key),
  );
  if (heights.length >= 4) {
    const found = flatness(
      heights.map((h) => h.at),
      heights.map((h) => h.mm),
      u,
    );
    if (found.zoneMm !== null && found.uZoneMm !== null)
      return { value: found.zoneMm, u: found.uZoneMm, by: `${heights.length} heights` };
  }
  const held = [...means].filter(([key]) => quantityOf(key).kind === "rock");
  const worst = held.reduce<Mean | null>((w, [, m]) => (!w || m.mm > w.mm ? m : w), null);
  return worst && { value: worst.mm / 2, u: worst.uMm / 2, by: "half of the rock" };
}

/** The worst reading of one kind, with where it was. */
function worstReading(means: ReadonlyMap<string, Mean>, kind: string): (Measured & { where: string }) | null {
  let worst: (Measured & { where: string }) | null = null;
  for (const [key, mean] of means) {
    const q = quantityOf(key);
    if (q.kind !== kind || !("name" in q)) continue;
    if (!worst || Math.abs(mean.mm) > worst.value) worst = { value: Math.abs(mean.mm), u: fullU(mean), where: q.name };
  }
  return worst;
}

function workOutFrameRound(ground: Ground, places: Places, round: Round): FrameRound {
  const { job, limits, target, frame } = ground;
  const means = meansOf(round, job.instruments, ground.alphaPerK);
  const { spans, tapes } = spansOf(means);
  const more = moreReadings(means, places);
  const mm = Object.fromEntries(Object.entries(spans).map(([k, v]) => [k, v.mm])) as Partial<Record<Span, number>>;
  const wrong = frame ? impossible(mm, SLACK_MM) : null;
  const before = round.round.gate !== "cold" && round.round.gate !== "hot";
  const allTapes = { ...tapes, ...more.tapes };
  // Places beyond the corners that too little reaches are left out of the fit; the general check names them.
  const inSpans = Object.entries(spans).map(([id, v]): Reading => {
    const base = {
      kind: "distance" as const,
      id,
      from: id[0] as string,
      to: id[1] as string,
      valueMm: v.mm,
      uMm: v.uMm,
    };
    return v.tape === undefined ? base : { ...base, tape: v.tape };
  });
  const general =
    wrong || inSpans.length + more.readings.length === 0
      ? null
      : generalCheck(
          places.nodes,
          [...inSpans, ...more.readings],
          allTapes,
          wantedPlaces(places, before ? target : null),
        );
  const usable = general ? more.readings.filter((r) => general.fit.readings.some((c) => c.id === r.id)) : [];
  const nodes = Object.fromEntries(
    Object.entries(places.nodes).filter(([n]) => !/^[A-D]$/.test(n) && usable.some((r) => touches(r, n))),
  );
  const square =
    !frame || wrong || Object.keys(spans).length === 0
      ? null
      : squareCheck(frame.lengthMm, frame.widthMm, spans, allTapes, before && target ? target.squareDifferenceMm2 : 0, {
          nodes,
          readings: usable,
        });
  const flatMm = flatOf(means, places);
  const list = verdicts(
    limits,
    {
      sides: Object.fromEntries(
        SIDES.flatMap((side) => {
          const mean = means.get(side);
          return mean ? [[side, { value: mean.mm, u: fullU(mean) }]] : [];
        }),
      ),
      square,
      flatMm,
      worst: {
        place: general?.farthest ? { ...general.farthest, where: general.farthest.place } : null,
        straight: worstReading(means, "straightness"),
        level: worstReading(means, "level"),
        gap: worstReading(means, "gap"),
        flush: worstReading(means, "flush"),
      },
    },
    job.plan.units,
  );
  return { ...round, means, square, general, flatMm, impossible: wrong, verdicts: list, overall: overall(list) };
}

const touches = (r: Reading, place: string): boolean =>
  [r.from, r.to, r.kind === "angle" ? r.at : r.kind === "offset" ? r.of : r.from].includes(place);

/** Where places shall be: set up off nominal for what the weld will do, the others moved along with the corners about them. */
function wantedPlaces(places: Places, target: SetUp | null): Places["nodes"] {
  if (!target) return places.nodes;
  const { A, B, C, D } = places.nodes;
  const { corners } = target;
  if (!A || !B || !C || !D) return places.nodes;
  const [length, width] = [B.x - A.x, D.y - A.y];
  return Object.fromEntries(
    Object.entries(places.nodes).map(([name, p]) => {
      const [s, t] = [(p.x - A.x) / length, (p.y - A.y) / width];
      const mix = (k: "x" | "y"): number =>
        (1 - s) * (1 - t) * (corners.A[k] - A[k]) +
        s * (1 - t) * (corners.B[k] - B[k]) +
        s * t * (corners.C[k] - C[k]) +
        (1 - s) * t * (corners.D[k] - D[k]);
      return [name, { x: p.x + mix("x"), y: p.y + mix("y") }];
    }),
  );
}

function sideLosses(prediction: Prediction, rounds: FrameRound[], cold: FrameRound | null): SideLoss[] {
  const before = [...rounds]
    .reverse()
    .find((r) => ["dry fit", "tacked"].includes(r.round.gate) && SIDES.every((s) => r.readings.has(s)));
  const { sidesMm } = prediction;
  if (!sidesMm) return [];
  return SIDES.map((side): SideLoss => {
    const predicted = sidesMm[side];
    const first = before?.means.get(side);
    const last = cold?.means.get(side);
    if (!first || !last) return { side, predicted, measured: null, agrees: null };
    // One tape for both: its zero and scale error drop out of the difference.
    const one = first.tape !== null && first.tape.id === last.tape?.id;
    const measured = {
      value: first.mm - last.mm,
      u: one ? Math.hypot(first.uMm, last.uMm) : Math.hypot(fullU(first), fullU(last)),
    };
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

function shapeChanges(prediction: Prediction, rounds: FrameRound[], cold: FrameRound | null): ShapeChange[] {
  const diagonals = ["AC", "BD"];
  const before = rounds.findLast(
    (r) => ["dry fit", "tacked"].includes(r.round.gate) && diagonals.every((d) => r.means.has(d)),
  );
  const difference = (r: FrameRound): number => (r.means.get("AC")?.mm ?? 0) - (r.means.get("BD")?.mm ?? 0);
  // Zero and scale of the tape drop out of the difference of two lengths that are nearly alike.
  const uOf = (r: FrameRound): number => Math.SQRT2 * uOfHeights(r.means, diagonals);
  const square: Measured | null =
    before && cold && diagonals.every((d) => cold.means.has(d))
      ? { value: difference(cold) - difference(before), u: Math.hypot(uOf(before), uOf(cold)) }
      : null;
  const names = CORNERS.map((c) => `z${c}`);
  const z = names.map((n) => cold?.means.get(n)?.mm);
  const twist: Measured | null =
    cold && z.every((v) => v !== undefined)
      ? {
          value: z.reduce<number>((sum, v, i) => sum + (i % 2 === 0 ? 1 : -1) * (v ?? 0), 0),
          u: 2 * uOfHeights(cold.means, names),
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
  places: Places | null;
  alphaPerK: number;
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
  const places = structure && placesOf(frame, structure);
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
    places,
    alphaPerK: MATERIALS[over?.material ?? "mild steel"].alphaPerK,
    prediction,
    target: frame && prediction?.cornerMovesMm ? setUp(frame.corners, prediction.cornerMovesMm) : null,
    limits: over && !broken("limits") ? resolveLimits(plan.limits, over, frame !== null) : [],
    rounds: roundsOf(job.entries),
    steps: orderOf(plan),
    ticked,
  };
}

function workOutBedRound(
  { job, limits, problems, footprint: over, prediction }: Ground,
  r: Round,
  before: BedRound | null,
): BedRound {
  const { plan } = job;
  const means = meansOf(r, job.instruments);
  const { survey, homeless } = bedSurvey(r, plan.bed.rests, means, job.instruments);
  const heights = heightsOf(survey);
  const pitchWrong = problems.some((p) => p.severity === "error" && p.path === "bed.pitch");
  const places = plan.bed.rests.map((rest) => ({ id: rest.id, x: rest.x.mm, y: rest.y.mm }));
  const three = over ? onThreeRests(places, over) : null;
  const { leaves } = plan.bed;
  const verdict = bedVerdict(
    places,
    heights,
    limits.find((l) => l.id === "flat")?.upper ?? null,
    plan.limits.levelMmPerM,
    {
      by: plan.bed.adjust,
      mode: plan.bed.mode,
      pitchMm: pitchWrong ? 1 : plan.bed.pitch.mm,
      thread: plan.bed.thread,
      onThree: plan.bed.school === "three",
      ...(leaves && leaves.length > 0 ? { leavesMm: leaves.map((l) => l.mm) } : {}),
    },
    plan.units,
    three,
  );
  return {
    ...r,
    means,
    survey,
    homeless,
    verdict,
    three,
    next: adjustStep(verdict, before?.verdict ?? null, plan.bed.adjust, places, plan.units),
    lying: over ? lying(places, heights.heightsMm, over, prediction?.twistNPerMm ?? null, plan.units) : null,
  };
}

function cutRoundOf({ job }: Ground, cut: readonly CutPiece[], r: Round): CutRound {
  const means = meansOf(r, job.instruments);
  const readings = [...means].map(([what, mean]) => [what, { mm: mean.mm, uMm: mean.uMm }]);
  return { ...r, means, asCut: asCut(cut, Object.fromEntries(readings)) };
}

/** Rounds of the frame itself, put together. */
const ofFrame = (r: Round): boolean => r.round.gate !== "bed" && r.round.gate !== "cut";

/** Rounds already worked out under one plan: a reading changes one round, and the others need not be worked out again. */
type Memory<R> = WeakMap<Plan, Map<string, R>>;
const FRAME_ROUNDS: Memory<FrameRound> = new WeakMap();
const BED_ROUNDS: Memory<BedRound> = new WeakMap();

/** Entries are never changed, so a round with the same last reading and as many of them under the same plan is the same. */
function remembered<R>(memory: Memory<R>, { job, target, prediction }: Ground, r: Round, work: () => R, also = ""): R {
  const known = memory.get(job.plan) ?? new Map<string, R>();
  memory.set(job.plan, known);
  const key = `${r.round.id}/${r.number}/${r.all.length}/${r.all.at(-1)?.id ?? ""}/${job.instruments.length}/${target?.squareDifferenceMm2 ?? ""}/${prediction?.twistNPerMm ?? ""}/${also}`;
  const done = known.get(key) ?? work();
  known.set(key, done);
  return done;
}

const evaluateFrameRound = (ground: Ground, places: Places, r: Round): FrameRound =>
  remembered(FRAME_ROUNDS, ground, r, () => workOutFrameRound(ground, places, r));
const evaluateBedRound = (ground: Ground, r: Round, before: BedRound | null): BedRound =>
  remembered(BED_ROUNDS, ground, r, () => workOutBedRound(ground, r, before), before?.all.at(-1)?.id);

/** Rounds of the bed, each with what the one before it asked for. */
function bedRoundsOf(ground: Ground): BedRound[] {
  const done: BedRound[] = [];
  for (const r of ground.rounds)
    if (r.round.gate === "bed") done.push(evaluateBedRound(ground, r, done.at(-1) ?? null));
  return done;
}

/** A pair of sides is cut to one length: the mean of what the two lose. */
function lossOfPair(prediction: Prediction | null, a: Side, b: Side): Estimate {
  const mean = (of: keyof Estimate): number =>
    prediction?.sidesMm ? (prediction.sidesMm[a][of] + prediction.sidesMm[b][of]) / 2 : 0;
  return { value: mean("value"), low: mean("low"), high: mean("high") };
}

const isRead = (r: Round): boolean => r.readings.size + r.slants.size > 0;
const isCold = (r: Round): boolean => r.round.gate === "cold" && isRead(r);

/**
 * Stage and verdict of a job, for lists: the same that `evaluate` gives, without working out every round.
 * No verdict rests on the prediction: it moves what to set up to, not what is square.
 * @param job a valid job.
 */
export function summaryOf(job: Job): Summary {
  const ground = groundOf(job, null);
  const { frame, places, rounds, steps, ticked } = ground;
  const bed = rounds.findLast((r) => r.round.gate === "bed" && isRead(r));
  const cold = places ? rounds.findLast(isCold) : undefined;
  let stage: Stage = places ? "frame" : "job";
  if (places && rounds.some((r) => r.round.gate === "cut" && r.readings.size > 0)) stage = "cut";
  if (bed) stage = "bed";
  if (places && rounds.some((r) => ofFrame(r) && isRead(r))) stage = "square";
  if (steps.some((s) => ticked.has(s.key))) stage = "weld";
  if (cold) stage = "check";
  if (ticked.has(CLOSE_STEP)) stage = "log";
  const named = (r: Round) => `${r.round.gate}, round ${r.number}`;
  if (places && cold)
    return {
      stage,
      verdict: evaluateFrameRound(ground, places, cold).overall,
      about: `cold frame, round ${cold.number}`,
    };
  if (places)
    for (const round of rounds.filter((r) => ofFrame(r) && isRead(r)).reverse()) {
      const done = evaluateFrameRound(ground, places, round);
      if (frame ? !done.square?.corners : !done.general?.farthest) continue;
      const square = done.verdicts.find((v) => v.limit.id === (frame ? "square" : "place"));
      if (square?.result) return { stage, verdict: square.result.verdict, about: `square, ${named(round)}` };
      break;
    }
  const flat = bed && evaluateBedRound(ground, bed, null).verdict.flat;
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
  const { problems, structure, frame, places, prediction, target, limits, rounds, steps, ticked } = ground;
  const frameRounds = places ? rounds.filter(ofFrame).map((r) => evaluateFrameRound(ground, places, r)) : [];
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
    places,
    footprint: ground.footprint,
    prediction,
    setUp: target,
    cut,
    limits,
    cutRounds: rounds.filter((r) => r.round.gate === "cut").map((r) => cutRoundOf(ground, cut, r)),
    bedRounds: bedRoundsOf(ground),
    frameRounds,
    steps,
    ticked,
    cold,
    losses: prediction ? sideLosses(prediction, frameRounds, cold) : [],
    shapes: prediction ? shapeChanges(prediction, frameRounds, cold) : [],
    closed: ticked.has(CLOSE_STEP),
    summary: summaryOf(job),
  };
}

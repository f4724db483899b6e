import { type Lying, lying, type OnThree, onThreeRests, type Survey } from "../bed";
import { type AdjustStep, adjustStep, type BedVerdict, bedVerdict } from "../check";
import { bedSurvey, heightsOf } from "./bedSurvey";
import type { EvaluationContext } from "./evaluationContext";
import { type Mean, meansOf, type Round } from "./rounds";

/** A bed round with its verdict. */
export interface BedRound extends Round {
  means: ReadonlyMap<string, Mean>;
  survey: Survey;
  /** Readings that name a rest which is no longer there, by key. */
  orphaned: string[];
  verdict: BedVerdict;
  /** The next thing to do at the rests; null while some are still to be read. */
  next: AdjustStep | null;
  /** The frame on the best three of them. */
  three: OnThree | null;
  /** How the frame would lie on it; null until every rest is read. */
  lying: Lying | null;
}

/** Works out a round of the bed. @param before the round before it, for what it asked. */
export function workOutBedRound(
  { job, limits, problems, structure, footprint: over, prediction }: EvaluationContext,
  r: Round,
  before: BedRound | null,
): BedRound {
  const { plan } = job;
  const means = meansOf(r, job.instruments);
  const { survey, orphaned } = bedSurvey(r, plan.bed.rests, means, job.instruments);
  const heights = heightsOf(survey);
  const pitchWrong = problems.some((p) => p.severity === "error" && p.path === "bed.pitch");
  const places = plan.bed.rests.map((rest) => ({ id: rest.id, x: rest.x.mm, y: rest.y.mm }));
  const three = structure ? onThreeRests(places, structure) : null;
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
      ...(plan.bed.feet ? { feet: plan.bed.feet } : {}),
      ...(leaves.length > 0 ? { leavesMm: leaves.map((l) => l.mm) } : {}),
    },
    plan.units,
    three,
  );
  return {
    ...r,
    means,
    survey,
    orphaned,
    verdict,
    three,
    next: adjustStep(verdict, before?.verdict ?? null, plan.bed.adjust, places, plan.units),
    lying: over ? lying(places, heights.heightsMm, over, prediction?.twistNPerMm ?? null, plan.units) : null,
  };
}

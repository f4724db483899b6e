import "server-only";
import {
  canPredict,
  type Job,
  leansOnPrediction,
  type Plan,
  predicting,
  predictionKey,
  type Summary,
  summaryOf,
} from "@/core/job";
import type { Prediction } from "@/core/shrink";

/** Predictions kept, by what they depend on; the oldest goes first. */
const KEEP = 200;
/** Other requests get their turn after this long, ms. */
const TURN_MS = 8;

const known = new Map<string, Prediction>();
const underWay = new Map<string, Promise<Prediction>>();

/** A prediction that is at hand already, or null. */
export const knownPrediction = (plan: Plan): Prediction | null =>
  canPredict(plan) ? (known.get(predictionKey(plan)) ?? null) : null;

async function work(plan: Plan): Promise<Prediction> {
  const run = predicting(plan);
  let turn = performance.now();
  for (;;) {
    const step = run.next();
    if (step.done) return step.value.prediction;
    if (performance.now() - turn < TURN_MS) continue;
    await new Promise((resolve) => setImmediate(resolve));
    turn = performance.now();
  }
}

/** The prediction of a plan; worked out in turns, so that the server stays with everybody. Null while the plan has errors. */
export async function predictionOf(plan: Plan): Promise<Prediction | null> {
  if (!canPredict(plan)) return null;
  const key = predictionKey(plan);
  const ready = known.get(key);
  if (ready) return ready;
  const running =
    underWay.get(key) ??
    work(plan)
      .then((prediction) => {
        const [oldest] = known.keys();
        if (known.size >= KEEP && oldest !== undefined) known.delete(oldest);
        known.set(key, prediction);
        return prediction;
      })
      .finally(() => underWay.delete(key));
  underWay.set(key, running);
  return running;
}

/** Stage and verdict of a job for lists, with its prediction where the verdict leans on it. */
export const summarised = async (job: Job): Promise<Summary> =>
  summaryOf(job, leansOnPrediction(job) ? await predictionOf(job.plan) : null);

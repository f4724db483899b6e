import "server-only";
import { canPredict, type Plan, predicting, predictionKey } from "@/core/job";
import type { Prediction } from "@/core/shrink";

/** Predictions kept, by what they depend on; the oldest goes first. */
const KEEP = 200;
/** Other requests get their turn after this long, ms. */
const TURN_MS = 8;

const known = new Map<string, Prediction>();
const underWay = new Map<string, Promise<Prediction>>();

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

/** A page waits this long for a prediction that is not at hand; the browser works out what comes later, ms. */
const WAIT_MS = 150;

/** The prediction that a page of a job starts with, or null when it would keep the page waiting. */
export async function predictionInTime(plan: Plan): Promise<Prediction | null> {
  const coming = predictionOf(plan).catch(() => null);
  return Promise.race([coming, new Promise<null>((resolve) => setTimeout(() => resolve(null), WAIT_MS).unref())]);
}

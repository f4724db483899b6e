import "server-only";
import { canPredict, jointsOf, type Plan, predictionKey } from "@/core/job";
import type { Prediction } from "@/core/shrink";
import * as store from "@/store";
import { inThread } from "@/workers/predictionThread";

/** Predictions kept, by what they depend on; the oldest goes first. */
const KEEP = 200;
/** Predictions kept over restarts. */
const KEEP_STORED = 2000;
/** A page waits this long for a prediction that is not at hand; the browser works out what comes later, ms. */
const WAIT_MS = 150;
/** For a page, larger frames are worked out in its browser alone: here others would wait behind them. */
const MOST_JOINTS = 90;

/** The model that this was built with; what another one made is not shown. Null when it was not built: nothing is kept then. */
const model = (): string | null => process.env.PLUMB_MODEL ?? null;

const known = new Map<string, Prediction>();
const underWay = new Map<string, Promise<Prediction>>();

function remember(key: string, prediction: Prediction): Prediction {
  const [oldest] = known.keys();
  if (known.size >= KEEP && oldest !== undefined) known.delete(oldest);
  known.set(key, prediction);
  return prediction;
}

/** What was worked out before, also by an earlier start. A store that cannot be reached has nothing. */
async function kept(key: string): Promise<Prediction | null> {
  const here = known.get(key);
  if (here) return here;
  const built = model();
  const stored = built ? await store.loadPrediction(store.pool(), key, built).catch(() => null) : null;
  return stored && remember(key, stored);
}

async function work(plan: Plan, key: string): Promise<Prediction> {
  const prediction = await inThread("predict", plan);
  const built = model();
  if (built) await store.keepPrediction(store.pool(), key, built, prediction, KEEP_STORED).catch(() => undefined);
  return remember(key, prediction);
}

/** The prediction of a plan; worked out beside this thread, which stays with everybody. Null while the plan has errors. */
export async function predictionOf(plan: Plan): Promise<Prediction | null> {
  if (!canPredict(plan)) return null;
  const key = predictionKey(plan);
  const running =
    underWay.get(key) ??
    kept(key)
      .then((ready) => ready ?? work(plan, key))
      .finally(() => underWay.delete(key));
  underWay.set(key, running);
  return running;
}

/** The prediction that a page of a job starts with, or null when it would keep the page waiting. */
export async function predictionInTime(plan: Plan): Promise<Prediction | null> {
  if (!canPredict(plan)) return null;
  const coming = jointsOf(plan) > MOST_JOINTS ? kept(predictionKey(plan)) : predictionOf(plan);
  return Promise.race([
    coming.catch(() => null),
    new Promise<null>((resolve) => setTimeout(() => resolve(null), WAIT_MS).unref()),
  ]);
}

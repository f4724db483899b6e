import "server-only";
import { canPredict, jointsOf, type Plan, predictionKey } from "@/core/job";
import type { Prediction } from "@/core/shrink";
import * as store from "@/store";
import { inThread } from "@/workers/predictionThread";
import { done, type Outcome, refuse } from "./outcome";

/** Predictions kept, by what they depend on; the oldest goes first. */
const KEEP = 200;
/** Predictions kept over restarts. */
const KEEP_STORED = 2000;
/** A page waits this long for a prediction that is not at hand; the browser works out what comes later, ms. */
const WAIT_MS = 150;
/** Larger frames take minutes: a page works them out in its browser alone, and here they have a thread of their own. */
const MOST_JOINTS = 90;
/** Whoever asks for a file waits this long for a forecast that takes minutes, ms. */
const FILE_WAIT_MS = 20_000;

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
  const prediction = await inThread("predict", plan, laneOf(plan));
  const built = model();
  if (built) await store.keepPrediction(store.pool(), key, built, prediction, KEEP_STORED).catch(() => undefined);
  return remember(key, prediction);
}

const isLarge = (plan: Plan): boolean => jointsOf(plan) > MOST_JOINTS;

/** Where what is worked out for a plan has its turn. */
export const laneOf = (plan: Plan): "quick" | "slow" => (isLarge(plan) ? "slow" : "quick");

/** The prediction of a plan; worked out beside this thread, which stays with everybody. Null while the plan has errors. */
async function predictionOf(plan: Plan): Promise<Prediction | null> {
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
  const coming = isLarge(plan) ? kept(predictionKey(plan)) : predictionOf(plan);
  return Promise.race([coming.catch(() => null), after(WAIT_MS, null)]);
}

const after = <T>(ms: number, value: T): Promise<T> =>
  new Promise((resolve) => setTimeout(() => resolve(value), ms).unref());

/**
 * What a file of a plan is made with: its prediction, or none while the plan has errors. One that takes minutes goes on being worked out
 * where it is not ready in time, and who asked is told to ask again. @param waitMs for such a one.
 */
export async function forecastOf(plan: Plan, waitMs = FILE_WAIT_MS): Promise<Outcome<Prediction | null>> {
  const coming = predictionOf(plan).then(done);
  if (!isLarge(plan)) return coming;
  const late = refuse(
    503,
    `The forecast of a frame of ${jointsOf(plan)} joints takes minutes: it is being worked out. Ask again later.`,
  );
  return Promise.race([coming.catch(() => late), after(waitMs, late)]);
}

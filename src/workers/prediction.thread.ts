import path from "node:path";
import { pathToFileURL } from "node:url";
import { parentPort } from "node:worker_threads";
import type loadHighs from "highs";
import { nestingProblem, solveNesting } from "@/core/cut";
import { type BuyingPart, frameTeachingOf, type Job, type Laid, type Plan, predicting } from "@/core/job";
import type { Prediction } from "@/core/shrink";
import { readJobFile } from "@/formats/jobFile";
import { readLessonsFile } from "@/formats/lessonsFile";
import { readArchive, type ShopArchive, writeArchive } from "@/formats/shopArchive";
import { solvedBy } from "./solvedBy";

/** A plan for one frame is proven in far less; what is not by then is told with its gap. */
const LIMIT_S = 1.2;

let solver: ReturnType<typeof loadHighs> | null = null;

/** The solver as it lies beside the server: it brings a file of its own, so it is not bundled. */
async function loaded(): ReturnType<typeof loadHighs> {
  const file = path.join(process.cwd(), "node_modules/highs/build/highs.mjs");
  const { default: load } = (await import(pathToFileURL(file).href)) as { default: typeof loadHighs };
  return load();
}

/** How the bars of each part are cut. */
async function nested(parts: readonly BuyingPart[]): Promise<Laid[]> {
  solver ??= loaded();
  const highs = await solver;
  return parts.map(({ pieces, stock, faceMm }) => {
    const problem = nestingProblem(pieces, stock, faceMm);
    return "tooLong" in problem ? problem : solveNesting(problem, (lp) => solvedBy(highs, lp, LIMIT_S), stock);
  });
}

function predicted(plan: Plan): Prediction | null {
  const run = predicting(plan);
  for (let step = run.next(); ; step = run.next()) if (step.done) return step.value.prediction;
}

/** What is worked out beside the server's own thread: each by the name that it is asked for. */
const work = {
  predict: (plan: Plan) => predicted(plan),
  teach: (job: Job) => frameTeachingOf(job),
  nest: (parts: readonly BuyingPart[]) => nested(parts),
  readJob: (text: string) => readJobFile(text),
  readLessons: (text: string) => readLessonsFile(text),
  packShop: (shop: ShopArchive) => writeArchive(shop),
  unpackShop: (bytes: Uint8Array) => readArchive(bytes),
};
export type ThreadWork = typeof work;

interface Question<K extends keyof ThreadWork = keyof ThreadWork> {
  id: number;
  ask: K;
  of: Parameters<ThreadWork[K]>[0];
}

parentPort?.on("message", async ({ id, ask, of }: Question) => {
  try {
    const answer = await (work[ask] as (of: unknown) => unknown)(of);
    parentPort?.postMessage({ id, answer });
  } catch (e) {
    parentPort?.postMessage({ id, wrong: e instanceof Error ? e.message : String(e) });
  }
});

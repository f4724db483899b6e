import { parentPort } from "node:worker_threads";
import { frameTeachingOf, type Job, type Plan, predicting } from "@/core/job";

/** Works predictions and lessons out beside the server's own thread: one after the other, each answered under its number. */
parentPort?.on("message", ({ id, plan, job }: { id: number; plan?: Plan; job?: Job }) => {
  try {
    if (job) parentPort?.postMessage({ id, answer: frameTeachingOf(job) });
    if (!plan) return;
    const run = predicting(plan);
    for (let step = run.next(); ; step = run.next())
      if (step.done) {
        parentPort?.postMessage({ id, answer: step.value.prediction });
        return;
      }
  } catch (e) {
    parentPort?.postMessage({ id, wrong: e instanceof Error ? e.message : String(e) });
  }
});

import { parentPort } from "node:worker_threads";
import { type Plan, predicting } from "@/core/job";

/** Works predictions out beside the server's own thread: one after the other, each answered under its number. */
parentPort?.on("message", ({ id, plan }: { id: number; plan: Plan }) => {
  try {
    const run = predicting(plan);
    for (let step = run.next(); ; step = run.next())
      if (step.done) {
        parentPort?.postMessage({ id, prediction: step.value.prediction });
        return;
      }
  } catch (e) {
    parentPort?.postMessage({ id, wrong: e instanceof Error ? e.message : String(e) });
  }
});

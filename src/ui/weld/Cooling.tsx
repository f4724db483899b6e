"use client";

import { timeOf, weldOf } from "@/core/job";
import { coolsFor, jointWords, timeWords } from "@/core/plan";
import { useJob } from "../job/JobProvider";
import { useRing } from "../parts/useRing";
import { useTickTimes } from "./useTickTimes";

/** How long there is still to wait: by when the steps were ticked, or, before the first, as planned. */
export function Cooling({ until, stepKey: key }: { until: "touch" | "cold"; stepKey: string }) {
  const { job, evaluation } = useJob("job", "evaluation");
  const { structure, steps } = evaluation;
  const { nowS, times } = useTickTimes();
  const welded = [...times.keys()].some((k) => k.startsWith("bead/") || k.startsWith("tack/"));
  const left =
    welded && structure && nowS !== null ? coolsFor(structure, weldOf(job.plan), steps, times, nowS, until) : null;
  const what = until === "touch" ? "can be touched" : "is cold";
  // Said beside the page as well, where nothing else is: never without its caution.
  const cooled = `By the ticks all of it ${what}. Make sure with the back of the hand, close but not on it.`;
  useRing(left !== null, cooled);
  if (!structure || nowS === null) return null;
  if (!welded) {
    const planned = timeOf(job)?.steps.get(key)?.takesS ?? 0;
    return (
      <p className="max-w-prose text-lg" data-testid="cooling">
        Welded without a pause it {what} about <span className="fig font-semibold">{timeWords(planned)}</span> later;
        counted from the ticks when there are some.
      </p>
    );
  }
  const joint = left && structure.joints.find((j) => j.id === left.joint);
  return (
    <p className="max-w-prose text-lg" role="timer" data-testid="cooling">
      {left && joint ? (
        <>
          About <span className="fig font-semibold">{timeWords(left.seconds)}</span> more until all of it {what};{" "}
          {jointWords(structure, joint)} is the last. Reckoned for still air in a shop, from when the steps were ticked:
          feel for it with the back of the hand, close but not on it.
        </>
      ) : (
        cooled
      )}
    </p>
  );
}

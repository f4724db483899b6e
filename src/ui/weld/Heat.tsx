"use client";

import { useMemo } from "react";
import { weldOf } from "@/core/job";
import { interpassWait, jointWords, type Step, timeWords, type Warmth, warmthOf } from "@/core/plan";
import { physical } from "@/core/units";
import { useJob } from "../job/JobProvider";
import { useTickTimes } from "./useTickTimes";

/** How warm the joints are by the ticks, hottest first; none before the page is live, and of those that are cold. */
export function useWarmth(): readonly Warmth[] {
  const { job, evaluation } = useJob("job", "evaluation");
  const { structure, steps } = evaluation;
  const { nowS, times } = useTickTimes();
  const weld = useMemo(() => weldOf(job.plan), [job.plan]);
  return useMemo(
    () =>
      structure && nowS !== null ? warmthOf(structure, weld, steps, times, nowS).filter((w) => w.is !== "cold") : [],
    [structure, weld, steps, times, nowS],
  );
}

/** A joint that is still too hot for its next bead: how long to wait, and how hot it may be. */
export function TooHotYet({ step }: { step: Step }) {
  const { job, evaluation } = useJob("job", "evaluation");
  const { structure, steps } = evaluation;
  const { nowS, times } = useTickTimes();
  if (!structure || nowS === null || step.id.do !== "bead") return null;
  const wait = interpassWait(structure, weldOf(job.plan), steps, step, times, nowS);
  if (!wait) return null;
  return (
    <p className="font-semibold" role="timer" data-testid="interpass">
      Too hot for the next bead: about {timeWords(wait.seconds)} more, until it is less than{" "}
      {physical("warmth", wait.limitK, job.plan.units)} over the shop. Go on at another joint meanwhile.
    </p>
  );
}

/** The same in words. */
export function WarmthWords({ warmth }: { warmth: readonly Warmth[] }) {
  const { evaluation } = useJob("evaluation");
  const { structure } = evaluation;
  if (!structure || warmth.length === 0) return null;
  const named = (is: Warmth["is"]): string =>
    warmth
      .filter((w) => w.is === is)
      .flatMap((w) => {
        const joint = structure.joints.find((j) => j.id === w.joint);
        return joint ? [jointWords(structure, joint)] : [];
      })
      .join(", ");
  const [hot, warm] = [named("hot"), named("warm")];
  return (
    <p className="max-w-prose text-soft" data-testid="warmth">
      {hot ? (
        <>
          <span className="font-semibold text-ink">Too hot to touch</span>: {hot}.{" "}
        </>
      ) : null}
      {warm ? <>Warm, and read long: {warm}. </> : null}
      By the ticks, in still air.
    </p>
  );
}

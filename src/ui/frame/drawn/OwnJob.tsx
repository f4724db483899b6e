"use client";

import { partPlan } from "@/core/job";
import { useJob } from "../../job/JobProvider";
import { useBeginJob } from "../../job/useBeginJob";
import { Button } from "../../parts/Button";
import { FieldMessage } from "../../parts/Field";

/** Longest name of a job. */
const MOST_NAME = 120;

/** Begins a job for some members as a flat frame of their own: laid down, with the limits and settings of this one. */
export function OwnJob({ name, members }: { name: string; members: readonly string[] }) {
  const { job } = useJob("job");
  const { begin, wrong, busy } = useBeginJob();
  const start = () => {
    const own = `${job.plan.name}, ${name}`.slice(0, MOST_NAME);
    const plan = partPlan(job.plan, members, own);
    if (plan) void begin({ name: own, units: plan.units, plan }, "frame");
  };
  return (
    <>
      <Button className="justify-self-start" disabled={busy || members.length === 0} onClick={start}>
        Lay {name} out as a job of its own
      </Button>
      {wrong ? <FieldMessage severity="error">{wrong}</FieldMessage> : null}
    </>
  );
}

"use client";

import { CARRIES_CAUTION, CARRIES_WORDS } from "@/core/job";
import { useJob } from "./JobProvider";

/** What the frame carries calls for more than this tool: said on the stages where it matters. */
export function CarriesCaution() {
  const { job } = useJob("job");
  const words = CARRIES_CAUTION[job.plan.carries];
  return words ? (
    <p className="flex max-w-prose gap-2 border-l-4 border-close py-0.5 pl-4 text-[0.95rem]">
      <span>
        <strong>{CARRIES_WORDS[job.plan.carries]} </strong>
        {words}
      </span>
    </p>
  ) : null;
}

import { STAGES } from "@/core/job";
import { STAGE_NAMES } from "./stages";
import type { Present } from "./useWatch";

/** Who else has this job open, and at which stage: under the job's name, where it moves nothing as they come and go. */
export function AlsoHere({ people }: { people: readonly Present[] }) {
  if (people.length === 0) return null;
  const words = people.map(({ who, stage }) => {
    const known = STAGES.find((s) => s === stage);
    const name = who.replace(/, (?:bench|desk)$/, "");
    return `${name === "unnamed" ? "Somebody" : name} is at ${known ? STAGE_NAMES[known] : "this job"}`;
  });
  return (
    <p role="status" className="screen-only -mt-1 truncate text-xs leading-4 text-soft" data-testid="also-here">
      {[...new Set(words)].join("; ")}
    </p>
  );
}

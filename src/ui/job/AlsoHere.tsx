import { STAGES } from "@/core/job";
import { STAGE_NAMES } from "./stages";
import type { Present } from "./useWatch";

/** Who else has this job open, and at which stage. */
export function AlsoHere({ people }: { people: readonly Present[] }) {
  if (people.length === 0) return null;
  const words = people.map(({ who, stage }) => {
    const known = STAGES.find((s) => s === stage);
    const name = who.replace(/, (?:bench|desk)$/, "");
    return `${name === "unnamed" ? "Somebody" : name} is at ${known ? STAGE_NAMES[known] : "this job"}`;
  });
  return (
    <p role="status" className="mr-3 text-sm text-soft max-md:order-last max-md:basis-full" data-testid="also-here">
      {[...new Set(words)].join("; ")}
    </p>
  );
}

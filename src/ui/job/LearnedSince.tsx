"use client";

import { learnedWords } from "@/core/job";
import { Button } from "../parts/Button";
import { useJob } from "./JobProvider";
import { usePlanField } from "./usePlanField";

/** What the predictions of this job rest on, and whether its shop knows more by now. */
export function LearnedSince() {
  const { job, learned, evaluation } = useJob("job", "learned", "evaluation");
  const { edit } = usePlanField();
  const known = job.plan.learned;
  const count = (l: typeof known): number => (l ? l.frames + l.coupons : 0);
  const more = learned && count(learned) > 0 && (!known || count(learned) !== count(known));
  const isWelded = evaluation.steps.some((s) => s.id.do === "bead" && evaluation.ticked.has(s.key));
  return (
    <div className="grid max-w-prose gap-2 text-sm" data-testid="learned-since">
      <p className="text-soft">Bands rest on: {learnedWords(known)}.</p>
      {more && !isWelded ? (
        <p className="flex flex-wrap items-center gap-3">
          By now the shop knows more: {learnedWords(learned)}.
          <Button onClick={() => edit((p) => ({ ...p, learned }))}>Predict by it</Button>
        </p>
      ) : null}
      {more && isWelded ? (
        <p className="text-soft">
          The shop knows more by now. This frame is held against what was known before it was welded.
        </p>
      ) : null}
    </div>
  );
}

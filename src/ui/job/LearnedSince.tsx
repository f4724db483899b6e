"use client";

import { learnedWords } from "@/core/job";
import { LEARNABLE, type ShopLearned } from "@/core/learn";
import { Button } from "../parts/Button";
import { useJob } from "./JobProvider";
import { usePlanField } from "./usePlanField";

/** Factors that moved by less are the same, in their logarithms: a day's forgetting is no news. */
const SAME = 0.02;

/** Whether two states of what a shop knows predict otherwise. */
function isOther(a: ShopLearned, b: ShopLearned): boolean {
  if (a.frames !== b.frames || a.coupons !== b.coupons || a.cells.length !== b.cells.length) return true;
  return LEARNABLE.some((f) =>
    b.factors[f].mean.some((m, i) => Math.abs(m - (a.factors[f].mean[i] ?? Number.POSITIVE_INFINITY)) > SAME),
  );
}

/** What the predictions of this job rest on, and whether its shop knows more by now. */
export function LearnedSince() {
  const { job, learned, evaluation } = useJob("job", "learned", "evaluation");
  const { edit } = usePlanField();
  const known = job.plan.learned;
  const count = (l: typeof known): number => (l ? l.frames + l.coupons : 0);
  const more = learned && count(learned) > 0 && (!known || isOther(known, learned));
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

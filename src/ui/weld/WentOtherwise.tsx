"use client";

import dynamic from "next/dynamic";
import { useState } from "react";
import { tickedInTurn } from "@/core/job";
import { asWorked, type Step } from "@/core/plan";
import { useJob } from "../job/JobProvider";
import { Button } from "../parts/Button";
import { FieldMessage } from "../parts/Field";
import { Fold } from "../parts/Fold";
import { useWarm } from "../parts/useWarm";
import { useOwnSteps } from "./useOwnSteps";

const fields = () => import("./WentFields");
// Comes when it is opened.
const WentFields = dynamic(fields, { ssr: false });
const LATER = [fields];

/** A weld that did not go as planned: what happened is kept with the job, and the rest is forecast from it. */
export function WentOtherwise({ step, say, onDone }: { step: Step; say: string; onDone: () => void }) {
  // Kept while it is folded.
  const [what, setWhat] = useState("");
  useWarm(LATER);
  return (
    <Fold title="Went otherwise">
      <WentFields step={step} say={say} what={what} onWhat={setWhat} onDone={onDone} />
    </Fold>
  );
}

/** Says that steps were ticked in another order than planned, and takes that one for the forecast. */
export function WorkedOtherwise() {
  const { job, evaluation } = useJob("job", "evaluation");
  const take = useOwnSteps();
  const worked = asWorked(
    evaluation.steps.map((s) => s.id),
    tickedInTurn(job, evaluation.ticked),
  );
  if (!worked) return null;
  return (
    <div className="mb-3 grid max-w-prose gap-2" data-testid="worked-otherwise">
      <FieldMessage severity="warning">
        Ticked in another order than planned. The forecast is still of the order as planned.
      </FieldMessage>
      <Button className="justify-self-start" onClick={() => take(worked)}>
        Take the order as it was worked
      </Button>
    </div>
  );
}

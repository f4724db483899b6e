"use client";

import { useId, useState } from "react";
import { tickedInTurn } from "@/core/job";
import { asWorked, ownChoice, type Step, type StepId, without, withRepeat } from "@/core/plan";
import { useJob } from "../job/JobProvider";
import { usePlanField } from "../job/usePlanField";
import { Button } from "../parts/Button";
import { FieldMessage, inputClass } from "../parts/Field";
import { Fold } from "../parts/Fold";

/** Puts steps in place of the order as planned. */
function useOwnSteps(): (steps: readonly StepId[]) => void {
  const { evaluation } = useJob("evaluation");
  const { edit } = usePlanField();
  const { order } = evaluation;
  return (steps) => {
    if (!order) return;
    edit((p) => ({ ...p, order: ownChoice(order, steps) }));
  };
}

/** A weld that did not go as planned: what happened is kept with the job, and the rest is forecast from it. */
export function WentOtherwise({ step, say, onDone }: { step: Step; say: string; onDone: () => void }) {
  const { evaluation, store } = useJob("evaluation", "store");
  const take = useOwnSteps();
  const id = useId();
  const [what, setWhat] = useState("");
  const [said, setSaid] = useState<string | null>(null);
  const ids = evaluation.steps.map((s) => s.id);
  const keep = (how: string): boolean => {
    if (what.trim() === "") {
      setSaid("Say what happened: it is kept with the job.");
      return false;
    }
    store.add({ kind: "note", text: `“${say}” ${how}: ${what.trim()}` });
    return true;
  };
  const again = () => {
    const found = withRepeat(ids, step.id);
    if (!found || !keep("was laid once more")) return;
    take(found.steps);
    store.add({ kind: "tick", step: step.id, done: true });
    store.add({ kind: "tick", step: found.added, done: true });
    onDone();
  };
  const leave = () => {
    if (!keep("was left out")) return;
    take(without(ids, step.id));
    onDone();
  };
  return (
    <Fold title="Went otherwise">
      <div className="grid max-w-prose gap-2" data-testid="went-otherwise">
        <label htmlFor={id} className="text-sm font-semibold">
          What happened
        </label>
        <input
          id={id}
          className={inputClass(said !== null)}
          value={what}
          maxLength={300}
          aria-invalid={said !== null}
          aria-describedby={`${id}-said`}
          onChange={(e) => {
            setSaid(null);
            setWhat(e.target.value);
          }}
        />
        <div id={`${id}-said`} aria-live="polite">
          {said ? <FieldMessage severity="error">{said}</FieldMessage> : null}
        </div>
        <div className="flex flex-wrap gap-2">
          <Button big onClick={again}>
            Burnt through or laid twice: done
          </Button>
          <Button big onClick={leave}>
            Left out
          </Button>
        </div>
        <p className="text-sm text-soft">
          What is laid once more pulls like a weld of its own. The order becomes yours, and the rest is forecast anew.
        </p>
      </div>
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

"use client";

import { useId, useState } from "react";
import { type Step, without, withRepeat } from "@/core/plan";
import { useJob } from "../job/JobProvider";
import { Button } from "../parts/Button";
import { FieldMessage, inputClass } from "../parts/Field";
import { useOwnSteps } from "./useOwnSteps";

/** What happened at a weld, and whether it was laid once more or left out. @param what as typed so far. */
export default function WentFields({
  step,
  say,
  what,
  onWhat,
  onDone,
}: {
  step: Step;
  say: string;
  what: string;
  onWhat: (what: string) => void;
  onDone: () => void;
}) {
  const { evaluation, store } = useJob("evaluation", "store");
  const take = useOwnSteps();
  const id = useId();
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
          onWhat(e.target.value);
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
  );
}

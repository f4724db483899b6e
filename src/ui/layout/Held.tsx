"use client";

import { useState } from "react";
import type { Structure } from "@/core/frame";
import {
  builtOf,
  chanceWords,
  frictionWords,
  type HoldingOutlook,
  heldSo,
  holdingAdvice,
  tacksBearN,
  usuallyLies,
  wayWords,
  weldOf,
  whyNoPrediction,
} from "@/core/job";
import { LIES, type Lies, orderKey, orderWords, USUAL_ORDER } from "@/core/plan";
import { useJob } from "../job/JobProvider";
import { usePlanField } from "../job/usePlanField";
import { Button } from "../parts/Button";
import { Choice } from "../parts/Choice";
import { Caution } from "../parts/Sheet";
import { Tick } from "../parts/Tick";
import { Bars, withHeld } from "./Bars";
import { useHoldingComparison } from "./useHoldingComparison";

const SAID: Record<Lies, string> = {
  clamped: "Clamped flat",
  weight: "By its own weight",
  loose: "Loose",
};

/** One way of holding it: how likely it ends within its limits, its shape, what is let go. */
function WayRow({
  found,
  tacksN,
  order,
  onTake,
}: {
  found: HoldingOutlook;
  tacksN: number;
  /** The order that suits it, where that is not the planned one. */
  order: string | null;
  onTake: (() => void) | null;
}) {
  const { units } = useJob("units");
  const { way, outlook } = found;
  return (
    <li
      className="grid gap-x-4 gap-y-1 border-t border-line py-2 sm:grid-cols-[minmax(0,1fr)_auto]"
      data-testid={`way-${way.id}`}
    >
      <div className="min-w-0">
        <p className="flex flex-wrap justify-between gap-x-4">
          <span className="font-semibold">{way.say}</span>
          <span className="text-plum">
            {outlook.chance === null ? "no limit is predicted" : chanceWords(outlook.chance)}
          </span>
        </p>
        {order ? <p className="text-sm">Suits it: {order}.</p> : null}
        <ul className="text-sm text-soft">
          {wayWords(found, tacksN, units).map((w) => (
            <li key={w}>{w}</li>
          ))}
        </ul>
      </div>
      {onTake ? (
        <Button className="self-center justify-self-start" aria-label={`Hold it so: ${way.say}`} onClick={onTake}>
          {order ? "Hold and weld it so" : "Hold it so"}
        </Button>
      ) : null}
    </li>
  );
}

/** How the frame is held while it is welded, and ways of holding it side by side. */
export function Held({ structure }: { structure: Structure }) {
  const { job, evaluation, units } = useJob("job", "evaluation", "units");
  const { plan, edit } = usePlanField();
  const { comparison, begin, stop } = useHoldingComparison(job, structure);
  const [suited, setSuited] = useState(false);
  const planned = plan.order ?? USUAL_ORDER;
  const isOther = ({ outlook }: HoldingOutlook): boolean => orderKey(outlook.choice) !== orderKey(planned);
  const take = (found: HoldingOutlook) =>
    edit((p) => {
      const next = heldSo({ ...job, plan: p }, found.way).plan;
      return isOther(found) ? { ...next, order: found.outlook.choice } : next;
    });
  const isWorking = comparison?.is === "working";
  const advice = comparison?.is === "known" ? holdingAdvice(comparison.outlooks, planned) : null;
  const usual = usuallyLies(plan);
  const isClamped = (plan.held?.lies ?? usual) === "clamped";
  const friction = isClamped && evaluation.prediction ? frictionWords(structure, evaluation.prediction, units) : null;
  const isSurface = builtOf(plan).on === "surface";
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-4" data-testid="held">
      {isSurface ? (
        <Choice
          label="Down on the bed"
          value={plan.held?.lies ?? usual}
          options={LIES.filter((l) => l !== "clamped" || usual === "clamped").map((l) => [l, SAID[l]] as const)}
          onChange={(lies) =>
            edit((p) => withHeld(p, { lies: lies === usual || lies === "clamped" ? undefined : lies }))
          }
        />
      ) : (
        <p className="max-w-prose">It lies on its three rests: nothing is clamped flat, and nothing bends it there.</p>
      )}
      <Tick
        checked={plan.held?.stops === true}
        onChange={(on) => edit((p) => withHeld(p, { stops: on ? true : undefined }))}
      >
        The stops and clamps above hold it in its plane, until it is turned over or cold
      </Tick>
      <Bars structure={structure} />
      <div className="flex flex-wrap gap-2">
        {isWorking ? (
          <Button onClick={stop}>Stop</Button>
        ) : (
          <Button disabled={whyNoPrediction(plan) !== null} onClick={() => void begin(suited)}>
            Compare ways of holding it
          </Button>
        )}
        <Tick checked={suited} onChange={setSuited}>
          Each in the order that suits it (takes several times as long)
        </Tick>
      </div>
      <div aria-live="polite" className="grid gap-1">
        {isWorking ? (
          <p className="text-soft">
            {comparison.outlooks.length} of {comparison.of} ways worked through.
          </p>
        ) : null}
        {comparison?.is === "failed" ? <p>It could not be worked out. Try again.</p> : null}
        {advice ? (
          <ul className="grid max-w-prose gap-1" data-testid="holding-advice">
            {advice.words.map((w) => (
              <li key={w}>{w}</li>
            ))}
          </ul>
        ) : null}
      </div>
      {comparison && comparison.outlooks.length > 0 ? (
        <ul aria-label="Ways of holding it">
          {comparison.outlooks.map((found) => (
            <WayRow
              key={found.way.id}
              found={found}
              tacksN={tacksBearN(structure, weldOf(plan))}
              order={isOther(found) ? orderWords(found.outlook.choice) : null}
              onTake={found.way.id === "planned" && !isOther(found) ? null : () => take(found)}
            />
          ))}
        </ul>
      ) : null}
      {plan.held?.bars?.length ? (
        <Caution>
          A frame that is tacked to a bar is sprung: cut the bar off cold, standing clear of its line. Nothing that
          lifts or carries people is cut loose or bent without whoever answers for it.
        </Caution>
      ) : null}
      <p className="max-w-prose text-sm text-soft">
        Stops and blocks only push; a bar gives as its tacks do, and its tacks pull on what it sits on. What anything
        holds elastically comes back when it goes: only what gave way meanwhile stays. Holding flat hardly makes a frame
        flatter in this forecast; shops say that it helps.
        {friction ? ` ${friction}` : ""}
      </p>
    </div>
  );
}

"use client";

import { useState } from "react";
import {
  amountWords,
  besidesWords,
  type Correction,
  type CorrectionWay,
  chanceWords,
  correctedWords,
  correctionAdvice,
  correctionWayWords,
  firstGo,
  goWords,
  leavesNow,
  type Remedy,
  readAgainWords,
  remedyName,
} from "@/core/job";
import { formatSmall, type Length, length } from "@/core/units";
import { useJob } from "../job/JobProvider";
import { useWorkedOut } from "../job/useWorkedOut";
import { Button } from "../parts/Button";
import { Fold } from "../parts/Fold";
import { LengthField } from "../parts/LengthField";
import { Caution, Section } from "../parts/Sheet";
import { coldKey } from "./coldKey";

/** What its amount is called, where nothing is pushed. */
const MUCH: Partial<Record<Remedy["id"]["do"], string>> = {
  shim: "Largest shim",
  grind: "Ground off",
  trim: "Sawn off",
};

/** One remedy at the bench: how far, done, read again. */
function Go({ correction, remedy, amount }: { correction: Correction; remedy: Remedy; amount: number }) {
  const { units, store } = useJob("units", "store");
  const go = firstGo(correction, remedy.id, amount);
  const proposed = go ? formatSmall(go.amount, units, { decimals: units === "mm" ? 1 : 0 }) : "";
  const [typed, setTyped] = useState<Length | null>(null);
  if (!go) return null;
  const stated = (): Length => typed ?? length(proposed, units === "mm" ? "mm" : "in");
  const done = () => {
    store.add({ kind: "corrected", remedy: remedy.id, amount: remedy.counts === "mm" ? stated() : go.amount });
    setTyped(null);
  };
  return (
    <li className="grid gap-2 border-l-4 border-plum py-1 pl-4" data-testid={`go-${remedy.id.do}`}>
      <p className="font-semibold">{remedyName(remedy.id, correction.structure)}</p>
      <ul className="max-w-prose">
        {goWords(go, units).map((w) => (
          <li key={w}>{w}</li>
        ))}
        {go.goes > 0 ? (
          <li className="text-sm text-soft">
            By {go.goes} {go.goes === 1 ? "go" : "goes"} that {go.goes === 1 ? "was" : "were"} read.
          </li>
        ) : null}
      </ul>
      {remedy.cautions.map((c) => (
        <Caution key={c}>{c}</Caution>
      ))}
      <div className="flex flex-wrap items-end gap-3">
        {remedy.counts === "mm" ? (
          <LengthField
            label={MUCH[remedy.id.do] ?? "Pushed by"}
            hint={`proposed ${proposed}`}
            units={units}
            value={stated()}
            onChange={(v) => setTyped(v)}
          />
        ) : null}
        <Button look="advise" onClick={done}>
          Done: read it again
        </Button>
      </div>
    </li>
  );
}

function WayRow({
  correction,
  way,
  chosen,
  onTake,
}: {
  correction: Correction;
  way: CorrectionWay;
  chosen: boolean;
  onTake: () => void;
}) {
  const { units } = useJob("units");
  const say = correctionWayWords(correction, way, units);
  return (
    <li className="grid gap-x-4 gap-y-1 border-t border-line py-2 sm:grid-cols-[minmax(0,1fr)_auto]">
      <div className="min-w-0">
        <p className="flex flex-wrap justify-between gap-x-4">
          <span className={chosen ? "font-bold" : "font-semibold"}>{say}</span>
          <span className="text-plum">{chanceWords(way.chance)}</span>
        </p>
        <ul className="text-sm text-soft">
          {way.effortMin > 0 ? <li>About {way.effortMin} minutes.</li> : null}
          {leavesNow(correction, way, units).map((w) => (
            <li key={w}>{w}</li>
          ))}
        </ul>
      </div>
      {way.steps.length > 0 && !chosen ? (
        <Button className="self-center justify-self-start" aria-label={`Do this: ${say}`} onClick={onTake}>
          Do this
        </Button>
      ) : null}
    </li>
  );
}

/** What can be done about a cold frame: every remedy against doing nothing, and the next go at the bench. */
export function Correct() {
  const { job, units } = useJob("job", "units");
  const { state, begin, stop } = useWorkedOut<Correction>(
    coldKey(job),
    (worker, progress) => worker.correction(job, progress),
    true,
  );
  const [taken, setTaken] = useState<string | null>(null);
  const found = state.is === "known" ? state.value : null;
  const advice = found && correctionAdvice(found, units);
  const ways = found?.ways ?? [];
  const key = (w: CorrectionWay): string => w.steps.map((s) => s.remedy).join();
  const advised = found?.advice === "correct it" ? ways[0] : undefined;
  const chosen = ways.find((w) => key(w) === taken && w.steps.length > 0) ?? advised;
  return (
    <Section title="Correct it" aside={<span className="text-sm text-soft">by this frame's own mechanics</span>}>
      <div aria-live="polite" className="grid gap-3" data-testid="correct">
        {state.is === "working" ? (
          <p className="flex flex-wrap items-center gap-3 text-soft">
            Every remedy is tried on this frame: {Math.round(100 * state.share)} %.
            <Button onClick={stop}>Stop</Button>
          </p>
        ) : null}
        {state.is === "failed" || state.is === "stopped" ? (
          <p className="flex flex-wrap items-center gap-3">
            {state.is === "failed" ? "It could not be worked out." : "Stopped, or nothing that could be judged."}
            <Button onClick={() => void begin()}>Work it out</Button>
          </p>
        ) : null}
        {advice ? (
          <div>
            <p className="text-lg font-semibold text-plum">{advice.say}</p>
            <p className="max-w-prose text-soft">{advice.why}</p>
          </div>
        ) : null}
        {found?.unread ? (
          <p className="max-w-prose border-l-4 border-close pl-4">
            {correctedWords(found.unread.entry, found.structure, units)}. {readAgainWords(found.unread)}
          </p>
        ) : null}
      </div>
      {found && chosen && !found.unread ? (
        <ol className="mt-4 grid gap-4" aria-label="What to do now">
          {chosen.steps.slice(0, 1).map((s) => {
            const remedy = found.remedies.find((r) => r.option.id === s.remedy);
            return remedy ? <Go key={s.remedy} correction={found} remedy={remedy} amount={s.amount} /> : null;
          })}
          {chosen.steps.slice(1).map((s) => {
            const remedy = found.remedies.find((r) => r.option.id === s.remedy);
            return remedy ? (
              <li key={s.remedy} className="text-soft">
                Then, if it is still outside: {remedyName(remedy.id, found.structure)} (
                {amountWords(remedy, s.amount, units)}).
              </li>
            ) : null;
          })}
        </ol>
      ) : null}
      {found && ways.length > 1 ? (
        <Fold title="Other ways, side by side" note={`${ways.length}`}>
          <ul aria-label="Ways to correct it">
            {ways.map((w) => (
              <WayRow
                key={key(w) || "nothing"}
                correction={found}
                way={w}
                chosen={w === chosen}
                onTake={() => setTaken(key(w))}
              />
            ))}
          </ul>
        </Fold>
      ) : null}
      {found && found.refused.length + besidesWords(found, job.plan).length > 0 ? (
        <ul className="mt-4 grid max-w-prose gap-1 text-sm text-soft">
          {[...found.refused, ...besidesWords(found, job.plan)].map((w) => (
            <li key={w}>{w}</li>
          ))}
        </ul>
      ) : null}
    </Section>
  );
}

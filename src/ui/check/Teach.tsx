"use client";

import { useState } from "react";
import { type FrameTeaching, learnedWords } from "@/core/job";
import { LEARNABLE } from "@/core/learn";
import { useJob } from "../job/JobProvider";
import { messageOf } from "../job/store/sender";
import { transport } from "../job/store/transport";
import { useWorkedOut } from "../job/useWorkedOut";
import { FACTOR_NAMES, misfitWords, narrowsWords } from "../learned/words";
import { Button } from "../parts/Button";
import { origin } from "../parts/device";
import { Section } from "../parts/Sheet";
import { When } from "../parts/When";
import { coldKey } from "./coldKey";

type Answer = { ok: false; why: string } | { ok: true; taught: FrameTeaching };

/** What a finished frame teaches the shop: told before it is taken, with what does not fit. */
export function Teach() {
  const { job, units, taught: before } = useJob("job", "units", "taught");
  const { state, begin, stop } = useWorkedOut<Answer>(
    coldKey(job),
    (worker, progress) => worker.frameTeaching(job, progress),
    false,
  );
  const [said, setSaid] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const answer = state.is === "known" ? state.value : null;
  const taught = answer?.ok ? answer.taught : null;
  const teach = async (anyway: boolean) => {
    setBusy(true);
    try {
      const { status, body } = await transport("POST", `/api/jobs/${job.id}/lesson`, { origin: origin(), anyway });
      setSaid(status === 200 ? "It teaches: the next jobs of this shop are predicted by it too." : messageOf(body));
    } catch {
      setSaid("The server cannot be reached just now: what was read waits, and may teach later.");
    }
    setBusy(false);
  };
  const fits = taught?.surprise.cause === "fits";
  return (
    <Section
      title="What it teaches"
      aside={<span className="text-sm text-soft">predicted by: {learnedWords(job.plan.learned)}</span>}
    >
      {before ? (
        <p className="mb-3" data-testid="taught-before">
          It taught <When at={before.at} />
          {before.leftOut === null ? "" : `, and does not count: ${before.leftOut}`}. When it teaches again, that stands
          in its place.
        </p>
      ) : null}
      <div className="grid gap-3" aria-live="polite" data-testid="teach">
        {state.is === "working" ? (
          <p className="flex flex-wrap items-center gap-3 text-soft">
            Every factor is tried on this frame: {Math.round(100 * state.share)} %.
            <Button onClick={stop}>Stop</Button>
          </p>
        ) : null}
        {state.is === "not begun" || state.is === "failed" || state.is === "stopped" ? (
          <p className="flex flex-wrap items-center gap-3">
            {state.is === "failed"
              ? "It could not be worked out."
              : "What was read before welding and cold tells how this shop's welds shrink."}
            <Button onClick={() => void begin()}>See what it teaches</Button>
          </p>
        ) : null}
        {answer && !answer.ok ? <p>{answer.why}</p> : null}
        {taught ? (
          <>
            <p className={fits ? "" : "border-l-4 border-close pl-4"}>{misfitWords(taught, units)}</p>
            <ul className="text-sm text-soft">
              {LEARNABLE.map((f) => (
                <li key={f}>
                  {FACTOR_NAMES[f]}: {narrowsWords(taught.narrowedTo[f] ?? 1)}
                </li>
              ))}
              <li>
                Sizes get narrower by it; squareness and twist hardly, for they hang on what differs from bead to bead:
                those narrow by reading the tacked gate, and by the shop's own scatter.
              </li>
              {taught.lesson.doubts.map((d) => (
                <li key={d} className="text-close">
                  {d}
                </li>
              ))}
            </ul>
            <div className="flex flex-wrap gap-3">
              <Button look={fits ? "advise" : "plain"} disabled={busy} onClick={() => void teach(!fits)}>
                {fits ? "Let it teach" : "Let it teach all the same"}
              </Button>
              <a href="/learned" className="inline-flex tap items-center">
                What the shop has learned
              </a>
            </div>
          </>
        ) : null}
        {said ? <p data-testid="taught">{said}</p> : null}
      </div>
    </Section>
  );
}

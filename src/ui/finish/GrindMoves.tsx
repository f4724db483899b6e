"use client";

import { grindWords, type GrindMoves as Moves, predictionKey } from "@/core/job";
import { useJob } from "../job/JobProvider";
import { useWorkedOut } from "../job/useWorkedOut";
import { Button } from "../parts/Button";
import { Section } from "../parts/Sheet";

/** What grinding its flush faces does to the frame, when it is asked for. */
export function GrindMoves() {
  const { job, units } = useJob("job", "units");
  const { state, begin, stop } = useWorkedOut<Moves>(
    predictionKey(job.plan),
    (worker) => worker.grindMoves(job.plan),
    false,
  );
  return (
    <Section title="What grinding moves" aside={<span className="text-sm text-soft">a share of each bead's pull</span>}>
      <div aria-live="polite" data-testid="grind-moves">
        {state.is === "known" ? (
          <ul className="max-w-prose">
            {grindWords(state.value, units).map((w) => (
              <li key={w}>{w}</li>
            ))}
            <li className="text-sm text-soft">
              That a tenth to a half of a bead's pull goes with what stands above the face is own judgement: read it
              again.
            </li>
          </ul>
        ) : state.is === "working" ? (
          <Button onClick={stop}>Stop</Button>
        ) : (
          <Button onClick={() => void begin()}>See what grinding moves</Button>
        )}
      </div>
    </Section>
  );
}

"use client";

import { sawTest } from "@/core/cut";
import { cutTick, cutToWords, tickKey } from "@/core/job";
import { fixed, nearLength } from "@/core/units";
import { useJob } from "../job/JobProvider";
import { Button } from "../parts/Button";
import { Section } from "../parts/Sheet";
import { useAddress } from "../parts/useAddress";
import { Laying } from "./Laying";
import { PiecePicture } from "./PiecePicture";

/** One piece at a time, with figures that can be read from the saw. */
export function SawCard() {
  const { job, evaluation, store, predicted } = useJob("job", "evaluation", "store", "predicted");
  const { units, saw, sawScale: scale = "square" } = job.plan;
  const { cut, structure, ticked } = evaluation;
  const waits = predicted.state.status === "working";
  const [word, setWord] = useAddress("piece");
  const at = Math.max(
    0,
    cut.findIndex((p) => p.members[0] === word),
  );
  const piece = cut[at];
  if (!piece) return null;
  const correction = saw ? sawTest(saw.gap.mm, saw.leg.mm, saw.placing, saw.gapAt).addToSettingDeg : 0;
  const step = cutTick(piece.members[0] ?? "");
  const done = ticked.has(tickKey(step));
  const go = (by: number) => setWord(cut[Math.max(0, Math.min(cut.length - 1, at + by))]?.members[0] ?? null);
  return (
    <Section
      title="At the saw"
      aside={<span className="fig text-sm text-soft">{`piece ${at + 1} of ${cut.length}`}</span>}
    >
      <div className="grid gap-3" data-testid="saw-card">
        <p className="text-2xl font-bold">
          <span className="fig">{piece.quantity} ×</span> {piece.members.join(", ")}
          {done ? <span className="ml-3 text-pass">✓ cut</span> : null}
        </p>
        <p className="fig text-[clamp(2.2rem,9vw,4.5rem)] leading-none font-bold text-plum">
          {cutToWords(piece, units, waits)}
        </p>
        <p className="text-soft">
          stop to long point; short point{" "}
          <span className="fig">{waits ? "–" : nearLength(piece.cutShortPointMm, units)}</span>
        </p>
        <PiecePicture piece={piece} width={420} height={64} />
        <ol className="grid gap-1 text-lg">
          {piece.detail.map((d) => (
            <li key={d.end}>
              <strong>{d.end === "from" ? "First end" : "Second end"}:</strong> {d.words}
              {d.beside ? <span className="block text-sm text-soft">{d.beside}</span> : null}
            </li>
          ))}
          {piece.cuts === "parallel" ? <li>The two cuts lie parallel: slide it on, do not turn it over.</li> : null}
          {piece.cuts === "opposed" ? <li>The two cuts lean towards each other: turn it over end for end.</li> : null}
        </ol>
        {structure ? <Laying structure={structure} members={piece.members} /> : null}
        {saw ? (
          <p className="text-sm">
            The saw was tested: add{" "}
            <span className="fig">{fixed(scale === "line" ? -correction : correction, 2)}°</span> to every angle set.
          </p>
        ) : null}
        <div className="flex flex-wrap gap-2">
          <Button big disabled={at === 0} onClick={() => go(-1)}>
            Before
          </Button>
          <Button
            big
            look={done ? "plain" : "advise"}
            onClick={() => {
              store.add({ kind: "tick", step, done: !done });
              if (!done) go(1);
            }}
          >
            {done ? "Take the tick back" : at === cut.length - 1 ? "Cut" : "Cut, next piece"}
          </Button>
          <Button big disabled={at >= cut.length - 1} onClick={() => go(1)}>
            Next
          </Button>
        </div>
      </div>
    </Section>
  );
}

"use client";

import { alikeSides, type PairCheck } from "@/core/cut";
import { type CutRound, plusMinus } from "@/core/job";
import { fixed, formatSmall } from "@/core/units";
import { FrameDrawing, useScene } from "../drawing";
import { useJob } from "../job/JobProvider";
import { nextUnread, pieceQuantities, ReadingPad, RoundTabs, useRounds, usualTape } from "../measure";

function Pair({ pair }: { pair: PairCheck }) {
  const { units } = useJob("units");
  const [a, b] = pair.members;
  const difference = <span className="fig text-brass">{plusMinus(pair.byMm, pair.uMm, units)}</span>;
  return (
    <li className="border-t border-line py-2">
      <strong>
        {a} and {b}
      </strong>{" "}
      {pair.word === "match" ? (
        <>match: {difference} apart.</>
      ) : pair.word === "do not match" ? (
        <span className="text-fail">
          do not match. {pair.longer} is longer by {difference}: trim it, or the corners end {fixed(pair.skewMmPerM, 2)}{" "}
          mm/m off, whatever the diagonals say.
        </span>
      ) : (
        <span className="text-close">are too close to call: {difference} apart. Hold them side by side.</span>
      )}
    </li>
  );
}

function Words({ round }: { round: CutRound }) {
  const { units } = useJob("units");
  const { pairs, alike, swap, pieces } = round.asCut;
  const short = pieces.filter((p) => p.offMm < -2 * p.uMm - 0.5);
  const long = pieces.filter((p) => p.offMm > 2 * p.uMm + 0.5);
  return (
    <ul className="max-w-prose" aria-label="Pieces compared">
      {pairs.map((pair) => (
        <Pair key={pair.members.join()} pair={pair} />
      ))}
      {swap ? (
        <li className="border-t border-line py-2 font-semibold text-plum">
          All four are alike by plan: put {swap.pairs[0].join(" opposite ")} and {swap.pairs[1].join(" opposite ")}:
          then the worst pair differs by {formatSmall(swap.worstMm, units, { decimals: 2 })}.
        </li>
      ) : null}
      {alike.map((a) => (
        <li key={a.members.join()} className="border-t border-line py-2">
          <strong>{a.members.join(", ")}</strong>{" "}
          {a.word === "match"
            ? "match."
            : `${a.word === "do not match" ? "do not match" : "are too close to call"}: ${a.longest} is ${formatSmall(a.byMm, units, { decimals: 2 })} longer than ${a.shortest}, and spreads what it stands between.`}
        </li>
      ))}
      {long.length > 0 ? (
        <li className="border-t border-line py-2 text-close">
          Long of its target:{" "}
          {long.map((p) => `${p.member} by ${formatSmall(p.offMm, units, { decimals: 2 })}`).join(", ")}. Grind or trim
          it to its pair.
        </li>
      ) : null}
      {short.length > 0 ? (
        <li className="border-t border-line py-2 text-close">
          Short of its target:{" "}
          {short.map((p) => `${p.member} by ${formatSmall(-p.offMm, units, { decimals: 2 })}`).join(", ")}. Its pair can
          be trimmed to it if the limit allows, or it is cut again.
        </li>
      ) : null}
    </ul>
  );
}

/** Pieces as they came off the saw, one reading at a time; pairs compared at once. */
export function AsCutLog() {
  const { evaluation, units } = useJob("evaluation", "units");
  const { structure, cut, cutRounds } = evaluation;
  const scene = useScene(structure);
  const inSight = useRounds(cutRounds);
  const { current, stand, show, fresh, picked } = inSight;
  if (!structure || !scene) return null;
  const quantities = pieceQuantities(cut);
  const now = picked ?? nextUnread(stand, quantities);
  const label = `Pieces of the frame; next to measure: ${now ?? "none"}`;
  const drawing = (
    <FrameDrawing scene={scene} units={units} label={label} selected={now ? [now] : []} bare maxHeight={300} />
  );
  return (
    <>
      <RoundTabs rounds={cutRounds} current={current} fresh={fresh} onShow={show} />
      <div className="mt-4 grid gap-8 xl:grid-cols-[minmax(0,1fr)_minmax(0,25rem)]">
        <div className="grid content-start gap-4">
          <div className="max-xl:hidden">{drawing}</div>
          {current && current.asCut.pieces.length > 0 ? (
            <Words round={current} />
          ) : (
            <p className="text-soft">
              Nothing measured yet.
              {alikeSides(structure).length > 0 ? " Opposite sides are compared as soon as both are read." : ""}
            </p>
          )}
        </div>
        <div className="max-xl:order-first">
          <ReadingPad
            gate="cut"
            rounds={inSight}
            quantities={quantities}
            firstInstrument={units === "mm" ? "tape-100" : usualTape(units)}
            figure={drawing}
          />
        </div>
      </div>
    </>
  );
}

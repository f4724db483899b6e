"use client";

import { bandWords, bowLines, likelyLosses, lossLines, predictedDecimals } from "@/core/job";
import { type OutcomeId, outcomeKey, outcomeWords, predicted, type SetUpShape, type SetUpTarget } from "@/core/shrink";
import { fixed, formatLength, formatSmall, type UnitPreference } from "@/core/units";
import { useJob } from "../job/JobProvider";
import { PredictionStatus } from "../job/PredictionStatus";
import { InsideTrade } from "./InsideTrade";

/** Camber that its scatter does not cover stands out by this much, mm. */
const STANDS_OUT_MM = 0.05;
/** Lengths told of a frame: those that are set off most. */
const MOST_LENGTHS = 6;

const isCamber = ({ id }: SetUpTarget): boolean => id.kind === "bow" || id.kind === "lift";
const offBy = ({ target, nominal }: SetUpTarget): number => Math.abs(target.value - nominal);

/** What is told: corners and spans of a frame that has them, else its lengths; and camber that stands out of its scatter. */
function toldTargets(targets: readonly SetUpTarget[]): SetUpTarget[] {
  const ofCorners = targets.filter(({ id }) => id.kind === "span" || id.kind === "angle");
  const lengths = targets.filter(({ id }) => id.kind === "length").sort((a, b) => offBy(b) - offBy(a));
  const camber = targets.filter((t) => isCamber(t) && (t.target.low > STANDS_OUT_MM || t.target.high < -STANDS_OUT_MM));
  const mouths = targets.filter(({ id }) => id.kind === "mouth");
  const feet = targets.filter(({ id }) => id.kind === "feet");
  return [...(ofCorners.length > 0 ? ofCorners : [...mouths, ...lengths].slice(0, MOST_LENGTHS)), ...feet, ...camber];
}

function Targets({ setUp, units }: { setUp: SetUpShape; units: UnitPreference }) {
  const words = (value: number, nominal: number, unit: string): string =>
    unit === "°"
      ? `${fixed(value, 3)}°`
      : nominal === 0
        ? formatSmall(value, units, { decimals: predictedDecimals(units) })
        : formatLength(value, units).text;
  const shown = toldTargets(setUp.targets);
  return (
    <details>
      <summary className="tap cursor-pointer font-semibold">Set up off nominal</summary>
      <p className="mb-2 max-w-prose text-sm text-soft">
        Built like this, the cold frame ends as near to nominal as straight tubes, and sides of one length across from
        each other, allow; within the scatter stated.
        {setUp.rounds > 0 ? ` Found in ${setUp.rounds} rounds.` : ""}
      </p>
      <table className="w-full text-left">
        <caption className="sr-only">What to set up so that the cold frame is on nominal</caption>
        <tbody>
          {shown.map((t) => {
            const spread = Math.max(t.target.high - t.target.value, t.target.value - t.target.low);
            return (
              <tr key={outcomeKey(t.id)} className="border-t border-line">
                <th className="py-1 font-normal">{outcomeWords(t.id)}</th>
                <td className="fig py-1 text-right text-plum">{words(t.target.value, t.nominal, t.unit)}</td>
                <td className="fig py-1 pl-2 text-right text-sm text-soft">
                  ± {t.unit === "°" ? `${fixed(spread, 3)}°` : words(spread, 0, "mm")}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {!shown.some(isCamber) ? (
        <p className="mt-1 text-sm text-soft">No camber stands out from its scatter: set the members up straight.</p>
      ) : null}
    </details>
  );
}

/** Shape of the cold frame beyond its sizes. */
const SHAPE: readonly OutcomeId[] = [{ kind: "square" }, { kind: "flat" }, { kind: "twist" }];

/** Likely losses while their bands are still worked out. */
function Likely() {
  const { evaluation, predicted: found, units } = useJob("evaluation", "predicted", "units");
  const { structure } = evaluation;
  if (found.state.status !== "working" || !structure || found.state.likely.length === 0) return null;
  return (
    <table className="w-full text-left" data-testid="likely">
      <caption className="text-left text-sm text-soft">Likely values; their bands and the shape are on the way</caption>
      <tbody>
        {likelyLosses(found.state.likely, structure).map((line) => (
          <tr key={line.id} className="border-t border-line">
            <th className="py-1.5 font-normal">{line.say}</th>
            <td className="fig py-1.5 text-right text-plum">
              {formatSmall(line.mm, units, { decimals: predictedDecimals(units) })}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** Predicted loss per side with its band, the shape of the cold frame, what cross members pull, what to set up. */
export function PredictionPanel() {
  const { evaluation, units } = useJob("evaluation", "units");
  const { prediction, structure } = evaluation;
  return (
    <div className="grid gap-3">
      <PredictionStatus />
      <Likely />
      {prediction && structure ? (
        <>
          <table className="w-full text-left">
            <caption className="sr-only">Predicted loss and shape; nine frames in ten end inside the band</caption>
            <tbody>
              {lossLines(prediction, structure).map((line) => (
                <tr key={line.id} className="border-t border-line">
                  <th className="py-1.5 font-normal">{line.say}</th>
                  <td className="fig py-1.5 text-right text-plum">{bandWords(line.loss, units)}</td>
                </tr>
              ))}
              {[
                ...prediction.outcomes.flatMap((o) => (o.id.kind === "mouth" || o.id.kind === "feet" ? [o.id] : [])),
                ...SHAPE,
              ].map((id) => {
                const estimate = predicted(prediction, id);
                return estimate ? (
                  <tr key={outcomeKey(id)} className="border-t border-line">
                    <th className="py-1.5 font-normal">{outcomeWords(id)}</th>
                    <td className="fig py-1.5 text-right text-plum">{bandWords(estimate, units)}</td>
                  </tr>
                ) : null;
              })}
              {bowLines(prediction, structure).map((line) => (
                <tr key={line.id} className="border-t border-line">
                  <th className="py-1.5 font-normal">{line.say}</th>
                  <td className="fig py-1.5 text-right text-plum">{bandWords(line.bow, units)}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <InsideTrade />
          <Targets setUp={prediction.setUp} units={units} />
          <ul className="grid max-w-prose gap-1 text-sm text-soft">
            {prediction.reasons.map((r) => (
              <li key={r}>{r}</li>
            ))}
          </ul>
        </>
      ) : null}
    </div>
  );
}

"use client";

import { bandWords, predictedDecimals } from "@/core/job";
import type { Prediction, SetUpShape } from "@/core/shrink";
import { fixed, formatLength, formatSmall, type UnitPreference } from "@/core/units";
import { useJob } from "../job/JobProvider";
import { PredictionStatus } from "../job/PredictionStatus";

/** Shape of the cold frame beyond its sizes. */
const SHAPE = ["square", "flat", "twist"] as const;

function Targets({ setUp, units }: { setUp: SetUpShape; units: UnitPreference }) {
  const words = (value: number, nominal: number, unit: string): string =>
    unit === "°"
      ? `${fixed(value, 3)}°`
      : nominal === 0
        ? formatSmall(value, units, { decimals: predictedDecimals(units) })
        : formatLength(value, units).text;
  const camber = setUp.targets.filter(
    (t) => /^(bow|lift)/.test(t.id) && (t.target.low > 0.05 || t.target.high < -0.05),
  );
  const shown = [...setUp.targets.filter((t) => !/^(bow|lift)/.test(t.id)), ...camber];
  return (
    <details>
      <summary className="tap cursor-pointer font-semibold">Set up off nominal</summary>
      <p className="mb-2 max-w-prose text-sm text-soft">
        Built like this, the cold frame lands on nominal, within the scatter stated. Found in {setUp.rounds} rounds.
      </p>
      <table className="w-full text-left">
        <caption className="sr-only">What to set up so that the cold frame is on nominal</caption>
        <tbody>
          {shown.map((t) => {
            const spread = Math.max(t.target.high - t.target.value, t.target.value - t.target.low);
            return (
              <tr key={t.id} className="border-t border-line">
                <th className="py-1 font-normal">{t.label}</th>
                <td className="fig py-1 text-right text-plum">{words(t.target.value, t.nominal, t.unit)}</td>
                <td className="fig py-1 pl-2 text-right text-sm text-soft">
                  ± {t.unit === "°" ? `${fixed(spread, 3)}°` : words(spread, 0, "mm")}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {camber.length === 0 ? (
        <p className="mt-1 text-sm text-soft">No camber stands out from its scatter: set the members up straight.</p>
      ) : null}
    </details>
  );
}

/** Members told of a frame without a rectangle. */
const MOST_TOLD = 6;
const mostMoved = ({ spansMm }: Prediction): Prediction["spansMm"] =>
  Object.fromEntries(
    Object.entries(spansMm)
      .sort((a, b) => Math.abs(b[1].value) - Math.abs(a[1].value))
      .slice(0, MOST_TOLD),
  );

/** Predicted loss per side with its band, the shape of the cold frame, what cross members pull, what to set up. */
export function PredictionPanel() {
  const { job, evaluation } = useJob();
  const { prediction } = evaluation;
  const { units } = job.plan;
  const pull = prediction?.crossPullMm[Math.floor((prediction.crossPullMm.length - 1) / 2)];
  return (
    <div className="grid gap-3">
      <PredictionStatus />
      {prediction ? (
        <>
          <table className="w-full text-left">
            <caption className="sr-only">Predicted loss and shape; nine frames in ten end inside the band</caption>
            <tbody>
              {Object.entries(prediction.sidesMm ?? mostMoved(prediction)).map(([s, loss]) => (
                <tr key={s} className="border-t border-line">
                  <th className="py-1.5 font-normal">
                    <span className="fig font-semibold">{s}</span> loses
                  </th>
                  <td className="fig py-1.5 text-right text-plum">{bandWords(loss, units)}</td>
                </tr>
              ))}
              {pull ? (
                <tr className="border-t border-line">
                  <th className="py-1.5 font-normal">{pull.member} draws its two sides together by</th>
                  <td className="fig py-1.5 text-right text-plum">{bandWords(pull.pullMm, units)}</td>
                </tr>
              ) : null}
              {prediction.quantities
                .filter((q) => SHAPE.some((id) => id === q.id))
                .map((q) => (
                  <tr key={q.id} className="border-t border-line">
                    <th className="py-1.5 font-normal">{q.label}</th>
                    <td className="fig py-1.5 text-right text-plum">{bandWords(q.estimate, units)}</td>
                  </tr>
                ))}
            </tbody>
          </table>
          {prediction.setUp ? <Targets setUp={prediction.setUp} units={units} /> : null}
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

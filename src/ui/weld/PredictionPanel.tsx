"use client";

import { CORNERS, type ResolvedFrame, SIDES } from "@/core/frame";
import { bandWords } from "@/core/job";
import { add, norm, scale } from "@/core/numeric";
import type { Prediction } from "@/core/shrink";
import type { UnitPreference } from "@/core/units";
import { useJob } from "../job/JobProvider";

/** A round factor that makes the movement about this share of the frame. */
const SHARE = 0.035;

/** Corners moved as predicted, drawn exaggerated by a stated factor. */
export function movedCorners(frame: ResolvedFrame, prediction: Prediction, units: UnitPreference) {
  const largest = Math.max(...CORNERS.map((c) => norm(prediction.cornerMovesMm[c])));
  if (largest <= 0) return null;
  const wanted = (SHARE * Math.min(frame.lengthMm, frame.widthMm)) / largest;
  const power = 10 ** Math.floor(Math.log10(wanted));
  const factor = Math.max(1, power * ([5, 2, 1].find((n) => n * power <= wanted) ?? 1));
  return {
    corners: Object.fromEntries(
      CORNERS.map((c) => [c, add(frame.corners[c], scale(prediction.cornerMovesMm[c], factor))]),
    ) as ResolvedFrame["corners"],
    note: `Dashed: predicted movement, drawn ${factor} times as large. AB loses ${bandWords(prediction.sidesMm.AB, units)}, BC ${bandWords(prediction.sidesMm.BC, units)}.`,
  };
}

/** Predicted loss per side with its band, and what cross members pull. */
export function PredictionPanel() {
  const { job, evaluation } = useJob();
  const { prediction } = evaluation;
  const { units } = job.plan;
  if (!prediction) return <p className="text-soft">No prediction while the settings have errors.</p>;
  const pull = prediction.crossPullMm[0];
  return (
    <>
      <table className="w-full text-left">
        <caption className="sr-only">Predicted loss per side; nine frames in ten end inside the band</caption>
        <tbody>
          {SIDES.map((s) => (
            <tr key={s} className="border-t border-line">
              <th className="fig py-1.5">{s}</th>
              <td className="fig py-1.5 text-right text-plum">{bandWords(prediction.sidesMm[s], units)}</td>
            </tr>
          ))}
          {pull ? (
            <tr className="border-t border-line">
              <th className="py-1.5 text-left font-normal">each cross member draws its two sides together by</th>
              <td className="fig py-1.5 text-right text-plum">{bandWords(pull.pullMm, units)}</td>
            </tr>
          ) : null}
        </tbody>
      </table>
      <ul className="mt-3 grid max-w-prose gap-1 text-sm text-soft">
        {prediction.reasons.map((r) => (
          <li key={r}>{r}</li>
        ))}
      </ul>
    </>
  );
}

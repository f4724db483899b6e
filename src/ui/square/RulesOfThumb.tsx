"use client";

import { halfRule, twistOnDiagonals } from "@/core/square";
import { formatSmall } from "@/core/units";
import { useJob } from "../job/JobProvider";

/** A difference of the diagonals that one may well find, and a twist that is plainly seen: round figures of either system, mm. */
const APART_MM = { metric: 4, inch: 25.4 / 8 };
const TWIST_MM = { metric: 5, inch: 25.4 / 5 };

/** What two habits leave out on a frame of this size: half the difference as the slide, and diagonals for the twist. */
export default function RulesOfThumb() {
  const { evaluation, units } = useJob("evaluation", "units");
  const quad = evaluation.structure?.quad;
  if (!quad) return null;
  const { lengthMm, widthMm } = quad;
  const system = units === "mm" ? "metric" : "inch";
  const [apartMm, twistMm] = [APART_MM[system], TWIST_MM[system]];
  const [along, across] = [halfRule(lengthMm, widthMm, apartMm), halfRule(widthMm, lengthMm, apartMm)];
  const twist = twistOnDiagonals(lengthMm, widthMm, twistMm);
  const small = (mm: number, decimals = 1): string => formatSmall(mm, units, { decimals });
  const percent = (share: number): string => `${Math.round(100 * share)} %`;
  return (
    <ul className="max-w-prose">
      <li className="border-t border-line py-2">
        <strong>Half the difference.</strong> With the diagonals {small(apartMm)} apart, half of it is{" "}
        {small(along.ruleMm)}. Slid along AB or CD it takes {small(along.exactMm)}: the habit leaves{" "}
        {percent(along.leaves)}. Along BC or DA it takes {small(across.exactMm)}: the habit leaves{" "}
        {percent(across.leaves)}.
      </li>
      <li className="border-t border-line py-2">
        <strong>Diagonals do not show twist.</strong> With one corner {small(twistMm)} out of the plane of the others
        both diagonals of a limp frame get shorter by {small(-twist.symmetricMm, 3)} and stay alike; where one corner
        keeps its angle, one of them gets shorter by {small(-twist.oneCornerMm, 3)}. Where they cross they pass{" "}
        {small(twist.crossingGapMm)} apart. Two strings show that, or four heights; a tape does not.
      </li>
    </ul>
  );
}

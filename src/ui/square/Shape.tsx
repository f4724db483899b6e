"use client";

import { leansAsDrawn } from "@/core/frame";
import { CORNERS } from "@/core/geometry";
import { diagonalsThenWords, type FrameRound, misreadWords, plusMinus } from "@/core/job";
import type { Measured } from "@/core/square";
import { fixed, formatSmall, physical } from "@/core/units";
import { useJob } from "../job/JobProvider";
import { Section } from "../parts/Sheet";

const lean = ({ value, u }: Measured, leans: boolean): string =>
  Math.abs(value) <= 2 * u
    ? "no more than the tape can tell"
    : `${value > 0 ? "AC" : "BD"} is ${leans ? "longer against the other than drawn" : "the long diagonal"}`;

/** The fitted rectangle: shear and the two tapers apart, corner angles, whether a tape was misread. */
export function Shape({ round }: { round: FrameRound }) {
  const { units, evaluation } = useJob("units", "evaluation");
  const s = round.square;
  if (!s?.angleDeg || !s.shearMmPerM || !s.taperLengthMm || !s.taperWidthMm) return null;
  const quad = evaluation.structure?.quad;
  const leans = quad ? leansAsDrawn(quad) : false;
  const rows: [string, string, string][] = [
    [
      "Out of square (shear)",
      `${physical("slope", s.shearMmPerM.value, units, undefined, true)} ± ${physical("slope", 2 * s.shearMmPerM.u, units)}`,
      lean(s.shearMmPerM, leans),
    ],
    [
      "Taper of the length, AB − CD",
      plusMinus(s.taperLengthMm.value, s.taperLengthMm.u, units, true),
      "cut or gap; a nudge cannot change it",
    ],
    [
      "Taper of the width, BC − DA",
      plusMinus(s.taperWidthMm.value, s.taperWidthMm.u, units, true),
      "cut or gap; a nudge cannot change it",
    ],
    ...(s.diagonalDifferenceMm
      ? [
          [
            leans ? "AC − BD, beyond the drawing" : "Diagonals, AC − BD",
            plusMinus(s.diagonalDifferenceMm.value, s.diagonalDifferenceMm.u, units, true),
            leans
              ? "alone it proves only that the mid-lines cross as drawn"
              : "alone it proves only that the mid-lines cross square",
          ] as [string, string, string],
        ]
      : []),
  ];
  return (
    <Section title={`Fitted shape: ${s.shape ?? ""}`} aside={<span className="text-sm text-soft">± is 95 %</span>}>
      <dl className="grid gap-2">
        {rows.map(([name, value, note]) => (
          <div key={name} className="grid gap-x-4 border-t border-line pt-2 sm:grid-cols-[11.5rem_1fr]">
            <dt>{name}</dt>
            <dd>
              <span className="fig text-lg font-semibold text-brass">{value}</span>{" "}
              <span className="text-sm text-soft">{note}</span>
            </dd>
          </div>
        ))}
        <div className="grid gap-x-4 border-t border-line pt-2 sm:grid-cols-[11.5rem_1fr]">
          <dt>Corner angles</dt>
          <dd className="fig grid grid-cols-2 gap-x-6 text-brass">
            {CORNERS.map((c) => (
              <span key={c}>
                {c} {fixed(s.angleDeg?.[c].value ?? 90, 2)}° ± {fixed(2 * (s.angleDeg?.[c].u ?? 0), 2)}°
              </span>
            ))}
          </dd>
        </div>
      </dl>
      <p className="mt-3 max-w-prose border-t border-line pt-2">{misreadWords(s, units, round.help)}</p>
    </Section>
  );
}

/** The same nudge by another side, and by racking. */
export function OtherWays({ round }: { round: FrameRound }) {
  const { units } = useJob("units");
  const ways = round.square?.nudges ?? [];
  if (ways.length === 0 || round.square?.fit.agree === false) return null;
  return (
    <Section title="The same by another side">
      <ul className="grid gap-1">
        {ways.map((n) => (
          <li key={n.side} className="grid grid-cols-[1fr_auto] gap-x-4 border-t border-line pt-1">
            <span>
              {n.side}: push {n.push} toward {n.towards}
            </span>
            <span className="fig text-plum">{plusMinus(n.shiftMm, n.uMm, units)}</span>
            <span className="col-span-2 text-sm text-soft">
              by habit {formatSmall(n.habitMm, units)}, which leaves {Math.round(100 * n.habitLeaves)} %
            </span>
          </li>
        ))}
      </ul>
      {round.square?.rack ? (
        <p className="mt-3 max-w-prose text-soft">
          Hinging on its tacks with AB held: C goes{" "}
          {formatSmall(Math.abs(round.square.rack.cAlongMm), units, { decimals: 2 })}{" "}
          {Math.abs(round.square.rack.cAlongMm) < 0.005
            ? "nowhere"
            : round.square.rack.cAlongMm < 0
              ? "toward D"
              : "away from D"}
          ; {diagonalsThenWords(round.square.rack.diagonalsMm, units)}.
        </p>
      ) : null}
    </Section>
  );
}

"use client";

import { type FrameRound, laidOver, misreadWords, plusMinus, tapWords } from "@/core/job";
import { useJob } from "../job/JobProvider";
import { Section } from "../parts/Sheet";

/** Any frame: where each place must go, farthest off first. */
export function Taps({ round, places }: { round: FrameRound; places: number }) {
  const { units } = useJob("units");
  const { general } = round;
  if (!general) return null;
  const { fit, farthest, taps, untied, apart } = general;
  const alone = untied.filter((p) => !apart.some((a) => a.from === p || a.to === p));
  return (
    <Section
      title="Place by place"
      aside={
        <span className="text-sm text-soft">
          {places} places, laid over {laidOver(round)}
        </span>
      }
    >
      {alone.length > 0 ? (
        <p className="mb-2 text-close">{alone.join(", ")}: reached by too few readings. Take one more from there.</p>
      ) : null}
      {apart.length > 0 ? (
        <ul className="mb-3 grid gap-1">
          {apart.map((a) => (
            <li key={a.id} className="grid grid-cols-[1fr_auto] gap-x-4 border-t border-line pt-1">
              <span>
                {a.from} to {a.to}, against {laidOver(round)}
              </span>
              <span className="fig text-brass">{plusMinus(a.offMm, a.uMm, units, true)}</span>
            </li>
          ))}
        </ul>
      ) : null}
      {farthest === null ? (
        <p>Too few readings to fix the shape yet.</p>
      ) : fit.agree === false ? (
        <p>{misreadWords({ fit }, units, round.help)}</p>
      ) : round.locked ? (
        <p>
          It is locked, so nothing is tapped any more. The farthest, {farthest.place}, is{" "}
          <span className="fig">{plusMinus(farthest.value, farthest.u, units)}</span> off.
        </p>
      ) : taps.length === 0 && farthest.value > 2 * farthest.u ? (
        <p>
          {farthest.place} is <span className="fig">{plusMinus(farthest.value, farthest.u, units)}</span> off, and no
          tap mends it: that would stretch a tube. A piece is cut too long or too short, or a gap is open.
        </p>
      ) : taps.length === 0 ? (
        <p>
          Every place lies where the tape can tell it: the farthest, {farthest.place}, is{" "}
          <span className="fig">{plusMinus(farthest.value, farthest.u, units)}</span> off.
        </p>
      ) : (
        <ol className="grid gap-1">
          {taps.map((t, i) => (
            <li key={t.place} className="border-t border-line pt-1">
              <span className="fig text-soft">{i + 1}</span> <span className="text-plum">{tapWords(t, units)}</span>
            </li>
          ))}
        </ol>
      )}
      {taps.length > 0 && fit.agree !== false && !round.locked ? (
        <p className="mt-2 text-sm text-soft">
          Tap the farthest first, then measure again: one tap moves its neighbours too.
        </p>
      ) : null}
    </Section>
  );
}

"use client";

import { useState } from "react";
import { splitTwist, turnedGaps } from "@/core/bed";
import type { BedRound } from "@/core/job";
import { formatSmall, type Length } from "@/core/units";
import { useJob } from "../job/JobProvider";
import { Choice } from "../parts/Choice";
import { LengthField } from "../parts/LengthField";

type Pair = "AC" | "BD";

/** Twist of the table from a survey of the four rests nearest the frame's corners, mm; null when it was not read there. */
function tableTwist(
  round: BedRound | null,
  corners: Record<string, { x: number; y: number }>,
  rests: readonly { id: string; x: { mm: number }; y: { mm: number } }[],
): number | null {
  const survey = round?.survey;
  if (!survey || (survey.status !== "ok" && survey.status !== "ok_no_check")) return null;
  const z = ["A", "B", "C", "D"].map((c) => {
    const at = corners[c] as { x: number; y: number };
    const near = [...rests].sort(
      (p, q) => Math.hypot(p.x.mm - at.x, p.y.mm - at.y) - Math.hypot(q.x.mm - at.x, q.y.mm - at.y),
    )[0];
    return near ? { id: near.id, z: survey.zMm[near.id] } : null;
  });
  if (z.some((v) => v?.z === undefined) || new Set(z.map((v) => v?.id)).size < 4) return null;
  const [a, b, c, d] = z.map((v) => v?.z ?? 0) as [number, number, number, number];
  return a - b + c - d;
}

/** A rock is the frame's twist, the table's, or both: a quarter turn, another spot, or the survey tells. */
export default function WhoseTwist({ round }: { round: BedRound | null }) {
  const { job, evaluation } = useJob("job", "evaluation");
  const { units, bed } = job.plan;
  const frame = evaluation.structure?.quad;
  const [found, setFound] = useState<Length | null>(null);
  const [foundHigh, setFoundHigh] = useState<Pair>("AC");
  const [turned, setTurned] = useState<Length | null>(null);
  const [turnedHigh, setTurnedHigh] = useState<Pair>("AC");
  if (!frame) return <p>This frame has no four corners to rock on.</p>;
  const isSquare = Math.abs(frame.lengthMm - frame.widthMm) < 0.02 * frame.lengthMm;
  const table = tableTwist(round, frame.corners, bed.rests);
  const sign = (l: Length, high: Pair): number => (high === "AC" ? l.mm : -l.mm);
  const small = (mm: number): string => formatSmall(Math.abs(mm), units, { decimals: 2 });
  const pair = (mm: number): string => (mm > 0 ? "A and C high" : "B and D high");
  /** What turning it should then show: a reading that differs says that one of them slipped. */
  const checkWords = (frameMm: number, tableMm: number): string => {
    const gaps = turnedGaps(frameMm, tableMm);
    return `If so, it rocks by ${small(gaps.halfTurnMm)} turned end for end or upside down too${
      isSquare ? `, and by ${small(gaps.quarterTurnMm)} after a quarter turn` : ""
    }.`;
  };
  const bad = [found, turned].some((l) => l && l.mm < 0);
  const gap = found && !bad ? sign(found, foundHigh) : null;
  const split = gap !== null && turned && !bad ? splitTwist(gap, sign(turned, turnedHigh)) : null;
  return (
    <div className="grid max-w-prose gap-3">
      <p className="text-soft">
        Turning it end for end or upside down tells nothing: a twist looks the same from both ends.{" "}
        {isSquare
          ? "This frame is square: turn it a quarter."
          : "This frame is not square: take it to another spot, or survey the bed under its corners."}
      </p>
      <div className="grid grid-cols-[1fr_auto] items-end gap-3">
        <LengthField label="Rock gap as it lies" units={units} value={found} optional onChange={setFound} />
        <Choice
          label="High on the frame"
          value={foundHigh}
          options={[
            ["AC", "A, C"],
            ["BD", "B, D"],
          ]}
          onChange={setFoundHigh}
        />
        {isSquare ? (
          <>
            <LengthField label="After a quarter turn" units={units} value={turned} optional onChange={setTurned} />
            <Choice
              label="High, by the same places of the table"
              value={turnedHigh}
              options={[
                ["AC", "A, C"],
                ["BD", "B, D"],
              ]}
              onChange={setTurnedHigh}
            />
          </>
        ) : null}
      </div>
      {bad ? <p className="text-fail">A gap is nought or more; say which pair is high beside it.</p> : null}
      {split ? (
        <p aria-live="polite">
          The frame is twisted {small(split.frameMm)} ({pair(split.frameMm)}), the table {small(split.tableMm)} (
          {pair(split.tableMm)}). {checkWords(split.frameMm, split.tableMm)}
        </p>
      ) : gap !== null && table !== null ? (
        <p aria-live="polite">
          By the survey the table is twisted {small(table)} ({pair(table)}) under its corners: the frame itself{" "}
          {small(gap + table)} ({pair(gap + table)}). {checkWords(gap + table, table)}
        </p>
      ) : gap !== null ? (
        <p aria-live="polite">One rock alone is the frame's twist less the table's: {small(gap)} in all.</p>
      ) : null}
    </div>
  );
}

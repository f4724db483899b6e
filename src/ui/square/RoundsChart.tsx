"use client";

import type { FrameRound } from "@/core/job";
import { physical, unitOf } from "@/core/units";
import { useJob } from "../job/JobProvider";
import { RoundSeries } from "../measure/RoundSeries";

/** Out of square, round by round, mm per metre. */
export function RoundsChart({
  rounds,
  currentId,
  limitMmPerM,
}: {
  rounds: readonly FrameRound[];
  currentId: string | null;
  limitMmPerM: number | null;
}) {
  const { units } = useJob("units");
  const points = rounds.flatMap((r) =>
    r.square?.shearMmPerM ? [{ id: r.round.id, name: `${r.round.gate} ${r.number}`, ...r.square.shearMmPerM }] : [],
  );
  return (
    <RoundSeries
      points={points}
      currentId={currentId}
      inside={limitMmPerM === null ? null : [-limitMmPerM, limitMmPerM]}
      kind="slope"
      units={units}
      words={(x) => physical("slope", x, units, undefined, true)}
      label={`Out of square by round, ${unitOf("slope", units)}`}
    />
  );
}

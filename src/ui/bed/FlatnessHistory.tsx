"use client";

import type { BedRound } from "@/core/job";
import { formatSmall, type UnitPreference } from "@/core/units";
import { RoundSeries } from "../measure/RoundSeries";

/** Out of flat, round by round, against what the bed may use. */
export default function FlatnessHistory({
  rounds,
  currentId,
  allowedMm,
  units,
}: {
  rounds: readonly BedRound[];
  currentId: string | null;
  allowedMm: number | null;
  units: UnitPreference;
}) {
  const points = rounds.flatMap((r) => {
    const { zoneMm, uZoneMm, status } = r.verdict.flatness;
    return status === "ok" && zoneMm !== null
      ? [{ id: r.round.id, name: `bed ${r.number}`, value: zoneMm, u: uZoneMm ?? 0 }]
      : [];
  });
  if (points.length === 0) return <p className="text-soft">No round with four rests yet.</p>;
  return (
    <RoundSeries
      points={points}
      currentId={currentId}
      inside={allowedMm === null ? null : [0, allowedMm]}
      kind="length"
      units={units}
      words={(x) => formatSmall(x, units, { decimals: 2, bare: true })}
      label="Out of flat by round"
    />
  );
}

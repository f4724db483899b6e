"use client";

import { scaleLinear } from "d3";
import type { BedRound } from "@/core/job";
import { formatSmall, type UnitPreference } from "@/core/units";
import { useWidth } from "../drawing/useWidth";

const HEIGHT = 140;
const LEFT = 54;

/** Out of flat, round by round, with what each may be off by and what the bed may use: is it closing? */
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
  const [ref, width] = useWidth(360);
  const shown = rounds.flatMap((r) => {
    const { zoneMm, uZoneMm, status } = r.verdict.flatness;
    return status === "ok" && zoneMm !== null
      ? [{ id: r.round.id, number: r.number, value: zoneMm, u: uZoneMm ?? 0 }]
      : [];
  });
  if (shown.length === 0) return <p className="text-soft">No round with four rests yet.</p>;
  const reach = Math.max(allowedMm ?? 0, ...shown.map((s) => s.value + 2 * s.u)) * 1.1 || 1;
  const y = scaleLinear([0, reach], [HEIGHT - 24, 8]);
  const x = scaleLinear([0, Math.max(1, shown.length - 1)], [LEFT + 26, width - 30]);
  const small = (mm: number): string => formatSmall(mm, units, { decimals: 2, bare: true });
  return (
    <div ref={ref}>
      <svg
        viewBox={`0 0 ${width} ${HEIGHT}`}
        width="100%"
        role="img"
        aria-label={`Out of flat by round: ${shown.map((s) => `round ${s.number} ${small(s.value)}`).join(", ")}`}
      >
        {allowedMm === null ? null : (
          <rect x={LEFT} width={width - LEFT} y={y(allowedMm)} height={y(0) - y(allowedMm)} fill="var(--pass-soft)" />
        )}
        {y.ticks(4).map((t) => (
          <text
            key={t}
            x={LEFT - 6}
            y={y(t)}
            textAnchor="end"
            dominantBaseline="central"
            fontSize={12}
            fill="var(--ink-soft)"
            className="fig"
          >
            {small(t)}
          </text>
        ))}
        <line x1={LEFT} x2={width} y1={y(0)} y2={y(0)} stroke="var(--line-strong)" />
        {shown.map((s, i) => (
          <g key={s.id} stroke="var(--brass)">
            <line
              x1={x(i)}
              x2={x(i)}
              y1={y(Math.max(0, s.value - 2 * s.u))}
              y2={y(s.value + 2 * s.u)}
              strokeWidth={2}
            />
            <circle
              cx={x(i)}
              cy={y(s.value)}
              r={s.id === currentId ? 7 : 4.5}
              fill={s.id === currentId ? "var(--brass)" : "var(--sheet)"}
              strokeWidth={2}
            />
            <text x={x(i)} y={HEIGHT - 6} textAnchor="middle" fontSize={12} fill="var(--ink-soft)" stroke="none">
              {s.number}
            </text>
          </g>
        ))}
      </svg>
    </div>
  );
}

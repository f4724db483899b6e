"use client";

import { scaleLinear } from "d3";
import type { FrameRound } from "@/core/job";
import { fixed } from "@/core/units";
import { useWidth } from "../drawing/useWidth";

const HEIGHT = 150;
const LEFT = 44;

/** Out of square, round by round, with what each may be off by and the limit: is it closing? */
export function RoundsChart({
  rounds,
  currentId,
  limitMmPerM,
}: {
  rounds: readonly FrameRound[];
  currentId: string | null;
  limitMmPerM: number | null;
}) {
  const [ref, width] = useWidth(360);
  const shown = rounds.flatMap((r) =>
    r.square?.shearMmPerM ? [{ id: r.round.id, name: `${r.round.gate} ${r.number}`, ...r.square.shearMmPerM }] : [],
  );
  if (shown.length === 0) return null;
  const reach = Math.max(limitMmPerM ?? 0, ...shown.map((s) => Math.abs(s.value) + 2 * s.u)) * 1.15 || 1;
  const y = scaleLinear([-reach, reach], [HEIGHT - 24, 8]);
  const x = scaleLinear([0, Math.max(1, shown.length - 1)], [LEFT + 26, width - 30]);
  return (
    <div ref={ref}>
      <svg
        viewBox={`0 0 ${width} ${HEIGHT}`}
        width="100%"
        role="img"
        aria-label={`Out of square by round, mm per metre: ${shown.map((s) => `${s.name} ${fixed(s.value, 2)}`).join(", ")}`}
      >
        {limitMmPerM === null ? null : (
          <rect
            x={LEFT}
            width={width - LEFT}
            y={y(limitMmPerM)}
            height={y(-limitMmPerM) - y(limitMmPerM)}
            fill="var(--pass-soft)"
          />
        )}
        <line x1={LEFT} x2={width} y1={y(0)} y2={y(0)} stroke="var(--line-strong)" />
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
            {fixed(t, reach < 2 ? 1 : 0)}
          </text>
        ))}
        <path
          d={`M${shown.map((s, i) => `${x(i)} ${y(s.value)}`).join("L")}`}
          fill="none"
          stroke="var(--line-strong)"
          strokeDasharray="2 3"
        />
        {shown.map((s, i) => (
          <g key={s.id} stroke="var(--brass)">
            <line x1={x(i)} x2={x(i)} y1={y(s.value - 2 * s.u)} y2={y(s.value + 2 * s.u)} strokeWidth={2} />
            <circle
              cx={x(i)}
              cy={y(s.value)}
              r={s.id === currentId ? 7 : 4.5}
              fill={s.id === currentId ? "var(--brass)" : "var(--sheet)"}
              strokeWidth={2}
            />
            <text x={x(i)} y={HEIGHT - 6} textAnchor="middle" fontSize={12} fill="var(--ink-soft)" stroke="none">
              {shown.length > 5 ? i + 1 : s.name}
            </text>
          </g>
        ))}
      </svg>
    </div>
  );
}

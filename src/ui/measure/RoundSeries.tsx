"use client";

import { scaleLinear } from "d3";
import type { PhysicalKind, UnitPreference } from "@/core/units";
import { useWidth } from "../drawing/useWidth";
import { shownTicks } from "../parts/shownTicks";
import { YTicks } from "../parts/YTicks";

const HEIGHT = 150;
const LEFT = 54;
/** More rounds than this are numbered: their names no longer fit. */
const NAMED = 5;

/** One round on the chart. */
interface SeriesPoint {
  id: string;
  name: string;
  value: number;
  /** Standard uncertainty, same unit. */
  u: number;
}

/** One number round by round, with what each may be off by and what is inside the limit: is it closing? */
export function RoundSeries({
  points,
  currentId,
  inside,
  kind,
  units,
  words,
  label,
}: {
  points: readonly SeriesPoint[];
  currentId: string | null;
  /** From, to; null without a limit. From nought: the number has no sign. */
  inside: readonly [number, number] | null;
  kind: PhysicalKind;
  units: UnitPreference;
  words: (x: number) => string;
  label: string;
}) {
  const [ref, width] = useWidth(360);
  if (points.length === 0) return null;
  const ends = points.flatMap((p) => [p.value - 2 * p.u, p.value + 2 * p.u]);
  const reach = 1.12 * (Math.max(...(inside ?? [0]).map(Math.abs), ...ends.map(Math.abs)) || 1);
  const low = inside?.[0] === 0 || (inside === null && points.every((p) => p.value >= 0)) ? 0 : -reach;
  const y = scaleLinear([low, reach], [HEIGHT - 24, 8]);
  const x = scaleLinear([0, Math.max(1, points.length - 1)], [LEFT + 26, width - 30]);
  return (
    <div ref={ref}>
      <svg
        viewBox={`0 0 ${width} ${HEIGHT}`}
        width="100%"
        role="img"
        aria-label={`${label}: ${points.map((p) => `${p.name} ${words(p.value)}`).join(", ")}`}
      >
        {inside ? (
          <rect
            x={LEFT}
            width={width - LEFT}
            y={y(inside[1])}
            height={y(inside[0]) - y(inside[1])}
            fill="var(--pass-soft)"
          />
        ) : null}
        <line x1={LEFT} x2={width} y1={y(0)} y2={y(0)} stroke="var(--line-strong)" />
        <YTicks ticks={shownTicks([low, reach], 4, kind, units)} y={y} x={LEFT - 6} words={words} />
        <path
          d={`M${points.map((p, i) => `${x(i)} ${y(p.value)}`).join("L")}`}
          fill="none"
          stroke="var(--line-strong)"
          strokeDasharray="2 3"
        />
        {points.map((p, i) => (
          <g key={p.id} stroke="var(--brass)">
            <line
              x1={x(i)}
              x2={x(i)}
              y1={y(Math.max(low, p.value - 2 * p.u))}
              y2={y(p.value + 2 * p.u)}
              strokeWidth={2}
            />
            <circle
              cx={x(i)}
              cy={y(p.value)}
              r={p.id === currentId ? 7 : 4.5}
              fill={p.id === currentId ? "var(--brass)" : "var(--sheet)"}
              strokeWidth={2}
            />
            <text x={x(i)} y={HEIGHT - 6} textAnchor="middle" fontSize={12} fill="var(--ink-soft)" stroke="none">
              {points.length > NAMED ? i + 1 : p.name}
            </text>
          </g>
        ))}
      </svg>
    </div>
  );
}

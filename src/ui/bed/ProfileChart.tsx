"use client";

import { extent, line, scaleLinear } from "d3";
import { formatLength, formatSmall, type UnitPreference } from "@/core/units";
import { useWidth } from "../drawing/useWidth";
import { niceShown, shownTicks } from "../parts/shownTicks";
import { YTicks } from "../parts/YTicks";
import type { MapPoint } from "./ContourMap";

const HEIGHT = 150;
const LEFT = 54;

/** A cut through the bed along one line of points, heights much enlarged, with what each may be off by. */
export function ProfileChart({
  points,
  uMm,
  units,
}: {
  points: readonly MapPoint[];
  /** Standard uncertainty of each against the line's ends, mm. */
  uMm: readonly number[];
  units: UnitPreference;
}) {
  const [ref, width] = useWidth(420);
  const [first] = points;
  if (!first || points.length < 3) return null;
  const along = points.map((p) => Math.hypot(p.x - first.x, p.y - first.y));
  const far = along.at(-1) ?? 1;
  const last = points.at(-1) ?? first;
  // Against the chord from end to end.
  const z = points.map((p, i) => p.z - first.z - ((last.z - first.z) * (along[i] ?? 0)) / far);
  const [low, high] = extent(z.flatMap((v, i) => [v - 2 * (uMm[i] ?? 0), v + 2 * (uMm[i] ?? 0)])) as [number, number];
  const x = scaleLinear([0, far], [LEFT, width - 18]);
  const domain = niceShown([Math.min(low, -0.02), Math.max(high, 0.02)], 4, "length", units);
  const y = scaleLinear(domain, [HEIGHT - 30, 12]);
  const ticks = shownTicks(domain, 4, "length", units);
  const small = (mm: number): string => formatSmall(mm, units, { decimals: 2, bare: true, signed: true });
  return (
    <div ref={ref}>
      <svg
        viewBox={`0 0 ${width} ${HEIGHT}`}
        width="100%"
        role="img"
        aria-label={`Profile from ${first.id} to ${last.id}: ${points.map((p, i) => `${p.id} ${small(z[i] ?? 0)}`).join(", ")}`}
      >
        {ticks.map((t) => (
          <line
            key={t}
            x1={LEFT}
            x2={width - 10}
            y1={y(t)}
            y2={y(t)}
            stroke={t === 0 ? "var(--line-strong)" : "var(--line)"}
          />
        ))}
        <YTicks ticks={ticks} y={y} x={LEFT - 6} words={small} />
        <path
          d={
            line<number>(
              (_, i) => x(along[i] ?? 0),
              (v) => y(v),
            )(z) ?? ""
          }
          fill="none"
          stroke="var(--brass)"
          strokeWidth={2}
        />
        {points.map((p, i) => (
          <g key={p.id} stroke="var(--brass)">
            <line
              x1={x(along[i] ?? 0)}
              x2={x(along[i] ?? 0)}
              y1={y((z[i] ?? 0) - 2 * (uMm[i] ?? 0))}
              y2={y((z[i] ?? 0) + 2 * (uMm[i] ?? 0))}
              strokeWidth={2}
            />
            <circle cx={x(along[i] ?? 0)} cy={y(z[i] ?? 0)} r={4} fill="var(--sheet)" strokeWidth={2} />
            <text
              x={x(along[i] ?? 0)}
              y={HEIGHT - 8}
              textAnchor="middle"
              fontSize={11}
              fill="var(--ink-soft)"
              stroke="none"
              className="fig"
            >
              {p.id}
            </text>
          </g>
        ))}
      </svg>
      <p className="text-sm text-soft">
        Over {formatLength(far, units, { trim: true }).text}, against the chord from {first.id} to {last.id}; bars are
        95 %.
      </p>
    </div>
  );
}

"use client";

import { scaleLinear } from "d3";
import type { Loss } from "@/core/job";
import { formatSmall, type UnitPreference } from "@/core/units";
import { useWidth } from "../drawing/useWidth";
import { niceShown, shownTicks } from "../parts/shownTicks";

const ROW = 46;
const LEFT = 34;
/** Room of a letter of a name, px. */
const LETTER = 8.6;

/** Predicted band (plum) and what was measured (brass) for each side. */
export function LossChart({ losses, units }: { losses: readonly Loss[]; units: UnitPreference }) {
  const [ref, width] = useWidth(360);
  const left = Math.max(LEFT, 6 + LETTER * Math.max(...losses.map((l) => l.name.length)));
  const ends = losses.flatMap((l) => [
    0,
    l.predicted.low,
    l.predicted.high,
    ...(l.measured ? [l.measured.value - 2 * l.measured.u, l.measured.value + 2 * l.measured.u] : []),
  ]);
  const domain = niceShown([Math.min(...ends), Math.max(...ends) * 1.05], 4, "length", units);
  const x = scaleLinear(domain, [left, width - 16]);
  const height = losses.length * ROW + 26;
  const bare = (mm: number) => formatSmall(mm, units, { decimals: 1, bare: true });
  return (
    <div ref={ref}>
      <svg
        viewBox={`0 0 ${width} ${height}`}
        width="100%"
        role="img"
        aria-label={`Predicted and measured loss, ${units === "mm" ? "mm" : "in"}: ${losses.map((l) => `${l.name} predicted ${bare(l.predicted.low)} to ${bare(l.predicted.high)}${l.measured ? `, measured ${bare(l.measured.value)}` : ""}`).join("; ")}`}
      >
        {shownTicks(domain, 4, "length", units).map((t) => (
          <g key={t}>
            <line x1={x(t)} x2={x(t)} y1={0} y2={height - 22} stroke={t === 0 ? "var(--line-strong)" : "var(--line)"} />
            <text x={x(t)} y={height - 8} textAnchor="middle" fontSize={12} fill="var(--ink-soft)" className="fig">
              {bare(t)}
            </text>
          </g>
        ))}
        {losses.map((l, i) => {
          const y = i * ROW + 14;
          return (
            <g key={l.name}>
              <text
                x={0}
                y={y + 6}
                fontSize={14}
                fontWeight={700}
                fill="var(--ink)"
                className="fig"
                dominantBaseline="central"
              >
                {l.name}
              </text>
              <rect
                x={x(l.predicted.low)}
                width={Math.max(2, x(l.predicted.high) - x(l.predicted.low))}
                y={y - 6}
                height={10}
                fill="var(--plum-soft)"
                stroke="var(--plum)"
              />
              <line
                x1={x(l.predicted.value)}
                x2={x(l.predicted.value)}
                y1={y - 9}
                y2={y + 7}
                stroke="var(--plum)"
                strokeWidth={3}
              />
              {l.measured ? (
                <g stroke="var(--brass)" strokeWidth={2}>
                  <line
                    x1={x(l.measured.value - 2 * l.measured.u)}
                    x2={x(l.measured.value + 2 * l.measured.u)}
                    y1={y + 16}
                    y2={y + 16}
                  />
                  <circle cx={x(l.measured.value)} cy={y + 16} r={5} fill="var(--brass)" />
                </g>
              ) : null}
            </g>
          );
        })}
      </svg>
    </div>
  );
}

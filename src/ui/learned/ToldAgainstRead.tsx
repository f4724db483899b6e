"use client";

import { scaleLinear } from "d3";
import type { LessonLine, ScoredReading } from "@/core/learn";
import type { UnitPreference } from "@/core/units";
import { useWidth } from "../drawing/useWidth";

const HEIGHT = 320;
const LEFT = 46;
const BOTTOM = 40;
/** Half of the band that nine in ten lie in, in standard deviations. */
const HALF_BAND = 1.645;

const inside = (r: ScoredReading): boolean => Math.abs(r.measured - r.mean) <= HALF_BAND * Math.hypot(r.sd, r.u);

/** What was read against what was told of it, reading by reading; what lies outside of its band stands out by its shape. */
export default function ToldAgainstRead({ lessons, units }: { lessons: readonly LessonLine[]; units: UnitPreference }) {
  const [ref, width] = useWidth(360);
  const readings = lessons.flatMap((l) => (l.kind === "frame" && l.leftOut === null ? l.readings : []));
  const per = units === "mm" ? 1 : 25.4;
  const unit = units === "mm" ? "mm" : "in";
  const ends = readings.flatMap((r) => [r.mean / per, r.measured / per]);
  const [low, high] = [Math.min(0, ...ends), Math.max(0, ...ends)];
  const pad = (high - low || 1) * 0.08;
  const x = scaleLinear([low - pad, high + pad], [LEFT, width - 8]).nice(5);
  const y = scaleLinear([low - pad, high + pad], [HEIGHT - BOTTOM, 8]).nice(5);
  const [from, to] = x.domain() as [number, number];
  const out = readings.filter((r) => !inside(r)).length;
  return (
    <figure ref={ref} className="min-w-0">
      <svg
        viewBox={`0 0 ${width} ${HEIGHT}`}
        width="100%"
        role="img"
        aria-label={`Read against predicted, ${unit}: ${readings.length} readings, ${out} of them outside of their band of nine in ten.`}
      >
        {x.ticks(5).map((t) => (
          <g key={`x${t}`}>
            <line x1={x(t)} x2={x(t)} y1={8} y2={HEIGHT - BOTTOM} stroke="var(--line)" />
            <text
              x={x(t)}
              y={HEIGHT - BOTTOM + 16}
              textAnchor="middle"
              fontSize={12}
              fill="var(--ink-soft)"
              className="fig"
            >
              {t}
            </text>
          </g>
        ))}
        {y.ticks(5).map((t) => (
          <g key={`y${t}`}>
            <line x1={LEFT} x2={width - 8} y1={y(t)} y2={y(t)} stroke="var(--line)" />
            <text
              x={LEFT - 6}
              y={y(t)}
              textAnchor="end"
              dominantBaseline="central"
              fontSize={12}
              fill="var(--ink-soft)"
              className="fig"
            >
              {t}
            </text>
          </g>
        ))}
        <line x1={x(from)} y1={y(from)} x2={x(to)} y2={y(to)} stroke="var(--line-strong)" strokeDasharray="5 4" />
        {readings.map((r, i) =>
          inside(r) ? (
            <circle
              // biome-ignore lint/suspicious/noArrayIndexKey: readings never change their place
              key={i}
              cx={x(r.mean / per)}
              cy={y(r.measured / per)}
              r={4}
              fill="var(--brass)"
            />
          ) : (
            <path
              // biome-ignore lint/suspicious/noArrayIndexKey: readings never change their place
              key={i}
              d={`M${x(r.mean / per) - 5},${y(r.measured / per) - 5}l10,10m0,-10l-10,10`}
              stroke="var(--fail)"
              strokeWidth={2.5}
            />
          ),
        )}
        <text x={(LEFT + width) / 2} y={HEIGHT - 6} textAnchor="middle" fontSize={13} fill="var(--ink)">
          predicted change, {unit}
        </text>
        <text
          transform={`translate(12 ${(HEIGHT - BOTTOM) / 2}) rotate(-90)`}
          textAnchor="middle"
          fontSize={13}
          fill="var(--ink)"
        >
          read, {unit}
        </text>
      </svg>
      <figcaption className="text-sm text-soft">
        Each dot a reading; on the dashed line it is as predicted. A cross lies outside of its band of nine in ten.
      </figcaption>
    </figure>
  );
}

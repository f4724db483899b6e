"use client";

import { measuredFrom } from "@/core/fixture";
import type { Structure } from "@/core/frame";
import { barsOf, type Plan } from "@/core/job";
import type { Projection } from "../drawing/projection";

/** A name's place beside its bar, px. */
const BESIDE = 12;

/** Strongbacks, temporary sides and blocks of a plan, from where to where they go, with their names. */
export function BarMarks({ structure, plan, p }: { structure: Structure; plan: Plan; p: Projection }) {
  const zero = measuredFrom(structure);
  return barsOf(structure, plan).map((bar) => {
    const [a, b] = [bar.from.at, bar.to.at].map(([x, y]) => p.to({ x: x - zero.x, y: y - zero.y })) as [
      { x: number; y: number },
      { x: number; y: number },
    ];
    // A quarter along, where bars that cross stand apart.
    const at = { x: a.x + (b.x - a.x) / 4, y: a.y + (b.y - a.y) / 4 };
    const long = Math.hypot(b.x - a.x, b.y - a.y) || 1;
    return (
      <g key={bar.id}>
        <line
          x1={a.x}
          y1={a.y}
          x2={b.x}
          y2={b.y}
          stroke="var(--brass)"
          strokeWidth={bar.kind === "block" ? 2 : 5}
          strokeOpacity={0.75}
          strokeDasharray={bar.kind === "block" ? "6 4" : undefined}
        />
        <text
          x={at.x - (BESIDE * (b.y - a.y)) / long}
          y={at.y + (BESIDE * (b.x - a.x)) / long}
          textAnchor="middle"
          dominantBaseline="middle"
          fontSize={14}
          fontWeight={600}
          fill="var(--ink)"
          stroke="var(--sheet)"
          strokeWidth={4}
          paintOrder="stroke"
        >
          {bar.id}
        </text>
      </g>
    );
  });
}

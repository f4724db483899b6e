"use client";

import type { Plan } from "@/core/job";
import type { Projection } from "../drawing/projection";

/** A bearer is drawn so wide, px. */
const WIDE = 12;

/** Trestles and bars that a frame lies on, under it, with their names at their far ends. */
export function BearerMarks({ plan, p }: { plan: Plan; p: Projection }) {
  return (plan.fixture?.bearers ?? []).map(({ id, from, to }) => {
    const [a, b] = [from, to].map(({ x, y }) => p.to({ x: x.mm, y: y.mm })) as [
      { x: number; y: number },
      { x: number; y: number },
    ];
    return (
      <g key={id}>
        <line x1={a.x} y1={a.y} x2={b.x} y2={b.y} stroke="var(--line-strong)" strokeWidth={WIDE} strokeOpacity={0.45} />
        <text
          x={b.x}
          y={b.y}
          textAnchor="middle"
          dominantBaseline="middle"
          fontSize={14}
          fontWeight={600}
          fill="var(--ink)"
          stroke="var(--sheet)"
          strokeWidth={4}
          paintOrder="stroke"
        >
          {id}
        </text>
      </g>
    );
  });
}

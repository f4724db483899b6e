"use client";

import { useMemo } from "react";
import type { Structure } from "@/core/frame";
import { formatLength, type UnitPreference } from "@/core/units";
import { MemberName } from "./MemberName";
import { useWidth } from "./useWidth";
import { fitted, screenOf, seen, VIEWS, type ViewName } from "./views";

interface Props {
  structure: Structure;
  units: UnitPreference;
  label: string;
  selected?: readonly string[];
  view?: ViewName;
  maxHeight?: number;
  /** Joint that is worked on, and the way to the face. */
  joint?: { at: readonly [number, number, number]; toward: readonly [number, number, number] } | null;
  doneJoints?: readonly (readonly [number, number, number])[];
  /** Lines over the frame: where it is predicted to lie. */
  lines?: readonly (readonly (readonly [number, number, number])[])[];
}

/** The view in which a frame shows most of itself. */
export function broadest(s: Structure): ViewName {
  const size = s.high.map((v, i) => v - (s.low[i] as number));
  const area = (v: ViewName): number => (size[VIEWS[v].right] as number) * (size[VIEWS[v].up] as number);
  return (["plan", "front", "side"] as const).reduce((best, v) => (area(v) > 1.05 * area(best) ? v : best));
}

/** Any frame, to scale, in the view that shows most of it. */
export function StructureDrawing({
  structure,
  units,
  label,
  selected = [],
  view,
  maxHeight = 420,
  joint,
  doneJoints = [],
  lines = [],
}: Props) {
  const [ref, width] = useWidth(600);
  const name = view ?? broadest(structure);
  const axes = VIEWS[name];
  const margin = width < 480 ? 34 : 48;
  const w = structure.high[axes.right] - structure.low[axes.right];
  const h = structure.high[axes.up] - structure.low[axes.up];
  const height = Math.max(160, Math.min(maxHeight, 2 * margin + ((width - 2 * margin) * h) / Math.max(1, w)));
  const screen = screenOf(axes, fitted(structure, axes, width, height, margin), width, height);
  const far = name === "front" ? -1 : 1;
  const members = useMemo(() => {
    const deep = (id: number) => structure.members[id]?.ends.from.at[axes.depth] ?? 0;
    return structure.members.map((m, i) => ({ m, i })).sort((a, b) => far * (deep(a.i) - deep(b.i)));
  }, [structure, axes, far]);
  const size = (mm: number): string => formatLength(mm, units, { trim: true }).text;
  const low = screen.toFlat({ x: structure.low[axes.right], y: structure.low[axes.up] });
  const high = screen.toFlat({ x: structure.high[axes.right], y: structure.high[axes.up] });
  return (
    <div ref={ref} className="min-w-0">
      <svg
        viewBox={`0 0 ${width} ${height.toFixed(0)}`}
        width="100%"
        role="img"
        aria-label={label}
        className="block select-none"
      >
        {members.map(({ m }) => {
          const chosen = selected.includes(m.id);
          const points = seen(m, axes).map(screen.toFlat);
          return (
            <path
              key={m.id}
              d={`${points.map((p, i) => `${i === 0 ? "M" : "L"}${p.x.toFixed(1)} ${p.y.toFixed(1)}`).join("")}Z`}
              fill={chosen ? "var(--plum-soft)" : "var(--tube)"}
              stroke={chosen ? "var(--plum)" : "var(--ink)"}
              strokeWidth={chosen ? 2 : 1}
              strokeLinejoin="round"
            />
          );
        })}
        {members.map(({ m }) => (
          <MemberName key={m.id} member={m} screen={screen} chosen={selected.includes(m.id)} ground="var(--sheet)" />
        ))}
        {lines.length > 0 ? (
          <path
            d={lines
              .map((l) =>
                l
                  .map(screen.to)
                  .map((p, i) => `${i === 0 ? "M" : "L"}${p.x.toFixed(1)} ${p.y.toFixed(1)}`)
                  .join(""),
              )
              .join("")}
            fill="none"
            stroke="var(--cool)"
            strokeWidth={2}
            strokeDasharray="7 4"
            data-testid="moved"
          />
        ) : null}
        {doneJoints.map((p) => (
          <circle key={p.join("/")} cx={screen.to(p).x} cy={screen.to(p).y} r={4} fill="var(--ink)" />
        ))}
        {joint ? (
          <g fill="none" stroke="var(--plum)">
            <circle cx={screen.to(joint.at).x} cy={screen.to(joint.at).y} r={15} strokeWidth={3} />
            <circle
              cx={screen.to(joint.at).x + 15 * joint.toward[axes.right]}
              cy={screen.to(joint.at).y - 15 * joint.toward[axes.up]}
              r={6}
              fill="var(--plum)"
              stroke="var(--sheet)"
              strokeWidth={2}
            />
          </g>
        ) : null}
        <g className="fig" fontSize={14} fill="var(--ink-soft)" textAnchor="middle">
          <text x={(low.x + high.x) / 2} y={Math.min(height - 8, low.y + 26)}>
            {size(w)}
          </text>
          <text transform={`translate(${Math.max(14, low.x - 22)} ${(low.y + high.y) / 2}) rotate(-90)`}>
            {size(h)}
          </text>
        </g>
      </svg>
      <p className="screen-only text-sm text-soft">To scale, seen {axes.words}.</p>
    </div>
  );
}

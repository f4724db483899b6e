"use client";

import { extent } from "d3";
import { useState } from "react";
import { addMember, type DrawnFrame, measuredShape, readSurvey, sidesOf } from "@/core/frame";
import { formatLength, formatSmall, type UnitPreference } from "@/core/units";
import { Button } from "../../parts/Button";
import { FieldMessage } from "../../parts/Field";

/** Sizes taken from an existing object: written down a line each, fitted, and drawn as members. */
export function SurveyPanel({
  frame,
  section,
  units,
  rightMm,
  onEdit,
}: {
  frame: DrawnFrame;
  section: string;
  /** How far what is drawn already reaches to the right: the measured shape is drawn beside it. */
  rightMm: number;
  units: UnitPreference;
  onEdit: (frame: DrawnFrame) => void;
}) {
  const [text, setText] = useState(frame.survey);
  const read = readSurvey(text, units);
  const shape = read.ok && read.value.length > 0 ? measuredShape(read.value) : null;
  const message = !read.ok ? read.message : shape && !shape.ok ? shape.message : null;
  const points = shape?.ok ? shape.value.points : [];
  const [lowX, highX] = extent(points, (p) => p.at.x) as [number, number];
  const [lowY, highY] = extent(points, (p) => p.at.y) as [number, number];
  const scale = points.length > 1 ? Math.min(300 / Math.max(1, highX - lowX), 160 / Math.max(1, highY - lowY)) : 1;
  const at = (p: { x: number; y: number }) => ({ x: 30 + (p.x - lowX) * scale, y: 185 - (p.y - lowY) * scale });
  const beside = frame.members.length > 0 ? rightMm + 200 - (lowX ?? 0) : 0;
  const sides = read.ok ? read.value.filter((t) => t.kind === "distance") : [];
  return (
    <div className="grid gap-3">
      <label className="text-sm font-semibold">
        What was measured
        <textarea
          className="fig mt-1 w-full rounded-[3px] border border-edge bg-well p-3 font-normal"
          rows={6}
          value={text}
          maxLength={8000}
          spellCheck={false}
          placeholder={"P1 P2 1203.5 ± 0.5\nP2 P3 804\nP1 P3 1447"}
          onChange={(e) => setText(e.target.value)}
          onBlur={() => text !== frame.survey && onEdit({ ...frame, survey: text })}
        />
      </label>
      <p className="text-sm text-soft">
        A line each: two points and their distance, or a point and its place, P1 = 0, 20. What follows ± is the standard
        uncertainty; without it {units === "mm" ? "0.5 mm" : "0.020 in"} is taken.
      </p>
      {message ? <FieldMessage severity="error">{message}</FieldMessage> : null}
      {shape?.ok ? (
        <>
          <svg
            viewBox="0 0 360 215"
            width="100%"
            role="img"
            aria-label="The measured shape, from above"
            className="border border-line"
          >
            {sides.map((t) => {
              const [a, b] = [points.find((p) => p.name === t.from), points.find((p) => p.name === t.to)];
              if (!a || !b) return null;
              const [p, q] = [at(a.at), at(b.at)];
              const wrong = shape.value.doubtful.includes(t.line);
              return (
                <path
                  key={t.line}
                  d={`M${p.x} ${p.y}L${q.x} ${q.y}`}
                  stroke={wrong ? "var(--fail)" : "var(--brass)"}
                  strokeDasharray={wrong ? "6 3" : undefined}
                />
              );
            })}
            {points.map((p) => (
              <g key={p.name}>
                <circle cx={at(p.at).x} cy={at(p.at).y} r={4} fill="var(--ink)" />
                <text x={at(p.at).x + 7} y={at(p.at).y - 6} fontSize={13} fill="var(--ink)">
                  {p.name}
                </text>
              </g>
            ))}
          </svg>
          <ul className="text-sm">
            {points.map((p) => (
              <li key={p.name} className="fig">
                {p.name}: {formatLength(p.at.x, units).text}, {formatLength(p.at.y, units).text} ±{" "}
                {formatSmall(2 * (p.uMm ?? 0), units, { decimals: 1 })}
              </li>
            ))}
          </ul>
          <p className="text-sm">
            {shape.value.spare <= 0
              ? "Nothing to spare: a misread size would not show. Take one more."
              : shape.value.doubtful.length === 0
                ? `${shape.value.spare} to spare, and all agree.`
                : `Does not agree with the others: ${shape.value.residuals
                    .filter((r) => shape.value.doubtful.includes(r.line))
                    .map((r) => `line ${r.line}, ${r.text}, ${formatSmall(r.mm, units, { decimals: 1 })} off`)
                    .join("; ")}. Read again.`}
          </p>
          <Button
            className="justify-self-start"
            onClick={() => {
              let next: DrawnFrame = { ...frame, survey: text };
              for (const [a, b] of sidesOf(shape.value)) {
                const done = addMember(next, [a.x + beside, a.y, 0], [b.x + beside, b.y, 0], section, units);
                if (done.ok) next = done.value.frame;
              }
              onEdit(next);
            }}
          >
            Draw its sides as members
          </Button>
        </>
      ) : null}
    </div>
  );
}

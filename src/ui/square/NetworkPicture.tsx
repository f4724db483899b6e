"use client";

import { scaleLinear } from "d3";
import { type FrameRound, laidOver, type QuantityId, quantityWords } from "@/core/job";
import type { Vec2 } from "@/core/numeric";
import { tapedTo } from "@/core/square";
import { fixed, formatSmall } from "@/core/units";
import { useWidth } from "../drawing/useWidth";
import { useJob } from "../job/JobProvider";
import { FitTable } from "../measure/FitTable";

const MARGIN = 46;
/** Largest move on the picture, as a share of its width. */
const SHOWN_SHARE = 0.06;

/** Where the places lie against where they belong, much enlarged, and how far each reading misses the fit. */
export default function NetworkPicture({ round }: { round: FrameRound }) {
  const { evaluation, units } = useJob("evaluation", "units");
  const { places } = evaluation;
  const [ref, width] = useWidth(420);
  const general = round.general;
  if (!places || !general?.bestFit) return null;
  const { fit, bestFit } = general;
  const names = Object.keys(bestFit.moves);
  const at = (n: string): Vec2 => tapedTo(places)[n] as Vec2;
  const xs = names.map((n) => at(n).x);
  const ys = names.map((n) => at(n).y);
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const k = Math.min((width - 2 * MARGIN) / Math.max(1, x1 - x0), 300 / Math.max(1, y1 - y0));
  const height = (y1 - y0) * k + 2 * MARGIN;
  const worst = Math.max(bestFit.worst?.mm ?? 0, 0.01);
  const enlarge = Math.max(1, Math.floor((SHOWN_SHARE * width) / (worst * k)));
  const to = (p: Vec2): Vec2 => ({ x: MARGIN + (p.x - x0) * k, y: height - MARGIN - (p.y - y0) * k });
  const moved = (n: string): Vec2 => {
    const m = bestFit.moves[n] as Vec2;
    return { x: at(n).x - m.x * enlarge, y: at(n).y - m.y * enlarge };
  };
  const heat = scaleLinear([0, 3.29], [1, 5]).clamp(true);
  const rows = fit.readings;
  const kinds = new Map(rows.map((r) => [r.id, r.kind]));
  const whatOf = (id: string): QuantityId | undefined => (round.readings.get(id) ?? round.slants.get(id))?.what;
  const nameOf = (id: string): string => {
    const what = whatOf(id);
    return what ? quantityWords(what) : id;
  };
  const show = (id: string, x: number): string =>
    kinds.get(id) === "angle"
      ? `${fixed((x * 180) / Math.PI, 3)}°`
      : formatSmall(x, units, { decimals: 2, signed: true });
  return (
    <div ref={ref}>
      <svg
        viewBox={`0 0 ${width} ${height.toFixed(0)}`}
        width="100%"
        role="img"
        aria-label={`Places as measured against ${laidOver(round)}, ${enlarge} times enlarged; readings and how far each misses the fit: ${rows.map((r) => `${nameOf(r.id)} ${show(r.id, r.residual)}`).join(", ")}`}
      >
        {rows.map((r) => {
          const q = whatOf(r.id);
          if (q?.kind !== "distance" || !bestFit.moves[q.from] || !bestFit.moves[q.to]) return null;
          const [a, b] = [to(moved(q.from)), to(moved(q.to))];
          const wrong = Math.abs(r.w) > 3.29;
          const mid = { x: a.x + 0.4 * (b.x - a.x), y: a.y + 0.4 * (b.y - a.y) };
          return (
            <g key={r.id}>
              <path
                d={`M${a.x} ${a.y}L${b.x} ${b.y}`}
                stroke={wrong ? "var(--close)" : "var(--brass)"}
                strokeWidth={heat(Math.abs(r.w))}
                strokeDasharray={wrong ? "6 3" : undefined}
              />
              <text
                x={mid.x}
                y={mid.y}
                textAnchor="middle"
                dominantBaseline="central"
                fontSize={11}
                className="fig"
                fill={wrong ? "var(--close)" : "var(--ink-soft)"}
                stroke="var(--sheet)"
                strokeWidth={4}
                paintOrder="stroke"
              >
                {show(r.id, r.residual)}
              </text>
            </g>
          );
        })}
        {names.map((n) => {
          const [a, b] = [to(at(n)), to(moved(n))];
          return (
            <g key={n}>
              <circle cx={a.x} cy={a.y} r={3} fill="var(--ink-soft)" />
              <path d={`M${a.x} ${a.y}L${b.x} ${b.y}`} stroke="var(--plum)" strokeWidth={2} />
              <circle cx={b.x} cy={b.y} r={5} fill="var(--sheet)" stroke="var(--brass)" strokeWidth={2} />
              <text
                x={a.x + (a.x < width / 2 ? -12 : 12)}
                y={a.y + (a.y < height / 2 ? -12 : 14)}
                textAnchor="middle"
                fontSize={13}
                fontWeight={700}
                fill="var(--ink)"
              >
                {n}
              </text>
            </g>
          );
        })}
      </svg>
      <p className="text-sm text-soft">
        Rings: as measured, {enlarge}× enlarged against {laidOver(round)} (dots). On each line, fitted less read.
      </p>
      <FitTable
        rows={rows.map((r) => ({
          id: r.id,
          name: nameOf(r.id),
          residual: show(r.id, r.residual),
          w: r.controlled ? r.w : null,
          detectable: show(r.id, r.detectable).replace("+", ""),
        }))}
      />
    </div>
  );
}

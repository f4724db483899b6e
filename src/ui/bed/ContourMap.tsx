"use client";

import { contours, Delaunay, extent, geoPath, geoTransform, scaleQuantize } from "d3";
import { useMemo } from "react";
import { fitPlane, heightOf, hull } from "@/core/geometry";
import type { Vec2 } from "@/core/numeric";
import { formatSmall, type UnitPreference } from "@/core/units";
import { useWidth } from "../drawing/useWidth";

/** A point of the bed with its height, mm. */
export interface MapPoint extends Vec2 {
  id: string;
  z: number;
}

const CELLS = 72;
const MARGIN = 34;
/** Bands of height: paper to brass, low to high. */
const STEPS = 6;

/** Height at a place, straight between the points that were read; null outside of them. */
function between(points: readonly MapPoint[], triangles: Uint32Array, x: number, y: number): number | null {
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = [0, 1, 2].map((k) => points[triangles[t + k] as number]) as [MapPoint, MapPoint, MapPoint];
    const det = (b.y - c.y) * (a.x - c.x) + (c.x - b.x) * (a.y - c.y);
    if (det === 0) continue;
    const l1 = ((b.y - c.y) * (x - c.x) + (c.x - b.x) * (y - c.y)) / det;
    const l2 = ((c.y - a.y) * (x - c.x) + (a.x - c.x) * (y - c.y)) / det;
    if (l1 >= -1e-6 && l2 >= -1e-6 && l1 + l2 <= 1 + 1e-6) return l1 * a.z + l2 * b.z + (1 - l1 - l2) * c.z;
  }
  return null;
}

/** Heights of a bed as lines of equal height, against its own plane or against level. */
export function ContourMap({
  points,
  against,
  units,
}: {
  points: readonly MapPoint[];
  against: "own plane" | "level";
  units: UnitPreference;
}) {
  const [ref, width] = useWidth(420);
  const xs = extent(points, (p) => p.x) as [number, number];
  const ys = extent(points, (p) => p.y) as [number, number];
  const scale = (width - 2 * MARGIN) / Math.max(1, xs[1] - xs[0]);
  const k = Math.min(scale, 300 / Math.max(1, ys[1] - ys[0]));
  const height = (ys[1] - ys[0]) * k + 2 * MARGIN;
  const to = (p: Vec2): Vec2 => ({ x: MARGIN + (p.x - xs[0]) * k, y: height - MARGIN - (p.y - ys[0]) * k });
  const drawn = useMemo(() => {
    const plane =
      against === "own plane"
        ? fitPlane(
            [...points],
            points.map((p) => p.z),
          )
        : null;
    const off = points.map((p) => ({ ...p, z: p.z - (plane ? heightOf(plane, p) : 0) }));
    const { triangles } = Delaunay.from(
      off,
      (p) => p.x,
      (p) => p.y,
    );
    const nx = CELLS;
    const ny = Math.max(4, Math.round((CELLS * (ys[1] - ys[0])) / Math.max(1, xs[1] - xs[0])));
    const mean = off.reduce((s, p) => s + p.z, 0) / off.length;
    const values = Array.from({ length: nx * ny }, (_, i) => {
      const x = xs[0] + (((i % nx) + 0.5) / nx) * (xs[1] - xs[0]);
      const y = ys[0] + ((Math.floor(i / nx) + 0.5) / ny) * (ys[1] - ys[0]);
      return between(off, triangles, x, y) ?? mean;
    });
    const [low, high] = extent(off, (p) => p.z) as [number, number];
    const bands = scaleQuantize(
      [low, high],
      Array.from({ length: STEPS }, (_, i) => i),
    ).thresholds();
    return { off, nx, ny, bands, low, high, shapes: contours().size([nx, ny]).smooth(true).thresholds(bands)(values) };
  }, [points, against, xs[0], xs[1], ys[0], ys[1]]);
  const path = geoPath(
    geoTransform({
      point(x, y) {
        const p = to({
          x: xs[0] + (x / drawn.nx) * (xs[1] - xs[0]),
          y: ys[0] + (y / drawn.ny) * (ys[1] - ys[0]),
        });
        this.stream.point(p.x, p.y);
      },
    }),
  );
  const small = (mm: number): string => formatSmall(mm, units, { decimals: 2, bare: true, signed: true });
  const outline = hull(points).map(to);
  const clip = `M${outline.map((p) => `${p.x} ${p.y}`).join("L")}Z`;
  return (
    <div ref={ref}>
      <svg
        viewBox={`0 0 ${width} ${height.toFixed(0)}`}
        width="100%"
        role="img"
        aria-label={`Heights against ${against === "level" ? "level" : "the bed's own plane"}, ${units === "mm" ? "mm" : "in"}: ${drawn.off.map((p) => `${p.id} ${small(p.z)}`).join(", ")}`}
      >
        <clipPath id="bed-hull">
          <path d={clip} />
        </clipPath>
        <path d={clip} fill="var(--well)" stroke="var(--line-strong)" />
        <g clipPath="url(#bed-hull)">
          {drawn.shapes.map((shape, i) => (
            <path
              key={drawn.bands[i]}
              d={path(shape) ?? ""}
              fill="var(--brass)"
              fillOpacity={0.13}
              stroke="var(--brass)"
              strokeWidth={1}
            />
          ))}
        </g>
        {drawn.off.map((p) => {
          const at = to(p);
          return (
            <g key={p.id}>
              <circle cx={at.x} cy={at.y} r={3} fill="var(--ink)" />
              <text
                x={at.x}
                y={at.y + (at.y > height / 2 ? 15 : -9)}
                textAnchor="middle"
                fontSize={11}
                className="fig"
                fill="var(--ink)"
                stroke="var(--sheet)"
                strokeWidth={3}
                paintOrder="stroke"
              >
                {points.length > 16 ? small(p.z) : `${p.id} ${small(p.z)}`}
              </text>
            </g>
          );
        })}
      </svg>
      <p className="text-sm text-soft">
        Lines every <span className="fig">{formatSmall((drawn.high - drawn.low) / STEPS, units, { decimals: 2 })}</span>
        , darker is higher; straight between the points that were read.
      </p>
    </div>
  );
}

import type { Vec2 } from "@/core/numeric";

/** From millimetres on the bed to pixels on the screen. */
export interface Projection {
  width: number;
  height: number;
  pxPerMm: number;
  /** Height of what is drawn over its width. */
  tall: number;
  to: (p: Vec2) => Vec2;
  /** A direction, turned but not scaled. */
  direction: (d: Vec2) => Vec2;
}

const QUARTER: ((p: Vec2) => Vec2)[] = [
  (p) => p,
  (p) => ({ x: -p.y, y: p.x }),
  (p) => ({ x: -p.x, y: -p.y }),
  (p) => ({ x: p.y, y: -p.x }),
];

/**
 * Fits points into a given width, turned by quarter turns, y up on the bed and down on the screen.
 * @param points everything that must be in sight, mm. @param widthPx width at hand. @param maxHeightPx height at most.
 * @param marginPx room for names around it. @param turn quarter turns anticlockwise.
 */
export function projection(
  points: Vec2[],
  widthPx: number,
  maxHeightPx: number,
  marginPx: number,
  turn: number,
): Projection {
  const rotate = QUARTER[turn % 4] as (p: Vec2) => Vec2;
  const turned = points.map(rotate);
  const xs = turned.map((p) => p.x);
  const ys = turned.map((p) => p.y);
  const min = { x: Math.min(...xs), y: Math.min(...ys) };
  const size = { x: Math.max(...xs) - min.x || 1, y: Math.max(...ys) - min.y || 1 };
  const pxPerMm = Math.min((widthPx - 2 * marginPx) / size.x, (maxHeightPx - 2 * marginPx) / size.y);
  const height = size.y * pxPerMm + 2 * marginPx;
  const left = (widthPx - size.x * pxPerMm) / 2;
  return {
    width: widthPx,
    height,
    pxPerMm,
    tall: size.y / size.x,
    to: (p) => {
      const r = rotate(p);
      return { x: left + (r.x - min.x) * pxPerMm, y: height - marginPx - (r.y - min.y) * pxPerMm };
    },
    direction: (d) => {
      const r = rotate(d);
      return { x: r.x, y: -r.y };
    },
  };
}

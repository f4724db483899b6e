import type { Vec2, Vec3 } from "../numeric";

/** A way to look at a frame: axes of the frame that run to the right, up, and towards the viewer. */
export interface ViewAxes {
  right: 0 | 1 | 2;
  up: 0 | 1 | 2;
  depth: 0 | 1 | 2;
}
export const FROM_ABOVE: ViewAxes = { right: 0, up: 1, depth: 2 };
export const FROM_FRONT: ViewAxes = { right: 0, up: 2, depth: 1 };
export const FROM_RIGHT: ViewAxes = { right: 1, up: 2, depth: 0 };

/** A place as it is seen in a view, mm. */
export const seenAt = (p: Vec3, v: ViewAxes): Vec2 => ({ x: p[v.right], y: p[v.up] });

/** Out of a plane that is seen so, upward or towards the viewer. */
export const outOf = ({ depth }: ViewAxes): Vec3 => {
  const out: [number, number, number] = [0, 0, 0];
  out[depth] = depth === 1 ? -1 : 1;
  return out;
};

/** A place of a view in space, at a depth of its own. */
export function inSpace(p: Vec2, depthMm: number, v: ViewAxes): Vec3 {
  const out: [number, number, number] = [0, 0, 0];
  out[v.right] = p.x;
  out[v.up] = p.y;
  out[v.depth] = depthMm;
  return out;
}

import { outlineIn } from "@/core/drawing";
import {
  FROM_ABOVE,
  FROM_FRONT,
  FROM_RIGHT,
  type Structure,
  type StructureMember,
  seenAt,
  type ViewAxes,
} from "@/core/frame";
import type { Vec2, Vec3 } from "@/core/numeric";

export type ViewName = "plan" | "front" | "side";

/** What each view shows across, up, and towards the viewer. */
export const VIEWS: Record<ViewName, ViewAxes & { words: string }> = {
  plan: { ...FROM_ABOVE, words: "from above" },
  front: { ...FROM_FRONT, words: "from the front" },
  side: { ...FROM_RIGHT, words: "from the right" },
};

/** How a view was changed from showing all: nearer by so much, and moved on by so much, mm. */
export interface Look {
  zoom: number;
  shift: Vec2;
}
export const WHOLE: Look = { zoom: 1, shift: { x: 0, y: 0 } };

/** A window on a view: its middle in mm and how many pixels a mm takes. */
interface Frameview {
  middle: Vec2;
  scale: number;
}

/** Outline of a member as it is seen in a view. */
export const seen = (m: StructureMember, v: ViewAxes): Vec2[] => outlineIn(m, v);

/** The window that shows all of a structure, or what was asked for. */
export function fitted(
  s: Structure,
  v: ViewAxes,
  width: number,
  height: number,
  margin: number,
  look: Look = WHOLE,
): Frameview {
  const [lowX, highX] = [s.low[v.right], s.high[v.right]];
  const [lowY, highY] = [s.low[v.up], s.high[v.up]];
  const w = Math.max(highX - lowX, 200);
  const h = Math.max(highY - lowY, 200);
  return {
    middle: { x: (lowX + highX) / 2 + look.shift.x, y: (lowY + highY) / 2 + look.shift.y },
    scale: look.zoom * Math.min((width - 2 * margin) / w, (height - 2 * margin) / h),
  };
}

/** Places on the screen, and back, for one window. */
export interface Screen {
  to: (p: Vec3) => Vec2;
  toFlat: (p: Vec2) => Vec2;
  /** Back into the frame, at a given depth. */
  from: (at: Vec2, depthMm: number) => Vec3;
  mmPerPx: number;
}

export function screenOf(v: ViewAxes, w: Frameview, width: number, height: number): Screen {
  const toFlat = (p: Vec2): Vec2 => ({
    x: width / 2 + (p.x - w.middle.x) * w.scale,
    y: height / 2 - (p.y - w.middle.y) * w.scale,
  });
  return {
    toFlat,
    to: (p) => toFlat(seenAt(p, v)),
    from: (at, depthMm) => {
      const out: [number, number, number] = [0, 0, 0];
      out[v.right] = w.middle.x + (at.x - width / 2) / w.scale;
      out[v.up] = w.middle.y - (at.y - height / 2) / w.scale;
      out[v.depth] = depthMm;
      return out;
    },
    mmPerPx: 1 / w.scale,
  };
}

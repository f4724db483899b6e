import type { Vec2 } from "@/core/numeric";

/** Words that want a place on a drawing, in pixels. */
export interface Label {
  key: string;
  text: string;
  size: number;
  /** Places of its middle, the wished one first; or of its near end where it is anchored there. */
  at: readonly Vec2[];
  anchor?: "start" | "middle" | "end";
  /** Turned to read upward. */
  upright?: boolean;
  /** Shown even where nothing is free; the others are left out there. */
  must?: boolean;
}

export interface Box {
  left: number;
  right: number;
  top: number;
  bottom: number;
}

/** Width of a character of the figures' font, and height of a line, as shares of the size. */
const WIDE = 0.62;
const HIGH = 1.15;
/** Room kept between labels, px. */
const ROOM = 1;

/** The box that a label takes at a place. */
export function boxOf({ text, size, anchor = "middle", upright = false }: Omit<Label, "at" | "key">, at: Vec2): Box {
  const [w, h] = [text.length * size * WIDE + ROOM, size * HIGH + ROOM];
  if (upright) return { left: at.x - h / 2, right: at.x + h / 2, top: at.y - w / 2, bottom: at.y + w / 2 };
  const left = anchor === "middle" ? at.x - w / 2 : anchor === "start" ? at.x : at.x - w;
  return { left, right: left + w, top: at.y - h / 2, bottom: at.y + h / 2 };
}

const shared = (a: Box, b: Box): number =>
  Math.max(0, Math.min(a.right, b.right) - Math.max(a.left, b.left)) *
  Math.max(0, Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top));

/**
 * Places labels so that none covers another: each takes the first of its places that is free, in the order in which they are
 * given; one that must be shown takes the place where it covers least, any other is left out.
 * @param taken boxes that are no label's: letters in their circles. @returns the place of each, by key.
 */
export function placeLabels(labels: readonly Label[], taken: readonly Box[] = []): Map<string, Vec2> {
  const boxes = [...taken];
  const out = new Map<string, Vec2>();
  for (const label of labels) {
    const tried = label.at.map((at) => {
      const box = boxOf(label, at);
      return { at, box, covers: boxes.reduce((s, b) => s + shared(box, b), 0) };
    });
    const found =
      tried.find((t) => t.covers === 0) ?? (label.must ? tried.sort((a, b) => a.covers - b.covers)[0] : null);
    if (!found) continue;
    boxes.push(found.box);
    out.set(label.key, found.at);
  }
  return out;
}

/** Places along a stretch, the middle first. */
export const alongStretch = (from: Vec2, to: Vec2, shares: readonly number[] = [0.5, 0.36, 0.64, 0.22, 0.78]): Vec2[] =>
  shares.map((s) => ({ x: from.x + s * (to.x - from.x), y: from.y + s * (to.y - from.y) }));

import type { Vec2 } from "../numeric";
import type { Shape } from "./shapes";

/** Corners that a circle is drawn with. */
const ROUND = 48;

const circle = (d: number): Vec2[] =>
  Array.from({ length: ROUND }, (_, i) => ({
    x: (d / 2) * Math.cos((2 * Math.PI * i) / ROUND),
    y: (d / 2) * Math.sin((2 * Math.PI * i) / ROUND),
  }));

/** Outer size of a section, mm. */
export const sectionSize = (s: Shape): { widthMm: number; heightMm: number } =>
  "diameterMm" in s ? { widthMm: s.diameterMm, heightMm: s.diameterMm } : s;

export const isRound = (s: Shape): boolean => "diameterMm" in s;
/** Closed all round, so that gas can be trapped in it. */
export const isHollow = (s: Shape): boolean => s.shape === "tube" || s.shape === "round tube";

/**
 * Outer outline of a section, anticlockwise, with sharp corners; x along its width, y along its height, the middle of its
 * outer size at the origin. An angle has its corner at the lower left, a channel its web at the left.
 */
export function sectionOutline(s: Shape): Vec2[] {
  if ("diameterMm" in s) return circle(s.diameterMm);
  const [w, h] = [s.widthMm / 2, s.heightMm / 2];
  const box = [
    { x: -w, y: -h },
    { x: w, y: -h },
    { x: w, y: h },
    { x: -w, y: h },
  ];
  if (s.shape === "angle")
    return [
      { x: -w, y: -h },
      { x: w, y: -h },
      { x: w, y: -h + s.wallMm },
      { x: -w + s.wallMm, y: -h + s.wallMm },
      { x: -w + s.wallMm, y: h },
      { x: -w, y: h },
    ];
  if (s.shape === "channel")
    return [
      { x: -w, y: -h },
      { x: w, y: -h },
      { x: w, y: -h + s.wallMm },
      { x: -w + s.wallMm, y: -h + s.wallMm },
      { x: -w + s.wallMm, y: h - s.wallMm },
      { x: w, y: h - s.wallMm },
      { x: w, y: h },
      { x: -w, y: h },
    ];
  return box;
}

/**
 * Length of the outer outline, mm: what a metre of it has to be painted. A rounded tube has the corners of EN 10219-2.
 * @param outsideRadiusMm of the corners; zero for sharp ones.
 */
export function outerPerimeterMm(s: Shape, outsideRadiusMm: number): number {
  if ("diameterMm" in s) return Math.PI * s.diameterMm;
  const outline = sectionOutline(s);
  const sharp = outline.reduce((sum, p, i) => {
    const q = outline[(i + 1) % outline.length] as Vec2;
    return sum + Math.hypot(q.x - p.x, q.y - p.y);
  }, 0);
  return s.shape === "tube" ? sharp - (8 - 2 * Math.PI) * outsideRadiusMm : sharp;
}

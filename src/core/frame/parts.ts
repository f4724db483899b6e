import { add3, scale3, type Vec3 } from "../numeric";
import type { DrawnPart } from "./drawnSchema";
import { MATERIALS } from "./materials";
import type { Axes } from "./memberAxes";
import { place } from "./placing";
import type { StructurePart } from "./structure";

/** Which of a part's three sizes is its thickness: 0, 1 or 2. */
export function thicknessOf(size: Vec3): 0 | 1 | 2 {
  const least = Math.min(...size);
  return size.indexOf(least) as 0 | 1 | 2;
}

/** Axes of a part that goes by no member. */
const UPRIGHT: Axes = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
];
const LOW_CORNER = [-1, -1, -1] as const;

/**
 * A part's weight, surface and place: a plate, or half of one when it is triangular, less its holes.
 * Source: closed forms; the inside of a hole is counted, as paint and zinc reach it.
 * @param axes of the member that it lies along; the frame's own when left out.
 */
export function resolvePart(part: DrawnPart, axes: Axes = UPRIGHT): StructurePart {
  const [at, size] = [place(part.at), place(part.size)];
  const thin = thicknessOf(size);
  const t = size[thin];
  const [w, h] = size.filter((_, i) => i !== thin) as [number, number];
  const share = part.triangular ? 0.5 : 1;
  const holes = part.holes.reduce((s, x) => s + (Math.PI / 4) * x.diameter.mm ** 2, 0);
  const rims = part.holes.reduce((s, x) => s + Math.PI * x.diameter.mm * t, 0);
  const face = Math.max(0, share * w * h - holes);
  const edge = part.triangular ? w + h + Math.hypot(w, h) : 2 * (w + h);
  const flat = ([0, 1, 2] as const).filter((i) => i !== thin) as [0 | 1 | 2, 0 | 1 | 2];
  const keeps = part.keeps ?? LOW_CORNER;
  /** A point of the body, by signs along its own axes. */
  const corner = (signs: readonly number[]): Vec3 =>
    signs.reduce<Vec3>((p, s, i) => add3(p, scale3(axes[i] as Vec3, (s * (size[i] as number)) / 2)), at);
  const outline: (readonly [number, number])[] = part.triangular
    ? [
        [keeps[flat[0]], keeps[flat[1]]],
        [-keeps[flat[0]], keeps[flat[1]]],
        [keeps[flat[0]], -keeps[flat[1]]],
      ]
    : [
        [-1, -1],
        [1, -1],
        [1, 1],
        [-1, 1],
      ];
  const corners = [-1, 1].flatMap((side) =>
    outline.map(([p, q]) => {
      const signs = [0, 0, 0];
      [signs[thin], signs[flat[0]], signs[flat[1]]] = [side, p, q];
      return corner(signs);
    }),
  );
  const range = (i: number, f: (...x: number[]) => number): number => f(...corners.map((p) => p[i] as number));
  return {
    id: part.id,
    corners,
    low: [range(0, Math.min), range(1, Math.min), range(2, Math.min)],
    high: [range(0, Math.max), range(1, Math.max), range(2, Math.max)],
    massKg: face * t * MATERIALS[part.material].densityKgPerMm3,
    centreOfMass: scale3(corners.reduce<Vec3>(add3, [0, 0, 0]), 1 / corners.length),
    surfaceMm2: 2 * face + edge * t + rims,
  };
}

import { add3, scale3, type Vec3 } from "../numeric";
import type { DrawnPart } from "./drawnSchema";
import { MATERIALS } from "./materials";
import { place } from "./placing";
import type { StructurePart } from "./structure";

/** Which of a part's three sizes is its thickness: 0, 1 or 2. */
export function thicknessOf(size: Vec3): 0 | 1 | 2 {
  const least = Math.min(...size);
  return size.indexOf(least) as 0 | 1 | 2;
}

/**
 * A part's weight, surface and place: a plate, or half of one when it is triangular, less its holes.
 * Source: closed forms; the inside of a hole is counted, as paint and zinc reach it.
 */
export function resolvePart(part: DrawnPart): StructurePart {
  const [at, size] = [place(part.at), place(part.size)];
  const thin = thicknessOf(size);
  const t = size[thin];
  const [w, h] = size.filter((_, i) => i !== thin) as [number, number];
  const share = part.triangular ? 0.5 : 1;
  const holes = part.holes.reduce((s, x) => s + (Math.PI / 4) * x.diameter.mm ** 2, 0);
  const rims = part.holes.reduce((s, x) => s + Math.PI * x.diameter.mm * t, 0);
  const face = Math.max(0, share * w * h - holes);
  const edge = part.triangular ? w + h + Math.hypot(w, h) : 2 * (w + h);
  const low = add3(at, scale3(size, -0.5));
  const others = ([0, 1, 2] as const).filter((i) => i !== thin);
  // A triangle keeps the corner at its low ends: its centre lies a third along.
  const centre: Vec3 = part.triangular
    ? (low.map((v, i) => v + (others.includes(i as 0 | 1 | 2) ? (size[i] as number) / 3 : t / 2)) as unknown as Vec3)
    : at;
  return {
    id: part.id,
    low,
    high: add3(at, scale3(size, 0.5)),
    massKg: face * t * MATERIALS[part.material].densityKgPerMm3,
    centreOfMass: centre,
    surfaceMm2: 2 * face + edge * t + rims,
  };
}

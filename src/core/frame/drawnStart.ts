import type { Vec3 } from "../numeric";
import { length, stated, type UnitPreference } from "../units";
import type { DrawnFrame, DrawnMember, DrawnSection, Point } from "./drawnSchema";

/** A place as a person would have typed it. */
export const statedPoint = (p: Vec3, units: UnitPreference): Point => ({
  x: stated(p[0], units),
  y: stated(p[1], units),
  z: stated(p[2], units),
});

/** A frame with nothing in it yet but what its members will be made of. */
export const emptyFrame = (section: DrawnSection): DrawnFrame => ({
  sections: [section],
  members: [],
  joints: [],
  gap: length("0"),
  parts: [],
  obstacles: [],
  floor: null,
  pairs: [],
  groups: [],
  largest: null,
  survey: "",
});

/** A member with the shop's habits: seam inside, crown outward. */
export const member = (
  id: string,
  from: Vec3,
  to: Vec3,
  section: string,
  units: UnitPreference,
  more: Partial<DrawnMember> = {},
): DrawnMember => ({
  id,
  from: statedPoint(from, units),
  to: statedPoint(to, units),
  section,
  turnDeg: 0,
  seam: "inside",
  crown: "outward",
  flush: null,
  offset: null,
  locked: false,
  mirror: null,
  ...more,
});

/** A rectangle's members on their centre lines. @param z height of the centre lines. Names run A to D, or E to H. */
export function rectangleMembers(
  sizes: { lengthMm: number; widthMm: number; faceMm: number; zMm: number; xMm?: number; yMm?: number },
  corners: readonly [string, string, string, string],
  section: string,
  units: UnitPreference,
): DrawnMember[] {
  const { lengthMm: L, widthMm: W, faceMm, zMm: z, xMm: x0 = 0, yMm: y0 = 0 } = sizes;
  const h = faceMm / 2;
  const at: Vec3[] = [
    [x0 + h, y0 + h, z],
    [x0 + L - h, y0 + h, z],
    [x0 + L - h, y0 + W - h, z],
    [x0 + h, y0 + W - h, z],
  ];
  return corners.map((c, i) => {
    const next = (i + 1) % 4;
    return member(`${c}${corners[next]}`, at[i] as Vec3, at[next] as Vec3, section, units);
  });
}

/** Butt corners of four sides in turn. @param even whether the first and third run through, else the others. */
export const butted = (sides: readonly Pick<DrawnMember, "id">[], even = true): DrawnFrame["joints"] =>
  sides.map((side, i) => {
    const before = sides[(i + 3) % 4] as Pick<DrawnMember, "id">;
    const through = (i % 2 === 0) === even ? side.id : before.id;
    return { between: [before.id, side.id], kind: "butt", through, faces: [] };
  });

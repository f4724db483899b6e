import { SIDES } from "../geometry";
import type { Vec3 } from "../numeric";
import { length, stated, statedExactly, type UnitPreference } from "../units";
import type { DrawnFrame, DrawnMember, DrawnSection, Point } from "./drawnSchema";
import type { Rectangle } from "./rectangleSchema";

/** A place as a person would have typed it. */
export const statedPoint = (p: Vec3, units: UnitPreference): Point => ({
  x: stated(p[0], units),
  y: stated(p[1], units),
  z: stated(p[2], units),
});

/** The same to the last digit: what follows from sizes that were typed is not rounded on the way. */
const exactPoint = (p: Vec3, units: UnitPreference): Point => ({
  x: statedExactly(p[0], units),
  y: statedExactly(p[1], units),
  z: statedExactly(p[2], units),
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

/**
 * A rectangle by its sizes as members: the one way from the form to what is built.
 * Names, places and joints are those that every later stage knows.
 */
export function fromRectangle(sizes: Rectangle, units: UnitPreference): DrawnFrame {
  const { section } = sizes;
  const face = section.face.mm;
  const z = section.depth.mm / 2;
  const [length, width] = [sizes.length.mm, sizes.width.mm];
  const exact = (id: string, from: Vec3, to: Vec3): DrawnMember => ({
    ...member(id, from, to, "S1", units),
    from: exactPoint(from, units),
    to: exactPoint(to, units),
  });
  const half = face / 2;
  const corners: Vec3[] = [
    [half, half, z],
    [length - half, half, z],
    [length - half, width - half, z],
    [half, width - half, z],
  ];
  const sides = SIDES.map((side, i) => exact(side, corners[i] as Vec3, corners[(i + 1) % 4] as Vec3));
  const across = sizes.crossRuns === "across";
  const far = (across ? width : length) - half;
  const cross = sizes.cross.map(({ id, at }) =>
    across ? exact(id, [at.mm, half, z], [at.mm, far, z]) : exact(id, [half, at.mm, z], [far, at.mm, z]),
  );
  return {
    ...emptyFrame({
      id: "S1",
      shape: "tube",
      profile: section.profile,
      width: section.face,
      height: section.depth,
      wall: section.wall,
      material: sizes.material,
    }),
    members: [...sides, ...cross],
  };
}

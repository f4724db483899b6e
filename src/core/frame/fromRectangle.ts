import { SIDES } from "../geometry";
import type { Vec3 } from "../numeric";
import { statedExactly, type UnitPreference } from "../units";
import type { DrawnFrame, DrawnMember, Point } from "./drawnSchema";
import { butted, emptyFrame, member } from "./drawnStart";
import { capOpenEnds } from "./fittedParts";
import { CORNER_WAYS } from "./frameWords";
import { groundFaces } from "./groundFaces";
import type { Rectangle } from "./rectangleSchema";
import { resolveStructure } from "./resolveStructure";

/** A place to the last digit: what follows from sizes that were typed is not rounded on the way. */
const exactPoint = (p: Vec3, units: UnitPreference): Point => ({
  x: statedExactly(p[0], units),
  y: statedExactly(p[1], units),
  z: statedExactly(p[2], units),
});

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
  const drawn: DrawnFrame = {
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
    joints: sizes.corners && sizes.corners !== "mitred" ? butted(sides, sizes.corners === CORNER_WAYS[1]) : [],
    ...(sizes.gap ? { gap: sizes.gap } : {}),
  };
  const ground = sizes.ground?.length ? groundFaces(drawn, sizes.ground) : drawn;
  return sizes.caps ? capOpenEnds(ground, resolveStructure(ground).structure, units) : ground;
}

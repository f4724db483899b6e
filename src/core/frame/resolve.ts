import { add, type Vec2 } from "../numeric";
import { CORNERS, type Corner, SIDES, type Side } from "./corners";
import { MATERIALS, type MaterialName } from "./materials";
import type { Rectangle } from "./rectangleSchema";
import { type SectionProperties, type SectionSize, sectionProperties } from "./sections";

export type JointKind = "mitre" | "tee";
export type MitreFace = "inside" | "outside" | "top" | "bottom";
/** Faces of a tee: the two sides of the branch (`near` is the one nearer corner A), top and bottom. */
export type TeeFace = "near" | "far" | "top" | "bottom";

/** One member in its place. Plan outline in mm, origin at corner A outside, x along AB, y towards CD. */
export interface ResolvedMember {
  /** A side (`AB`) or a cross member (`M1`). */
  name: string;
  kind: "side" | "cross";
  /** Centre line end to end. */
  axis: [Vec2, Vec2];
  outline: Vec2[];
  /** Between the outermost points. */
  longPointMm: number;
  shortPointMm: number;
  centreMm: number;
}

/** Where two members meet. */
export interface ResolvedJoint {
  /** `A` for a corner, `M1/AB` for a tee. */
  name: string;
  kind: JointKind;
  /** Mitre: the two sides. Tee: branch, then the member that runs through. */
  members: [string, string];
  at: Vec2;
  faces: readonly (MitreFace | TeeFace)[];
}

/** The one frame that every later stage reads. */
export interface ResolvedFrame {
  lengthMm: number;
  widthMm: number;
  section: SectionSize;
  properties: SectionProperties;
  material: MaterialName;
  /** Outside corners, nominal. */
  corners: Record<Corner, Vec2>;
  members: ResolvedMember[];
  joints: ResolvedJoint[];
  massKg: number;
  centreOfMass: Vec2;
}

export const MITRE_FACES: readonly MitreFace[] = ["outside", "top", "bottom", "inside"];
export const TEE_FACES: readonly TeeFace[] = ["near", "far", "top", "bottom"];

/** @returns the opposite corner: A and C, B and D. */
export const opposite = (corner: Corner): Corner => CORNERS[(CORNERS.indexOf(corner) + 2) % 4] as Corner;
/** @returns the two ends of a span or side in the order of its name. */
export const ends = (span: string): [Corner, Corner] => [span[0] as Corner, span[1] as Corner];

/**
 * Puts every member of a frame in its true place.
 * @param frame a frame without problems (see rectangleProblems); lengths in mm.
 * @returns members with outlines, joints, mass in kg and centre of mass.
 */
export function resolveFrame(frame: Rectangle): ResolvedFrame {
  const L = frame.length.mm;
  const H = frame.width.mm;
  const section: SectionSize = {
    faceMm: frame.section.face.mm,
    depthMm: frame.section.depth.mm,
    wallMm: frame.section.wall.mm,
  };
  const w = section.faceMm;
  const corners: Record<Corner, Vec2> = { A: { x: 0, y: 0 }, B: { x: L, y: 0 }, C: { x: L, y: H }, D: { x: 0, y: H } };
  const inner: Record<Corner, Vec2> = {
    A: { x: w, y: w },
    B: { x: L - w, y: w },
    C: { x: L - w, y: H - w },
    D: { x: w, y: H - w },
  };
  const middle = (c: Corner): Vec2 => ({ x: (corners[c].x + inner[c].x) / 2, y: (corners[c].y + inner[c].y) / 2 });
  const sides = SIDES.map((name: Side): ResolvedMember => {
    const [p, q] = ends(name);
    const outer = name === "AB" || name === "CD" ? L : H;
    return {
      name,
      kind: "side",
      axis: [middle(p), middle(q)],
      outline: [corners[p], corners[q], inner[q], inner[p]],
      longPointMm: outer,
      shortPointMm: outer - 2 * w,
      centreMm: outer - w,
    };
  });
  const across = frame.crossRuns === "across";
  const crossLength = (across ? H : L) - 2 * w;
  const cross = frame.cross.map((member): ResolvedMember => {
    const start: Vec2 = across ? { x: member.at.mm, y: w } : { x: w, y: member.at.mm };
    const end = add(start, across ? { x: 0, y: crossLength } : { x: crossLength, y: 0 });
    const half = across ? { x: w / 2, y: 0 } : { x: 0, y: w / 2 };
    const minus = { x: -half.x, y: -half.y };
    return {
      name: member.id,
      kind: "cross",
      axis: [start, end],
      outline: [add(start, minus), add(end, minus), add(end, half), add(start, half)],
      longPointMm: crossLength,
      shortPointMm: crossLength,
      centreMm: crossLength,
    };
  });
  const mitres = CORNERS.map(
    (corner, i): ResolvedJoint => ({
      name: corner,
      kind: "mitre",
      members: [SIDES[(i + 3) % 4] as Side, SIDES[i] as Side],
      at: corners[corner],
      faces: MITRE_FACES,
    }),
  );
  const tees = cross.flatMap((member) =>
    member.axis.map((at, i): ResolvedJoint => {
      const through: Side = across ? (i === 0 ? "AB" : "CD") : i === 0 ? "DA" : "BC";
      return { name: `${member.name}/${through}`, kind: "tee", members: [member.name, through], at, faces: TEE_FACES };
    }),
  );
  const members = [...sides, ...cross];
  const properties = sectionProperties(section);
  const perMm = properties.areaMm2 * MATERIALS[frame.material].densityKgPerMm3;
  const massKg = members.reduce((sum, m) => sum + m.centreMm * perMm, 0);
  const moment = members.reduce(
    (sum, m) => {
      const k = (m.centreMm * perMm) / 2;
      return { x: sum.x + k * (m.axis[0].x + m.axis[1].x), y: sum.y + k * (m.axis[0].y + m.axis[1].y) };
    },
    { x: 0, y: 0 },
  );
  return {
    lengthMm: L,
    widthMm: H,
    section,
    properties,
    material: frame.material,
    corners,
    members,
    joints: [...mitres, ...tees],
    massKg,
    centreOfMass: { x: moment.x / massKg, y: moment.y / massKg },
  };
}

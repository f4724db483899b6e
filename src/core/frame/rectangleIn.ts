import { dot3, type Vec2, type Vec3 } from "../numeric";
import { CORNERS, type Corner, SIDES } from "./corners";
import { MITRE_FACES, type ResolvedFrame, type ResolvedJoint, type ResolvedMember, TEE_FACES } from "./resolve";
import { bodyPoints } from "./resolveStructure";
import { sectionProperties } from "./sections";
import type { Structure, StructureMember } from "./structure";

/** Sides count as square to each other, or level, within this, sine. */
const SQUARE = 0.002;
const SAME_MM = 0.5;

/** Outline of a set of points seen from above, anticlockwise. Source: monotone chain. */
export function hull(points: readonly Vec2[]): Vec2[] {
  const p = [...points].sort((a, b) => a.x - b.x || a.y - b.y);
  const turn = (o: Vec2, a: Vec2, b: Vec2): number => (a.x - o.x) * (b.y - o.y) - (a.y - o.y) * (b.x - o.x);
  const half = (list: readonly Vec2[]): Vec2[] => {
    const out: Vec2[] = [];
    for (const q of list) {
      while (out.length > 1 && turn(out.at(-2) as Vec2, out.at(-1) as Vec2, q) <= 1e-9) out.pop();
      out.push(q);
    }
    return out.slice(0, -1);
  };
  return [...half(p), ...half([...p].reverse())];
}

/** A member as it is seen from above. */
function fromAbove(m: StructureMember, kind: ResolvedMember["kind"]): ResolvedMember {
  const flat = ([x, y]: Vec3): Vec2 => ({ x, y });
  return {
    name: m.id,
    kind,
    axis: [flat(m.ends.from.at), flat(m.ends.to.at)],
    outline: hull(bodyPoints(m).map(flat)),
    longPointMm: m.longMm,
    shortPointMm: m.shortMm,
    centreMm: m.centreMm,
  };
}

/** What any frame covers of the bed: the box round it seen from above, its lower left at the origin. */
export function footprint(structure: Structure): ResolvedFrame | null {
  const first = structure.members[0];
  if (!first) return null;
  const [x0, y0] = [structure.low[0], structure.low[1]];
  const shift = (p: Vec2): Vec2 => ({ x: p.x - x0, y: p.y - y0 });
  const [lengthMm, widthMm] = [structure.high[0] - x0, structure.high[1] - y0];
  const p = first.properties;
  return {
    lengthMm,
    widthMm,
    section: { faceMm: Math.min(p.widthMm, widthMm / 2), depthMm: p.heightMm, wallMm: p.wallMm },
    properties: { areaMm2: p.areaMm2, iOutOfPlaneMm4: p.iyMm4, iInPlaneMm4: p.izMm4, jMm4: p.jMm4, outsideRadiusMm: 0 },
    material: first.material,
    corners: { A: { x: 0, y: 0 }, B: { x: lengthMm, y: 0 }, C: { x: lengthMm, y: widthMm }, D: { x: 0, y: widthMm } },
    members: structure.members.map((m) => {
      const seen = fromAbove(m, "cross");
      return {
        ...seen,
        axis: [shift(seen.axis[0]), shift(seen.axis[1])] as [Vec2, Vec2],
        outline: seen.outline.map(shift),
      };
    }),
    joints: [],
    massKg: structure.massKg,
    centreOfMass: shift({ x: structure.centreOfMass[0], y: structure.centreOfMass[1] }),
  };
}

/**
 * The rectangle A, B, C, D of a free frame, when it has one: four level members AB, BC, CD, DA of one tube, at right angles,
 * joined at their corners. It is what is squared, levelled and held against the limits; everything else hangs on it.
 * @returns the same that a rectangle by its sizes gives, seen from above, its corner A at the origin; null when there is none.
 */
export function rectangleIn(structure: Structure): ResolvedFrame | null {
  const found = SIDES.map((id) => structure.members.find((m) => m.id === id));
  if (!found.every((m): m is StructureMember => m !== undefined)) return null;
  const sides = found as StructureMember[];
  const first = sides[0] as StructureMember;
  const { shape } = first;
  if (shape.shape !== "tube" || sides.some((m) => m.section !== first.section)) return null;
  const level = sides.every(
    (m) =>
      Math.abs(m.axes[0][2]) < SQUARE &&
      Math.abs(m.from[2] - first.from[2]) < SAME_MM &&
      Math.abs(m.axes[2][2]) > 1 - SQUARE,
  );
  const square = sides.every(
    (m, i) => Math.abs(dot3(m.axes[0], (sides[(i + 1) % 4] as StructureMember).axes[0])) < SQUARE,
  );
  const x = first.axes[0];
  // Corner A at the lower left: AB runs to the right and BC to the back.
  const laid = x[0] > 1 - SQUARE && (sides[1] as StructureMember).axes[0][1] > 1 - SQUARE;
  const joined = CORNERS.every((_, i) =>
    structure.joints.some(
      (j) =>
        [j.a, j.b].includes(SIDES[i] as string) &&
        [j.a, j.b].includes(SIDES[(i + 3) % 4] as string) &&
        j.kind !== "lap",
    ),
  );
  if (!level || !square || !laid || !joined) return null;
  const w = shape.widthMm;
  const [ab, bc, cd, da] = sides as [StructureMember, StructureMember, StructureMember, StructureMember];
  const low: Vec2 = { x: da.from[0] - w / 2, y: ab.from[1] - w / 2 };
  const lengthMm = bc.from[0] - da.from[0] + w;
  const widthMm = cd.from[1] - ab.from[1] + w;
  const shift = (p: Vec2): Vec2 => ({ x: p.x - low.x, y: p.y - low.y });
  const member = (m: StructureMember, kind: ResolvedMember["kind"]): ResolvedMember => {
    const seen = fromAbove(m, kind);
    return { ...seen, axis: [shift(seen.axis[0]), shift(seen.axis[1])], outline: seen.outline.map(shift) };
  };
  const corners: Record<Corner, Vec2> = {
    A: { x: 0, y: 0 },
    B: { x: lengthMm, y: 0 },
    C: { x: lengthMm, y: widthMm },
    D: { x: 0, y: widthMm },
  };
  const others = structure.members.filter((m) => !sides.includes(m));
  const joints = structure.joints.flatMap((j): ResolvedJoint[] => {
    const corner = CORNERS.find((c) => c === j.id);
    if (corner) {
      const i = CORNERS.indexOf(corner);
      return [
        {
          name: corner,
          kind: "mitre",
          members: [SIDES[(i + 3) % 4] as string, SIDES[i] as string],
          at: corners[corner],
          faces: MITRE_FACES,
        },
      ];
    }
    return j.kind === "tee" || j.kind === "butt"
      ? [{ name: j.id, kind: "tee", members: [j.b, j.a], at: shift({ x: j.at[0], y: j.at[1] }), faces: TEE_FACES }]
      : [];
  });
  const section = { faceMm: w, depthMm: shape.heightMm, wallMm: shape.wallMm };
  return {
    lengthMm,
    widthMm,
    section,
    properties: sectionProperties(section),
    material: first.material,
    corners,
    members: [...sides.map((m) => member(m, "side")), ...others.map((m) => member(m, "cross"))],
    joints,
    massKg: structure.massKg,
    centreOfMass: shift({ x: structure.centreOfMass[0], y: structure.centreOfMass[1] }),
  };
}

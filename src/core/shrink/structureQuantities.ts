import { CORNERS, type Corner, type EndName, type ResolvedFrame, type Structure, type StructureMember } from "../frame";
import { type JointPoints, type MechanicalModel, mechanicalKind } from "../mechanics";
import type { Vec3 } from "../numeric";
import { cornerQuantities } from "./cornerQuantities";
import { bow, distanceChange, flatnessOf, type OutputPoint, type Outputs, outputsOf, type Quantity } from "./outputs";

const UP: Vec3 = [0, 0, 1];
/** Members whose ends lie at least this level with each other count for flatness, mm. */
const LEVEL_MM = 1;

/** Where the corners of the rectangle are taped, in the frame's own place. */
function tapedCorners(structure: Structure, rectangle: ResolvedFrame): { id: Corner; at: Vec3 }[] {
  const da = structure.members.find((m) => m.id === "DA");
  const ab = structure.members.find((m) => m.id === "AB");
  if (!da || !ab) return [];
  const half = rectangle.section.faceMm / 2;
  const [x, y, z] = [da.from[0] - half, ab.from[1] - half, ab.from[2]];
  return CORNERS.map((c) => ({ id: c, at: [x + rectangle.corners[c].x, y + rectangle.corners[c].y, z] as Vec3 }));
}

/** Joints at which two ends are mitred or butted straight: their corner moves as the mean of both. */
const shared = (structure: Structure) => structure.joints.filter((j) => ["mitre", "butt"].includes(mechanicalKind(j)));

/**
 * Points to follow: the rectangle's corners as a tape takes them, then the corners where two ends are mitred, then every
 * member along its line. @param joints points of every joint (see fromStructure).
 */
export const structureOutputs =
  (structure: Structure, rectangle: ResolvedFrame | null, joints: ReadonlyMap<string, JointPoints>) =>
  (model: MechanicalModel): Outputs => {
    const taped = rectangle
      ? tapedCorners(structure, rectangle).flatMap(({ id, at }) => {
          const point = joints.get(id)?.a;
          return point ? [{ point, at }] : [];
        })
      : [];
    const corners = shared(structure).map((j) => ({ point: (joints.get(j.id) as JointPoints).a, at: j.at }));
    return outputsOf(model, [...taped, ...corners]);
  };

/** What a member's end moves with: the corner that it is mitred into, the member that it lands on, or nothing else. */
function endPoint(
  m: StructureMember,
  end: EndName,
  structure: Structure,
  joints: ReadonlyMap<string, JointPoints>,
  corners: readonly OutputPoint[],
  points: readonly OutputPoint[],
): OutputPoint {
  const mine = points.filter((p) => p.member === m.id);
  const own = (end === "from" ? mine[0] : mine.at(-1)) as OutputPoint;
  const mitred = shared(structure).findIndex(
    (j) => (j.a === m.id && j.endA === end) || (j.b === m.id && j.endB === end),
  );
  if (mitred >= 0) return corners[mitred] ?? own;
  const landing = structure.joints.find((j) => j.kind !== "lap" && j.b === m.id && j.endB === end);
  if (!landing) return own;
  return points.find((p) => p.id === `${landing.a}/${joints.get(landing.id)?.a}`) ?? own;
}

/** What is reported of any frame: how much every member's ends draw together, its bows, and for a rectangle its shape. */
export const structureQuantities =
  (structure: Structure, rectangle: ResolvedFrame | null, joints: ReadonlyMap<string, JointPoints>) =>
  (model: MechanicalModel, outputs: Outputs): Quantity[] => {
    const along = (id: string): OutputPoint[] => outputs.points.filter((p) => p.member === id);
    const members = structure.members.filter((m) => model.members.has(m.id));
    const corners = outputs.points.filter((p) => p.member === null).slice(rectangle ? CORNERS.length : 0);
    const spans = members.map((m) => {
      const [p, q] = (["from", "to"] as const).map((end) =>
        endPoint(m, end, structure, joints, corners, outputs.points),
      );
      return distanceChange(`span ${m.id}`, `where ${m.id} stands`, p as OutputPoint, q as OutputPoint);
    });
    const bows = members.flatMap((m) => {
      const points = along(m.id);
      const [, y, z] = m.axes;
      return points.length < 3
        ? []
        : [
            bow(`bow ${m.id}`, `bow of ${m.id}, along its width`, points, y),
            bow(`lift ${m.id}`, `bow of ${m.id}, along its height`, points, z),
          ];
    });
    // Flatness of the level that most members lie in, the lowest of them when several are alike.
    const levels = new Map<number, OutputPoint[]>();
    for (const m of members) {
      if (Math.abs(m.from[2] - m.to[2]) > LEVEL_MM) continue;
      const key = Math.round(m.from[2]);
      const points = along(m.id);
      levels.set(key, [
        ...(levels.get(key) ?? []),
        points[0] as OutputPoint,
        points[Math.floor(points.length / 2)] as OutputPoint,
        points.at(-1) as OutputPoint,
      ]);
    }
    const main = [...levels.values()].sort((a, b) => b.length - a.length)[0] ?? [];
    const flat = main.length >= 4 && spreadIn2d(main) ? [flatnessOf("flat", "out of flat", main, UP)] : [];
    return [...(rectangle ? rectangleQuantities(outputs) : []), ...spans, ...flat, ...bows];
  };

/** Whether points span an area: a row of them has no flatness. */
function spreadIn2d(points: readonly OutputPoint[]): boolean {
  const [p] = points as [OutputPoint];
  const far = points.reduce(
    (best, q) =>
      Math.hypot(q.at[0] - p.at[0], q.at[1] - p.at[1]) > Math.hypot(best.at[0] - p.at[0], best.at[1] - p.at[1])
        ? q
        : best,
    p,
  );
  const [dx, dy] = [far.at[0] - p.at[0], far.at[1] - p.at[1]];
  const length = Math.hypot(dx, dy);
  return length > 1 && points.some((q) => Math.abs((q.at[0] - p.at[0]) * dy - (q.at[1] - p.at[1]) * dx) / length > 20);
}

function rectangleQuantities(outputs: Outputs): Quantity[] {
  const found = outputs.points.filter((p) => p.member === null).slice(0, CORNERS.length);
  if (found.length !== CORNERS.length) return [];
  const corner = Object.fromEntries(CORNERS.map((c, i) => [c, found[i] as OutputPoint])) as Record<Corner, OutputPoint>;
  const shape = cornerQuantities(corner);
  return [...shape.plan, shape.twist];
}

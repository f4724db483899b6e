import {
  CORNERS,
  type Corner,
  ends,
  type FaceLine,
  MATERIALS,
  type ResolvedFrame,
  type ResolvedJoint,
  SIDES,
} from "../frame";
import type { BeamJoint, BeamMember, BeamSection, MechanicalFrame } from "../mechanics";
import type { Vec2, Vec3 } from "../numeric";

/** Where a side can be clamped: shares of its length. */
export const CLAMP_SHARES = [0.25, 0.75] as const;
/** Points along a member nearer than this many tube widths are one point. */
const NEAR_WIDTHS = 1.5;

/** Corners at the tubes' axes, moved by what is given. */
const axisCorner = (frame: ResolvedFrame, corner: Corner, moves: Partial<Record<Corner, Vec2>>): Vec2 => {
  const half = frame.section.faceMm / 2;
  const { x, y } = frame.corners[corner];
  const move = moves[corner] ?? { x: 0, y: 0 };
  return {
    x: x + (x < frame.lengthMm / 2 ? half : -half) + move.x,
    y: y + (y < frame.widthMm / 2 ? half : -half) + move.y,
  };
};

/** The section of a frame as a beam sees it. */
export function beamSection({ section, properties }: ResolvedFrame): BeamSection {
  return {
    shape: "tube",
    widthMm: section.faceMm,
    heightMm: section.depthMm,
    wallMm: section.wallMm,
    areaMm2: properties.areaMm2,
    iyMm4: properties.iOutOfPlaneMm4,
    izMm4: properties.iInPlaneMm4,
    jMm4: properties.jMm4,
  };
}

/**
 * The mechanics of a resolved frame: sides corner to corner on their axes, split where cross members land and where clamps
 * sit; cross members from axis to axis.
 * @param moves corners that are set up off nominal, mm.
 */
export function fromFrame(frame: ResolvedFrame, moves: Partial<Record<Corner, Vec2>> = {}): MechanicalFrame {
  const section = beamSection(frame);
  const points: Record<string, Vec3> = {};
  const corner = Object.fromEntries(CORNERS.map((c) => [c, axisCorner(frame, c, moves)])) as Record<Corner, Vec2>;
  for (const c of CORNERS) points[c] = [corner[c].x, corner[c].y, 0];
  const members: BeamMember[] = SIDES.map((side): BeamMember => {
    const [p, q] = ends(side);
    const [from, to] = [corner[p], corner[q]];
    const length = Math.hypot(to.x - from.x, to.y - from.y);
    const stations = frame.joints
      .filter((j) => j.kind === "tee" && j.members[1] === side)
      .map((j) => ({ name: j.name, share: alongShare(frame, side, j) }));
    for (const share of CLAMP_SHARES)
      if (stations.every((s) => Math.abs(s.share - share) * length > NEAR_WIDTHS * section.widthMm))
        stations.push({ name: clampPoint(side, share), share });
    stations.sort((a, b) => a.share - b.share);
    for (const s of stations)
      points[s.name] = [from.x + s.share * (to.x - from.x), from.y + s.share * (to.y - from.y), 0];
    return { id: side, section, points: [p, ...stations.map((s) => s.name), q] };
  });
  const joints: BeamJoint[] = frame.joints.map((j): BeamJoint => {
    const [first, second] = j.members;
    return j.kind === "mitre"
      ? { id: j.name, kind: "mitre", a: second, b: first, point: j.name }
      : { id: j.name, kind: "tee", a: second, b: first, point: j.name };
  });
  for (const m of frame.members.filter((x) => x.kind === "cross")) {
    const landings = frame.joints.filter((j) => j.kind === "tee" && j.members[0] === m.name);
    members.push({ id: m.name, section, points: landings.map((j) => j.name) });
  }
  const { eMPa, nu, yieldMPa, alphaPerK, heatJPerMm3K } = MATERIALS[frame.material];
  return { material: { eMPa, nu, yieldMPa, alphaPerK, heatJPerMm3K }, points, members, joints, supports: [] };
}

const nominalLength = (frame: ResolvedFrame, side: string): number =>
  (side === "AB" || side === "CD" ? frame.lengthMm : frame.widthMm) - frame.section.faceMm;

/** Where a tee lands on its side, as a share from the side's first corner. */
function alongShare(frame: ResolvedFrame, side: string, joint: ResolvedJoint): number {
  const start = axisCorner(frame, ends(side)[0], {});
  const mm = side === "AB" || side === "CD" ? Math.abs(joint.at.x - start.x) : Math.abs(joint.at.y - start.y);
  return mm / nominalLength(frame, side);
}

export const clampPoint = (side: string, share: number): string => `${side}@${share}`;

/** Where a side is clamped: its clamp points, or the cross members that land there. */
export function clampPoints(mechanical: MechanicalFrame, side: string): string[] {
  const member = mechanical.members.find((m) => m.id === side);
  if (!member) return [];
  const at = (p: string): Vec3 => mechanical.points[p] as Vec3;
  const [from, to] = [at(member.points[0] as string), at(member.points.at(-1) as string)];
  const length = Math.hypot(to[0] - from[0], to[1] - from[1]);
  const found = CLAMP_SHARES.map((share) => {
    let best = member.points[1] as string;
    let least = Number.POSITIVE_INFINITY;
    for (const p of member.points.slice(1, -1)) {
      const off = Math.abs(Math.hypot(at(p)[0] - from[0], at(p)[1] - from[1]) / length - share);
      if (off < least) {
        least = off;
        best = p;
      }
    }
    return best;
  });
  return [...new Set(found)];
}

/**
 * A face of a joint as the mechanics names its line. Sides run round the frame, so that the branch lies to their left and
 * the chord's direction tells which side of a cross member is nearer corner A.
 */
export function lineOf(joint: ResolvedJoint, face: string): FaceLine {
  if (joint.kind === "mitre" || face === "top" || face === "bottom") return face as FaceLine;
  const forward = joint.members[1] === "AB" || joint.members[1] === "BC";
  return (face === "far") === forward ? "plus" : "minus";
}

import { lyingMembers } from "../fixture";
import { byMm, type Structure, type StructureMember } from "../frame";
import type { Station } from "../mechanics";
import { add3, norm3, scale3, sub3, type Vec3 } from "../numeric";
import { byPlace } from "./byPlace";

/** One place where a frame is held down: a point of a member. */
export interface ClampPlace {
  member: string;
  point: string;
}

/** Where a member is clamped: shares of its length. */
const SHARES = [0.25, 0.75] as const;
/** A joint nearer to a clamp than so many tube widths takes its place. */
const NEAR_WIDTHS = 1.5;
/** Members held; more hold nothing better and cost time. */
const MOST_MEMBERS = 6;

/** Members that lie on the bed and carry others, sides of the quadrilateral first, then the longest. */
function clamped(structure: Structure): StructureMember[] {
  const onBed = lyingMembers(structure);
  const sides = new Set(structure.quad ? Object.values(structure.quad.sides) : []);
  const ring = onBed.filter((m) => sides.has(m.id));
  if (ring.length > 0) return ring;
  return [...onBed].sort((a, b) => byMm(b.centreMm, a.centreMm) || byPlace(a.from, b.from)).slice(0, MOST_MEMBERS);
}

/** A clamp's place on a member: at its share of the length, or on the joint that lies there. */
function clampStation(structure: Structure, m: StructureMember, share: number): Station {
  const length = norm3(sub3(m.to, m.from));
  const at = add3(m.from, scale3(sub3(m.to, m.from), share));
  const joints = structure.joints.flatMap((j): Vec3[] =>
    j.a === m.id && j.endA === null ? [j.at] : j.b === m.id && j.endB === null ? [j.atB] : [],
  );
  const near = joints
    .map((p) => ({ p, off: norm3(sub3(p, at)) }))
    .filter(({ off }) => off <= Math.min(NEAR_WIDTHS * m.properties.widthMm, length / 4))
    .sort((a, b) => a.off - b.off)[0];
  return { member: m.id, at: near?.p ?? at };
}

/** Where a frame is clamped down flat. */
export const clampStations = (structure: Structure): Station[] =>
  clamped(structure).flatMap((m) => SHARES.map((share) => clampStation(structure, m, share)));

import {
  type FaceLine,
  MATERIALS,
  type Structure,
  type StructureJoint,
  type StructureMember,
  TOLERANCES,
} from "../frame";
import { add3, dot3, norm3, scale3, sub3, type Vec3 } from "../numeric";
import type { BeamJoint, BeamMember, MechanicalFrame } from "./mechanicalFrame";

const MEET_MM = TOLERANCES.linesMeetMm;

/** Points of the mechanics by their place, each with a name. */
class Places {
  readonly points: Record<string, Vec3> = {};
  private count = 0;

  /** @returns the name of the point there, a new one if there is none yet. */
  at(p: Vec3): string {
    for (const [name, q] of Object.entries(this.points)) if (norm3(sub3(p, q)) < MEET_MM) return name;
    this.count += 1;
    const name = `N${this.count}`;
    this.points[name] = p;
    return name;
  }
}

/** A member's line with the places on it, from its first end, mm. */
interface Line {
  from: Vec3;
  axis: Vec3;
  lengthMm: number;
  stations: { s: number; name: string }[];
}

/** How a joint of the structure is said to the mechanics: a butt at an angle is a tee at the end of the other. */
export const mechanicalKind = (j: StructureJoint): BeamJoint["kind"] =>
  j.corner
    ? "mitre"
    : j.kind === "lap"
      ? "lap"
      : j.kind === "butt" && j.angleDeg > TOLERANCES.straightDeg
        ? "butt"
        : "tee";

/** A face of a joint as the mechanics names its line. Mitred ends that pass each other far are worked out as a tee. */
export function lineOfFace(j: StructureJoint, face: string): FaceLine {
  if (mechanicalKind(j) !== "tee" || j.kind !== "mitre") return face as FaceLine;
  return face === "inside" ? "plus" : face === "outside" ? "minus" : (face as FaceLine);
}

/** The point at each joint: on the line of a and on the line of b. */
export interface JointPoints {
  a: string;
  b: string;
}

/**
 * How far the seams of a joint stand open before they touch: as it was found, by its narrowest face where they differ, else as planned; what
 * is usual where neither is said.
 */
const gapOf = ({ rootGapMm }: Structure, { found, faces }: StructureJoint): { gapMm?: number } => {
  const gapMm = !found
    ? rootGapMm
    : "round" in found
      ? found.round
      : Math.max(rootGapMm, Math.min(...faces.map((f) => found.faces[f.line] ?? 0)));
  return gapMm > 0 ? { gapMm } : {};
};

/** A place on a member that is wanted as a point of its own: a clamp, a rest. */
export interface Station {
  member: string;
  at: Vec3;
}

/** A structure as the mechanics sees it, with the points that others ask for by name. */
export interface StructureMechanics {
  frame: MechanicalFrame;
  joints: ReadonlyMap<string, JointPoints>;
  /** Point of each station, in their order. */
  stations: string[];
}

/**
 * The mechanics of a structure: every member on its line from its first point to its last, with a point wherever a joint
 * or a station lies on it. Mitred ends run to where their lines meet, or half way between where they pass each other; other branches keep
 * their drawn end and land on the face.
 */
export function fromStructure(structure: Structure, wanted: readonly Station[] = []): StructureMechanics {
  const places = new Places();
  const lines = new Map<string, Line>();
  const ends = new Map<string, [Vec3, Vec3]>(structure.members.map((m) => [m.id, [m.from, m.to]]));
  for (const j of structure.joints) {
    if (!["mitre", "butt"].includes(mechanicalKind(j))) continue;
    for (const [id, end] of [
      [j.a, j.endA],
      [j.b, j.endB],
    ] as const) {
      const pair = ends.get(id);
      if (pair && end) pair[end === "from" ? 0 : 1] = j.corner ?? j.at;
    }
  }
  for (const m of structure.members) {
    const [from, to] = ends.get(m.id) as [Vec3, Vec3];
    const d = sub3(to, from);
    const lengthMm = norm3(d);
    lines.set(m.id, {
      from,
      axis: scale3(d, 1 / lengthMm),
      lengthMm,
      stations: [
        { s: 0, name: places.at(from) },
        { s: lengthMm, name: places.at(to) },
      ],
    });
  }
  /** The point of a member nearest to a place: one that is there already, or a new one on its line. */
  const on = (id: string, p: Vec3): string => {
    const line = lines.get(id) as Line;
    const s = Math.max(0, Math.min(line.lengthMm, dot3(sub3(p, line.from), line.axis)));
    const near = line.stations.find((x) => Math.abs(x.s - s) < TOLERANCES.onePointMm);
    if (near) return near.name;
    const name = places.at(add3(line.from, scale3(line.axis, s)));
    line.stations.push({ s, name });
    return name;
  };
  const joints: BeamJoint[] = [];
  const points = new Map<string, JointPoints>();
  for (const j of structure.joints) {
    const kind = mechanicalKind(j);
    const pointA = on(j.a, j.at);
    const lineB = lines.get(j.b) as Line;
    const pointB =
      kind === "lap" || !j.endB
        ? on(j.b, j.atB)
        : (lineB.stations.find((x) => x.s === (j.endB === "from" ? 0 : lineB.lengthMm))?.name ?? on(j.b, j.atB));
    points.set(j.id, { a: pointA, b: pointB });
    joints.push({
      id: j.id,
      kind,
      a: j.a,
      b: j.b,
      point: pointA,
      ...(pointB === pointA ? {} : { pointB }),
      ...(j.along ? { seamMm: j.along.seamMm } : {}),
      ...(j.landedMm ? { landedMm: j.landedMm } : {}),
      ...gapOf(structure, j),
    });
  }
  const stations = wanted.map(({ member, at }) => on(member, at));
  const members = structure.members.map((m: StructureMember): BeamMember => {
    const line = lines.get(m.id) as Line;
    const along = [...line.stations].sort((a, b) => a.s - b.s);
    return { id: m.id, section: m.properties, points: along.map((x) => x.name), up: m.axes[2] };
  });
  const first = structure.members[0];
  const { eMPa, nu, yieldMPa, alphaPerK, heatJPerMm3K } = MATERIALS[first?.material ?? "mild steel"];
  return {
    frame: {
      material: { eMPa, nu, yieldMPa, alphaPerK, heatJPerMm3K },
      points: places.points,
      members,
      joints,
      supports: [],
    },
    joints: points,
    stations,
  };
}

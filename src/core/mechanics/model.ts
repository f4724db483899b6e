import { type Axes, memberAxes } from "../frame";
import { add3, cross3, dot3, norm3, type Sparse, scale3, sub3, unit3, type Vec3 } from "../numeric";
import { beamStiffness, toGlobal } from "./beam";
import { CARRIED_HOLD, RIGID_HOLD, SUPPORT } from "./holds";
import { type BeamJoint, type BeamSection, FREEDOMS, type MechanicalFrame } from "./mechanicalFrame";
import { splitWhereBranchesLand } from "./splitMembers";
import { relativeRows } from "./springs";

/** A member where a joint or a listed point gives it a node. Freedoms 6i to 6i + 5. */
export interface BeamNode {
  member: string;
  point: string;
  at: Vec3;
}

export interface BeamElement {
  member: string;
  from: number;
  to: number;
  lengthMm: number;
}

export interface ModelMember {
  id: string;
  section: BeamSection;
  axes: Axes;
  /** Nodes in order along the member. */
  nodes: number[];
}

/** What a joint is made from: its two members, and the node of each at it. */
export interface JointInput {
  frame: MechanicalFrame;
  spec: BeamJoint;
  a: ModelMember;
  b: ModelMember;
  nodeA: number;
  nodeB: number;
  nodes: readonly BeamNode[];
  /** Up from the bed. */
  up: Vec3;
}

/** A joint as its kind makes it (see core/weld): where it lies, and what holds there before any weld. */
export interface MadeJoint {
  /** Where the two members are held to each other. */
  at: Vec3;
  /** Place of the second member's node, when the joint moves it: a branch ends on its chord's face. */
  nodeBAt?: Vec3;
  /** Stiffness that is always there, 6 x 6, row-major. */
  contact: Float64Array;
  /** That stiffness as a share of the full wall's. */
  contactShare: number;
  /** How far its seams are open when the parts are fitted, mm; null where open seams are taken not to touch. */
  gapMm: number | null;
}

/** A joint in its frame: a spring with six ways between two nodes. */
export type ModelJoint<J extends MadeJoint = MadeJoint> = J & {
  id: string;
  spec: BeamJoint;
  /** Relative movement of the second member against the first at the centre, six rows over the freedoms. */
  rows: Sparse[];
  nodeA: number;
  nodeB: number;
};

/** A frame ready for the simulation: freedoms, stiffness of the members, joints. */
export interface MechanicalModel<J extends MadeJoint = MadeJoint> {
  frame: MechanicalFrame;
  freedoms: number;
  nodes: BeamNode[];
  members: Map<string, ModelMember>;
  elements: BeamElement[];
  joints: ModelJoint<J>[];
  /** Stiffness of members and supports: (row, column, value), both halves. Joints are not in it. */
  entries: [number, number, number][];
  /** Six orthonormal rigid motions that hold a frame without supports, or none. */
  hold: Float64Array[];
  /** Stiffness of that hold, N/mm. */
  holdNPerMm: number;
  /** @throws Error when a member has no such point. */
  nodeOf: (member: string, point: string) => number;
}

/**
 * Builds the mechanics of a frame: beam elements between the points of each member, one spring per joint. Members are split
 * where branches land on them.
 * @param given a frame without problems. @param make makes a joint of its kind.
 */
export function modelOf<J extends MadeJoint>(
  given: MechanicalFrame,
  make: (input: JointInput) => J,
): MechanicalModel<J> {
  const frame = splitWhereBranchesLand(given);
  const up = unit3(frame.up ?? [0, 0, 1]);
  const nodes: BeamNode[] = [];
  const members = new Map<string, ModelMember>();
  for (const spec of frame.members) {
    const at = spec.points.map((p) => frame.points[p]);
    const axes = memberAxes(at[0], at.at(-1) as Vec3, spec.up, up);
    members.set(spec.id, {
      id: spec.id,
      section: spec.section,
      axes,
      nodes: spec.points.map((point, i) => nodes.push({ member: spec.id, point, at: at[i] }) - 1),
    });
  }
  const places = new Map(nodes.map((n, i) => [`${n.member}\n${n.point}`, i]));
  const nodeOf = (member: string, point: string): number => {
    const i = places.get(`${member}\n${point}`);
    if (i === undefined) throw new Error(`${member} has no point ${point}`);
    return i;
  };
  const joints = frame.joints.map((spec): ModelJoint<J> => {
    const [a, b] = [members.get(spec.a) as ModelMember, members.get(spec.b) as ModelMember];
    const nodeA = nodeOf(spec.a, spec.point);
    const nodeB = nodeOf(spec.b, spec.pointB ?? spec.point);
    const made = make({ frame, spec, a, b, nodeA, nodeB, nodes, up });
    const [end, start] = [nodes[nodeB], nodes[nodeA]];
    if (made.nodeBAt) end.at = made.nodeBAt;
    return { ...made, id: spec.id, spec, rows: relativeRows(made.at, nodeA, start.at, nodeB, end.at), nodeA, nodeB };
  });

  for (const member of members.values()) spaceOut(member, nodes);
  const { eMPa, nu } = frame.material;
  const elements: BeamElement[] = [];
  const entries: MechanicalModel["entries"] = [];
  for (const member of members.values())
    for (let i = 0; i + 1 < member.nodes.length; i++) {
      const from = member.nodes[i];
      const to = member.nodes[i + 1];
      const lengthMm = norm3(sub3(nodes[to].at, nodes[from].at));
      elements.push({ member: member.id, from, to, lengthMm });
      const k = toGlobal(beamStiffness(member.section, lengthMm, eMPa, eMPa / (2 * (1 + nu))), member.axes);
      const place = (q: number): number => (q < 6 ? 6 * from + q : 6 * to + q - 6);
      for (let p = 0; p < 12; p++)
        for (let q = 0; q < 12; q++) {
          const v = k[p * 12 + q];
          if (v !== 0) entries.push([place(p), place(q), v]);
        }
    }
  for (const support of frame.supports) {
    const node = nodeOf(support.member, support.point);
    for (const freedom of support.fix) {
      const i = FREEDOMS.indexOf(freedom);
      entries.push([6 * node + i, 6 * node + i, i < 3 ? SUPPORT.alongNPerMm : SUPPORT.aboutNmm]);
    }
  }
  return {
    frame,
    freedoms: 6 * nodes.length,
    nodes,
    members,
    elements,
    joints,
    entries,
    hold: frame.supports.length > 0 ? [] : rigidMotions(nodes),
    holdNPerMm: frame.carried ? CARRIED_HOLD : RIGID_HOLD,
    nodeOf,
  };
}

/** Points nearer to each other than this are moved apart to that, mm: an element of next to no length drowns everything else. */
const TIGHT_MM = 1;
const APART_MM = 5;

/**
 * Where a branch ends on its chord's face, what was to hold it at that very place, or beneath the face, holds it beside its end: points of a
 * member keep their order, and a little length between them.
 */
function spaceOut({ nodes: own, axes: [axis] }: ModelMember, nodes: readonly BeamNode[]): void {
  const start = nodes[own[0]].at;
  const were = own.map((n) => dot3(sub3(nodes[n].at, start), axis));
  const along = [...were];
  const last = along.length - 1;
  const least = Math.min(APART_MM, along[last] / last);
  if (!(least > 0) || along.every((s, i) => i === 0 || s - along[i - 1] >= Math.min(TIGHT_MM, least))) return;
  for (let i = 1; i < last; i++) along[i] = Math.max(along[i], along[i - 1] + least);
  for (let i = last - 1; i > 0; i--) along[i] = Math.min(along[i], along[i + 1] - least);
  for (let i = 1; i < last; i++) nodes[own[i]].at = add3(nodes[own[i]].at, scale3(axis, along[i] - were[i]));
}

/** The six rigid motions of all nodes together, made orthonormal (Gram and Schmidt, twice for the digits). */
function rigidMotions(nodes: readonly BeamNode[]): Float64Array[] {
  const centre = scale3(
    nodes.reduce<Vec3>((sum, n) => add3(sum, n.at), [0, 0, 0]),
    1 / nodes.length,
  );
  const motions: Float64Array[] = [];
  for (let m = 0; m < 6; m++) {
    const v = new Float64Array(6 * nodes.length);
    const axis: Vec3 = [m % 3 === 0 ? 1 : 0, m % 3 === 1 ? 1 : 0, m % 3 === 2 ? 1 : 0];
    nodes.forEach((node, i) => {
      const move = m < 3 ? axis : cross3(axis, sub3(node.at, centre));
      v.set(move, 6 * i);
      if (m >= 3) v.set(axis, 6 * i + 3);
    });
    for (let pass = 0; pass < 2; pass++)
      for (const q of motions) {
        const share = v.reduce((sum, x, i) => sum + x * q[i], 0);
        v.forEach((x, i) => {
          v[i] = x - share * q[i];
        });
      }
    const size = Math.sqrt(v.reduce((sum, x) => sum + x * x, 0));
    motions.push(v.map((x) => x / size));
  }
  return motions;
}

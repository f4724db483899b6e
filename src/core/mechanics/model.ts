import { type Axes, memberAxes } from "../frame";
import { add3, cross3, norm3, type Sparse, scale3, sub3, unit3, type Vec3 } from "../numeric";
import { branchOn, cornerOf, jointFit, type Ring, SERIES, SUPPORT } from "../weld";
import { beamStiffness, secondMomentAbout, toGlobal } from "./beam";
import { mechanicalProblems } from "./frameProblems";
import { type BeamJoint, type BeamSection, FREEDOMS, type MechanicalFrame } from "./mechanicalFrame";
import { splitWhereBranchesLand } from "./splitMembers";

/** Factors on stiffness that a draw may change. Fit-up is an absolute share of the full wall, the others multiply. */
export interface StiffnessFactors {
  ring: number;
  fitup: number;
  series: number;
}
export const NOMINAL_STIFFNESS: StiffnessFactors = { ring: 1, fitup: 0.01, series: 1 };

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

/** A column of freedoms and the spring that acts along it. */
export interface ModelJoint {
  id: string;
  spec: BeamJoint;
  ring: Ring;
  /** Relative movement of the second member against the first at the centre, six rows over the freedoms. */
  rows: Sparse[];
  at: Vec3;
  nodeA: number;
  nodeB: number;
  /** Tee or lap: how heat reaches the chord. */
  chord: { member: string; wallMm: number; branchWallMm: number; depthMm: number; alongMm: number } | null;
  /** Why this joint's constants are the nearest ones and not fitted ones; empty when fitted. */
  unfitted: string[];
}

/** A frame ready for the simulation: freedoms, stiffness of the members, joints. */
export interface MechanicalModel {
  frame: MechanicalFrame;
  freedoms: number;
  nodes: BeamNode[];
  members: Map<string, ModelMember>;
  elements: BeamElement[];
  joints: ModelJoint[];
  /** Stiffness of members and supports: (row, column, value), both halves. Joints are not in it. */
  entries: [number, number, number][];
  /** Six orthonormal rigid motions that hold a frame without supports, or none. */
  hold: Float64Array[];
  /** @throws Error when a member has no such point. */
  nodeOf: (member: string, point: string) => number;
}

/**
 * Builds the mechanics of a frame: beam elements between the points of each member, one ring spring per joint.
 * Members are split where branches land on them.
 * @param given a frame without problems. @param factors what a draw changes.
 * @throws RangeError with the first problem when the frame has one: ask mechanicalProblems first.
 */
export function mechanicalModel(
  given: MechanicalFrame,
  factors: StiffnessFactors = NOMINAL_STIFFNESS,
): MechanicalModel {
  const frame = splitWhereBranchesLand(given);
  const [problem] = mechanicalProblems(frame);
  if (problem) throw new RangeError(`${problem.path}: ${problem.message}`);
  const up = unit3(frame.up ?? [0, 0, 1]);
  const nodes: BeamNode[] = [];
  const members = new Map<string, ModelMember>();
  for (const spec of frame.members) {
    const at = spec.points.map((p) => frame.points[p] as Vec3);
    const axes = memberAxes(at[0] as Vec3, at.at(-1) as Vec3, spec.up, up);
    members.set(spec.id, {
      id: spec.id,
      section: spec.section,
      axes,
      nodes: spec.points.map((point, i) => nodes.push({ member: spec.id, point, at: at[i] as Vec3 }) - 1),
    });
  }
  const places = new Map(nodes.map((n, i) => [`${n.member}\n${n.point}`, i]));
  const nodeOf = (member: string, point: string): number => {
    const i = places.get(`${member}\n${point}`);
    if (i === undefined) throw new Error(`${member} has no point ${point}`);
    return i;
  };
  const memberOf = (id: string): ModelMember => members.get(id) as ModelMember;
  const joints = frame.joints.map((spec) => modelJoint(frame, spec, memberOf, nodes, nodeOf, up, factors));

  const { eMPa, nu } = frame.material;
  const elements: BeamElement[] = [];
  const entries: MechanicalModel["entries"] = [];
  for (const member of members.values())
    for (let i = 0; i + 1 < member.nodes.length; i++) {
      const from = member.nodes[i] as number;
      const to = member.nodes[i + 1] as number;
      const lengthMm = norm3(sub3((nodes[to] as BeamNode).at, (nodes[from] as BeamNode).at));
      elements.push({ member: member.id, from, to, lengthMm });
      const k = toGlobal(beamStiffness(member.section, lengthMm, eMPa, eMPa / (2 * (1 + nu))), member.axes);
      const place = (q: number): number => (q < 6 ? 6 * from + q : 6 * to + q - 6);
      for (let p = 0; p < 12; p++)
        for (let q = 0; q < 12; q++) {
          const v = k[p * 12 + q] as number;
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
  const freedoms = 6 * nodes.length;
  return {
    frame,
    freedoms,
    nodes,
    members,
    elements,
    joints,
    entries,
    hold: frame.supports.length > 0 ? [] : rigidMotions(nodes),
    nodeOf,
  };
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
        const share = v.reduce((sum, x, i) => sum + x * (q[i] as number), 0);
        v.forEach((x, i) => {
          v[i] = x - share * (q[i] as number);
        });
      }
    const size = Math.sqrt(v.reduce((sum, x) => sum + x * x, 0));
    motions.push(v.map((x) => x / size));
  }
  return motions;
}

/** What a spring adds to the stiffness: (row, column, value) for rows over the freedoms and an r x r matrix, both halves. */
export function springEntries(rows: readonly Sparse[], matrix: Float64Array): [number, number, number][] {
  const entries: [number, number, number][] = [];
  for (const [a, p] of rows.entries())
    for (const [b, q] of rows.entries()) {
      const k = matrix[a * rows.length + b] as number;
      for (const [s, i] of p.at.entries())
        for (const [t, j] of q.at.entries()) entries.push([i, j, k * (p.value[s] as number) * (q.value[t] as number)]);
    }
  return entries;
}

/** Rows of the movement of a point fixed to node b against one fixed to node a: d = -ua + S(o - xa) ta + ub - S(o - xb) tb. */
export function relativeRows(at: Vec3, nodeA: number, xA: Vec3, nodeB: number, xB: Vec3): Sparse[] {
  const rA = sub3(at, xA);
  const rB = sub3(at, xB);
  return [0, 1, 2, 3, 4, 5].map((row) => {
    const out: Sparse = { at: [], value: [] };
    const put = (i: number, v: number) => {
      if (v === 0) return;
      out.at.push(i);
      out.value.push(v);
    };
    if (row < 3) {
      put(6 * nodeA + row, -1);
      put(6 * nodeB + row, 1);
      const axis: Vec3 = [row === 0 ? 1 : 0, row === 1 ? 1 : 0, row === 2 ? 1 : 0];
      // Row of S(r): e . (r x v) = (e x r) . v
      const sA = cross3(axis, rA);
      const sB = cross3(axis, rB);
      for (let j = 0; j < 3; j++) {
        put(6 * nodeA + 3 + j, sA[j] as number);
        put(6 * nodeB + 3 + j, -(sB[j] as number));
      }
    } else {
      put(6 * nodeA + row, -1);
      put(6 * nodeB + row, 1);
    }
    return out;
  });
}

function modelJoint(
  frame: MechanicalFrame,
  spec: BeamJoint,
  memberOf: (id: string) => ModelMember,
  nodes: BeamNode[],
  nodeOf: (member: string, point: string) => number,
  up: Vec3,
  factors: StiffnessFactors,
): ModelJoint {
  const a = memberOf(spec.a);
  const b = memberOf(spec.b);
  const nodeA = nodeOf(spec.a, spec.point);
  const nodeB = nodeOf(spec.b, spec.pointB ?? spec.point);
  const geometry =
    spec.kind === "tee" || spec.kind === "lap"
      ? branchOn(spec, a, b, nodeA, nodeB, nodes)
      : cornerOf(spec, a, b, nodeA, nodeB, nodes, up);
  const { eMPa, nu, yieldMPa } = frame.material;
  const gPerE = 1 / (2 * (1 + nu));
  const series = new Float64Array(9);
  const soften = (axis: Vec3, c: number) => {
    for (let i = 0; i < 3; i++)
      for (let j = 0; j < 3; j++)
        series[3 * i + j] = (series[3 * i + j] as number) + c * (axis[i] as number) * (axis[j] as number);
  };
  const { section: softens, axes: softAxes, slenderness, widthMm, aboutMitre, aboutUp } = geometry.lozenge;
  const i = secondMomentAbout(softens, softAxes, geometry.e1);
  const unit = (factors.series * (widthMm / (eMPa * i)) * slenderness ** 2) / SERIES.slenderness ** 2;
  soften(geometry.e1, aboutMitre * unit);
  soften(geometry.e2, aboutUp * unit);
  const thin = geometry.wallMm;
  const ring: Ring = {
    kind: spec.kind === "lap" ? "tee" : spec.kind,
    normal: geometry.normal,
    e1: geometry.e1,
    e2: geometry.e2,
    half1Mm: geometry.half1Mm,
    half2Mm: geometry.half2Mm,
    perWidth: (eMPa * thin) / geometry.widthMm,
    perWall: eMPa * thin,
    narrow: Math.min(1, Math.max(0.2, 1 - 2 * (1 - geometry.beta))),
    shear: geometry.shear * gPerE,
    gPerE,
    series,
    yieldPerMm: yieldMPa * thin,
    stiffness: factors.ring,
    fitup: factors.fitup,
  };
  const [xA, xB] = [(nodes[nodeA] as BeamNode).at, (nodes[nodeB] as BeamNode).at];
  return {
    id: spec.id,
    spec,
    ring,
    rows: relativeRows(geometry.at, nodeA, xA, nodeB, xB),
    at: geometry.at,
    nodeA,
    nodeB,
    chord: geometry.chord,
    unfitted: jointFit(spec.kind, a.section, b.section, geometry.angleDeg, geometry.beta),
  };
}

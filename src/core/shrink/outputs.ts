import type { MechanicalModel, ModelMember } from "../mechanics";
import { add3, cross3, norm3, type Sparse, scale3, sub3, type Vec3 } from "../numeric";

/** A point of the frame whose movement is followed: three outputs, from `first`. */
export interface OutputPoint {
  id: string;
  at: Vec3;
  /** Member that it belongs to, null for a corner that two share. */
  member: string | null;
  /** Point of the frame that it is, null between two of them. */
  point: string | null;
  first: number;
}

/** What is followed of a frame: rows over the freedoms, three per point. */
export interface Outputs {
  rows: Sparse[];
  points: OutputPoint[];
}

/** Movement along one axis of a point that is fixed to a node. */
function rigidRow(node: number, at: Vec3, r: Vec3, axis: number, share: number, into: Sparse): void {
  into.at.push(6 * node + axis);
  into.value.push(share);
  const e: Vec3 = [axis === 0 ? 1 : 0, axis === 1 ? 1 : 0, axis === 2 ? 1 : 0];
  // e . (theta x r) = (r x e) . theta
  const turn = cross3(sub3(at, r), e);
  for (let i = 0; i < 3; i++)
    if (turn[i] !== 0) {
      into.at.push(6 * node + 3 + i);
      into.value.push(share * turn[i]);
    }
}

/** Movement at the middle of an element, from the cubic shape functions: exact where no load acts within it. */
function midRows(member: ModelMember, from: number, to: number, lengthMm: number): Sparse[] {
  return [0, 1, 2].map((axis) => {
    const row: Sparse = { at: [], value: [] };
    const put = (i: number, v: number) => {
      if (v === 0) return;
      row.at.push(i);
      row.value.push(v);
    };
    const [, y, z] = member.axes;
    for (const [node, sign] of [
      [from, 1],
      [to, -1],
    ] as const)
      for (let i = 0; i < 3; i++) {
        put(6 * node + i, i === axis ? 0.5 : 0);
        // v gains L/8 (rz1 - rz2), w loses L/8 (ry1 - ry2).
        put(6 * node + 3 + i, ((sign * lengthMm) / 8) * (y[axis] * z[i] - z[axis] * y[i]));
      }
    return row;
  });
}

/**
 * Points to follow: given corners (mean of the members that meet there, carried rigidly to the place that is measured),
 * and along every member its nodes and the middle of each stretch.
 * @param corners what it is called, the point of the frame, where on the frame it is measured, and the one member that it is measured on.
 */
export function outputsOf(
  model: MechanicalModel,
  corners: readonly { id: string; point: string; at: Vec3; member?: string }[],
): Outputs {
  const rows: Sparse[] = [];
  const points: OutputPoint[] = [];
  const put = (id: string, member: string | null, point: string | null, at: Vec3, three: Sparse[]): void => {
    points.push({ id, member, point, at, first: rows.length });
    rows.push(...three);
  };
  for (const { id, point, at, member } of corners) {
    const nodes = model.nodes
      .map((n, i) => ({ ...n, i }))
      .filter((n) => n.point === point && (member === undefined || n.member === member));
    put(
      id,
      null,
      point,
      at,
      [0, 1, 2].map((axis) => {
        const row: Sparse = { at: [], value: [] };
        for (const n of nodes) rigidRow(n.i, at, n.at, axis, 1 / nodes.length, row);
        return row;
      }),
    );
  }
  for (const member of model.members.values()) {
    member.nodes.forEach((node, i) => {
      const here = model.nodes[node];
      put(
        `${member.id}/${here.point}`,
        member.id,
        here.point,
        here.at,
        [0, 1, 2].map((axis) => ({ at: [6 * node + axis], value: [1] })),
      );
      const next = member.nodes[i + 1];
      if (next === undefined) return;
      const there = model.nodes[next];
      const between = sub3(there.at, here.at);
      put(
        `${member.id}/${i}-${i + 1}`,
        member.id,
        null,
        add3(here.at, scale3(between, 0.5)),
        midRows(member, node, next, norm3(between)),
      );
    });
  }
  return { rows, points };
}

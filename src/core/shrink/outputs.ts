import { flatness } from "../geometry";
import type { BeamNode, MechanicalModel, ModelMember } from "../mechanics";
import { add3, cross3, dot3, norm3, type Sparse, scale3, sub3, unit3, type Vec2, type Vec3 } from "../numeric";

/** A point of the frame whose movement is followed: three outputs, from `first`. */
export interface OutputPoint {
  id: string;
  at: Vec3;
  /** Member that it belongs to, null for a corner that two share. */
  member: string | null;
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
      into.value.push(share * (turn[i] as number));
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
        put(
          6 * node + 3 + i,
          ((sign * lengthMm) / 8) * ((y[axis] as number) * (z[i] as number) - (z[axis] as number) * (y[i] as number)),
        );
      }
    return row;
  });
}

/**
 * Points to follow: given corners (mean of the members that meet there, carried rigidly to the place that is measured),
 * and along every member its nodes and the middle of each stretch.
 * @param corners name of a point of the frame, and where on the frame it is measured.
 */
export function outputsOf(model: MechanicalModel, corners: readonly { point: string; at: Vec3 }[]): Outputs {
  const rows: Sparse[] = [];
  const points: OutputPoint[] = [];
  const put = (id: string, member: string | null, at: Vec3, three: Sparse[]) => {
    points.push({ id, member, at, first: rows.length });
    rows.push(...three);
  };
  for (const { point, at } of corners) {
    const nodes = model.nodes.map((n, i) => ({ ...n, i })).filter((n) => n.point === point);
    put(
      point,
      null,
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
      const here = model.nodes[node] as BeamNode;
      put(
        `${member.id}/${here.point}`,
        member.id,
        here.at,
        [0, 1, 2].map((axis) => ({ at: [6 * node + axis], value: [1] })),
      );
      const next = member.nodes[i + 1];
      if (next === undefined) return;
      const there = model.nodes[next] as BeamNode;
      const between = sub3(there.at, here.at);
      put(
        `${member.id}/${i}-${i + 1}`,
        member.id,
        add3(here.at, scale3(between, 0.5)),
        midRows(member, node, next, norm3(between)),
      );
    });
  }
  return { rows, points };
}

/** A quantity of the final shape. `weights` gives it as a sum over outputs, linear at the shape that is asked about. */
export interface Quantity {
  id: string;
  label: string;
  unit: "mm" | "°" | "mm/m";
  /** A size that cannot be negative: its likely value is that of the draws, scatter included, not that of the nominal frame. */
  unsigned: boolean;
  weights: (out: Float64Array, from: number) => Sparse;
}

/** Value of a quantity for outputs that start at `from`. */
export function quantityAt(quantity: Quantity, out: Float64Array, from = 0): number {
  const { at, value } = quantity.weights(out, from);
  let sum = 0;
  for (let i = 0; i < at.length; i++) sum += (value[i] as number) * (out[from + (at[i] as number)] as number);
  return sum;
}

const toward = (p: OutputPoint, direction: Vec3, k: number, into: Sparse): Sparse => {
  for (let i = 0; i < 3; i++) {
    const v = k * (direction[i] as number);
    if (v === 0) continue;
    into.at.push(p.first + i);
    into.value.push(v);
  }
  return into;
};

/** Change of the distance between two points, linearised. */
export function distanceChange(id: string, label: string, p: OutputPoint, q: OutputPoint): Quantity {
  const d = unit3(sub3(q.at, p.at));
  const row = toward(q, d, 1, toward(p, d, -1, { at: [], value: [] }));
  return { id, label, unit: "mm", unsigned: false, weights: () => row };
}

/** Sum of quantities with factors. */
export function combined(
  id: string,
  label: string,
  unit: Quantity["unit"],
  parts: readonly (readonly [number, Quantity])[],
): Quantity {
  return {
    id,
    label,
    unit,
    unsigned: false,
    weights: (out, from) => {
      const sum: Sparse = { at: [], value: [] };
      for (const [k, q] of parts) {
        const w = q.weights(out, from);
        sum.at.push(...w.at);
        sum.value.push(...w.value.map((v) => k * v));
      }
      return sum;
    },
  };
}

/** Change of the angle at p between q and r, degrees: positive opens. In the plane of the three points. */
export function angleChange(id: string, label: string, p: OutputPoint, q: OutputPoint, r: OutputPoint): Quantity {
  const [a, b] = [sub3(q.at, p.at), sub3(r.at, p.at)];
  const normal = unit3(cross3(a, b));
  const row: Sparse = { at: [], value: [] };
  const deg = 180 / Math.PI;
  // Turning a by w about the normal opens or closes the angle: d(angle) = turn of b - turn of a.
  for (const [point, arm, sign] of [
    [q, a, -1],
    [r, b, 1],
  ] as const) {
    const across = scale3(cross3(normal, arm), (sign * deg) / dot3(arm, arm));
    toward(point, across, 1, row);
    toward(p, across, -1, row);
  }
  return { id, label, unit: "°", unsigned: false, weights: () => row };
}

/** Height of points above the plane of three that rock on: z1 - z2 + z3 - z4 of four corners. */
export function twist(id: string, label: string, four: readonly OutputPoint[], up: Vec3): Quantity {
  const row: Sparse = { at: [], value: [] };
  four.forEach((p, i) => {
    toward(p, up, i % 2 === 0 ? 1 : -1, row);
  });
  return { id, label, unit: "mm", unsigned: false, weights: () => row };
}

/** Flatness as the exact minimum zone of points, along up. */
export function flatnessOf(id: string, label: string, points: readonly OutputPoint[], up: Vec3): Quantity {
  const x = unit3(Math.abs(up[0]) < 0.9 ? cross3([1, 0, 0], up) : cross3([0, 1, 0], up));
  const y = cross3(up, x);
  const places: Vec2[] = points.map((p) => ({ x: dot3(p.at, x), y: dot3(p.at, y) }));
  const [i0, i1, i2] = up;
  return {
    id,
    label,
    unit: "mm",
    unsigned: true,
    weights: (out, from) => {
      const z = points.map(
        (p) =>
          i0 * (out[from + p.first] as number) +
          i1 * (out[from + p.first + 1] as number) +
          i2 * (out[from + p.first + 2] as number),
      );
      return zoneWeights(places, z, points, up);
    },
  };
}

function zoneWeights(places: Vec2[], z: number[], points: readonly OutputPoint[], up: Vec3): Sparse {
  const row: Sparse = { at: [], value: [] };
  const { active, gradient } = flatness(places, z, 0);
  active.forEach((i, k) => {
    toward(points[i] as OutputPoint, up, gradient[k] as number, row);
  });
  return row;
}

/** Bow of a member: the largest offset of its points from the line between its ends, along one direction, signed. */
export function bow(id: string, label: string, along: readonly OutputPoint[], direction: Vec3): Quantity {
  const [first, last] = [along[0] as OutputPoint, along.at(-1) as OutputPoint];
  const length = norm3(sub3(last.at, first.at));
  const rows = along.slice(1, -1).map((p) => {
    const share = norm3(sub3(p.at, first.at)) / length;
    return toward(
      last,
      direction,
      -share,
      toward(first, direction, share - 1, toward(p, direction, 1, { at: [], value: [] })),
    );
  });
  return {
    id,
    label,
    unit: "mm",
    unsigned: false,
    weights: (out, from) => {
      let best: Sparse = { at: [], value: [] };
      let most = -1;
      for (const row of rows) {
        let v = 0;
        for (let i = 0; i < row.at.length; i++)
          v += (row.value[i] as number) * (out[from + (row.at[i] as number)] as number);
        if (Math.abs(v) > most) {
          most = Math.abs(v);
          best = row;
        }
      }
      return best;
    },
  };
}

import { flatness } from "../geometry";
import { cross3, dot3, norm3, type Sparse, scale3, sub3, unit3, type Vec2, type Vec3 } from "../numeric";
import type { OutcomeId } from "./outcomeId";
import type { OutputPoint } from "./outputs";

/** A quantity of the final shape. `weights` gives it as a sum over outputs, linear at the shape that is asked about. */
export interface Outcome {
  id: OutcomeId;
  unit: "mm" | "°" | "mm/m";
  /** A size that cannot be negative: its likely value is that of the draws, scatter included, not that of the nominal frame. */
  unsigned: boolean;
  /** Outputs that it may look at. */
  uses: readonly number[];
  weights: (out: Float64Array, from: number) => Sparse;
}

/** Value of a quantity for outputs that start at `from`. */
export function outcomeAt(outcome: Outcome, out: Float64Array, from = 0): number {
  const { at, value } = outcome.weights(out, from);
  let sum = 0;
  for (let i = 0; i < at.length; i++) sum += value[i] * out[from + at[i]];
  return sum;
}

/** Outputs of a point. */
const three = (p: OutputPoint): number[] => [p.first, p.first + 1, p.first + 2];

const toward = (p: OutputPoint, direction: Vec3, k: number, into: Sparse): Sparse => {
  for (let i = 0; i < 3; i++) {
    const v = k * direction[i];
    if (v === 0) continue;
    into.at.push(p.first + i);
    into.value.push(v);
  }
  return into;
};

/** Change of the distance between two points, linearised. */
export function distanceChange(id: OutcomeId, p: OutputPoint, q: OutputPoint): Outcome {
  const d = unit3(sub3(q.at, p.at));
  const row = toward(q, d, 1, toward(p, d, -1, { at: [], value: [] }));
  return { id, unit: "mm", unsigned: false, uses: row.at, weights: () => row };
}

/** Sum of quantities with factors. */
export function combined(
  id: OutcomeId,
  unit: Outcome["unit"],
  parts: readonly (readonly [number, Outcome])[],
): Outcome {
  return {
    id,
    unit,
    unsigned: false,
    uses: parts.flatMap(([, q]) => q.uses),
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
export function angleChange(id: OutcomeId, p: OutputPoint, q: OutputPoint, r: OutputPoint): Outcome {
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
  return { id, unit: "°", unsigned: false, uses: row.at, weights: () => row };
}

/** Height of points above the plane of three that rock on: z1 - z2 + z3 - z4 of four corners. */
export function twist(id: OutcomeId, four: readonly OutputPoint[], up: Vec3): Outcome {
  const row: Sparse = { at: [], value: [] };
  four.forEach((p, i) => {
    toward(p, up, i % 2 === 0 ? 1 : -1, row);
  });
  return { id, unit: "mm", unsigned: false, uses: row.at, weights: () => row };
}

/** Flatness as the exact minimum zone of points, along up. */
export function flatnessOf(id: OutcomeId, points: readonly OutputPoint[], up: Vec3): Outcome {
  const x = unit3(Math.abs(up[0]) < 0.9 ? cross3([1, 0, 0], up) : cross3([0, 1, 0], up));
  const y = cross3(up, x);
  const places: Vec2[] = points.map((p) => ({ x: dot3(p.at, x), y: dot3(p.at, y) }));
  const [i0, i1, i2] = up;
  return {
    id,
    unit: "mm",
    unsigned: true,
    uses: points.flatMap(three),
    weights: (out, from) => {
      const z = points.map(
        (p) => i0 * out[from + p.first] + i1 * out[from + p.first + 1] + i2 * out[from + p.first + 2],
      );
      return zoneWeights(places, z, points, up);
    },
  };
}

function zoneWeights(places: Vec2[], z: number[], points: readonly OutputPoint[], up: Vec3): Sparse {
  const row: Sparse = { at: [], value: [] };
  const { active, gradient } = flatness(places, z, 0);
  active.forEach((i, k) => {
    toward(points[i], up, gradient[k], row);
  });
  return row;
}

/** Bow of a member: the largest offset of its points from the line between its ends, along one direction, signed. */
export function bow(id: OutcomeId, along: readonly OutputPoint[], direction: Vec3): Outcome {
  const [first, last] = [along[0], along.at(-1) as OutputPoint];
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
    unit: "mm",
    unsigned: false,
    uses: along.flatMap(three),
    weights: (out, from) => {
      let best: Sparse = { at: [], value: [] };
      let most = -1;
      for (const row of rows) {
        let v = 0;
        for (let i = 0; i < row.at.length; i++) v += row.value[i] * out[from + row.at[i]];
        if (Math.abs(v) > most) {
          most = Math.abs(v);
          best = row;
        }
      }
      return best;
    },
  };
}

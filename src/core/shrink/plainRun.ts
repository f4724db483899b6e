import { cholesky, matVec, type Rows, type Sparse, sparseAdd, sparseDot, zeros } from "../numeric";
import { LocalYield } from "./localYield";
import { HOLD_N_PER_MM, type MechanicalModel } from "./mechanicalModel";
import type { Programme } from "./programme";
import { OPEN, ringStiffness } from "./ring";

/** What the plain path gives: the movement of every freedom after each step, mm and rad. */
export interface PlainRun {
  /** One row per step. */
  movements: Float64Array[];
  /** Tension in the tack of each line, four per joint, N, after the last step. */
  tackForces: Float64Array;
  /** Force of each spring that is no joint when it was let go (its rows), N. */
  released: { step: number; spring: number; force: Float64Array }[];
}

/**
 * The readable reference: the whole stiffness matrix is kept and factored anew after every change. The condensed path must
 * agree with it to 1e-9.
 * @param limited whether beads and tacks yield.
 */
export function plainRun(programme: Programme, limited = true): PlainRun {
  const { model, springs, loads, actions, stepOf } = programme;
  const n = model.freedoms;
  const k = startingStiffness(model);
  let factor: Rows | null = null;
  const solve = (b: Float64Array): Float64Array => {
    factor ??= cholesky(k);
    if (!factor) throw new Error("The frame is not held together: its stiffness is singular.");
    return solveCholesky(factor, b);
  };
  const addSpring = (rows: readonly Sparse[], d: Float64Array, sign: number) => {
    const r = rows.length;
    rows.forEach((p, i) => {
      rows.forEach((q, j) => {
        const v = sign * (d[i * r + j] as number);
        p.at.forEach((a, s) => {
          const row = k[a] as number[];
          q.at.forEach((b, t) => {
            row[b] = (row[b] as number) + v * (p.value[s] as number) * (q.value[t] as number);
          });
        });
      });
    });
    factor = null;
  };
  const spread = (rows: readonly Sparse[], f: Float64Array): Float64Array => {
    const b = new Float64Array(n);
    rows.forEach((row, i) => {
      sparseAdd(b, row, f[i] as number);
    });
    return b;
  };
  const u = new Float64Array(n);
  const move = (b: Float64Array) => {
    solve(b).forEach((v, i) => {
      u[i] = (u[i] as number) + v;
    });
  };

  const local = new LocalYield();
  const tackForces = new Float64Array(4 * model.joints.length);
  const attached = new Map<number, { matrix: Float64Array; reference: Float64Array }>();
  const movements: Float64Array[] = programme.steps.map(() => new Float64Array(0));
  const released: PlainRun["released"] = [];
  actions.forEach((action, index) => {
    const step = stepOf[index] as number;
    switch (action.kind) {
      case "ring": {
        const { rows } = springs[action.spring] as (typeof springs)[number];
        if (action.delta) addSpring(rows, action.delta, 1);
        if (limited) {
          const f = new Float64Array(36);
          rows.forEach((row, j) => {
            const x = new Float64Array(n);
            sparseAdd(x, row, 1);
            const column = solve(x);
            rows.forEach((r, i) => {
              f[i * 6 + j] = sparseDot(r, column);
            });
          });
          local.prepare(action, f);
          local.solve(action, action.closingMm, tackForces, 4 * action.spring);
        } else local.free(action, action.closingMm);
        move(spread(rows, matVec(action.ring.x, local.load, 6, 6, new Float64Array(6))));
        if (action.chordColumn >= 0) {
          const b = new Float64Array(n);
          sparseAdd(b, loads[action.chordColumn] as Sparse, action.chordMm3);
          move(b);
        }
        break;
      }
      case "load": {
        const b = new Float64Array(n);
        sparseAdd(b, loads[action.column] as Sparse, action.size);
        move(b);
        break;
      }
      case "attach": {
        const { rows } = springs[action.spring] as (typeof springs)[number];
        const { matrix, toMm, byMm } = action;
        const here = Float64Array.from(rows, (row) => sparseDot(row, u));
        const reference = here.map((v) => (toMm ?? v) + byMm);
        addSpring(rows, matrix, 1);
        attached.set(action.spring, { matrix, reference });
        const pull = reference.map((v, i) => v - (here[i] as number));
        if (pull.some((v) => v !== 0))
          move(spread(rows, matVec(matrix, pull, rows.length, rows.length, new Float64Array(rows.length))));
        break;
      }
      case "detach": {
        const { rows } = springs[action.spring] as (typeof springs)[number];
        const on = attached.get(action.spring);
        if (!on) break;
        attached.delete(action.spring);
        const stretch = Float64Array.from(rows, (row, i) => sparseDot(row, u) - (on.reference[i] as number));
        const force = matVec(on.matrix, stretch, rows.length, rows.length, new Float64Array(rows.length));
        released.push({ step, spring: action.spring, force });
        addSpring(rows, on.matrix, -1);
        move(spread(rows, force));
        break;
      }
      case "scale":
        u.forEach((v, i) => {
          u[i] = action.share * v;
        });
        tackForces.fill(0);
        for (const [spring, on] of attached)
          on.reference = Float64Array.from((springs[spring] as (typeof springs)[number]).rows, (row) =>
            sparseDot(row, u),
          );
        break;
      case "nothing":
        break;
    }
    movements[step] = u.slice();
  });
  return { movements, tackForces, released };
}

/** Members, supports, contact of every joint, and the hold of a free frame. */
export function startingStiffness(model: MechanicalModel): Rows {
  const n = model.freedoms;
  const k = zeros(n, n);
  const add = (i: number, j: number, v: number) => {
    const row = k[i] as number[];
    row[j] = (row[j] as number) + v;
  };
  for (const [i, j, v] of model.entries) add(i, j, v);
  for (const joint of model.joints) {
    const { kj } = ringStiffness(joint.ring, OPEN);
    joint.rows.forEach((p, a) => {
      joint.rows.forEach((q, b) => {
        p.at.forEach((i, s) => {
          q.at.forEach((j, t) => {
            add(i, j, (kj[a * 6 + b] as number) * (p.value[s] as number) * (q.value[t] as number));
          });
        });
      });
    });
  }
  for (const q of model.hold)
    for (let i = 0; i < n; i++)
      for (let j = 0; j < n; j++) add(i, j, HOLD_N_PER_MM * (q[i] as number) * (q[j] as number));
  return k;
}

function solveCholesky(l: Rows, b: Float64Array): Float64Array {
  const x = b.slice();
  const n = x.length;
  for (let i = 0; i < n; i++) {
    const row = l[i] as number[];
    let sum = x[i] as number;
    for (let j = 0; j < i; j++) sum -= (row[j] as number) * (x[j] as number);
    x[i] = sum / (row[i] as number);
  }
  for (let i = n - 1; i >= 0; i--) {
    const row = l[i] as number[];
    const xi = (x[i] as number) / (row[i] as number);
    x[i] = xi;
    for (let j = 0; j < i; j++) x[j] = (x[j] as number) - (row[j] as number) * xi;
  }
  return x;
}

import { cholesky, matVec, type Rows, type Sparse, solveCholesky, sparseAdd, sparseDot, zeros } from "../numeric";
import { RIGID_HOLD } from "./holds";
import type { CompiledLoads } from "./loadActions";
import { LocalYield } from "./localYield";
import type { MechanicalModel } from "./model";
import { springEntries } from "./springs";

/** What the plain path gives: the movement of every freedom after each step, mm and rad. */
interface PlainRun {
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
export function plainRun(programme: CompiledLoads, limited = true): PlainRun {
  const { model, springs, loads, actions, stepOf } = programme;
  const n = model.freedoms;
  const k = startingStiffness(model);
  let factor: Rows | null = null;
  const solve = (b: Float64Array): Float64Array => {
    factor ??= cholesky(k);
    if (!factor) throw new Error("The frame is not held together: its stiffness is singular.");
    return Float64Array.from(solveCholesky(factor, b));
  };
  const addSpring = (rows: readonly Sparse[], matrix: Float64Array, sign: number) => {
    for (const [i, j, v] of springEntries(rows, matrix)) addTo(k, i, j, sign * v);
    factor = null;
  };
  const spread = (rows: readonly Sparse[], f: Float64Array): Float64Array => {
    const b = new Float64Array(n);
    rows.forEach((row, i) => {
      sparseAdd(b, row, f[i]);
    });
    return b;
  };
  const u = new Float64Array(n);
  const move = (b: Float64Array) => {
    solve(b).forEach((v, i) => {
      u[i] = u[i] + v;
    });
  };

  const local = new LocalYield();
  const tackForces = new Float64Array(4 * model.joints.length);
  const attached = new Map<number, { matrix: Float64Array; reference: Float64Array }>();
  const movements: Float64Array[] = programme.steps.map(() => new Float64Array(0));
  const released: PlainRun["released"] = [];
  actions.forEach((action, index) => {
    const step = stepOf[index];
    switch (action.kind) {
      case "ring": {
        const { rows } = springs[action.spring];
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
          sparseAdd(b, loads[action.chordColumn], action.chordMm3);
          move(b);
        }
        break;
      }
      case "load": {
        const b = new Float64Array(n);
        sparseAdd(b, loads[action.column], action.size);
        move(b);
        break;
      }
      case "attach": {
        const { rows } = springs[action.spring];
        const { matrix, toMm, byMm } = action;
        const here = Float64Array.from(rows, (row) => sparseDot(row, u));
        const reference = here.map((v) => (toMm ?? v) + byMm);
        addSpring(rows, matrix, 1);
        attached.set(action.spring, { matrix, reference });
        const pull = reference.map((v, i) => v - here[i]);
        if (pull.some((v) => v !== 0))
          move(spread(rows, matVec(matrix, pull, rows.length, rows.length, new Float64Array(rows.length))));
        break;
      }
      case "detach": {
        const { rows } = springs[action.spring];
        const on = attached.get(action.spring);
        if (!on) break;
        attached.delete(action.spring);
        const stretch = Float64Array.from(rows, (row, i) => sparseDot(row, u) - on.reference[i]);
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
          on.reference = Float64Array.from(springs[spring].rows, (row) => sparseDot(row, u));
        break;
      case "nothing":
        break;
    }
    movements[step] = u.slice();
  });
  return { movements, tackForces, released };
}

const addTo = (k: Rows, i: number, j: number, v: number): void => {
  const row = k[i];
  row[j] = row[j] + v;
};

/** Members, supports, contact of every joint, and the hold of a free frame. */
export function startingStiffness(model: MechanicalModel): Rows {
  const n = model.freedoms;
  const k = zeros(n, n);
  for (const [i, j, v] of model.entries) addTo(k, i, j, v);
  for (const joint of model.joints) for (const [i, j, v] of springEntries(joint.rows, joint.contact)) addTo(k, i, j, v);
  for (const q of model.hold)
    for (let i = 0; i < n; i++) for (let j = 0; j < n; j++) addTo(k, i, j, RIGID_HOLD * q[i] * q[j]);
  return k;
}

import { drain, rowsTimes, type Sparse, type SparseRows, sparseAdd, sparseRows } from "../numeric";
import { BaseSolver } from "./baseSolver";
import { type CompiledLoads, gainedBy, type Spring } from "./loadActions";
import type { MechanicalModel } from "./model";

/**
 * A frame condensed to what the steps touch: movement of springs per unit of spring force and load, before any tack. Columns: springs,
 * then loads. Made once; every order starts from it.
 */
export interface Condensed {
  model: MechanicalModel;
  springs: readonly Spring[];
  /** How many of them, behind the joints, are posts of contacts. */
  posts: number;
  /** First row and column of each spring, and their end. */
  offset: Int32Array;
  springColumns: number;
  loadColumns: number;
  /** What is asked of the frame, as rows over its freedoms. */
  outputs: SparseRows;
  /** Movement of the springs, column after column; of what a spring does to others only to those up to itself: it is symmetric. */
  start: Float64Array;
  /** What each spring gained when every weld of the plan is laid. */
  welded: readonly Float64Array[];
  /** Movement of every freedom of the frame so welded under so much of each column, mm and rad. */
  under: (forces: Float64Array, loads: Float64Array) => Float64Array;
}

/** Below this share of the full wall the fitted frame is so loose that condensing it loses the ninth digit. */
export const LEAST_FITUP = 1e-4;

/** Columns solved between two chances to stop. */
const COLUMNS_AT_ONCE = 16;

/**
 * Condenses a frame, with chances to stop on the way.
 * @param plan a programme that names every spring and load that will be used. @param outputs rows over the freedoms.
 * @throws RangeError when the frame is not held together or fits too loosely.
 */
export function* condensing(
  plan: Pick<CompiledLoads, "model" | "springs" | "posts" | "loads" | "actions">,
  outputs: readonly Sparse[],
): Generator<number, Condensed> {
  const { model, springs, loads } = plan;
  const loose = model.joints.find((j) => !(j.contactShare >= LEAST_FITUP));
  if (loose)
    throw new RangeError(
      `Fit-up of ${loose.contactShare} at ${loose.id} is too loose to be worked out: it must be ${LEAST_FITUP} or more.`,
    );
  yield 0;
  const solver = new BaseSolver(model);
  yield 0;
  const offset = new Int32Array(springs.length + 1);
  springs.forEach((s, i) => {
    offset[i + 1] = offset[i] + s.rows.length;
  });
  const springColumns = offset[springs.length];
  const springRows = springs.flatMap((s) => s.rows);
  const columns = [...springRows, ...loads];
  const movesOf = sparseRows(springRows);
  const start = new Float64Array(springColumns * columns.length);
  for (const [j, column] of columns.entries()) {
    const x = solver.solve(column);
    rowsTimes(movesOf, x, start, j * springColumns, Math.min(j + 1, springColumns));
    if (j % COLUMNS_AT_ONCE === 0) yield j / columns.length;
  }
  const welded = gainedBy(plan.actions, plan);
  const whole = new BaseSolver(
    model,
    springs.map(({ rows }, i) => ({ rows, matrix: welded[i] })),
  );
  return {
    model,
    springs: [...springs],
    posts: plan.posts,
    offset,
    springColumns,
    loadColumns: loads.length,
    outputs: sparseRows(outputs),
    start,
    welded,
    under: (forces, sizes) => {
      const load = new Float64Array(model.freedoms);
      for (let j = 0; j < springColumns; j++) if (forces[j] !== 0) sparseAdd(load, springRows[j], forces[j]);
      for (let l = 0; l < loads.length; l++) if (sizes[l] !== 0) sparseAdd(load, loads[l], sizes[l]);
      return whole.solveAll(load);
    },
  };
}

/** Condenses a frame in one go. See `condensing`. */
export const condense = (
  plan: Pick<CompiledLoads, "model" | "springs" | "posts" | "loads" | "actions">,
  outputs: readonly Sparse[],
): Condensed => drain(condensing(plan, outputs));

import { drain, type Sparse, sparseDot } from "../numeric";
import { BaseSolver } from "./baseSolver";
import type { CompiledLoads, Spring } from "./loadActions";
import type { MechanicalModel } from "./model";

/**
 * A frame condensed to what the steps touch: movement of springs and outputs per unit of spring force and load, before
 * any tack. Rows: springs, then outputs. Columns: springs, then loads. Made once; every order starts from it.
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
  outputs: number;
  rows: number;
  columns: number;
  /** Column after column. */
  start: Float64Array;
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
  plan: Pick<CompiledLoads, "model" | "springs" | "posts" | "loads">,
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
  const columns = springColumns + loads.length;
  const springRows = springs.flatMap((s) => s.rows);
  const all = [...springRows, ...outputs];
  const start = new Float64Array(all.length * columns);
  for (const [j, load] of [...springRows, ...loads].entries()) {
    const x = solver.solve(load);
    for (let i = 0; i < all.length; i++) start[j * all.length + i] = sparseDot(all[i], x);
    if (j % COLUMNS_AT_ONCE === 0) yield j / columns;
  }
  return {
    model,
    springs: [...springs],
    posts: plan.posts,
    offset,
    springColumns,
    loadColumns: loads.length,
    outputs: outputs.length,
    rows: all.length,
    columns,
    start,
  };
}

/** Condenses a frame in one go. See `condensing`. */
export const condense = (
  plan: Pick<CompiledLoads, "model" | "springs" | "posts" | "loads">,
  outputs: readonly Sparse[],
): Condensed => drain(condensing(plan, outputs));

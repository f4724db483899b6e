import { type Sparse, sparseAdd } from "../numeric";
import { BaseSolver } from "./baseSolver";
import { LINES } from "./heldState";
import { type CompiledLoads, gainedBy, type WeldAction } from "./loadActions";
import { columnOf } from "./ownUnknowns";

/**
 * A frame as its first steps leave it, elastic: nothing yields, and what is open does not touch. Factored once with all that its welds
 * hold; what a later step does to it by itself is then one solve.
 * @param done how many of the plan's steps make it. @throws RangeError when the frame is not held together.
 * @returns the movement of every freedom, mm and rad, by one of the other steps alone; such a step is a bead over a line that holds
 * already, or a load. @throws RangeError from there when it is anything else.
 */
export function finishedFrame(plan: CompiledLoads, done: number): (step: number) => Float64Array {
  const { model, springs, loads, actions, stepOf } = plan;
  const totals = gainedBy(
    actions.filter((_, a) => stepOf[a] < done),
    plan,
  );
  const solver = new BaseSolver(
    model,
    springs.map((spring, i) => ({ rows: spring.rows, matrix: totals[i] })),
  );
  const add = (b: Float64Array, rows: readonly Sparse[], by: Float64Array, times: number): void =>
    rows.forEach((row, i) => {
      sparseAdd(b, row, times * by[i]);
    });
  const weld = (b: Float64Array, { spring, line, joint, closingMm, heat, kinkColumn }: WeldAction): void => {
    const kinks = kinkColumn < 0 ? [] : loads.slice(kinkColumn, kinkColumn + joint.kink.length / LINES);
    add(b, springs[spring].rows, columnOf(joint.push, line), closingMm);
    add(b, kinks, columnOf(joint.kink, line % LINES), closingMm);
    if (!heat) return;
    add(b, springs[spring].rows, heat.push, heat.mm);
    add(b, kinks, heat.kink, heat.mm);
  };
  return (step) => {
    const b = new Float64Array(model.freedoms);
    actions.forEach((action, a) => {
      if (stepOf[a] !== step) return;
      if (action.kind === "load") sparseAdd(b, loads[action.column], action.size);
      else if (action.kind === "weld" && !action.delta) weld(b, action);
      else if (action.kind !== "nothing")
        throw new RangeError("Only a bead over what holds, or a load, leaves a finished frame as it is.");
    });
    return solver.solveAll(b);
  };
}

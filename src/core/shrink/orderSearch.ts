import { type Condensed, type Draws, LowRankRun, NO_DRAWS, type Snapshot } from "../mechanics";
import type { CompileCache } from "./compileCache";
import { type CompiledSteps, compile } from "./compileSteps";
import type { SimulationStep } from "./simulationSteps";

/** Actions between two kept states: closer together costs memory, wider apart costs rework. */
const KEEP_EVERY = 8;
/** States kept at most; the memory of a worker stays bounded (a 24-joint frame takes about a quarter of a megabyte each). */
const KEEP_MOST = 32;

/**
 * Evaluates many orders of the same steps on one frame, exactly, with what two orders share at their start done once.
 */
export class OrderSearch {
  private readonly runner: LowRankRun;
  private last: CompiledSteps | null = null;
  private kept: Snapshot[] = [];

  /**
   * @param shop what is kept between orders. @param condensed the frame, condensed to every step that any order uses, with what is asked
   * of the final shape.
   */
  constructor(
    private readonly shop: CompileCache,
    condensed: Condensed,
    draws: Draws = NO_DRAWS,
  ) {
    this.runner = new LowRankRun(condensed, draws);
  }

  /**
   * Outputs of every draw after an order, exactly. The array is the search's own: read it before the next call.
   * @param order a rearrangement of the steps, of the same step objects. @param reuse off to start from the fitted frame.
   */
  exact(order: readonly SimulationStep[], reuse = true): Float64Array {
    const plan = compile(this.shop, order);
    const { runner } = this;
    const same = reuse ? this.shared(order) : 0;
    this.kept = this.kept.filter((s) => s.done <= same);
    const start = this.kept.at(-1);
    let from = 0;
    if (start) {
      runner.restore(start);
      from = start.done;
    } else runner.reset();
    this.last = plan;
    const n = plan.actions.length;
    while (from < n) {
      const to = reuse ? Math.min(n, from + KEEP_EVERY) : n;
      runner.forward(plan, from, to);
      from = to;
      if (reuse && to < n && this.kept.length < KEEP_MOST) this.kept.push(runner.snapshot(to));
    }
    return runner.gather();
  }

  /** Actions that an order shares at its start with the one before. */
  private shared(order: readonly SimulationStep[]): number {
    const { last } = this;
    if (!last) return 0;
    let steps = 0;
    while (steps < order.length && order[steps] === last.steps[steps]) steps++;
    const actions = last.stepOf.findIndex((s) => s >= steps);
    return actions < 0 ? last.actions.length : actions;
  }
}

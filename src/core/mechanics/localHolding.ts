import { matVec } from "../numeric";
import { type HeldState, LINES, SEAMS } from "./heldState";
import { Holding } from "./holding";
import type { WeldAction } from "./loadActions";
import { columnOf } from "./ownUnknowns";

/**
 * One joint while a line of it contracts, the others of the frame taken as elastic: a quick answer, for screening. The lines and
 * seams of this joint are solved together, those of other joints stay as they are.
 */
export class LocalHolding {
  /** Closing of each line that results, mm. */
  readonly closings = new Float64Array(LINES);
  /** Load on the joint that results. */
  readonly push = new Float64Array(6);
  private readonly holding = new Holding(1);

  /**
   * @param f flexibility of the whole frame as this joint feels it, 6 x 6, with the joint's new stiffness in it.
   * @param closingMm free closing of this bead. @param state of all joints; that of this one is brought up to date.
   */
  solve(action: WeldAction, f: Float64Array, closingMm: number, state: HeldState): void {
    const { closings, push } = this;
    const { spring, line, joint } = action;
    const own: HeldState = {
      tensions: state.tensions.subarray(LINES * spring, LINES * (spring + 1)),
      pressed: state.pressed.subarray(SEAMS * spring, SEAMS * (spring + 1)),
      gaps: state.gaps.subarray(SEAMS * spring, SEAMS * (spring + 1)),
    };
    if (!action.tack) own.tensions[line] = 0;
    const { holding } = this;
    holding.begin([joint]);
    const moved = (by: Float64Array): Float64Array => matVec(f, by, 6, 6, new Float64Array(6));
    const wish = { spring: 0, closing: { line, mm: 1 } };
    const brought = [
      { forces: holding.forces(moved(columnOf(joint.push, line)), wish), sizes: Float64Array.of(closingMm) },
    ];
    closings.fill(0);
    push.fill(0);
    closings[line] = closingMm;
    const answers = { between: (_: number, __: number, into: Float64Array) => into.set(f), moved };
    for (const [unknown, by] of holding.after(own, 0, brought, 0, 1, answers)) {
      const { seam, line: yields, push: pushes } = holding.unknown(unknown);
      if (seam) for (let k = 0; k < 6; k++) push[k] = push[k] + by * pushes[k];
      else closings[yields] = closings[yields] + by;
    }
    for (let k = 0; k < 6; k++)
      for (let l = 0; l < LINES; l++) push[k] = push[k] + joint.push[LINES * k + l] * closings[l];
  }
}

import { boxYield } from "./boxYield";
import type { WeldAction } from "./loadActions";

/** Force in a line taken back per mm that another yields, with the frame's answer in it: locked - push' F push. */
function linesWithin(action: WeldAction, f: Float64Array, into: Float64Array): void {
  const { locked, push } = action.joint;
  const answer = new Float64Array(24);
  for (let i = 0; i < 6; i++)
    for (let l = 0; l < 4; l++) {
      let sum = 0;
      for (let k = 0; k < 6; k++) sum += f[6 * i + k] * push[4 * k + l];
      answer[4 * i + l] = sum;
    }
  for (let a = 0; a < 4; a++)
    for (let b = 0; b < 4; b++) {
      let sum = locked[4 * a + b];
      for (let i = 0; i < 6; i++) sum -= push[4 * i + a] * answer[4 * i + b];
      into[4 * a + b] = sum;
    }
}

/**
 * One joint while a line of it contracts, the others of the frame taken as elastic: a quick answer, for screening. The lines
 * of the joint are limited to their yield force together. Buffers are kept, so that the inner loop makes no garbage.
 */
export class LocalYield {
  /** Closing of each line that results, mm. */
  readonly closings = new Float64Array(4);
  private readonly a = new Float64Array(16);
  private readonly free = new Float64Array(4);
  private readonly limit = new Float64Array(4);
  private readonly plastic = new Float64Array(4);

  /** @param f flexibility of the whole frame as this joint feels it, 6 x 6, with the joint's new stiffness in it. */
  prepare(action: WeldAction, f: Float64Array): void {
    linesWithin(action, f, this.a);
  }

  /**
   * @param closingMm free closing of this bead. @param forces tension in each line of this joint, N; updated.
   * @param at where this joint's four forces start.
   */
  solve(action: WeldAction, closingMm: number, forces: Float64Array, at: number): void {
    const { a, free, limit, plastic, closings } = this;
    const { lines } = action.joint;
    if (!action.tack) forces[at + action.line] = 0;
    lines.forEach(({ line, yieldN }, i) => {
      free[i] = forces[at + line] + a[4 * line + action.line] * closingMm;
      limit[i] = yieldN;
    });
    closings.fill(0);
    closings[action.line] = closingMm;
    boxYield(lines.length, (i, j) => a[4 * lines[i].line + lines[j].line], free, limit, plastic);
    lines.forEach(({ line }, i) => {
      closings[line] = closings[line] - plastic[i];
      let force = free[i];
      for (let j = 0; j < lines.length; j++) force -= a[4 * line + lines[j].line] * plastic[j];
      forces[at + line] = force;
    });
  }
}

import { dotN, matMul, matVec } from "../numeric";
import type { RingAction } from "./loadActions";

/** Sweeps of the yield loop at most. */
const SWEEPS = 12;

/**
 * Forces in one joint while a line of it contracts: the new line and every tack that still holds are limited to their
 * yield force. Buffers are kept, so that the inner loop makes no garbage.
 */
export class LocalYield {
  /** Ring load that results, N and N mm. */
  readonly load = new Float64Array(6);
  /** Lines that yielded in the last call. */
  yielded = 0;
  private readonly r = new Float64Array(36);
  private readonly t1 = new Float64Array(36);
  private readonly t2 = new Float64Array(36);
  private readonly dr = new Float64Array(6);
  private readonly rg = new Float64Array(6);
  private readonly plastic = new Float64Array(4);

  /**
   * Makes R = Kr^-1 (KJ F X - X + I): movement of the ring per ring load.
   * @param f flexibility of the whole frame as this joint feels it, 6 x 6, with the joint's new stiffness in it.
   */
  prepare(action: RingAction, f: Float64Array): void {
    const { kj, x, krInverse } = action.ring;
    matMul(kj, f, 6, 6, 6, this.t1);
    matMul(this.t1, x, 6, 6, 6, this.t2);
    for (let i = 0; i < 36; i++) this.t2[i] = this.t2[i] - x[i] + (i % 7 === 0 ? 1 : 0);
    matMul(krInverse, this.t2, 6, 6, 6, this.r);
  }

  /**
   * @param closingMm free closing of this bead. @param forces tension in the tack of each line of this joint, N; updated.
   * @param at where this joint's four forces start.
   */
  solve(action: RingAction, closingMm: number, forces: Float64Array, at: number): void {
    const { birth, held, line, tack } = action;
    const { plastic, load, dr, rg, r } = this;
    this.yielded = 0;
    plastic.fill(0);
    if (!tack) forces[at + line] = 0;
    let closing = closingMm;
    const update = () => {
      for (let i = 0; i < 6; i++) {
        let sum = -closing * birth.g[i];
        for (const h of held) sum += plastic[h.line] * h.birth.g[i];
        load[i] = sum;
      }
      matVec(r, load, 6, 6, dr);
    };
    update();
    const yieldN = birth.yieldN;
    for (let sweep = 0; sweep < SWEEPS; sweep++) {
      let changed = false;
      const n = birth.k * closing + dotN(birth.g, dr, 6);
      if (n > yieldN * (1 + 1e-12)) {
        matVec(r, birth.g, 6, 6, rg);
        closing -= (n - yieldN) / (birth.k - dotN(birth.g, rg, 6));
        this.yielded |= 1 << line;
        changed = true;
        update();
      }
      for (const { line: l, birth: b } of held) {
        const p = plastic[l];
        const force = forces[at + l] + dotN(b.g, dr, 6) - b.k * p;
        if (Math.abs(force) <= b.yieldN * (1 + 1e-12)) continue;
        matVec(r, b.g, 6, 6, rg);
        plastic[l] = p + (force - Math.sign(force) * b.yieldN) / (b.k - dotN(b.g, rg, 6));
        this.yielded |= 1 << l;
        changed = true;
        update();
      }
      if (!changed) break;
    }
    const own = birth.k * closing + dotN(birth.g, dr, 6);
    for (const { line: l, birth: b } of held) forces[at + l] = forces[at + l] + dotN(b.g, dr, 6) - b.k * plastic[l];
    if (tack) forces[at + line] = forces[at + line] + own;
  }

  /** Without a limit: the load of the free closing. */
  free(action: RingAction, closingMm: number): void {
    for (let i = 0; i < 6; i++) this.load[i] = -closingMm * action.birth.g[i];
  }
}

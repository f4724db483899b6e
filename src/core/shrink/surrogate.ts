import {
  type Condensed,
  copiedState,
  type HeldState,
  LocalHolding,
  type LowRankRun,
  setState,
  type WeldAction,
} from "../mechanics";
import { luSolve } from "../numeric";
import type { CompileCache } from "./compileCache";
import { compile } from "./compileSteps";
import type { SimulationStep } from "./simulationSteps";

/**
 * Orders judged in a fraction of the time: the frame's flexibility is frozen at one point, and only the joint that is
 * being welded keeps its own changes. It ignores how one joint stiffens another, so it ranks and does not predict
 * (correlation with the exact answer about 0.4 on a ladder, 0.8 on four mitres).
 */
export class Surrogate {
  /** Outputs of the nominal frame after the last order. */
  readonly out: Float64Array;
  private readonly start: { out: Float64Array; state: HeldState };
  /** Own six columns of every joint: its rows (36), then the outputs (6 each). */
  private readonly own: Float64Array[];
  private readonly fresh: Float64Array[];
  private readonly loads: Float64Array[];
  private readonly state: HeldState;
  private readonly local = new LocalHolding();
  private readonly f = new Float64Array(36);
  private readonly m = new Float64Array(36);
  private readonly g = new Float64Array(36);
  private readonly w = new Float64Array(36);
  private readonly q = new Float64Array(6);
  private readonly k = new Float64Array(6);

  /** @param runner stands where the frame is frozen. @param prefix the steps that led there. */
  constructor(
    private readonly shop: CompileCache,
    private readonly condensed: Condensed,
    runner: LowRankRun,
    private readonly prefix: readonly SimulationStep[],
    private readonly done: number,
  ) {
    const { outputs, model, loadColumns } = condensed;
    this.start = { out: runner.out.slice(0, outputs), state: copiedState(runner.state) };
    this.out = this.start.out.slice();
    this.state = copiedState(this.start.state);
    this.fresh = model.joints.map((_, j) => runner.frozenJoint(j, done));
    this.own = this.fresh.map((b) => b.slice());
    this.loads = Array.from({ length: loadColumns }, (_, l) => runner.frozenLoad(l, done));
  }

  /**
   * Outputs after an order that starts with the frozen steps. Only tacks and beads after them are worked through.
   * @throws RangeError when it starts otherwise.
   */
  evaluate(order: readonly SimulationStep[]): Float64Array {
    if (this.prefix.some((s, i) => order[i] !== s))
      throw new RangeError("This order starts with other steps than the frozen ones.");
    const { out, state, own, fresh } = this;
    out.set(this.start.out);
    setState(state, this.start.state);
    own.forEach((b, j) => {
      b.set(fresh[j]);
    });
    const plan = compile(this.shop, order);
    for (let a = this.done; a < plan.actions.length; a++) {
      const action = plan.actions[a];
      if (action?.kind === "weld") this.weld(action);
    }
    return out;
  }

  private weld(action: WeldAction): void {
    const { condensed, out, local, f, q } = this;
    const block = this.own[action.spring];
    if (action.delta) this.stiffen(block, action.delta);
    for (let i = 0; i < 36; i++) f[i] = block[i];
    local.solve(action, f, action.closingMm, this.state);
    q.set(local.push);
    const kinked = matVec46(action.joint.kink, local.closings, this.k);
    if (action.heat)
      for (let i = 0; i < 6; i++) {
        q[i] = q[i] + action.heat.mm * action.heat.push[i];
        kinked[i] = kinked[i] + action.heat.mm * action.heat.kink[i];
      }
    for (let o = 0, at = 36; o < condensed.outputs; o++, at += 6) {
      let sum = out[o];
      for (let k = 0; k < 6; k++) sum += q[k] * block[at + k];
      out[o] = sum;
    }
    if (action.kinkColumn >= 0)
      for (let k = 0; k < 6; k++) {
        const load = this.loads[action.kinkColumn + k];
        for (let o = 0; o < condensed.outputs; o++) out[o] = out[o] + kinked[k] * load[o];
      }
  }

  /** Own columns after the joint's stiffness grew by d: S_c -= S_c (I + D S_cc)^-1 D S_cc. */
  private stiffen(block: Float64Array, d: Float64Array): void {
    const { m, g, w } = this;
    for (let i = 0; i < 6; i++)
      for (let j = 0; j < 6; j++) {
        let sum = i === j ? 1 : 0;
        for (let k = 0; k < 6; k++) sum += d[i * 6 + k] * block[k * 6 + j];
        m[i * 6 + j] = sum;
      }
    g.set(d);
    luSolve(m, g, 6, 6);
    // W = G S_cc
    for (let i = 0; i < 6; i++)
      for (let j = 0; j < 6; j++) {
        let sum = 0;
        for (let k = 0; k < 6; k++) sum += g[i * 6 + k] * block[k * 6 + j];
        w[i * 6 + j] = sum;
      }
    for (let at = 0; at < block.length; at += 6) {
      const u0 = block[at];
      const u1 = block[at + 1];
      const u2 = block[at + 2];
      const u3 = block[at + 3];
      const u4 = block[at + 4];
      const u5 = block[at + 5];
      for (let j = 0; j < 6; j++)
        block[at + j] =
          block[at + j] -
          (u0 * w[j] + u1 * w[6 + j] + u2 * w[12 + j] + u3 * w[18 + j] + u4 * w[24 + j] + u5 * w[30 + j]);
    }
  }
}

/** A 6 x 4 matrix times four values. */
function matVec46(m: Float64Array, v: Float64Array, out: Float64Array): Float64Array {
  for (let i = 0; i < 6; i++)
    out[i] = m[4 * i] * v[0] + m[4 * i + 1] * v[1] + m[4 * i + 2] * v[2] + m[4 * i + 3] * v[3];
  return out;
}

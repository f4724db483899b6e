import { factorSkyline, luSolve, type Skyline, type Sparse, skyline, solveSkyline, sparseAdd } from "../numeric";
import { freedomOrder } from "./freedomOrder";
import type { MechanicalModel } from "./model";
import { springEntries } from "./springs";

/** Springs that pin one node while the free frame is factored; taken away again exactly. N/mm and N mm/rad. */
const PIN = [1e5, 1e5, 1e5, 1e10, 1e10, 1e10] as const;

/** The frame as it is fitted, before any tack, with what holds besides: solves for the movement under loads. */
export class BaseSolver {
  private readonly factored: Skyline;
  /** Where a freedom stands in the factored order. */
  private readonly place: Int32Array;
  private readonly hold: { v: Float64Array[]; z: Float64Array[]; inverse: Float64Array } | null;

  /** @param springs that hold besides. @throws RangeError when the frame is not held together. */
  constructor(
    private readonly model: MechanicalModel,
    springs: readonly { rows: readonly Sparse[]; matrix: Float64Array }[] = [],
  ) {
    const n = model.freedoms;
    this.place = freedomOrder(model);
    const at = (i: number): number => this.place[i];
    const entries: [number, number, number][] = model.entries.map(([i, j, v]) => [at(i), at(j), v]);
    for (const { rows, matrix } of [...model.joints.map((j) => ({ rows: j.rows, matrix: j.contact })), ...springs])
      for (const [i, j, v] of springEntries(rows, matrix)) entries.push([at(i), at(j), v]);
    if (model.hold.length > 0) for (const [f, k] of PIN.entries()) entries.push([at(f), at(f), k]);
    this.factored = skyline(n, entries);
    const broken = factorSkyline(this.factored);
    if (broken >= 0) {
      const freedom = this.place.indexOf(broken);
      const node = model.nodes[Math.floor(freedom / 6)];
      throw new RangeError(
        `${node?.member} is not held at ${node?.point}: the frame can move there without resistance.`,
      );
    }
    this.hold = model.hold.length > 0 ? this.swapHold() : null;
  }

  /** Takes the pin away and puts the reaction-free hold on: a correction of rank 12 after every solve. */
  private swapHold(): BaseSolver["hold"] {
    const pins = PIN.map((_, f) => {
      const e = new Float64Array(this.model.freedoms);
      e[f] = 1;
      return e;
    });
    const v = [...pins, ...this.model.hold];
    const z = v.map((column) => this.raw(column));
    const m = new Float64Array(144);
    v.forEach((a, i) => {
      z.forEach((b, j) => {
        m[i * 12 + j] = dot(a, b) + (i === j ? (i < 6 ? -1 / (PIN[i] as number) : 1 / this.model.holdNPerMm) : 0);
      });
    });
    const inverse = new Float64Array(144);
    for (let i = 0; i < 12; i++) inverse[i * 13] = 1;
    if (!luSolve(m, inverse, 12, 12)) throw new RangeError("The frame cannot be held in place.");
    return { v, z, inverse };
  }

  private raw(b: Float64Array): Float64Array {
    const n = b.length;
    const x = new Float64Array(n);
    for (let i = 0; i < n; i++) x[this.place[i]] = b[i];
    solveSkyline(this.factored, x);
    const out = new Float64Array(n);
    for (let i = 0; i < n; i++) out[i] = x[this.place[i]];
    return out;
  }

  /** Movement of every freedom under a load, mm and rad. */
  solve(load: Sparse): Float64Array {
    const b = new Float64Array(this.model.freedoms);
    sparseAdd(b, load, 1);
    return this.solveAll(b);
  }

  /** The same under a load on every freedom. */
  solveAll(b: Float64Array): Float64Array {
    const x = this.raw(b);
    if (!this.hold) return x;
    const { v, z, inverse } = this.hold;
    const y = v.map((column) => dot(column, x));
    z.forEach((column, i) => {
      let k = 0;
      for (let j = 0; j < 12; j++) k += inverse[i * 12 + j] * y[j];
      for (let f = 0; f < x.length; f++) x[f] = x[f] - k * column[f];
    });
    return x;
  }
}

function dot(a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += a[i] * b[i];
  return sum;
}

import { luSolve } from "../numeric";
import { type KernelRoom, kernelRoom } from "./kernel/kernelRoom";

/** A room that was given back, with the size of its matrix: a memory is dear, and the next run is as a rule of the same size. */
let free: { n: number; room: KernelRoom } | null = null;

function roomFor(n: number): KernelRoom | null {
  const known = free;
  free = null;
  return known?.n === n ? known.room : kernelRoom(n);
}

/** A symmetric matrix of which only the lower half is kept up, with updates of low rank. Nothing is allocated per update. */
export class PackedSymmetric {
  readonly s: Float64Array;
  private readonly f = new Float64Array(36);
  private readonly m = new Float64Array(36);
  private readonly g = new Float64Array(36);
  private readonly u: Float64Array;
  private readonly w: Float64Array;
  private readonly room: KernelRoom | null;
  /** As much of what the kernel says moves as was asked for last. */
  private moved: Float64Array = new Float64Array(0);

  /** @param n size. @param start row-major; its upper half is not read. @param room where the kernel works; null without. */
  constructor(
    readonly n: number,
    start: Float64Array,
    room: KernelRoom | null = roomFor(n),
  ) {
    this.room = room;
    this.s = room?.s ?? new Float64Array(n * n);
    this.s.set(start);
    this.u = room?.u ?? new Float64Array(6 * n);
    this.w = room?.w ?? new Float64Array(6 * n);
  }

  /** Gives its room to whoever works next; not to be used after. */
  done(): void {
    if (this.room) free = { n: this.n, room: this.room };
  }

  /** The half that is kept up, row after row: half of the room. */
  half(): Float64Array {
    const { s, n } = this;
    const out = new Float64Array((n * (n + 1)) / 2);
    for (let i = 0, at = 0; i < n; at += i + 1, i++) out.set(s.subarray(i * n, i * n + i + 1), at);
    return out;
  }

  /** Takes a half back. */
  setHalf(kept: Float64Array): void {
    const { s, n } = this;
    for (let i = 0, at = 0; i < n; at += i + 1, i++) s.set(kept.subarray(at, at + i + 1), i * n);
  }

  /** Entry (i, j), from whichever half. */
  at(i: number, j: number): number {
    return this.s[i >= j ? i * this.n + j : j * this.n + i];
  }

  /** The r x r block at c of the symmetric matrix. */
  block(c: number, r: number, into: Float64Array): void {
    const { s, n } = this;
    for (let i = 0; i < r; i++)
      for (let j = 0; j <= i; j++) {
        const v = s[(c + i) * n + c + j];
        into[i * r + j] = v;
        into[j * r + i] = v;
      }
  }

  /** Rows from `row` and columns from `c` on, six of each. */
  between(row: number, c: number, into: Float64Array): void {
    const { s, n } = this;
    if (row === c) this.block(c, 6, into);
    else if (row > c)
      for (let i = 0; i < 6; i++) for (let j = 0; j < 6; j++) into[6 * i + j] = s[(row + i) * n + c + j];
    else for (let i = 0; i < 6; i++) for (let j = 0; j < 6; j++) into[6 * i + j] = s[(c + j) * n + row + i];
  }

  /** Row i of S times h. */
  rowTimes(i: number, h: Float64Array): number {
    const { s, n } = this;
    let sum = 0;
    for (let j = 0, at = i * n; j <= i; j++, at++) sum += s[at] * h[j];
    for (let j = i + 1, at = j * n + i; j < n; j++, at += n) sum += s[at] * h[j];
    return sum;
  }

  /** out += S (h + E_first q). @param h over all columns, or null. */
  addTimes(h: Float64Array | null, first: number, q: Float64Array, out: Float64Array): void {
    if (h) this.addAll(h, out);
    const { s, n } = this;
    if (q.length === 6) this.addSix(first, q, out);
    else
      for (let k = 0; k < q.length; k++) {
        const c = first + k;
        const by = q[k];
        for (let j = 0; j <= c; j++) out[j] = out[j] + by * s[c * n + j];
        for (let j = c + 1; j < n; j++) out[j] = out[j] + by * s[j * n + c];
      }
  }

  /** out += S h. */
  private addAll(h: Float64Array, out: Float64Array): void {
    const { s, n, room } = this;
    if (room) {
      room.push.set(h);
      room.moved.set(out);
      room.times();
      out.set(room.moved);
      return;
    }
    for (let i = 0, row = 0; i < n; i++, row += n) {
      const hi = h[i];
      let even = 0;
      let odd = 0;
      let j = 0;
      // As the kernel adds: the even ones and the odd ones, then both.
      for (; j + 1 < i; j += 2) {
        const [v, w] = [s[row + j], s[row + j + 1]];
        even += v * h[j];
        odd += w * h[j + 1];
        out[j] = out[j] + v * hi;
        out[j + 1] = out[j + 1] + w * hi;
      }
      if (j < i) {
        even += s[row + j] * h[j];
        out[j] = out[j] + s[row + j] * hi;
      }
      out[i] = out[i] + (even + odd) + s[row + i] * hi;
    }
  }

  /** out += S E_c q for a joint's six columns, q from `from` on: each entry is read with its neighbours. */
  addSix(c: number, q: Float64Array, out: Float64Array, from = 0): void {
    const { s, n } = this;
    const [q0, q1, q2, q3, q4, q5] = [q[from], q[from + 1], q[from + 2], q[from + 3], q[from + 4], q[from + 5]];
    const [r0, r1, r2, r3, r4, r5] = [c * n, (c + 1) * n, (c + 2) * n, (c + 3) * n, (c + 4) * n, (c + 5) * n];
    for (let j = 0; j < c; j++)
      out[j] =
        out[j] + (q0 * s[r0 + j] + q1 * s[r1 + j] + q2 * s[r2 + j] + q3 * s[r3 + j] + q4 * s[r4 + j] + q5 * s[r5 + j]);
    for (let i = 0; i < 6; i++)
      for (let k = 0; k < 6; k++) out[c + i] = out[c + i] + q[from + k] * this.at(c + i, c + k);
    for (let j = c + 6, at = (c + 6) * n + c; j < n; j++, at += n)
      out[j] =
        out[j] + (q0 * s[at] + q1 * s[at + 1] + q2 * s[at + 2] + q3 * s[at + 3] + q4 * s[at + 4] + q5 * s[at + 5]);
  }

  /** into = S E_c q for a joint's six columns, as far as it goes; q from `from` on. */
  reach(c: number, q: Float64Array, from: number, into: Float64Array): void {
    const { room, s, n } = this;
    if (room) {
      for (let k = 0; k < 6; k++) room.push[k] = q[from + k];
      room.reach(c);
      if (this.moved.length !== into.length) this.moved = room.moved.subarray(0, into.length);
      into.set(this.moved);
      return;
    }
    const [q0, q1, q2, q3, q4, q5] = [q[from], q[from + 1], q[from + 2], q[from + 3], q[from + 4], q[from + 5]];
    const [r0, r1, r2, r3, r4, r5] = [c * n, (c + 1) * n, (c + 2) * n, (c + 3) * n, (c + 4) * n, (c + 5) * n];
    for (let j = 0; j < c; j++)
      into[j] = q0 * s[r0 + j] + q1 * s[r1 + j] + q2 * s[r2 + j] + q3 * s[r3 + j] + q4 * s[r4 + j] + q5 * s[r5 + j];
    for (let i = 0; i < 6; i++) {
      let sum = 0;
      for (let k = 0; k < 6; k++) sum += q[from + k] * this.at(c + i, c + k);
      into[c + i] = sum;
    }
    // As the kernel adds: the even ones and the odd ones, then both.
    for (let j = c + 6, at = (c + 6) * n + c; j < into.length; j++, at += n)
      into[j] = q0 * s[at] + q2 * s[at + 2] + q4 * s[at + 4] + (q1 * s[at + 1] + q3 * s[at + 3] + q5 * s[at + 5]);
  }

  /**
   * S -= U W with U = S_c, W = (I + D S_cc)^-1 D U^T.
   * @param c first of the r columns that the spring d acts on.
   */
  update(c: number, r: number, d: Float64Array): void {
    const { s, n, m, g, u, w, f } = this;
    this.block(c, r, f);
    for (let i = 0; i < r; i++)
      for (let j = 0; j < r; j++) {
        let sum = i === j ? 1 : 0;
        for (let k = 0; k < r; k++) sum += d[i * r + k] * f[k * r + j];
        m[i * r + j] = sum;
      }
    for (let i = 0; i < r * r; i++) g[i] = d[i];
    luSolve(m, g, r, r);
    for (let k = 0; k < 6; k++) {
      if (k >= r) {
        u.fill(0, k * n, (k + 1) * n);
        continue;
      }
      const row = (c + k) * n;
      for (let j = 0; j <= c + k; j++) u[k * n + j] = s[row + j];
      for (let j = c + k + 1; j < n; j++) u[k * n + j] = s[j * n + c + k];
    }
    if (r === 6) this.sixOfW();
    else
      for (let i = 0; i < 6; i++) {
        const row = i * n;
        w.fill(0, row, row + n);
        for (let k = 0; k < (i < r ? r : 0); k++)
          for (let j = 0; j < n; j++) w[row + j] = w[row + j] + g[i * r + k] * u[k * n + j];
      }
    if (r === 1) this.lowerOne();
    else this.lowerSix();
  }

  /** W = G U for six columns: each entry of U is read once for a row of G. */
  private sixOfW(): void {
    const { n, g, u, w } = this;
    const [n1, n2, n3, n4, n5] = [n, 2 * n, 3 * n, 4 * n, 5 * n];
    for (let i = 0, row = 0; i < 36; i += 6, row += n) {
      const [g0, g1, g2, g3, g4, g5] = [g[i], g[i + 1], g[i + 2], g[i + 3], g[i + 4], g[i + 5]];
      for (let j = 0; j < n; j++)
        w[row + j] = g0 * u[j] + g1 * u[n1 + j] + g2 * u[n2 + j] + g3 * u[n3 + j] + g4 * u[n4 + j] + g5 * u[n5 + j];
    }
  }

  private lowerOne(): void {
    const { s, n, u, w } = this;
    for (let i = 0; i < n; i++) {
      const ui = u[i];
      for (let j = 0; j <= i; j++) s[i * n + j] = s[i * n + j] - ui * w[j];
    }
  }

  /** Two rows at a time: each entry of W is read once for both. */
  private lowerSix(): void {
    const { s, n, u, w } = this;
    const [n1, n2, n3, n4, n5] = [n, 2 * n, 3 * n, 4 * n, 5 * n];
    let i = 0;
    if (this.room) {
      this.room.lower();
      i = n - (n % 2);
    }
    for (; i + 1 < n; i += 2) {
      const p = i * n;
      const q = p + n;
      const u0 = u[i];
      const u1 = u[n1 + i];
      const u2 = u[n2 + i];
      const u3 = u[n3 + i];
      const u4 = u[n4 + i];
      const u5 = u[n5 + i];
      const v0 = u[i + 1];
      const v1 = u[n1 + i + 1];
      const v2 = u[n2 + i + 1];
      const v3 = u[n3 + i + 1];
      const v4 = u[n4 + i + 1];
      const v5 = u[n5 + i + 1];
      // The entry above the diagonal of the first row is written too; nothing reads it.
      for (let j = 0; j <= i + 1; j++) {
        const w0 = w[j];
        const w1 = w[n + j];
        const w2 = w[n2 + j];
        const w3 = w[n3 + j];
        const w4 = w[n4 + j];
        const w5 = w[n5 + j];
        s[p + j] = s[p + j] - (u0 * w0 + u1 * w1 + u2 * w2 + u3 * w3 + u4 * w4 + u5 * w5);
        s[q + j] = s[q + j] - (v0 * w0 + v1 * w1 + v2 * w2 + v3 * w3 + v4 * w4 + v5 * w5);
      }
    }
    for (; i < n; i++)
      for (let j = 0; j <= i; j++) {
        let sum = 0;
        for (let k = 0; k < 6; k++) sum += u[k * n + i] * w[k * n + j];
        s[i * n + j] = s[i * n + j] - sum;
      }
  }
}

import { type SolvingRoom, solvingRoom } from "./kernel/kernelRoom";

/** Rows that room is made for to begin with. */
const ROOM = 64;

/**
 * Room for A x = b with a symmetric quasi-definite A, which needs no pivots: L D L'. Source: Vanderbei 1995 (from memory). Fill in the
 * lower half of `a`, row by row with `size` entries each, and `b`; `solve` leaves the answer in `b`.
 */
export function plainRoom(size: number): SolvingRoom {
  const a = new Float64Array(size * size);
  const b = new Float64Array(size);
  const d = new Float64Array(size);
  /** As the kernel adds: the even ones and the odd ones, then both. */
  const dot = (x: Float64Array, from: number, y: Float64Array, other: number, k: number): number => {
    let even = 0;
    let odd = 0;
    let c = 0;
    for (; c + 1 < k; c += 2) {
      even += x[from + c] * y[other + c];
      odd += x[from + c + 1] * y[other + c + 1];
    }
    if (c < k) even += x[from + c] * y[other + c];
    return even + odd;
  };
  const solve = (m: number, small: number): boolean => {
    for (let i = 0; i < m; i++) {
      const own = i * size;
      // L D, then L.
      for (let k = 0; k < i; k++) a[own + k] = a[own + k] - dot(a, own, a, k * size, k);
      const whole = a[own + i];
      let pivot = whole;
      for (let k = 0; k < i; k++) {
        const l = a[own + k] / d[k];
        pivot -= l * a[own + k];
        a[own + k] = l;
      }
      if (!(Math.abs(pivot) > small * Math.abs(whole))) return false;
      d[i] = pivot;
      b[i] = b[i] - dot(a, own, b, 0, i);
    }
    for (let i = 0; i < m; i++) b[i] = b[i] / d[i];
    for (let i = m - 1; i >= 0; i--) {
      const v = b[i];
      for (let k = 0; k < i; k++) b[k] = b[k] - a[i * size + k] * v;
    }
    return true;
  };
  return { a, b, solve };
}

let shared: { room: SolvingRoom; size: number } | null = null;

/** Room for m rows, by the kernel where there is one; the same for all who ask, until they ask again. */
export function roomFor(m: number): { room: SolvingRoom; size: number } {
  if (!shared || shared.size < m) {
    const size = Math.max(ROOM, 2 * m);
    shared = { room: solvingRoom(size) ?? plainRoom(size), size };
  }
  return shared;
}

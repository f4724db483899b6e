/** Dense row-major kernels on Float64Array: the inner loops of the simulation. Nothing here allocates unless it says so. */

/** out (n x m) = a (n x k) times b (k x m). @returns out. */
export function matMul(a: Float64Array, b: Float64Array, n: number, k: number, m: number, out: Float64Array) {
  for (let i = 0; i < n; i++)
    for (let j = 0; j < m; j++) {
      let sum = 0;
      for (let p = 0; p < k; p++) sum += a[i * k + p] * b[p * m + j];
      out[i * m + j] = sum;
    }
  return out;
}

/** out (n) = a (n x k) times x (k). @returns out. */
export function matVec(a: Float64Array, x: Float64Array, n: number, k: number, out: Float64Array): Float64Array {
  for (let i = 0; i < n; i++) {
    let sum = 0;
    for (let p = 0; p < k; p++) sum += a[i * k + p] * x[p];
    out[i] = sum;
  }
  return out;
}

/** Makes a square matrix symmetric by the mean of its halves. @returns the same array. */
export function symmetrise(a: Float64Array, n: number): Float64Array {
  for (let i = 0; i < n; i++)
    for (let j = 0; j < i; j++) {
      const mean = (a[i * n + j] + a[j * n + i]) / 2;
      a[i * n + j] = mean;
      a[j * n + i] = mean;
    }
  return a;
}

/**
 * Solves a x = b for several right sides by elimination with row pivots.
 * @param a n x n, destroyed. @param b n x m, becomes x. @param share a pivot below this share of the largest entry
 * counts as nought. @returns false when a is singular.
 * Source: Golub and Van Loan, Matrix Computations, 3.4 (from memory).
 */
export function luSolve(a: Float64Array, b: Float64Array, n: number, m: number, share = 1e-15): boolean {
  let largest = 0;
  for (let i = 0; i < n * n; i++) largest = Math.max(largest, Math.abs(a[i]));
  const nothing = share * largest;
  for (let c = 0; c < n; c++) {
    let pivot = c;
    for (let r = c + 1; r < n; r++) if (Math.abs(a[r * n + c]) > Math.abs(a[pivot * n + c])) pivot = r;
    const top = a[pivot * n + c];
    if (!(Math.abs(top) > nothing)) return false;
    if (pivot !== c) {
      swapRows(a, n, c, pivot);
      swapRows(b, m, c, pivot);
    }
    for (let r = c + 1; r < n; r++) {
      const k = a[r * n + c] / top;
      if (k === 0) continue;
      for (let j = c + 1; j < n; j++) a[r * n + j] = a[r * n + j] - k * a[c * n + j];
      for (let j = 0; j < m; j++) b[r * m + j] = b[r * m + j] - k * b[c * m + j];
    }
  }
  for (let r = n - 1; r >= 0; r--) {
    const d = a[r * n + r];
    for (let j = 0; j < m; j++) {
      let sum = b[r * m + j];
      for (let k = r + 1; k < n; k++) sum -= a[r * n + k] * b[k * m + j];
      b[r * m + j] = sum / d;
    }
  }
  return true;
}

function swapRows(a: Float64Array, width: number, i: number, j: number): void {
  for (let k = 0; k < width; k++) {
    const keep = a[i * width + k];
    a[i * width + k] = a[j * width + k];
    a[j * width + k] = keep;
  }
}

/**
 * erfc by its series below 2.5 and its continued fraction above.
 * Source: Abramowitz and Stegun, Handbook of Mathematical Functions, 7.1.6 and 7.1.14 (from memory).
 */
export function erfc(x: number): number {
  if (x < 0) return 2 - erfc(-x);
  if (x < 2.5) {
    let term = x;
    let sum = x;
    for (let n = 1; n < 200 && term > 1e-18 * sum; n++) {
      term *= (2 * x * x) / (2 * n + 1);
      sum += term;
    }
    return 1 - (2 / Math.sqrt(Math.PI)) * Math.exp(-x * x) * sum;
  }
  let fraction = 0;
  for (let level = 60; level >= 1; level--) fraction = level / 2 / (x + fraction);
  return Math.exp(-x * x) / Math.sqrt(Math.PI) / (x + fraction);
}

/** Normal distribution function Phi(t). */
export const normalCdf = (t: number): number => erfc(-t / Math.SQRT2) / 2;

/**
 * Upper tail of chi-square: the chance of a value above `T` with `freedom` degrees.
 * Source: recursion Q(T, f+2) = Q(T, f) + (T/2)^(f/2) e^(-T/2) / Gamma(f/2 + 1) (Abramowitz and Stegun 26.4.8, from memory).
 */
export function chiSquareTail(T: number, freedom: number): number {
  if (T <= 0) return 1;
  let f = freedom % 2 === 1 ? 1 : 2;
  let q = f === 1 ? erfc(Math.sqrt(T / 2)) : Math.exp(-T / 2);
  // term(f) = (T/2)^(f/2) e^(-T/2) / Gamma(f/2 + 1), advanced by its ratio
  let term = f === 1 ? (Math.sqrt(T / 2) * Math.exp(-T / 2)) / (Math.sqrt(Math.PI) / 2) : (T / 2) * Math.exp(-T / 2);
  while (f < freedom) {
    q += term;
    f += 2;
    term *= T / f;
  }
  return q;
}

/** A source of numbers between 0 and 1. */
type Random = () => number;

/** Repeatable numbers from a seed (a 32-bit counter, mixed). The same seed gives the same draws on every machine. */
export function seeded(seed: number): Random {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x9e3779b9) >>> 0;
    let x = state;
    x = Math.imul(x ^ (x >>> 16), 0x21f0aaad);
    x = Math.imul(x ^ (x >>> 15), 0x735a2d97);
    return ((x ^ (x >>> 15)) >>> 0) / 4294967296;
  };
}

/** One draw from the standard normal distribution. Source: Box and Muller (1958), from memory. */
export function normalDraw(random: Random): number {
  const u = 1 - random();
  return Math.sqrt(-2 * Math.log(u)) * Math.cos(2 * Math.PI * random());
}

/** Of the statistics package that is used here: the distributions that are asked for. */
declare module "jstat" {
  interface Distributions {
    normal: { inv(p: number, mean: number, sd: number): number };
    beta: { inv(p: number, alpha: number, beta: number): number };
    binomial: { cdf(k: number, n: number, p: number): number };
  }
  const jstat: Distributions;
  export default jstat;
}

/**
 * A quantile as the mean of values around its place, weighted by how likely each is to be it: it scatters less than the one value there.
 * Source: after Harrell and Davis (1982, from memory), with a normal weight of their variance for their beta weight.
 */
export function smoothQuantile(sorted: Float64Array, share: number): number {
  const n = sorted.length;
  const place = share * (n + 1) - 1;
  const spread = 0.6 * Math.sqrt(n * share * (1 - share));
  let sum = 0;
  let weights = 0;
  for (let i = Math.max(0, Math.ceil(place - 4 * spread)); i <= Math.min(n - 1, place + 4 * spread); i++) {
    const weight = Math.exp(-(((i - place) / spread) ** 2) / 2);
    sum += weight * sorted[i];
    weights += weight;
  }
  return sum / weights;
}

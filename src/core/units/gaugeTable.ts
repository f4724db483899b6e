/** Walls of tube by gauge, in. Source: Birmingham gauge as tube is sold by it (from memory). */
export const GAUGES_IN: Readonly<Record<number, number>> = {
  7: 0.18,
  8: 0.165,
  9: 0.148,
  10: 0.134,
  11: 0.12,
  12: 0.109,
  13: 0.095,
  14: 0.083,
  15: 0.072,
  16: 0.065,
  17: 0.058,
  18: 0.049,
  20: 0.035,
};

/** Two-peg test: rod at two pegs from two places of the level. Readings mm, distances m. */
export interface TwoPeg {
  a1: number;
  b1: number;
  a2: number;
  b2: number;
  distA1: number;
  distB1: number;
  distA2: number;
  distB2: number;
}

/** Collimation error in mm per metre of sight. Source: difference of the two height differences over that of the sights. */
export const collimationMmPerM = (t: TwoPeg): number =>
  (t.a1 - t.b1 - (t.a2 - t.b2)) / (t.distA1 - t.distB1 - (t.distA2 - t.distB2));

export interface LevelHeights {
  /** Lowest point 0, mm. */
  z: number[];
  /** Covariance, mm2. */
  cov: number[][];
}

/**
 * Heights from rod readings of a level that stays in one place.
 * @param rodsMm readings. @param uRodMm standard uncertainty of one. @param sights distances in m, with the collimation
 * and its uncertainty in mm/m; leave out when the sights are alike.
 */
export function opticalLevel(
  rodsMm: number[],
  uRodMm: number,
  sights?: { distancesM: number[]; collimationMmPerM: number; uCollimationMmPerM: number },
): LevelHeights {
  const d = (i: number): number => sights?.distancesM[i] ?? 0;
  const drop = rodsMm.map((rod, i) => -(rod - (sights?.collimationMmPerM ?? 0) * d(i)));
  const lowest = Math.min(...drop);
  const uc = sights?.uCollimationMmPerM ?? 0;
  return {
    z: drop.map((h) => h - lowest),
    cov: rodsMm.map((_, i) => rodsMm.map((_, j) => (i === j ? uRodMm ** 2 : 0) + uc * uc * d(i) * d(j))),
  };
}

/** Two-peg test: rod at two pegs from two places of the level. Readings mm, distances m. */
interface TwoPeg {
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

/**
 * Geometric tolerances: how near is the same. One table, so that two rooms never disagree on it. All own judgement: far above
 * rounding, far below what a tape sees, except where said.
 */
export const TOLERANCES = {
  /** Directions count as square or level within this, sine. */
  squareSine: 0.002,
  /** A gap up to which two faces still meet, mm. */
  meetSlackMm: 3,
  /** Faces nearer than this touch without lying in each other, mm. */
  touchMm: 1,
  /** Bodies less deep than this in each other only touch, mm. */
  overlapMm: 0.5,
  /** Under this angle two lines are treated as parallel, degrees. */
  parallelDeg: 5,
  /** Lines that go on in each other's direction to within this form a kink, degrees. */
  kinkDeg: 25,
  /** From this angle on two ends run straight into each other, degrees. */
  straightDeg: 179.5,
  /** Corners sharper than this are no mitres by habit: the face would be many times the tube (common practice, no source). */
  sharpDeg: 30,
  /** Members that lie this near to the lowest point of a frame lie on the bed, mm. */
  onBedMm: 1,
  /** Places on one member nearer to each other than this are one place for its mechanics, mm. */
  onePointMm: 3,
  /** Lines that pass each other nearer than this meet, mm. */
  linesMeetMm: 0.01,
  /** Lengths of pieces that differ by less are one line of the cut list, mm. */
  samePieceMm: 0.05,
} as const;

/** One factor of the shrinkage model with its scatter. */
export interface Factor {
  value: number;
  /** Coefficient of variation (lognormal). */
  cv: number;
  source: string;
}

/**
 * Shrinkage factors and their scatter. None has been measured in this shop: coupons and past frames will narrow them.
 */
export const FACTORS = {
  /** Transverse contraction of a line against the one-dimensional heat balance. */
  transverse: {
    value: 0.9,
    cv: 0.25,
    source: "1-D heat balance gives 1 to 1.3; Blodgett's butt rule equals about 0.85 (both from memory)",
  },
  /** Longitudinal contraction. */
  longitudinal: { value: 0.335, cv: 0.2, source: "Okerblom; tendon force 0.23 kN per J/mm (from memory)" },
  /** Closing of a fillet, against that of a butt. */
  filletClosing: {
    value: 0.5,
    cv: 0.4,
    source: "between the heat share 1/3 and 1; the weakest factor (own judgement)",
  },
  /**
   * Share of the free closing that a mitred ring lets through, outside to outside. The stepwise beam model gives 0.30 to
   * 0.37 mm a side on a 508 mm square of 50.8 x 50.8 x 4.8 tube at 450 to 550 J/mm; free closing would be 0.40 to 0.49.
   */
  mitreShare: { value: 0.75, cv: 0.25, source: "ratio of the stepwise beam model to free closing on one square frame" },
  /** Heat differs from bead to bead. */
  perBead: { value: 1, cv: 0.25, source: "own judgement" },
  /** Other materials than the one that the factors were found on. */
  otherMaterial: { value: 1, cv: 0.3, source: "own judgement" },
} as const satisfies Record<string, Factor>;
export type FactorName = keyof typeof FACTORS;

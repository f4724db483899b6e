/** One factor of the shrinkage model with its scatter. */
interface Factor {
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
  /** Heat of a tack against that of a bead: short, on cold steel. */
  tackHeat: { value: 0.5, cv: 0.4, source: "own judgement" },
  /** Contact between parts that are fitted but not yet joined, as a share of the full wall. */
  fitup: { value: 0.01, cv: 1, source: "own judgement; 0.003 to 0.03" },
  /** Stiffness of weld lines. */
  ring: { value: 1, cv: 0.2, source: "spread of the fit on finite elements" },
  /** Lozenging of the tube beside a joint. */
  series: { value: 1, cv: 0.25, source: "spread of the fit on finite elements" },
  /** Joints of kinds that were not fitted, each for itself. */
  unfitted: { value: 1, cv: 0.3, source: "own judgement" },
  /** Heat differs from bead to bead. */
  perBead: { value: 1, cv: 0.25, source: "own judgement" },
  /** Other materials than the one that the factors were found on. */
  otherMaterial: { value: 1, cv: 0.3, source: "own judgement" },
} as const satisfies Record<string, Factor>;
export type FactorName = keyof typeof FACTORS;
/** A set of factors: the defaults, or what a shop has learned in their place. */
export type ShrinkFactors = Readonly<Record<FactorName, Factor>>;

/** Share of the contracted volume that acts on the chord of a tee, by direction of the line (fitted on finite elements). */
export const CHORD_EFFECT = { across: 0.93, along: 0.78 } as const;

/** Factors for a material: the scatter of other materials counts only where it is another one. */
export const factorsFor = (mildSteel: boolean, factors: ShrinkFactors = FACTORS): ShrinkFactors =>
  mildSteel ? { ...factors, otherMaterial: { ...factors.otherMaterial, cv: 0 } } : factors;

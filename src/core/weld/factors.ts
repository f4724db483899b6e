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
  /** How far the seams of a mitre are open when it is tacked, mm, where nobody measured it. */
  gap: { value: 0.1, cv: 0.8, source: "saw cuts that are pushed together: 0 to 0.3 mm (own judgement)" },
  /** Stiffness of a joint by its table. */
  joint: {
    value: 1,
    cv: 0.1,
    source: "tables against finite elements of whole joints, 1 to 5 % (rms), and what the mesh hides",
  },
  /** Joints beyond the tables, each for itself. */
  unfitted: { value: 1, cv: 0.3, source: "own judgement" },
  /** Heat differs from bead to bead. */
  perBead: { value: 1, cv: 0.25, source: "own judgement" },
  /** Gaps that beads fill, and how long tacks came out: differs from one to the next. */
  fit: {
    value: 1,
    cv: 0.15,
    source:
      "gaps of 0 to 0.3 mm where joints fit, 0.1 to 0.25 mm of closing per mm of gap (from memory); tacks of 8 to 12 mm (own judgement)",
  },
  /** The outside line of a mitre, besides: what it does hangs on how finely the tables were worked out. */
  outside: { value: 1, cv: 0.3, source: "11.9 to 15.1 mrad per mm by the mesh of the finite elements" },
  /** Heat of a day: the same for all of a frame, on steel that was found cold or warm, by one hand. */
  day: { value: 1, cv: 0.1, source: "own judgement" },
  /** Yield stress of one melt against the next, as a share of what the material states. */
  yield: { value: 1, cv: 0.08, source: "mill tests of one grade scatter by 5 to 10 % (from memory)" },
  /** Other materials than the one that the factors were found on. */
  otherMaterial: { value: 1, cv: 0.3, source: "own judgement" },
} as const satisfies Record<string, Factor>;
export type FactorName = keyof typeof FACTORS;
/** A set of factors: the defaults, or what a shop has learned in their place. */
export type ShrinkFactors = Readonly<Record<FactorName, Factor>> & {
  /** Covariances of the logarithms of `TOGETHER`, by what was learned of them; free of each other when left out. */
  readonly together?: readonly (readonly number[])[];
};
/** Factors of which it may be known what they have in common. */
export const TOGETHER = ["transverse", "longitudinal", "filletClosing", "tackHeat"] as const satisfies FactorName[];

/** Factors for a material: the scatter of other materials counts only where it is another one. */
export const factorsFor = (mildSteel: boolean, factors: ShrinkFactors = FACTORS): ShrinkFactors =>
  mildSteel ? { ...factors, otherMaterial: { ...factors.otherMaterial, cv: 0 } } : factors;

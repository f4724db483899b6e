/** Factors that a shop learns: the others are what differs from one frame to the next. */
export const LEARNABLE = ["transverse", "longitudinal", "filletClosing", "tackHeat"] as const;
export type Learnable = (typeof LEARNABLE)[number];
/** Every two of them, by their places. */
export const FACTOR_PAIRS: readonly (readonly [number, number])[] = LEARNABLE.flatMap((_, i) =>
  LEARNABLE.slice(0, i).map((__, j) => [i, j] as const),
);
/** What differs from frame to frame and is found with them: gaps at joints, and how stiff joints are. */
export const BESIDES = ["gap", "joint"] as const;

/**
 * Stiffness of weld lines, fitted on linear elastic finite elements of 50 x 50 x 3 and 50 x 50 x 5 tube (90 degree mitre;
 * tee with 50 and 38 branch). A line has two Gauss points of density times E t / b each per mm of half length; a tube
 * corner has its own constant times E t; a tack counts as a line of its length.
 */
export const RING = {
  mitre: {
    inside: { density: 0.27, tack: 0.82 },
    outside: { density: 0.066, tack: 0.25 },
    /** From the outside end to the inside end. */
    face: { densityOutside: 0.23, densityInside: 0.53, tack: 0.81 },
    corner: { inside: 0.33, outside: 0 },
    shear: 12,
  },
  tee: {
    across: { density: 0.13, tack: 0.76 },
    along: { density: 0.7, tack: 2.65 },
    corner: 0.147,
    shear: 4,
  },
  /** A straight butt: not fitted, the full wall. */
  butt: { density: 1, tack: 0.4, shear: 1 },
} as const;

/** Share of its own closing that an outside bead of an open mitre still does when other faces already hold. */
export const OUTSIDE_SHARE = { insideOrBothFaces: 0.4, oneFace: 0.75 } as const;

/** Lozenging of an unstiffened tube beside the joint, in series with the ring: at wall slenderness bm/t = 15.667. */
export const SERIES = { mitreAboutMitre: 13.5, mitreAboutUp: 0.1, teeAboutChord: 6, slenderness: 15.667 } as const;

/** Angles and proportions within which the constants were fitted; outside, the nearest form is used and bands widen. */
export const FITTED = { cornerDeg: 90, toleranceDeg: 5, narrowestBranch: 0.76 } as const;

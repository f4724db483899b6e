/** What the joint tables were worked out for; outside, the nearest entry is taken and bands widen. */
export const TABLED = {
  mitreDeg: [60, 135],
  /** A branch stands square on its chord, within so many degrees. */
  squareDeg: 90,
  toleranceDeg: 5,
  /** Over its chord's width. */
  narrowestBranch: 0.4,
  /** Height over width. */
  heightOverWidth: [0.5, 2],
  /** Width over wall. */
  widthOverWall: [8, 45],
} as const;

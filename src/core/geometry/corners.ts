/** Corners anticlockwise seen from above: A bottom-left, B bottom-right, C top-right, D top-left. */
export const CORNERS = ["A", "B", "C", "D"] as const;
export type Corner = (typeof CORNERS)[number];

/** Sides in walking order. */
export const SIDES = ["AB", "BC", "CD", "DA"] as const;
export type Side = (typeof SIDES)[number];
export const DIAGONALS = ["AC", "BD"] as const;
export const SPANS = [...SIDES, ...DIAGONALS] as const;
/** Everything that is taped on a rectangle: four sides, two diagonals. */
export type Span = (typeof SPANS)[number];

/** @returns the two corners of a side or diagonal in the order of its name. */
export const ends = (span: string): [Corner, Corner] => [span[0] as Corner, span[1] as Corner];

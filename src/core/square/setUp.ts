import { CORNERS, type Corner, ends, SPANS, type Span } from "../geometry";
import { add, distance, type Vec2 } from "../numeric";
import { diagonalsApartMm, type Quad, squareDifferenceMm2 } from "./shape";

/** What to set up so that the frame ends where it should. */
export interface SetUp {
  corners: Quad;
  /** Target of each side and diagonal, mm. */
  targets: Record<Span, number>;
  /** AC less BD beyond what it shall be in the end: nought where a frame that leans as drawn is set up as drawn. */
  diagonalDifferenceMm: number;
  /** Target for the slide. */
  squareDifferenceMm2: number;
}

/**
 * Corners as they are set up: where they shall be in the end, and what they are set off by.
 * @param final wanted corners, mm. @param offsets of each corner: the opposite of what welding will move it by, mm.
 */
export function setUp(final: Quad, offsets: Record<Corner, Vec2>): SetUp {
  const corners = Object.fromEntries(CORNERS.map((c) => [c, add(final[c], offsets[c])])) as Quad;
  const targets = Object.fromEntries(
    SPANS.map((span) => {
      const [p, q] = ends(span);
      return [span, distance(corners[p], corners[q])];
    }),
  ) as Record<Span, number>;
  return {
    corners,
    targets,
    diagonalDifferenceMm: diagonalsApartMm(corners) - diagonalsApartMm(final),
    squareDifferenceMm2: squareDifferenceMm2(corners),
  };
}

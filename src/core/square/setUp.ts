import { CORNERS, type Corner, ends, SPANS, type Span } from "../frame";
import { distance, sub, type Vec2 } from "../numeric";
import { type Quad, squareDifferenceMm2 } from "./shape";

/** What to set up so that the frame ends where it should. */
export interface SetUp {
  corners: Quad;
  /** Target of each side and diagonal, mm. */
  targets: Record<Span, number>;
  diagonalDifferenceMm: number;
  /** Target for the slide. */
  squareDifferenceMm2: number;
}

/**
 * Set-up corner = wanted final corner minus predicted movement.
 * @param final wanted corners, mm. @param moves predicted movement of each corner by welding, mm.
 */
export function setUp(final: Quad, moves: Record<Corner, Vec2>): SetUp {
  const corners = Object.fromEntries(CORNERS.map((c) => [c, sub(final[c], moves[c])])) as Quad;
  const targets = Object.fromEntries(
    SPANS.map((span) => {
      const [p, q] = ends(span);
      return [span, distance(corners[p], corners[q])];
    }),
  ) as Record<Span, number>;
  return {
    corners,
    targets,
    diagonalDifferenceMm: targets.AC - targets.BD,
    squareDifferenceMm2: squareDifferenceMm2(corners),
  };
}

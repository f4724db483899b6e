import type { CutPiece } from "@/core/cut";
import { CORNERS, ends, type ResolvedFrame, SPANS, type Span } from "@/core/frame";
import type { SetUp } from "@/core/square";
import type { Quantity } from "./ReadingPad";

/** A reading of a span this far from nominal, mm, is asked about once: more than any frame pulls, less than a slip of a tape. */
const ASK_SPAN_MM = 8;
const ASK_HEIGHT_MM = 10;

const nominal = (frame: ResolvedFrame, span: Span): number => {
  const [p, q] = ends(span).map((c) => frame.corners[c]) as [{ x: number; y: number }, { x: number; y: number }];
  return Math.hypot(p.x - q.x, p.y - q.y);
};

/** Sides and diagonals in walking order. @param target what to set up to, or null for nominal. */
export const spanQuantities = (frame: ResolvedFrame, target: SetUp | null): Quantity[] =>
  SPANS.map((span) => ({
    name: span,
    say:
      span === "AC" || span === "BD"
        ? `Tape the diagonal from ${span[0]} to ${span[1]}`
        : `Tape side ${span}, outside corner to corner`,
    expectedMm: target?.targets[span] ?? nominal(frame, span),
    askBeyondMm: ASK_SPAN_MM,
  }));

/** Corner heights of the cold frame. */
export const heightQuantities = (): Quantity[] =>
  CORNERS.map((c) => ({
    name: `z${c}`,
    say: `Height of corner ${c}: 0 where it touches, the gap where it does not`,
    expectedMm: 0,
    askBeyondMm: ASK_HEIGHT_MM,
  }));

/** A piece this far from its target, mm, is asked about once. */
const ASK_PIECE_MM = 5;

/** Every piece of the cut list, long point to long point. */
export const pieceQuantities = (cut: readonly CutPiece[]): Quantity[] =>
  cut.flatMap((p) =>
    p.members.map((name) => ({
      name,
      say: p.cuts === "square" ? `Length of piece ${name}` : `Piece ${name}, long point to long point`,
      expectedMm: p.cutLongPointMm,
      askBeyondMm: ASK_PIECE_MM,
    })),
  );

import { fail, ok, type Result, stated, type UnitPreference } from "../units";
import type { CutPiece } from "./cutList";
import type { Stock } from "./stockSchema";

/** What bars are laid out by: of a piece of the frame, or of something else. */
export type BarPiece = Pick<
  CutPiece,
  "members" | "quantity" | "cutLongPointMm" | "cutShortPointMm" | "sawDeg" | "cuts" | "section"
>;

/** Most names of one line: `X1-1` and on. */
const nameOf = (id: string, quantity: number, i: number): string => (quantity === 1 ? id : `${id}-${i + 1}`);

/** Pieces of something else that are cut from the same bars. @param first the section of those of which nobody said. */
export const alsoPieces = (stock: Stock, first: string): BarPiece[] =>
  (stock.also ?? []).map((p) => ({
    members: Array.from({ length: p.quantity }, (_, i) => nameOf(p.id, p.quantity, i)),
    quantity: p.quantity,
    cutLongPointMm: p.length.mm,
    cutShortPointMm: p.length.mm,
    // How its ends are cut is words: each takes its whole length.
    sawDeg: [0, 0],
    cuts: "other",
    section: p.section ?? first,
  }));

/** Most kinds of them. */
export const MOST_ALSO = 60;

/** The next free name of another piece. */
export const freeAlso = (also: readonly { id: string }[]): string =>
  Array.from({ length: 99 }, (_, i) => `X${i + 1}`).find((id) => !also.some((p) => p.id === id)) ?? "";

/** A line of a list of pieces, in a unit of its own. */
export interface ListedPiece {
  name: string;
  length: number;
  quantity: number;
  /** How its ends are cut, in words. */
  ends: string;
}

/** A stock with the pieces of a list among those for something else. @param unitMm of the list's lengths. */
export function withListed(
  stock: Stock,
  pieces: readonly ListedPiece[],
  unitMm: number,
  units: UnitPreference,
): Result<Stock> {
  const also = [...(stock.also ?? [])];
  if (also.length + pieces.length > MOST_ALSO)
    return fail(
      `At most ${MOST_ALSO} kinds of other pieces stand on a cut list; these would be ${also.length + pieces.length}.`,
    );
  for (const { name, length, quantity, ends } of pieces)
    also.push({ id: freeAlso(also), name, length: stated(length * unitMm, units), quantity, ends });
  return ok({ ...stock, also });
}

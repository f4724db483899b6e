/** A place on the frame: a corner `A`, a joint `M1AB`. */
const PLACE = "[A-Z][A-Z0-9]{0,9}";

/**
 * What a reading may be of. Places and members by name: a side or diagonal `AB`, a piece or rest; `P-Q` a distance, `P^Q^R` the
 * angle at Q, `P|A-B` how far P lies off the line from A to B, to the
 * left of it. With a small letter before it: height z, flush step f, gap at a
 * joint g, straightness s of a member, edge e laid across, level l along a member; r a rock, of the free frame or with one
 * corner held.
 */
export const WHAT = new RegExp(
  `^(?:r[A-D]?|[zfgsel]?${PLACE}|${PLACE}-${PLACE}|${PLACE}\\^${PLACE}\\^${PLACE}|${PLACE}\\|${PLACE}-${PLACE})$`,
);

/** A quantity by its parts. */
export type Quantity =
  | { kind: "name"; name: string }
  | { kind: "distance"; from: string; to: string }
  | { kind: "angle"; from: string; at: string; to: string }
  | { kind: "offset"; of: string; from: string; to: string }
  | { kind: "height" | "flush" | "gap" | "straightness" | "edge" | "level"; name: string }
  /** `held`: the corner that was pressed down; null for the free frame. */
  | { kind: "rock"; held: string | null };

const LETTERS = { z: "height", f: "flush", g: "gap", s: "straightness", e: "edge", l: "level" } as const;

/** @param what a name that `WHAT` takes. */
export function quantityOf(what: string): Quantity {
  const letter = LETTERS[what[0] as keyof typeof LETTERS];
  if (letter) return { kind: letter, name: what.slice(1) };
  if (what[0] === "r") return { kind: "rock", held: what[1] ?? null };
  const angle = what.split("^");
  if (angle.length === 3)
    return { kind: "angle", from: angle[0] as string, at: angle[1] as string, to: angle[2] as string };
  const [of, line] = what.split("|");
  if (line !== undefined) {
    const [from, to] = line.split("-") as [string, string];
    return { kind: "offset", of: of as string, from, to };
  }
  const [from, to] = what.split("-") as [string, string | undefined];
  if (to !== undefined) return { kind: "distance", from, to };
  return { kind: "name", name: what };
}

/** Whether a quantity is read as a slope or an angle, not as a length. */
export const isSlant = (what: string): boolean => ["angle", "level"].includes(quantityOf(what).kind);

import type { RemedyId } from "../check";
import type { FaceLine, Structure } from "../frame";
import { weldWords } from "../plan";
import { formatSmall, type Length, type UnitPreference } from "../units";
import type { CorrectedEntry } from "./entrySchema";

/** A remedy as one says it, without its amount. */
export function remedyName(id: RemedyId, structure: Structure | null): string {
  const seam = (at: { joint: string; line: FaceLine }): string =>
    structure
      ? weldWords(structure, { do: "bead", joint: at.joint, line: at.line })
      : `bead at ${at.joint}, ${at.line}`;
  switch (id.do) {
    case "rack":
      return `Pull the long diagonal ${id.long} in, past yield`;
    case "untwist":
      return `Press the high corners ${id.high[0]} and ${id.high[1]} down, past yield`;
    case "spread":
      return id.way === "apart"
        ? `Push the mouth ${id.from} to ${id.to} apart, past yield`
        : `Draw the mouth ${id.from} to ${id.to} together, past yield`;
    case "legs":
      return id.way === "apart"
        ? `Push the feet ${id.from} and ${id.to} apart, past yield`
        : `Draw the feet ${id.from} and ${id.to} together, past yield`;
    case "swing":
      return id.way === "toward"
        ? `Draw ${id.place} across toward ${id.by}, past yield`
        : `Push ${id.place} across, away from ${id.by}, past yield`;
    case "press":
      return `Press the bow out of ${id.member}, past yield`;
    case "bead":
      return `One more ${seam(id)}`;
    case "peen":
      return `Peen the ${seam(id)}`;
    case "recut":
      return `Cut ${id.joint} but for its inside, pull ${id.long} in, weld it again`;
    case "shim":
      return "Shims under its feet";
    case "grind":
      return `Grind the proud side at ${id.joint} down`;
    case "trim":
      return `Saw the end at ${id.place} off to a mark`;
    case "draw":
      return `Wedges of heat near the root of ${id.member}, on the side to which ${id.place} shall go`;
    case "wedges":
      return `Wedges of heat on the long side of ${id.member}`;
    case "spots":
      return `Spots of heat on the long side of ${id.member}`;
    case "lines":
      return `Beads across the long side of ${id.member}`;
  }
}

const isLength = (amount: CorrectedEntry["amount"]): amount is Length => typeof amount === "object";

/** What was done, in words. */
export function correctedWords(
  { remedy, amount }: Pick<CorrectedEntry, "remedy" | "amount">,
  structure: Structure | null,
  units: UnitPreference,
): string {
  const much = isLength(amount)
    ? `by ${formatSmall(amount.mm, units, { decimals: units === "mm" ? 1 : 0 })}`
    : `${amount}`;
  return `Corrected: ${remedyName(remedy, structure)}, ${much}`;
}

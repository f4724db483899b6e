import { type BareUnit, type Length, ok, type Result, readLength } from "../units";

/** What goes into a gap, and what of the next leaf or stack does not. */
interface Leaves {
  goes: Length;
  /** Null when only what goes was given. */
  notAt: Length | null;
}

const NOT = /[,;]?\s*\b(?:but\s+)?(?:does\s*n[o']t|not|no[\s-]go)(?:\s+(?:go|goes|at))*\b\s*/i;
const GOES = /^\s*(?:goes|go)\b(?:\s+at)?\s*/i;
/** A unit after the last number holds for the number before the word too: `goes 55, not 60 thou`. */
const LAST_UNIT = /\d\s*("|''|[a-zµ]+)\s*$/i;

/**
 * Reads what leaves say of a gap: `goes 55, not 60 thou`, `0.5 + 0.05 not 0.6`, or just what goes.
 * @param text as typed. @param bare what a number without a unit means.
 */
export function readLeaves(text: string, bare: BareUnit): Result<Leaves> {
  const [left = "", right, ...more] = text.split(NOT);
  const first = left.replace(GOES, "").trim();
  if (right === undefined || more.length > 0) {
    const goes = readLength(first, bare);
    return goes.ok ? ok({ goes: goes.value, notAt: null }) : goes;
  }
  const unit = /[a-zµ"']/i.test(first) ? null : LAST_UNIT.exec(right)?.[1];
  const goes = readLength(unit ? `${first} ${unit}` : first, bare);
  if (!goes.ok) return goes;
  const notAt = readLength(right.trim(), bare);
  return notAt.ok ? ok({ goes: goes.value, notAt: notAt.value }) : notAt;
}

const OTHERS = ["mm", "thou", "in"] as const;

/**
 * The units in which a number that was typed bare would be what it should be about: leaves marked in millimetres read in an
 * inch job, thousandths typed as millimetres.
 * @param fits whether a length could be it. @returns lengths as they would have been typed, likeliest first.
 */
export function meantOtherwise(text: string, bare: BareUnit, fits: (mm: number) => boolean): Length[] {
  if (/[a-zµ"'°%]/i.test(text)) return [];
  return OTHERS.filter((unit) => unit !== bare).flatMap((unit) => {
    const read = readLength(`${text.trim()} ${unit}`, bare);
    return read.ok && fits(read.value.mm) ? [read.value] : [];
  });
}

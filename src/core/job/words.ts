import type { RestAdvice } from "../check";
import type { CutPiece } from "../cut";
import { sectionWords } from "../frame";
import type { FourCorners } from "../geometry";
import { norm } from "../numeric";
import type { Prediction } from "../shrink";
import { bestFit, type Places, REAL_CORNERS_MM, type SquareCheck, type Tap, tapedTo } from "../square";
import {
  type Estimate,
  fixed,
  formatLength,
  formatSmall,
  leavesWords,
  roundedLength,
  type UnitPreference,
} from "../units";
import { builtOf } from "./built";
import { tapedPairs } from "./coldSet";
import { type FrameRound, wantedPlaces } from "./frameRound";
import type { MisreadHelp } from "./misreadHelp";
import type { Plan } from "./planSchema";

/** What the diagonals read when it is racked to its target. */
export function diagonalsThenWords({ AC, BD }: Record<"AC" | "BD", number>, units: UnitPreference): string {
  const [ac, bd] = [AC, BD].map((mm) => formatLength(mm, units, { decimals: 1 }).text);
  return ac === bd ? `both diagonals then read ${ac}` : `AC then reads ${ac}, BD ${bd}`;
}

/** Decimals of a millimetre that a prediction is told with: hundredths of a mm, or thousandths of an inch. */
export const predictedDecimals = (u: UnitPreference): number => (u === "mm" ? 2 : 1);

/** An estimate with its band: `0.60 mm (0.30–1.10)`, or `−0.21 mm (−1.15 to 0.74)` when it may be negative. */
export const bandWords = (e: Estimate, u: UnitPreference, withUnit = true): string => {
  const decimals = predictedDecimals(u);
  const bare = (mm: number): string => formatSmall(mm, u, { decimals, bare: true });
  return `${withUnit ? formatSmall(e.value, u, { decimals }) : bare(e.value)} (${bare(e.low)}${e.low < 0 ? " to " : "–"}${bare(e.high)})`;
};

/** A value with its 95 % uncertainty: `0.60 ± 0.20 mm`. @param value, @param u mm. */
export const plusMinus = (value: number, u: number, units: UnitPreference, signed = false): string =>
  `${formatSmall(value, units, { decimals: 2, bare: true, signed })} ± ${formatSmall(2 * u, units, { decimals: 2 })}`;

/** What to do about the lean, then why. */
interface NudgeWords {
  /** `leave` when the tape cannot tell it from square. */
  act: "slide" | "leave" | "measure";
  say: string;
  why: string;
}

/** What of a round the words of a nudge are made from. */
type Nudged = Pick<FrameRound, "square" | "impossible"> & {
  help?: MisreadHelp | null;
  means?: FrameRound["means"];
};

/** A push of more than this is asked about first where nothing checks the readings: tapes are misread by 5 mm and more. */
/** Off the drawing by less nobody sets a frame up, mm: a tape does not tell it. */
const TOLD_MM = 0.1;
const LARGE_PUSH_MM = 4;

/** What is not checked by any other reading, and what would check it; null where something does. */
function unchecked(round: Nudged): { why: string; ask: string } | null {
  const { square, means } = round;
  const twice = ["AC", "BD"].every((d) => (means?.get(d)?.count ?? 1) > 1);
  if (!square || twice) return null;
  if (square.bySides)
    return {
      why: `By the two diagonals alone, the sides ${square.fit.readings.some((r) => r.id.endsWith("as cut")) ? "as they were cut" : "as drawn"}: nothing checks the diagonals yet.`,
      ask: square.missing.slice(0, 3).join(", "),
    };
  return square.fit.status === "ok_no_check"
    ? { why: "Nothing checks these readings: a misread tape would pass unseen.", ask: square.missing.join(", ") }
    : null;
}

/** The nudge of a round in words. */
export function nudgeWords(round: Nudged, u: UnitPreference): NudgeWords {
  const best = round.square?.nudges[0];
  if (round.impossible)
    return { act: "measure", say: `Read ${round.impossible.span} again.`, why: round.impossible.message };
  if (!round.square || !best) {
    const missing = round.square?.missing ?? [];
    return {
      act: "measure",
      say: missing.length > 0 ? `Read ${missing.join(", ")}.` : "Read the four sides and both diagonals.",
      why: "Four sides alone say nothing about square. One diagonal more fixes the shape; both show a misread tape.",
    };
  }
  if (round.square.fit.agree === false)
    return {
      act: "measure",
      say: "Measure again before moving anything.",
      why: round.square.bySides
        ? `AC and BD do not go with the sides ${unchecked(round)?.why.includes("cut") ? "as cut" : "as drawn"}: a tape is misread, or the sides are another length. Read ${round.square.missing.join(", ")}.`
        : misreadWords(round.square, u, round.help),
    };
  const open = unchecked(round);
  if (best.shiftMm <= 2 * best.uMm)
    return {
      act: "leave",
      say: "Leave it.",
      why: `The slide would be ${formatSmall(best.shiftMm, u, { decimals: 2 })}, no more than the tape can tell (± ${formatSmall(2 * best.uMm, u, { decimals: 2 })}).${open ? ` ${open.why}` : ""}`,
    };
  const push = `side ${best.side}: push corner ${best.push} toward ${best.towards} by ${formatSmall(best.shiftMm, u)}`;
  if (open && best.shiftMm > LARGE_PUSH_MM)
    return {
      act: "measure",
      say: `Is it so far off? Read ${open.ask || "both diagonals again"} first.`,
      why: `${open.why} If they are right, slide ${push} (± ${formatSmall(2 * best.uMm, u)}).`,
    };
  return {
    act: "slide",
    say: `Slide ${push}.`,
    why: `${open ? `${open.why} ` : ""}± ${formatSmall(2 * best.uMm, u)} by the tape. Half the difference of the diagonals would be ${formatSmall(best.habitMm, u)} and leave ${Math.round(100 * best.habitLeaves)} % of the error.`,
  };
}

const HOLDS = ["slides", "hinges", "strap"] as const;
/** How a frame is brought square: a loose side slides, tacked corners hinge, or a strap pulls the long diagonal. */
export type Hold = (typeof HOLDS)[number];

/**
 * The same by the way in which the frame is held.
 * @param targetMm2 AC² − BD² that is wanted, mm2.
 */
export function heldWords(round: Nudged, hold: Hold, targetMm2: number, u: UnitPreference): NudgeWords {
  const slide = nudgeWords(round, u);
  const { square } = round;
  if (slide.act !== "slide" || hold === "slides" || !square?.corners) return slide;
  if (hold === "hinges") {
    if (!square.rack)
      return {
        act: "measure",
        say: "It cannot be racked that far.",
        why: "A hinged frame turns its corners only so far: cut a tack, or let a side slide.",
      };
    const { cAlongMm, dAlongMm, diagonalsMm } = square.rack;
    const toD = cAlongMm < 0;
    return {
      act: "slide",
      say: `Hold AB. Push corner ${toD ? "C toward D" : "D toward C"} by ${formatSmall(Math.abs(cAlongMm), u, { decimals: 1 })}.`,
      why: `The tacks hinge: D moves along by ${formatSmall(Math.abs(dAlongMm), u, { decimals: 1 })} too, and ${diagonalsThenWords(diagonalsMm, u)}.`,
    };
  }
  const { A, B, C, D } = square.corners;
  const [ac, bd] = [Math.hypot(C.x - A.x, C.y - A.y), Math.hypot(D.x - B.x, D.y - B.y)];
  const sum = ac ** 2 + bd ** 2;
  const long = ac ** 2 - bd ** 2 > targetMm2 ? "AC" : "BD";
  const until = Math.sqrt((sum + (long === "AC" ? targetMm2 : -targetMm2)) / 2);
  return {
    act: "slide",
    say: `Put a strap across ${long} and pull until it reads ${formatLength(until, u, { decimals: 1 }).text}.`,
    why: `${long} is the long one, now ${formatLength(long === "AC" ? ac : bd, u, { decimals: 1 }).text}. Stand clear of the strap; lock the corners before it is let go, for it springs back.`,
  };
}

/** What the places of a round are held against. */
export const laidOver = ({ isToSetUp }: Pick<FrameRound, "isToSetUp">): string =>
  isToSetUp ? "where it is set up for what the weld takes" : "the drawing";

/** What a frame without corners A to D is set up to, where that is off the drawing; null where the tape cannot tell it. */
export function setUpWords(places: Places, prediction: Prediction, units: UnitPreference): string | null {
  const wanted = wantedPlaces(places, prediction.setUp.offsetsMm);
  const { moves } = bestFit(wanted, tapedTo(places));
  const off = Object.entries(moves).map(([place, move]) => ({ place, mm: norm(move) }));
  const [far] = off.sort((a, b) => b.mm - a.mm);
  return far && far.mm >= TOLD_MM
    ? `Set up for what the weld takes: laid over the drawing, ${far.place} lies ${formatSmall(far.mm, units)} off it, the others less.`
    : null;
}

/**
 * What to do next on a frame with corners: once it is square, as far as the tape can tell, the place beyond them that is farthest off.
 * @param words what to do about squareness.
 */
export function beyondWords(
  words: NudgeWords,
  round: FrameRound | null,
  { beyond }: Pick<Places, "beyond">,
  units: UnitPreference,
): NudgeWords {
  const general = round?.general;
  if (words.act !== "leave" || !round || !general || general.fit.agree === false) return words;
  const unread = beyond.filter((place) => !general.fit.points[place]);
  if (unread.length > 0)
    return {
      act: "measure",
      say: `Read the ways to ${unread.join(" and ")}.`,
      why: "It is square as far as the tape can tell; what lies beyond its corners can still be off.",
    };
  const tap = general.taps.find(({ place }) => beyond.includes(place));
  if (!tap) return words;
  return {
    act: "slide",
    say: `Tap ${tapWords(tap, units)}.`,
    why: `It is square as far as the tape can tell. Laid over ${laidOver(round)} by its corners, this place is off.`,
  };
}

/** Whether more is taped than fixes the shape: two distances for every place, less the three by which the whole may lie anyhow. */
const isChecked = (places: Places): boolean => tapedPairs(places).length > 2 * Object.keys(places.nodes).length - 3;

/** What to do next on a frame without corners A to D. @param places whose distances are asked for. */
export function placeWords(round: FrameRound | null, places: Places, units: UnitPreference): NudgeWords {
  const farthest = round?.general?.farthest;
  if (!round?.general || !farthest)
    return {
      act: "measure",
      say: "Tape the distances below.",
      why: isChecked(places)
        ? "Between marked places, along the members and across: some more than it takes to fix the shape, so that a misread tape shows."
        : "Between marked places: as many as it takes to fix the shape and no more, so a misread tape shows nowhere. Read each of them twice.",
    };
  const { general } = round;
  if (general.fit.agree === false)
    return {
      act: "measure",
      say: "Measure again before moving anything.",
      why: misreadWords(general, units, round?.help ?? null),
    };
  const [first] = general.taps;
  if (first && general.fit.status === "ok_no_check" && first.mm > LARGE_PUSH_MM)
    return {
      act: "measure",
      say: "Is it so far off? Read one distance more first.",
      why: `Nothing checks these readings: a misread tape would pass unseen. If they are right, tap ${tapWords(first, units)}.`,
    };
  if (!first && farthest.value > 2 * farthest.u)
    return {
      act: "leave",
      say: `No tap mends it: ${farthest.place} is ${plusMinus(farthest.value, farthest.u, units)} off.`,
      why: "What would bring it there stretches or bends a tube. A piece is too long or too short, or a gap is open: measure the pieces.",
    };
  if (!first) return { act: "leave", say: "Leave it.", why: "No place is farther off than the tape can tell." };
  return {
    act: "slide",
    say: `Tap ${tapWords(first, units)}.`,
    why: `Laid over ${laidOver(round)} as well as it goes, this place is farthest off.`,
  };
}

/** What to say of a frame in which nothing slides or hinges any more; null where there is nothing to move anyway. */
export function lockedWords(round: FrameRound | null, move: NudgeWords): NudgeWords {
  return round?.locked && move.act === "slide"
    ? {
        act: "leave",
        say: "It is locked: nothing slides or hinges any more.",
        why: "What it is off now is judged cold, and then corrected or agreed on. Pushing it only bends tubes that spring back.",
      }
    : move;
}

/** Twist of four corners in words. */
export function twistWords({ twistMm, uTwistMm, highPair }: FourCorners, u: UnitPreference): string {
  if (Math.abs(twistMm) <= 2 * uTwistMm)
    return `Twist ${plusMinus(Math.abs(twistMm), uTwistMm, u)}: no more than the readings can tell.`;
  const [high, low] = highPair === "AC" ? ["A and C", "B and D"] : ["B and D", "A and C"];
  return `Twist ${plusMinus(Math.abs(twistMm), uTwistMm, u)}: ${high} stand high against ${low}, and on three corners the fourth is off by as much. Diagonals cannot show it.`;
}

/** A tap of any frame, in words. */
export const tapWords = (tap: Tap, u: UnitPreference): string =>
  `${tap.place}: ${tap.toward ? `${tap.toward.away ? "away from" : "toward"} ${tap.toward.place} ` : ""}by ${formatSmall(tap.mm, u, { decimals: 1 })} ± ${formatSmall(2 * tap.uMm, u, { decimals: 1 })}`;

/** Whether a reading looks misread; never names one that the numbers cannot name. */
export function misreadWords(
  square: Pick<SquareCheck, "fit">,
  u: UnitPreference,
  help: MisreadHelp | null = null,
): string {
  const { fit } = square;
  const names = fit.diagnosis.candidates.map((c) => c.id).join(", ");
  if (fit.status === "undetermined") return "Too few readings to check each other.";
  if (fit.status === "ok_no_check") return "One reading short of a check: a misread tape could not be noticed.";
  if (fit.diagnosis.status === "located") return `${names} looks misread: read it again.`;
  if (fit.diagnosis.status === "detected_not_located") {
    if (help?.byCut)
      return `${help.byCut.id} looks misread by about ${formatSmall(Math.abs(help.byCut.slip), u)}: the tapes alone could not say so, the pieces as cut do. Read it again.`;
    const ask =
      help && help.ask.length > 0
        ? ` Or measure one more thing: ${help.ask.join(", and ")}; then the numbers can say which.`
        : "";
    const first = fit.diagnosis.candidates[0];
    const size = first ? ` by about ${formatSmall(Math.abs(first.slip), u)} if it is the one` : "";
    return `One of ${names} is misread, and these readings cannot say which. Read both diagonals again; ${first?.id ?? "one"} would be off${size}.${ask}`;
  }
  if (fit.agree === false)
    return "The readings disagree a little more than the tape should allow. Read the diagonals again.";
  const sizes = (of: typeof fit.readings): number =>
    Math.max(0, ...of.filter((r) => r.controlled).map((r) => r.detectable));
  const diagonal = sizes(fit.readings.filter((r) => r.id === "AC" || r.id === "BD"));
  const any = sizes(fit.readings.filter((r) => r.kind !== "angle"));
  if (any === 0) return "No sign of a misread tape.";
  const real = `Corners are no points: each reading is allowed ± ${formatSmall(2 * REAL_CORNERS_MM, u)} for radii and steps.`;
  return diagonal > 0
    ? `No sign of a misread tape. A slip on a diagonal shows from about ${formatSmall(diagonal, u)}. ${real}`
    : `No sign of a misread tape. A slip shows from about ${formatSmall(any, u)}, wherever it is. ${real}`;
}

/** What to put under a rest, or how to turn its foot. */
export function restWords(rest: RestAdvice, u: UnitPreference): string {
  if (rest.fixed) return "no foot here";
  if (rest.raiseMm === null) return "not read";
  if (rest.raiseMm < 0)
    return `${formatSmall(-rest.raiseMm, u, { decimals: 2 })} too high: grind, or choose another way of shimming`;
  if (rest.stack)
    return rest.stack.leavesMm.length > 0
      ? `${formatSmall(rest.raiseMm, u, { decimals: 2 })}: leaves ${leavesWords(rest.stack.leavesMm, u)}`
      : "leave it";
  if (rest.foot && rest.foot.turns > 0.01)
    return `${formatSmall(rest.raiseMm, u, { decimals: 2 })}: ${fixed(rest.foot.turns, 2)} turns (${fixed(rest.foot.flats, 1)} flats) ${rest.foot.direction}`;
  return "leave it";
}

/** What the stock of a piece is called. @param piece of the plan's cut list. */
export function pieceSection(plan: Plan, piece: Pick<CutPiece, "section">): string {
  const { members } = builtOf(plan);
  return members ? sectionWords(members, piece.section) : "";
}

/** What is added to a piece for the weld, in words: a dash while that is not known. */
export const addedWords = (piece: Pick<CutPiece, "fixed" | "toGap" | "allowanceMm">, units: UnitPreference): string =>
  piece.toGap
    ? "to its gap"
    : piece.fixed
      ? "must not move"
      : piece.allowanceMm
        ? bandWords(piece.allowanceMm, units)
        : "–";

/** The same where it stands in a sentence. */
export const addedInWords = (piece: Pick<CutPiece, "fixed" | "toGap" | "allowanceMm">, units: UnitPreference): string =>
  `${piece.toGap || piece.fixed ? "" : "added "}${addedWords(piece, units)}`;

/** Pieces that differ by less are alike, mm: what a tape is read to (own judgement). */
const ALIKE_MM = 0.5;

/**
 * What comes of a piece that is cut to its gap, in words: against what is worked out for it, which of its neighbours come in or go out by that
 * unless they are brought there first.
 * @param between the two that it goes between.
 */
export function toGapWords(
  { toGap, cutLongPointMm }: Pick<CutPiece, "toGap" | "cutLongPointMm">,
  between: readonly [string, string],
  units: UnitPreference,
): string | null {
  if (!toGap || toGap.workedOutMm === null) return null;
  const off = toGap.workedOutMm - cutLongPointMm;
  const size = (mm: number): string => formatSmall(Math.abs(mm), units, { decimals: 1 });
  const [p, q] = between;
  if (Math.abs(off) < ALIKE_MM) return `What is worked out for it is the same to ${size(ALIKE_MM)}.`;
  const there = roundedLength(toGap.gapMm + off, units);
  return off > 0
    ? `What is worked out for it is ${size(off)} longer: with it as it is, ${p} and ${q} end so much nearer to each other than is aimed at. Spread them to ${there} first, and cut it to that.`
    : `What is worked out for it is ${size(off)} shorter: with it as it is, ${p} and ${q} end so much farther apart than is aimed at. Draw them together to ${there} first, and cut it to that.`;
}

/**
 * What a piece is cut to, in words. While what the weld takes is being worked out it is not known; where that cannot be
 * worked out the drawing's length is said as such.
 * @param waits whether it is being worked out.
 */
export const cutToWords = (
  piece: Pick<CutPiece, "allowanceMm" | "cutLongPointMm">,
  units: UnitPreference,
  waits: boolean,
): string =>
  piece.allowanceMm
    ? roundedLength(piece.cutLongPointMm, units)
    : waits
      ? "–"
      : `${roundedLength(piece.cutLongPointMm, units)}, nothing added for the weld`;

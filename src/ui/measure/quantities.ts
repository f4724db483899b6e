import type { CutPiece } from "@/core/cut";
import type { Quadrilateral } from "@/core/frame";
import { ends, SPANS, type Span } from "@/core/geometry";
import type { InstrumentKind } from "@/core/instruments";
import { type FrameRound, type How, type QuantityId, quantityKey, spanId } from "@/core/job";
import { distance } from "@/core/numeric";
import { footWayMm, ideal, type Places, type Reading, type SetUp, tapedTo } from "@/core/square";
import { bareSlope, formatLength, type SlantUnit, type UnitPreference } from "@/core/units";

/** One quantity to read. */
export interface Quantity {
  /** What is stored. */
  what: QuantityId;
  /** One word for it: tells it from the same thing read another way. */
  key: string;
  /** How a rest is read, in a survey that mixes its methods. */
  how?: How;
  /** Said beside its name in the list, where one thing is read in several ways. */
  short?: string;
  /** What to do, as one would say it: "Tape side AB". */
  say: string;
  /** What it should be about, mm (of a slant: in its bare unit); null when nothing is known. */
  expected: number | null;
  /** Where that comes from: the drawing, or what the other readings imply. */
  expectedBy?: "what it should be" | "what the others imply";
  /** Further off than this is asked about once. */
  askBeyond: number;
  /** Read as a slope or an angle: what a bare number means. */
  slant?: SlantUnit;
  /** The ends of what a slope is read along: where one comes from, and where it goes up to when it is more than nought. */
  ends?: readonly [from: string, to: string];
  /** Instruments that read it; any when left out. */
  kinds?: readonly InstrumentKind[];
}

/** A reading of a span this far from nominal, mm, is asked about once: more than any frame pulls, less than a slip of a tape. */
const ASK_SPAN_MM = 8;
const ASK_HEIGHT_MM = 10;
/** This many standard uncertainties from what the others imply is asked about, and never less than that many mm. */
const ASK_SIGMAS = 6;
const ASK_IMPLIED_MM = 4;

/** The tape that one begins with: in the system that one works in. */
export const usualTape = (units: UnitPreference): string => (units === "mm" ? "tape-ii" : "tape-inch-32");

export const LENGTH_KINDS: readonly InstrumentKind[] = ["tape", "rule", "calliper"];
export const HEIGHT_KINDS: readonly InstrumentKind[] = [
  "height gauge",
  "feeler",
  "optical level",
  "surface plate",
  "straightedge",
  "string line",
  "rule",
  "calliper",
];
const GAP_KINDS: readonly InstrumentKind[] = [
  "feeler",
  "straightedge",
  "rule",
  "calliper",
  "height gauge",
  "string line",
];
export const SLOPE_KINDS: readonly InstrumentKind[] = ["spirit level", "angle gauge"];

const nominal = ({ corners }: Pick<Quadrilateral, "corners">, span: Span): number => {
  const [p, q] = ends(span);
  return distance(corners[p], corners[q]);
};

const of = (what: QuantityId): Pick<Quantity, "what" | "key"> => ({ what, key: quantityKey(what) });

/** What the readings that stand imply of one that is not read yet, from their fit; null when they do not fix it. */
function implied(what: QuantityId, round: FrameRound | null): { mm: number; u: number } | null {
  const fit = round?.square && !round.square.bySides ? round.square.fit : round?.general?.fit;
  const key = quantityKey(what);
  if (!fit || fit.status === "undetermined" || fit.agree === false || fit.readings.some((r) => r.id === key))
    return null;
  if (what.kind !== "distance") return null;
  const { from, to } = what;
  if (!fit.points[from] || !fit.points[to]) return null;
  const length = (p: typeof fit.points): number =>
    Math.hypot((p[to]?.x ?? 0) - (p[from]?.x ?? 0), (p[to]?.y ?? 0) - (p[from]?.y ?? 0));
  return { mm: length(fit.points), u: fit.uOf(length) };
}

function expecting(
  what: QuantityId,
  drawn: number,
  round: FrameRound | null,
): Pick<Quantity, "expected" | "expectedBy" | "askBeyond"> {
  const by = implied(what, round);
  return by
    ? { expected: by.mm, expectedBy: "what the others imply", askBeyond: Math.max(ASK_IMPLIED_MM, ASK_SIGMAS * by.u) }
    : { expected: drawn, expectedBy: "what it should be", askBeyond: ASK_SPAN_MM };
}

/** How a side or diagonal is taped. Of posts that run through it says at which of their rails. */
function spanWords(span: Span, { sides, posts }: Pick<Quadrilateral, "sides" | "posts">): string {
  const over = ends(span).some((c) => posts[c]);
  if (span === "AC" || span === "BD")
    return `Tape the diagonal from ${span[0]} to ${span[1]}${over ? `, over the posts, level with ${sides.AB}` : ""}`;
  return `Tape side ${span}, ${over ? `over the posts along ${sides[span]}` : "outside corner to corner"}`;
}

/** Sides and diagonals in walking order. @param target what to set up to, or null for nominal. */
export const spanQuantities = (
  quad: Pick<Quadrilateral, "corners" | "sides" | "posts">,
  target: SetUp | null,
  round: FrameRound | null = null,
): Quantity[] =>
  SPANS.map((span) => ({
    ...of(spanId(span)),
    say: spanWords(span, quad),
    kinds: LENGTH_KINDS,
    ...expecting(spanId(span), target?.targets[span] ?? nominal(quad, span), round),
  }));

const MARKS: Record<string, string> = {
  "outside corner": "outside corners",
  "on the outside, at the middle of the branch": "marks on the outside, at the middle of the branch",
  "where the centre lines cross": "marks where the centre lines cross",
  "at its free end, on the centre line": "marks on the centre lines",
};

/** Any other quantity of a frame. @returns null for one that this frame has not. */
export function frameQuantity(
  q: QuantityId,
  places: Places,
  round: FrameRound | null,
  units: UnitPreference = "mm",
): Quantity | null {
  const id = quantityKey(q);
  const all = tapedTo(places);
  const has = (...names: string[]): boolean => names.every((n) => all[n]);
  const drawn = (r: Reading): number => {
    const made = ideal(r, all);
    return made.kind === "angle" ? (made.valueRad * 180) / Math.PI : made.valueMm;
  };
  switch (q.kind) {
    case "distance": {
      const feetMm = footWayMm(places.feet, q.from, q.to);
      if (feetMm !== null && !has(q.from, q.to))
        return {
          ...of(q),
          say: `Tape between the feet, from ${q.from} to ${q.to}, ${MARKS["at its free end, on the centre line"]}`,
          kinds: LENGTH_KINDS,
          expected: feetMm,
          expectedBy: "what it should be",
          askBeyond: ASK_SPAN_MM,
        };
      if (!has(q.from, q.to)) return null;
      const off = [q.from, q.to].some((n) => places.points[n]);
      const mark =
        MARKS[places.mark[q.from] === "outside corner" ? (places.mark[q.to] ?? "") : (places.mark[q.from] ?? "")];
      const mm = drawn({ kind: "distance", id, from: q.from, to: q.to, valueMm: 0, uMm: 1 });
      // From an outside corner to what lies beyond them: each has a mark of its own.
      const isBeyond = places.mark[q.from] === "outside corner" && places.beyond.includes(q.to);
      return {
        ...of(q),
        say: isBeyond
          ? `Tape from outside corner ${q.from} to ${q.to}, ${places.mark[q.to]}`
          : `Tape from ${q.from} to ${q.to}${off ? "" : `, ${mark}`}`,
        kinds: LENGTH_KINDS,
        ...expecting(q, mm, round),
      };
    }
    case "angle": {
      if (!has(q.from, q.at, q.to)) return null;
      return {
        ...of(q),
        say: `Angle at ${q.at}, between ${q.from} and ${q.to}`,
        kinds: ["angle gauge"],
        slant: "deg",
        expected: drawn({ kind: "angle", id, from: q.from, at: q.at, to: q.to, valueRad: 0, uRad: 1 }),
        askBeyond: 2,
      };
    }
    case "offset":
      return has(q.of, q.from, q.to)
        ? {
            ...of(q),
            say: `How far ${q.of} lies off the line from ${q.from} to ${q.to} (string or long edge): left +, right −, looking along it`,
            kinds: [...LENGTH_KINDS, "string line"],
            expected: drawn({ kind: "offset", id, of: q.of, from: q.from, to: q.to, valueMm: 0, uMm: 1 }),
            askBeyond: ASK_SPAN_MM,
          }
        : null;
    case "height":
      return heightQuantity(q.at, places, units);
    case "flush":
      return {
        ...of(q),
        say: `Flush step at joint ${q.at}: how far one face stands over the other`,
        kinds: GAP_KINDS,
        expected: 0,
        askBeyond: 3,
      };
    case "gap":
      return { ...of(q), say: `Widest gap at joint ${q.at}`, kinds: GAP_KINDS, expected: 0, askBeyond: 4 };
    case "straightness":
      return {
        ...of(q),
        say: `Gap under a straightedge laid along ${q.at}, widest place`,
        kinds: GAP_KINDS,
        expected: 0,
        askBeyond: 5,
      };
    case "edge":
      return {
        ...of(q),
        say: `Gap at the middle under an edge laid across ${q.at}: hollow +, crown −`,
        kinds: GAP_KINDS,
        expected: 0,
        askBeyond: 5,
      };
    case "level": {
      const at = places.endsOf[q.at];
      if (!at) return null;
      return {
        ...of(q),
        say: `Slope along ${q.at}, more than nought up to ${at[1]}`,
        kinds: SLOPE_KINDS,
        slant: bareSlope(units),
        ends: at,
        expected: 0,
        askBeyond: 5,
      };
    }
    case "rock":
      return {
        ...of(q),
        say: q.held
          ? `Gap that opens opposite with corner ${q.held} held down`
          : "Gap under the free corner when it rocks",
        kinds: GAP_KINDS,
        expected: 0,
        askBeyond: 8,
      };
    case "piece":
    case "rest":
      return null;
  }
}

/** Undersides that are drawn this much higher than the lowest are said to be, mm. */
const DRAWN_HIGHER_MM = 0.05;

function heightQuantity(place: string, { middles, heights }: Places, units: UnitPreference): Quantity {
  const middleOf = middles[place]?.member;
  const drawnMm = heights[place] ?? 0;
  const drawn =
    drawnMm > DRAWN_HIGHER_MM
      ? `; its underside is drawn ${formatLength(drawnMm, units, { trim: true }).text} higher than the lowest, and that is taken off`
      : "";
  return {
    ...of({ kind: "height", at: place }),
    say: `Height of ${middleOf ? `the middle of ${middleOf}` : `${place.length === 1 ? "corner " : ""}${place}`}: 0 where it touches, the gap where it does not${drawn}`,
    kinds: HEIGHT_KINDS,
    expected: drawnMm,
    askBeyond: ASK_HEIGHT_MM,
  };
}

/** A piece this far from its target, mm, is asked about once. */
const ASK_PIECE_MM = 5;

/** Every piece of the cut list, long point to long point. */
export const pieceQuantities = (cut: readonly CutPiece[]): Quantity[] =>
  cut.flatMap((p) =>
    p.members.map((name) => ({
      ...of({ kind: "piece", member: name }),
      say: p.cuts === "square" ? `Length of piece ${name}` : `Piece ${name}, long point to long point`,
      expected: p.cutLongPointMm,
      askBeyond: ASK_PIECE_MM,
      kinds: LENGTH_KINDS,
    })),
  );

import { ends, SIDES, SPANS, type Span } from "../geometry";
import { fullUncertainty, type Instrument, reachOf, readingUncertainty } from "../instruments";
import { distance } from "../numeric";
import { type Quad, REAL_CORNERS_MM, type SpanReading, squareCheck } from "../square";
import { GUARD_FACTOR } from "./conformity";
import type { Limit } from "./limits";
import { worstCorner } from "./verdicts";

/** What one instrument would make of one limit, before anything is measured. */
export interface Proof {
  instrument: Instrument;
  /** 95 % uncertainty that the result would have, in the limit's unit. */
  uncertainty: number;
  /** `hardly`: a frame that is well inside would still often be too close to call. `no`: even a perfect one would. */
  can: "yes" | "hardly" | "no";
}

/** One limit with what the shelf can prove of it. */
export interface Provable {
  limit: Limit;
  proofs: Proof[];
  /** Standard uncertainty of the result that would do, in the limit's unit; null for a limit open to one side. */
  wouldDo: number | null;
}

const READS_LENGTHS: readonly Instrument["kind"][] = ["tape", "rule", "calliper"];
const READS_HEIGHTS: readonly Instrument["kind"][] = ["height gauge", "optical level", "feeler", "surface plate"];

/** A truly flat surface read at four corners passes nineteen times in twenty from here (closed form of the half-normal). */
const FLAT_SURE = 3.6;
/** Capability below which a good part is too often too close to call. Source: JCGM 106 gives the index; 1.6 by habit. */
const CAPABLE = 1.6;

/** All six lengths of a frame as one instrument would read them. */
function nominalCheck(quad: Quad, instrument: Instrument) {
  const u = readingUncertainty(instrument);
  const spans = Object.fromEntries(
    SPANS.map((span): [Span, SpanReading] => {
      const [p, q] = ends(span);
      return [span, { mm: distance(quad[p], quad[q]), uMm: u.uMm, tape: instrument.id, realMm: REAL_CORNERS_MM }];
    }),
  ) as Record<Span, SpanReading>;
  return {
    longestMm: Math.max(...Object.values(spans).map((s) => s.mm)),
    check: squareCheck(quad, spans, {
      [instrument.id]: { uZeroMm: u.uZeroMm, uScale: u.uScale },
    }),
  };
}

/** How small a misread tape the six lengths of a frame can show, mm: of a diagonal, and of the side where it hides best. */
interface SlipsThatShow {
  instrument: Instrument;
  diagonalMm: number;
  sideMm: number;
  /** Side on which a slip hides best. */
  side: string;
}

/**
 * What the check by six tapes can and cannot see, before it is made.
 * @returns null for an instrument that is not laid along such lengths.
 */
export function slipsThatShow(quad: Quad, instrument: Instrument): SlipsThatShow | null {
  const { longestMm, check } = nominalCheck(quad, instrument);
  if (!READS_LENGTHS.includes(instrument.kind) || longestMm > reachOf(instrument)) return null;
  const of = (ids: readonly string[]) => check.fit.readings.filter((r) => ids.includes(r.id));
  const [worst] = of(SIDES).sort((a, b) => b.detectable - a.detectable);
  const diagonals = of(["AC", "BD"]).map((r) => r.detectable);
  return worst && diagonals.length === 2
    ? { instrument, diagonalMm: Math.max(...diagonals), sideMm: worst.detectable, side: worst.id }
    : null;
}

/** Standard uncertainty of the quantity of a limit when all of it is read with one instrument; null when it cannot be. */
function uOf(limit: Limit, quad: Quad, instrument: Instrument): number | null {
  const u = readingUncertainty(instrument);
  const reach = reachOf(instrument);
  if (limit.kind === "flat") {
    const across = Math.max(distance(quad.A, quad.C), distance(quad.B, quad.D));
    return READS_HEIGHTS.includes(instrument.kind) && across <= reach ? u.uMm : null;
  }
  if (!READS_LENGTHS.includes(instrument.kind)) return null;
  if (limit.kind === "size") return limit.nominal <= reach ? fullUncertainty(u, limit.nominal) : null;
  if (limit.kind !== "diagonal" && limit.kind !== "corner") return null;
  const { longestMm, check } = nominalCheck(quad, instrument);
  if (longestMm > reach) return null;
  return (limit.kind === "diagonal" ? check.diagonalDifferenceMm : worstCorner(check))?.u ?? null;
}

function verdictOf({ lower, upper, kind }: Limit, u: number): Proof["can"] {
  if (upper === null || (lower === null && kind !== "flat")) return "yes";
  if (kind === "flat") return upper <= GUARD_FACTOR * u ? "no" : upper < FLAT_SURE * u ? "hardly" : "yes";
  const width = upper - (lower ?? 0);
  if (width <= 2 * GUARD_FACTOR * u) return "no";
  return width / (4 * u) < CAPABLE ? "hardly" : "yes";
}

/**
 * What each instrument on the shelf could prove of each limit, before measuring: all six lengths by one tape, four corner
 * heights by one gauge.
 * @param quad nominal corners, mm. @param limits resolved limits. @param shelf instruments at hand.
 */
export function provable(quad: Quad, limits: readonly Limit[], shelf: readonly Instrument[]): Provable[] {
  return limits.map((limit) => {
    const proofs = shelf.flatMap((instrument): Proof[] => {
      const u = uOf(limit, quad, instrument);
      return u === null ? [] : [{ instrument, uncertainty: 2 * u, can: verdictOf(limit, u) }];
    });
    const { lower, upper } = limit;
    const wouldDo =
      upper === null
        ? null
        : limit.kind === "flat"
          ? upper / FLAT_SURE
          : lower === null
            ? null
            : (upper - lower) / (4 * CAPABLE);
    return { limit, proofs, wouldDo };
  });
}

import { CORNERS, type Corner } from "../geometry";
import { radians } from "../numeric";
import type { Measured, SquareCheck } from "../square";
import type { UnitPreference } from "../units";
import { type Conformity, conformity, type Verdict } from "./conformity";
import type { Limit } from "./limits";
import type { FlatBy } from "./limitsSchema";
import { allowedWords, limitSmallWords, limitValueWords } from "./limitWords";

/** One limit with what was measured against it. */
export interface LimitVerdict {
  limit: Limit;
  /** Null until it is measured. */
  measured: Measured | null;
  result: Conformity | null;
  why: string;
}

export type Overall = Verdict | "not measured";

/** What was measured at one gate, ready to be held against limits. */
interface MeasuredFrame {
  /** Sides with everything that is uncertain, mm. */
  sides: Partial<Record<string, Measured>>;
  square: SquareCheck | null;
  flatMm: Measured | null;
  /** What else was measured, each by its limit, with the place where it is worst. */
  worst?: Partial<Record<Limit["kind"], (Measured & { where: string }) | null>>;
}

/** Corners this close are equally far off: the first is named, so that every screen names the same one. */
const SAME_DEG = 1e-6;

/** Departure of the worst corner from its drawn angle, signed, mm per metre. */
export function worstCorner(square: SquareCheck): (Measured & { corner: string }) | null {
  const { angleDeg, drawnDeg } = square;
  if (!angleDeg) return null;
  const off = (c: Corner): number => angleDeg[c].value - drawnDeg[c];
  const corner = CORNERS.reduce((worst, c) => (Math.abs(off(c)) > Math.abs(off(worst)) + SAME_DEG ? c : worst));
  return { corner, value: 1000 * Math.tan(radians(off(corner))), u: 1000 * radians(angleDeg[corner].u) };
}

const FLAT_WORDS: Record<FlatBy, string> = {
  slab: "the thinnest slab that holds it",
  held: "the gap with a corner held down",
};

function measure(limit: Limit, frame: MeasuredFrame): { value: Measured | null; note: string } {
  if (limit.kind === "size") return { value: frame.sides[limit.id] ?? null, note: "" };
  if (limit.kind === "flat")
    return { value: frame.flatMm, note: frame.flatMm ? `, ${FLAT_WORDS[limit.flatBy ?? "slab"]}` : "" };
  const worst = frame.worst?.[limit.kind];
  if (worst !== undefined) return { value: worst, note: worst ? `, at ${worst.where}` : "" };
  if (!frame.square) return { value: null, note: "" };
  if (limit.kind === "diagonal") return { value: frame.square.diagonalDifferenceMm, note: "" };
  const corner = limit.kind === "corner" ? worstCorner(frame.square) : null;
  return { value: corner, note: corner ? `, corner ${corner.corner}` : "" };
}

function reason(limit: Limit, value: Measured, result: Conformity, note: string, units: UnitPreference): string {
  const small = (x: number): string => limitSmallWords(limit, x, units);
  const size = (x: number): string => limitValueWords(limit, x, units);
  const between = allowedWords(limit, units);
  const band = `Read ${size(value.value)} ± ${small(2 * value.u)} (95 %)${note}; limit ${between}`;
  if (result.acceptanceZoneEmpty)
    return `${band}. These instruments cannot prove this limit: even a perfect frame would be too close to call.`;
  // What is compared is the guard band, not what the reading may be off by to either side.
  const side = result.margin >= 0 ? "Inside" : "Outside";
  const sure = result.verdict === "too close to call" ? "sure only from" : "sure from";
  return `${band}. ${side} by ${small(Math.abs(result.margin))}; a reading so uncertain is ${sure} ${small(result.guard)} on (95 %).`;
}

/**
 * Holds what was measured against every limit.
 * @param limits resolved limits. @param frame measured sides, squareness and flatness. @param units for the reasons.
 */
export function verdicts(limits: Limit[], frame: MeasuredFrame, units: UnitPreference = "mm"): LimitVerdict[] {
  const asked = limits.filter((limit) => !limit.optional || measure(limit, frame).value !== null);
  return asked.map((limit) => {
    const { value, note } = measure(limit, frame);
    if (!value) return { limit, measured: null, result: null, why: "Not measured yet." };
    if (["diagonal", "corner"].includes(limit.kind) && frame.square?.fit.agree === false) {
      const result = {
        ...conformity(value.value, value.u, limit.lower, limit.upper),
        verdict: "too close to call" as const,
      };
      return {
        limit,
        measured: value,
        result,
        why: "The readings contradict each other: one is misread. Measure again before judging.",
      };
    }
    const result = conformity(value.value, value.u, limit.lower, limit.upper, limit.nonnegative);
    return { limit, measured: value, result, why: reason(limit, value, result, note, units) };
  });
}

/** A frame is as good as its worst limit. With any limit unmeasured nothing better than `not measured` is said. */
export function overall(list: LimitVerdict[]): Overall {
  const words = list.map((v) => v.result?.verdict ?? "not measured");
  for (const word of ["fail", "not measured", "too close to call"] as const) if (words.includes(word)) return word;
  return list.length === 0 ? "not measured" : "pass";
}

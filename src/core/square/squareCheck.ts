import { CORNERS, type Corner, ends, SIDES, type Side, SPANS, type Span } from "../geometry";
import { distance } from "../numeric";
import { adjustNetwork, type NetworkFit, type Reading, type Tape } from "./network";
import {
  cornerAngleDeg,
  diagonalsApartMm,
  type Quad,
  type Rack,
  rack,
  SLIDES,
  shearMmPerM,
  slides,
  squareDifferenceMm2,
  taperLengthMm,
  taperWidthMm,
} from "./shape";

/** A taped span, mm, with its independent standard uncertainty. */
export interface SpanReading {
  mm: number;
  uMm: number;
  tape?: string;
  /** What it may differ by because corners are no points, mm (1 sigma). */
  realMm?: number;
}

/** A number with its standard uncertainty, same unit. */
export interface Measured {
  value: number;
  u: number;
}

/** What it is as it stands; `rectangle` where it is as drawn. */
export type Shape = "rectangle" | "parallelogram" | "trapezoid" | "parallelogram and trapezoid";

/** One way to bring it square: slide a side along itself. */
interface Nudge {
  side: Side;
  /** The corner of that side to push, and the corner of it to push towards. */
  push: Corner;
  towards: Corner;
  /** Always positive, mm. */
  shiftMm: number;
  uMm: number;
  /** Half the difference of the diagonals, mm, and the share of the error that it would leave. */
  habitMm: number;
  habitLeaves: number;
}

export interface SquareCheck {
  fit: NetworkFit;
  missing: Span[];
  /** Sides that were not taped are taken from their pieces or the drawing. */
  bySides: boolean;
  /** Fitted corners, A at the origin, B on +x. Null when the readings do not determine them. */
  corners: Quad | null;
  angleDeg: Record<Corner, Measured> | null;
  /** Angles of the drawing, deg. */
  drawnDeg: Record<Corner, number>;
  shearMmPerM: Measured | null;
  taperLengthMm: Measured | null;
  taperWidthMm: Measured | null;
  /** AC - BD as read, less that of the drawing, mm. */
  diagonalDifferenceMm: Measured | null;
  shape: Shape | null;
  /** Raw slides, positive as in SLIDES. */
  slidesMm: Record<Side, number> | null;
  /** The four ways, smallest slide first. */
  nudges: Nudge[];
  rack: Rack | null;
}

/** Taped sides and diagonals as readings of a network. */
export const spanReadings = (spans: Partial<Record<Span, SpanReading>>): Reading[] =>
  SPANS.flatMap((span): Reading[] => {
    const read = spans[span];
    if (!read) return [];
    const [from, to] = ends(span);
    const { mm, ...more } = read;
    return [{ kind: "distance", id: span, from, to, valueMm: mm, ...more }];
  });

/** Slides this close are the same; then the side that is less often held against a stop is moved. */
const SAME_MM = 0.02;
const HELD: Record<Side, number> = { CD: 0, BC: 1, AB: 2, DA: 3 };

/** Sides and diagonals that fix a quadrilateral. */
const LEAST = 5;

/** Rounding of the fit: its sign means nothing. */
const NOTHING_MM = 1e-6;

/** A departure of less than this, mm, is not called by name unless it is known better. */
const TELL_MM = 1;

/** What a quadrilateral departs from its drawing by, in words. */
function shapeWord(q: Quad, drawn: Quad, tellMm: number): Shape {
  const shorter = Math.min(distance(drawn.A, drawn.B), distance(drawn.B, drawn.C));
  const off = (f: (of: Quad) => number): number => Math.abs(f(q) - f(drawn));
  const lean = (off(shearMmPerM) / 1000) * shorter > tellMm;
  const taper = Math.max(off(taperLengthMm), off(taperWidthMm)) > tellMm;
  if (lean && taper) return "parallelogram and trapezoid";
  if (lean) return "parallelogram";
  return taper ? "trapezoid" : "rectangle";
}

/**
 * Shape of a frame's quadrilateral from its taped sides and diagonals. Angles are as they are; shear, tapers and the difference of
 * the diagonals are departures from the drawing.
 * @param drawn nominal corners, mm. @param spans what was read (any subset). @param tapes errors shared by the readings of a
 * tape. @param targetMm2 wanted AC^2 - BD^2; that of the drawing when left out.
 * @param sides what the sides are by their pieces as cut, or by the drawing: they stand in for sides that were not taped,
 * where both diagonals were. @param fitted the same corners as a larger network has them (panels, angles), where it fixes them.
 */
export function squareCheck(
  drawn: Quad,
  spans: Partial<Record<Span, SpanReading>>,
  tapes: Record<string, Tape> = {},
  targetMm2 = squareDifferenceMm2(drawn),
  fitted: NetworkFit | null = null,
  sides: readonly Reading[] = [],
): SquareCheck {
  const missing = SPANS.filter((s) => !spans[s]);
  const { AC, BD } = spans;
  const taped = spanReadings(spans);
  const given = sides.filter((r) => r.kind === "distance" && missing.some((s) => s === `${r.from}${r.to}`));
  const fit =
    fitted && fitted.status !== "undetermined" && CORNERS.every((c) => fitted.points[c])
      ? fitted
      : adjustNetwork({
          nodes: { A: drawn.A, B: drawn.B, C: drawn.C, D: drawn.D },
          readings: taped.length < LEAST && AC && BD ? [...taped, ...given] : taped,
          tapes,
        });
  const bySides = fit.readings.some((r) => given.some((g) => g.id === r.id));
  const diagonalDifferenceMm =
    AC && BD ? { value: AC.mm - BD.mm - diagonalsApartMm(drawn), u: Math.hypot(AC.uMm, BD.uMm) } : null;
  const drawnDeg = Object.fromEntries(CORNERS.map((c) => [c, cornerAngleDeg(drawn, c)])) as Record<Corner, number>;
  if (fit.status === "undetermined")
    return {
      fit,
      missing,
      bySides,
      corners: null,
      angleDeg: null,
      drawnDeg,
      shearMmPerM: null,
      taperLengthMm: null,
      taperWidthMm: null,
      diagonalDifferenceMm,
      shape: null,
      slidesMm: null,
      nudges: [],
      rack: null,
    };
  const q = fit.points as Quad;
  const measured = (f: (q: Quad) => number): Measured => ({ value: f(q), u: fit.uOf((p) => f(p as Quad)) });
  const departure = (f: (q: Quad) => number): Measured => measured((of) => f(of) - f(drawn));
  const moves = slides(q, targetMm2);
  // The nudge works on the fitted shape, so the habit beside it does too.
  const difference = diagonalsApartMm(q);
  const targetDifference = targetMm2 / (distance(drawn.A, drawn.C) + distance(drawn.B, drawn.D));
  const nudges = SIDES.map((side): Nudge => {
    const [p, r] = ends(side);
    const towards = moves[side] >= -NOTHING_MM ? SLIDES[side] : p === SLIDES[side] ? r : p;
    const along = distance(drawn[p], drawn[r]);
    return {
      side,
      push: towards === p ? r : p,
      towards,
      shiftMm: Math.abs(moves[side]),
      uMm: fit.uOf((points) => slides(points as Quad, targetMm2)[side]),
      habitMm: Math.abs(difference - targetDifference) / 2,
      habitLeaves: 1 - along / ((distance(drawn.A, drawn.C) + distance(drawn.B, drawn.D)) / 2),
    };
  }).sort((a, b) => (Math.abs(a.shiftMm - b.shiftMm) > SAME_MM ? a.shiftMm - b.shiftMm : HELD[a.side] - HELD[b.side]));
  return {
    fit,
    missing,
    bySides,
    corners: q,
    // By sides that nobody taped only the lean is known: it hangs on the diagonals alone.
    angleDeg: bySides
      ? null
      : (Object.fromEntries(CORNERS.map((c) => [c, measured((p) => cornerAngleDeg(p, c))])) as Record<
          Corner,
          Measured
        >),
    drawnDeg,
    shearMmPerM: departure(shearMmPerM),
    taperLengthMm: bySides ? null : departure(taperLengthMm),
    taperWidthMm: bySides ? null : departure(taperWidthMm),
    diagonalDifferenceMm,
    shape: bySides ? null : shapeWord(q, drawn, TELL_MM),
    slidesMm: moves,
    nudges,
    rack: rack(q, targetMm2),
  };
}

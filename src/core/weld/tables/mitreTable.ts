import {
  blended,
  columnsOf,
  holding,
  type JointState,
  lockedOf,
  mirrored,
  NOTHING_HOLDS,
  stiffnessOf,
  type TableScale,
} from "./jointState";
import { between, isNear, LINEAR, LOG, minus, plus, type Row, SLENDER, times, within } from "./knots";
import { codeIn, mitreOrButt, OVER, STRAIGHT_DEG } from "./mirrors";
import { MITRE_STRIPS, MITRES, type MitreGeometry } from "./tableData";
import { carriedOn, inProportion, onward, shifted, type Triangle } from "./triangles";

/** A mitre or a straight butt, as its table asks for it. */
export interface MitreForm extends TableScale {
  /** Height over width in the plane. */
  hw: number;
  angleDeg: number;
  /** Mean length of the tacks that are left over the width. */
  tk: number;
  /** Width of the strip that contracts over the tube's; see `stripOf`. */
  strip: number;
}

const SQUARE = { hw: 1, angle: 90, tk: 0.2 } as const;
/** Range of slenderness in which angle, height and tack were varied. */
const VARIED = [12.5, 20] as const;
/** Width of the strip that contracts, square to the mitre, mm a side. */
const STRIP_MM = 4.2426;
const BASE_STRIP = STRIP_MM / 50;

/** The strip beside a bead is as wide on every tube: its share of the width, @param bMm smallest width. */
export const stripOf = (bMm: number): number => STRIP_MM / bMm;
/** Directions in plane and out of plane: d2, r1, r3 and d1, d3, r2. */
const IN_PLANE = [1, 3, 5] as const;
const ACROSS = [0, 2, 4] as const;
/** Numbers of the two lower triangles at the head of a row. */
const HEAD = 12;
const TRIANGLES: readonly Triangle[] = [
  { at: 0, size: 3 },
  { at: 6, size: 3 },
];
/** The widest mitre of the table. */
const WIDEST_DEG = 135;

const of = (g: { states: Readonly<Record<string, Row>> }, code: string): Row[] => {
  const row = g.states[code];
  return row ? [row] : [];
};
const is = (g: MitreGeometry, want: Partial<Omit<MitreGeometry, "states">>): boolean =>
  Object.entries({ ...SQUARE, ...want }).every(([key, v]) => g[key as keyof typeof SQUARE] === v);
const rowsAt = (code: string, want: Partial<Omit<MitreGeometry, "states">>): [number, Row][] =>
  MITRES.filter((g) => is(g, want)).flatMap((g) => of(g, code).map((row): [number, Row] => [g.bt, row]));

/** What the height takes from differences that were found on square tube: moments about the low axis count less. */
function byHeight(hw: number, lines: number): Row {
  const r3 = Math.min(1, hw);
  const r1 = Math.min(1, 1 / hw);
  const r2 = Math.sqrt(Math.min(hw, 1 / hw));
  return [1, r1, r1, r3, r3, r3, 1, 1, 1, r2, r2, r2, ...Array.from({ length: lines }, () => [1, r1, r3]).flat()];
}

/** A row of a straight butt of square tube, of which the table has two: mitres know nothing of how it goes on beyond them. */
function straightRow(code: string, bt: number): Row {
  const rows = rowsAt(code, { angle: STRAIGHT_DEG });
  const [thick, thin] = VARIED.map((at) => [at, between(rows, at, LOG)] as const);
  const knots = rowsAt(code, {}).map(([at]) => at);
  const most = Math.max(...knots) * (SLENDER.beyond ?? 1);
  return onward([thick, thin], within(bt, Math.min(...knots), most), TRIANGLES);
}

/** The row of a state, its numbers in the table's order. */
function rowOf(code: string, { bMm, tMm, hw, angleDeg, tk, strip }: MitreForm): Row {
  const bt = bMm / tMm;
  const base = rowsAt(code, {});
  const varied = within(bt, ...VARIED);
  const there = between(base, varied, LOG);
  const scaled = byHeight(hw, holding(code).length);
  const isStraight = angleDeg === STRAIGHT_DEG;
  /** A whole straight butt gives next to nothing: by how much less a mitre gives says nothing of it. */
  const change = isStraight ? inProportion : shifted;
  /** With the difference that one property makes, over its knots; the base stands among them. */
  const made = (
    row: Row,
    [key, knots, axis]: readonly ["hw" | "angle" | "tk", readonly number[], typeof LOG],
    x: number,
    by: (at: number) => number,
  ): Row => {
    const rows: [number, Row][] = knots.map((at) => [at, between(rowsAt(code, { [key]: at }), varied, LOG)]);
    return change(row, there, between([[SQUARE[key], there], ...rows], x, axis), by, TRIANGLES);
  };
  const byScaled = (at: number): number => scaled[at] ?? 1;
  const square = between(base, bt, SLENDER);
  let row = isStraight
    ? straightRow(code, bt).map((v, at) => (at < HEAD ? v : (square[at] ?? 0) + byScaled(at) * (v - (square[at] ?? 0))))
    : made(there, ["angle", [60, 75, 105, 120, WIDEST_DEG], LINEAR], angleDeg, byScaled);
  row = made(row, ["hw", [0.5, 0.6667, 1.5, 2], LOG], hw, () => 1);
  // Finite elements of mitres at b/t 8 and 32 say so of angle and height; of tacks the plain difference is what the check cases have.
  if (!isStraight) row = carriedOn(square, there, row, TRIANGLES);
  if (code.includes("1") && !isNear(tk, SQUARE.tk)) row = made(row, ["tk", [0.1, 0.4], LOG], tk, byScaled);
  if (code.includes("2") && !isNear(strip, BASE_STRIP)) {
    // Only movements and locked forces change with the strip.
    const tail = there.slice(HEAD);
    const widths = [...new Set(MITRE_STRIPS.map((s) => s.sb))].map((sb): [number, Row] => [
      sb,
      between(
        MITRE_STRIPS.filter((s) => s.sb === sb).flatMap((s) => of(s, code).map((r): [number, Row] => [s.bt, r])),
        varied,
        LOG,
      ),
    ]);
    const change = minus(between([[BASE_STRIP, tail], ...widths], strip, LOG), tail);
    row = plus(row, [...Array.from({ length: HEAD }, () => 0), ...times(change, scaled.slice(HEAD))]);
  }
  return row;
}

function atAngle(code: string, form: MitreForm): JointState {
  if ((code[3] ?? "0") > (code[2] ?? "0")) return mirrored(atAngle(codeIn(OVER, code), form), OVER);
  const row = rowOf(code, form);
  const lines = holding(code);
  return {
    k: stiffnessOf(
      [
        { over: IN_PLANE, lower: row.slice(0, 6) },
        { over: ACROSS, lower: row.slice(6, HEAD) },
      ],
      form,
    ),
    d: columnsOf(
      lines.map((line, i) => ({ line, over: IN_PLANE, values: row.slice(HEAD + 3 * i, HEAD + 3 * i + 3) })),
      form.bMm,
    ),
    q: lockedOf(lines, row.slice(HEAD + 3 * lines.length), form),
    c: NOTHING_HOLDS.c,
  };
}

/**
 * A mitre or butt in one state.
 * @param code digits of the outside, the inside and the faces at + and - of its third axis.
 */
export const mitreState = (code: string, form: MitreForm): JointState =>
  code === "0000"
    ? NOTHING_HOLDS
    : mitreOrButt(code, form, { widestDeg: WIDEST_DEG, at: atAngle, seen: mirrored, blended });

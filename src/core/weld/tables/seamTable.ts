import { symmetricEigen } from "../../numeric";
import { between, LINEAR, LOG, minus, plus, type Row, SLENDER } from "./knots";
import { byShares, codeIn, type Mirror, mitreOrButt, OVER, STRAIGHT_DEG } from "./mirrors";
import type { MitreForm } from "./mitreTable";
import { SEAM_TABLE, type SeamGeometry } from "./tableData";

/** Where an open face of a mitre touches, near one of its ends, in the table's axes and in the order of its faces. */
export interface SeamState {
  /** Twice its face, and one more at the end on the + side of the other axis. */
  at: number;
  /** By how much it opens per unit of the joint's movement, six. */
  opens: Float64Array;
  /** Per mm that each face closes, four. */
  closed: Float64Array;
  /** Per N at each seam, eight, mm/N. */
  gives: Float64Array;
}

const SQUARE = { hw: 1, angle: 90 } as const;
const WIDEST_DEG = 120;
const ANGLES = [60, 90, WIDEST_DEG, STRAIGHT_DEG] as const;
const HEIGHTS = [0.5, 1, 2] as const;
const THOUSANDTH = 1e-3;
/** The least that any combination of seams gives in the table, in its own units. */
const LEAST = 1;
/** Directions that a seam feels: along the normal, and turning about both axes of the cut. */
const FELT = [1, 3, 5] as const;

const rowsAt = (code: string, want: Partial<SeamGeometry>): [number, Row][] =>
  SEAM_TABLE.filter((g) =>
    Object.entries({ ...SQUARE, ...want }).every(([key, v]) => g[key as keyof typeof SQUARE] === v),
  ).flatMap((g) => {
    const row = g.states[code];
    return row ? [[g.bt, row] satisfies [number, Row]] : [];
  });

/** The row of a state, its numbers in the table's order. */
function rowOf(code: string, { bMm, tMm, hw, angleDeg }: MitreForm): Row {
  const at = (want: Partial<SeamGeometry>): Row => between(rowsAt(code, want), bMm / tMm, SLENDER);
  const square = at({});
  const turned = ANGLES.map((angle): [number, Row] => [angle, angle === SQUARE.angle ? square : at({ angle })]);
  const high = HEIGHTS.map((h): [number, Row] => [h, h === SQUARE.hw ? square : at({ hw: h })]);
  return plus(between(turned, angleDeg, LINEAR), minus(between(high, hw, LOG), square));
}

function atAngle(code: string, form: MitreForm): SeamState[] {
  if ((code[3] ?? "0") > (code[2] ?? "0")) return seen(atAngle(codeIn(OVER, code), form), OVER);
  const row = rowOf(code, form);
  const digits = [...code].map(Number);
  const faces = digits.flatMap((d, face) => (d === 2 ? [] : [face]));
  const holds = digits.flatMap((d, face) => (d === 0 ? [] : [face]));
  const count = 2 * faces.length;
  const at = (i: number): number => 2 * (faces[i >> 1] ?? 0) + (i & 1);
  const seams = Array.from({ length: count }, (_, i): SeamState => {
    const opens = new Float64Array(6);
    FELT.forEach((way, k) => {
      opens[way] = THOUSANDTH * (row[3 * i + k] ?? 0) * (way < 3 ? 1 : form.bMm);
    });
    const closed = new Float64Array(4);
    holds.forEach((face, k) => {
      closed[face] = THOUSANDTH * (row[3 * count + holds.length * i + k] ?? 0);
    });
    return { at: at(i), opens, closed, gives: new Float64Array(8) };
  });
  const given = (3 + holds.length) * count;
  /** Upper triangle, row after row. */
  const give = (i: number, j: number): number =>
    i > j ? give(j, i) : THOUSANDTH * (row[given + i * count - (i * (i - 1)) / 2 + (j - i)] ?? 0);
  const gives = seams.map((_, i) => seams.map((__, j) => give(i, j)));
  const { values, vectors } = symmetricEigen(gives);
  // Between knots of two kinds some of what gives may be lost: never less than the stiffest of the table.
  values.forEach((value, k) => {
    const own = vectors[k] ?? [];
    const scale = Math.max(LEAST, value) / (form.eMPa * form.tMm);
    seams.forEach((a, i) => {
      seams.forEach((b, j) => {
        a.gives[b.at] = (a.gives[b.at] ?? 0) + scale * (own[i] ?? 0) * (own[j] ?? 0);
      });
    });
  });
  return seams;
}

/** Seams in a mirror: along a face they change ends where the mirror turns the way that the face runs. */
function seen(seams: readonly SeamState[], { signs, faces }: Mirror): SeamState[] {
  const other = (at: number): number => {
    const face = at >> 1;
    const runs = face < 2 ? 2 : 0;
    return 2 * (faces[face] ?? face) + (signs[runs] === -1 ? 1 - (at & 1) : at & 1);
  };
  return seams
    .map(({ at, opens, closed, gives }) => ({
      at: other(at),
      opens: opens.map((v, way) => (signs[way] ?? 1) * v),
      closed: closed.map((_, face) => closed[faces[face] ?? face] ?? 0),
      gives: gives.map((_, b) => gives[other(b)] ?? 0),
    }))
    .sort((a, b) => a.at - b.at);
}

/** Seams of joints of one kind and state as one, each by its share. */
function blended(joints: readonly SeamState[][], shares: readonly number[]): SeamState[] {
  const sum = (of: (seams: SeamState[]) => Float64Array): Float64Array => byShares(joints.map(of), shares);
  return joints[0].map(({ at }, i) => ({
    at,
    opens: sum((seams) => seams[i].opens),
    closed: sum((seams) => seams[i].closed),
    gives: sum((seams) => seams[i].gives),
  }));
}

/**
 * How the open faces of a mitre or butt touch in one state of its welds. None where nothing holds: parts that lie beside each other.
 * @param code digits of the outside, the inside and the faces at + and - of its third axis.
 */
export const seamsOf = (code: string, form: MitreForm): SeamState[] =>
  code === "0000" || code === "2222"
    ? []
    : mitreOrButt(code, form, { widestDeg: WIDEST_DEG, at: atAngle, seen, blended });

import { TABLED } from "../tabled";
import {
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
import { ALONG, codeIn, OVER } from "./mirrors";
import { TEES, type TeeGeometry } from "./tableData";
import { shifted, type Triangle } from "./triangles";

/** A tee, as its table asks for it: by the width of the chord's face that the branch stands on, and the chord's wall. */
export interface TeeForm extends TableScale {
  branchWallMm: number;
  /** Branch over chord, across. */
  beta: number;
  /** Depth of the chord over its width. */
  wh: number;
  /** Branch along the chord over the branch across it. */
  bx: number;
  tk: number;
}

const SQUARE = { wh: 1, bx: 1 } as const;
const VARIED = [12.5, 20] as const;
/** The same for chords that are wider than deep. */
const WIDE_VARIED = [25, 40] as const;
const ALL = [0, 1, 2, 3, 4, 5] as const;
/** Numbers of the lower triangle at the head of a row, and of movement and kink of each face. */
const HEAD = 21;
const A_FACE = 12;

/**
 * What is read of a geometry: the row of a state, or what a contraction of the chord does; and how each number of it goes with the chord's
 * depth and the branch's width.
 */
interface Pick {
  of: (g: TeeGeometry) => Row | undefined;
  /** What of it is a triangle. */
  triangles: readonly Triangle[];
  goesBy: (at: number) => "the whole section" | "the branch's width" | "the face";
}

const rowsAt = (pick: Pick, want: (g: TeeGeometry) => boolean): [number, Row][] =>
  TEES.filter(want).flatMap((g) => {
    const row = pick.of(g);
    return row ? [[g.bt, row] as [number, Row]] : [];
  });
const isSquare = (g: TeeGeometry): boolean => g.wh === SQUARE.wh && g.bx === SQUARE.bx;
/** Tacks of the base are a fifth of the width, or what a narrow branch has room for. */
const isBase = (g: TeeGeometry): boolean => isSquare(g) && (g.beta < 1 || g.tk === 0.2);

function base(pick: Pick, bt: number, beta: number): Row {
  const betas = [...new Set(TEES.filter(isBase).map((g) => g.beta))];
  return between(
    betas.map((b): [number, Row] => [
      b,
      between(
        rowsAt(pick, (g) => isBase(g) && g.beta === b),
        bt,
        SLENDER,
      ),
    ]),
    beta,
    LINEAR,
  );
}

/**
 * What depth changes in a row, from what it changes in a chord's family of branches. A contraction kinks by what the whole of the section does:
 * in proportion (the table of wide chords has two widths: 2.4 times as much as square at either). How lines kink it goes with the
 * branch's width. All else is the face's own to half the width, where depth changes next to nothing.
 */
function changed(pick: Pick, here: Row, special: Row, square: Row, beta: number, of: number): Row {
  const wide = Math.min(1, Math.max(TABLED.narrowestBranch, beta));
  const by = (at: number): number =>
    pick.goesBy(at) === "the face" ? (of === 1 ? Math.max(0, 2 * wide - 1) : 1) : wide / of;
  return shifted(here, square, special, by, pick.triangles).map((v, at) => {
    const [own, to, from] = [here[at] ?? 0, special[at] ?? 0, square[at] ?? 0];
    return pick.goesBy(at) === "the whole section" && from !== 0 ? own * (to / from) : v;
  });
}

/** The row of chords that are deeper or wider than square: two families each, by how long the branch is along the chord. */
function ofDepth(pick: Pick, bt: number, { beta, wh, bx }: TeeForm, here: Row): Row {
  if (Math.abs(wh - 1) < 1e-9) return here;
  const deep = wh > 1;
  const families = deep
    ? [
        { bx: 1, beta: 1 },
        { bx: 2, beta: 1 },
      ]
    : [
        { bx: 0.5, beta: 1 },
        { bx: 1, beta: 0.5 },
      ];
  const [from, to] = deep ? VARIED : WIDE_VARIED;
  const at = within(bt, from, to);
  const rows = families.map((f): [number, Row] => {
    const special = between(
      rowsAt(pick, (g) => g.wh === (deep ? 2 : 0.5) && g.bx === f.bx && g.beta === f.beta),
      at,
      LOG,
    );
    return [f.bx, changed(pick, here, special, base(pick, at, f.beta), beta, f.beta)];
  });
  const share = Math.min(1, Math.abs(Math.log(wh)) / Math.LN2);
  return plus(here, times(minus(between(rows, bx, LOG), here), share));
}

function rowOf(pick: Pick, tacked: boolean, bt: number, form: TeeForm): Row {
  const { beta, tk } = form;
  let row = base(pick, bt, beta);
  if (tacked && !isNear(tk, 0.2)) {
    const at = within(bt, ...VARIED);
    const there = base(pick, at, 1);
    const rows = [0.1, 0.4].map((length): [number, Row] => [
      length,
      between(
        rowsAt(pick, (g) => isSquare(g) && g.beta === 1 && g.tk === length),
        at,
        LOG,
      ),
    ]);
    row = shifted(row, there, between([[0.2, there], ...rows], tk, LOG), () => 1, pick.triangles);
  }
  const whole = ofDepth(pick, bt, form, row);
  // A contraction of so much kinks it the less, the narrower the wall that contracts.
  return beta < TABLED.narrowestBranch
    ? whole.map((v, at) => (pick.goesBy(at) === "the face" ? v : (beta / TABLED.narrowestBranch) * v))
    : whole;
}

/** What an unequal branch takes its movements and forces from: the geometric mean of both walls. */
const meanWall = ({ tMm, branchWallMm }: TeeForm): number => Math.sqrt(tMm * branchWallMm);

/** A tee in one state. @param code digits of the faces at + and - along the chord, at + and - across it. */
export function teeState(code: string, form: TeeForm): JointState {
  const [first, second, up, down] = code as unknown as [string, string, string, string];
  if (code === "0000") return NOTHING_HOLDS;
  if (second > first) return mirrored(teeState(codeIn(ALONG, code), form), ALONG);
  if (down > up) return mirrored(teeState(codeIn(OVER, code), form), OVER);
  const lines = holding(code);
  const pick: Pick = {
    of: (g) => g.states[code],
    triangles: [{ at: 0, size: ALL.length }],
    goesBy: (at) =>
      at >= HEAD && at < HEAD + A_FACE * lines.length && (at - HEAD) % A_FACE >= ALL.length
        ? "the branch's width"
        : "the face",
  };
  const tacked = code.includes("1");
  const wall = meanWall(form);
  const stiff = rowOf(pick, tacked, form.bMm / form.tMm, form);
  const moves = wall === form.tMm ? stiff : rowOf(pick, tacked, form.bMm / wall, form);
  const part = (at: number) =>
    columnsOf(
      lines.map((line, i) => {
        const from = HEAD + A_FACE * i + at;
        return { line, over: ALL, values: moves.slice(from, from + 6) };
      }),
      form.bMm,
    );
  return {
    k: stiffnessOf([{ over: ALL, lower: stiff.slice(0, HEAD) }], form),
    d: part(0),
    q: lockedOf(lines, moves.slice(HEAD + A_FACE * lines.length), { ...form, tMm: wall }),
    c: part(6),
  };
}

/**
 * What a contraction of the chord's own wall at each face does, per mm: movement of the branch and kink of the chord.
 * @returns 6 x 4 each.
 */
export function chordContraction(form: TeeForm): { d: Float64Array; c: Float64Array } {
  const bt = form.bMm / meanWall(form);
  const [across, along] = (["plus", "top"] as const).map((face) =>
    rowOf(
      { of: (g) => g.cx[face], triangles: [], goesBy: (at) => (at >= ALL.length ? "the whole section" : "the face") },
      false,
      bt,
      form,
    ),
  ) as [Row, Row];
  const part = (at: number) =>
    columnsOf(
      [across, along].map((row, i) => ({ line: 2 * i, over: ALL, values: row.slice(at, at + 6) })),
      form.bMm,
    );
  const here: JointState = { ...NOTHING_HOLDS, d: part(0), c: part(6) };
  const back = mirrored(here, ALONG);
  const under = mirrored(here, OVER);
  const join = (key: "d" | "c") =>
    here[key].map((v, at) => (at % 4 === 1 ? (back[key][at] ?? 0) : at % 4 === 3 ? (under[key][at] ?? 0) : v));
  return { d: join("d"), c: join("c") };
}

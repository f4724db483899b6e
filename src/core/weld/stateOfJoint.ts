import type { JointStiffness, Seam } from "../mechanics";
import { cross3, dot3, matMul, symmetricEigen, symmetrise, type Vec3 } from "../numeric";
import { contactStiffness, type Faces, lineLengthMm } from "./faces";
import type { ChordPlace, JointForm, JointPlace, WeldState } from "./jointKind";
import { chordContraction, type JointState, mitreState, type SeamState, seamsOf, stripOf, teeState } from "./tables";

/** What a table is asked by, and the axes that it answers in. */
interface TabledForm {
  faces: Pick<Faces, "normal" | "e1" | "e2">;
  form: JointForm;
}

/** A joint of the frame with what its table asks for. */
interface TabledJoint extends TabledForm {
  faces: Faces;
  chords: readonly ChordPlace[];
  along: JointPlace["along"];
  /** Multiplies the table's stiffness (scatter). */
  stiffness: number;
  /** How far its seams are open when it is fitted, mm; null where they are taken not to touch. */
  gapMm: number | null;
}

/** The table's axes in the frame's: for a mitre inside, normal and what is square to both; for a tee along, out, across. */
function tableAxes({ faces, form }: TabledForm): [Vec3, Vec3, Vec3] {
  const { e1, e2, normal } = faces;
  return [e1, normal, form.table === "mitre" ? cross3(e1, normal) : e2];
}

/** Line of the table for each of the joint's lines. A mitre's table names outside first, then the faces by its own axis. */
function tableLines({ faces, form }: TabledForm): readonly number[] {
  if (form.table === "tee") return [0, 1, 2, 3];
  const up = dot3(cross3(faces.e1, faces.normal), faces.e2) > 0;
  return up ? [1, 0, 2, 3] : [1, 0, 3, 2];
}

const digit = (s: WeldState[number]): string => (s === "welded" ? "2" : s > 0 ? "1" : "0");

/** Mean length of the tacks that are left, mm; of those of the table where there is none. */
function tackMm(state: WeldState, bMm: number): number {
  const tacks = state.filter((s): s is number => typeof s === "number" && s > 0);
  return tacks.length > 0 ? tacks.reduce((a, b) => a + b, 0) / tacks.length : 0.2 * bMm;
}

/** Tables read so far, by form and state: joints of a frame are of few kinds. Bounded; what is read anew is the same. */
const KNOWN = new Map<string, TabledState>();
const KNOWN_MOST = 2000;

/** What the tables say of a joint in one state. */
interface TabledState extends JointState {
  seams: readonly SeamState[];
}

function mitreInState(code: string, form: JointForm & { table: "mitre" }, tk: number): TabledState {
  const full = { ...form, tk, strip: stripOf(form.bMm) };
  return { ...mitreState(code, full), seams: seamsOf(code, full) };
}

/** Face of a straight butt for each of a tee's; it is its own opposite. */
const AS_BUTT = [1, 0, 2, 3] as const;
const seamAsButt = (at: number): number => 2 * (AS_BUTT[at >> 1] ?? 0) + (at & 1);

/** A branch stands on its chord with its open faces as on another branch's end: nobody worked out a chord's own face for that. */
function teeInState(code: string, form: JointForm & { table: "tee" }, tk: number): TabledState {
  const acrossMm = form.beta * form.bMm;
  const alongMm = form.bx * acrossMm;
  const bMm = Math.min(acrossMm, alongMm);
  const butt = { bMm, tMm: form.branchWallMm, eMPa: form.eMPa, hw: acrossMm / alongMm, angleDeg: 180, tk };
  const seams = seamsOf(AS_BUTT.map((face) => code[face]).join(""), { ...butt, strip: stripOf(bMm) });
  return {
    ...teeState(code, { ...form, tk }),
    seams: seams.map(({ at, opens, closed, gives }) => ({
      at: seamAsButt(at),
      opens,
      closed: Float64Array.from(AS_BUTT, (face) => closed[face]),
      gives: gives.map((_, b) => gives[seamAsButt(b)]),
    })),
  };
}

/** A joint by its table, in the table's own axes. */
function tabled(joint: TabledForm, state: WeldState): TabledState {
  const { form } = joint;
  const lines = tableLines(joint);
  const code = [0, 1, 2, 3].map((at) => digit(state[lines.indexOf(at)] ?? 0)).join("");
  const tk = tackMm(state, form.bMm) / form.bMm;
  const key = `${code} ${tk} ${Object.values(form).join()}`;
  const known = KNOWN.get(key);
  if (known) return known;
  const made = form.table === "mitre" ? mitreInState(code, form, tk) : teeInState(code, form, tk);
  if (KNOWN.size >= KNOWN_MOST) KNOWN.clear();
  KNOWN.set(key, made);
  return made;
}

/** Six values in the table's axes as six in the frame's. */
function turned(axes: readonly Vec3[], v: (i: number) => number): Float64Array {
  const out = new Float64Array(6);
  for (let a = 0; a < 3; a++)
    for (let i = 0; i < 3; i++) {
      out[i] = out[i] + axes[a][i] * v(a);
      out[i + 3] = out[i + 3] + axes[a][i] * v(a + 3);
    }
  return out;
}

/** 6 x 6 of the table's axes in the frame's. */
function turnedMatrix(axes: readonly Vec3[], k: Float64Array): Float64Array {
  const out = new Float64Array(36);
  for (let p = 0; p < 6; p++)
    for (let q = 0; q < 6; q++) {
      let sum = 0;
      for (let a = 0; a < 3; a++)
        for (let b = 0; b < 3; b++)
          sum += axes[a][p % 3] * k[6 * (3 * Math.floor(p / 3) + a) + 3 * Math.floor(q / 3) + b] * axes[b][q % 3];
      out[6 * p + q] = sum;
    }
  return symmetrise(out, 6);
}

/** A table's four columns, six values each, in the frame's axes and in the order of the joint's lines. */
function turnedColumns(joint: TabledForm, m: Float64Array): Float64Array {
  const axes = tableAxes(joint);
  const out = new Float64Array(24);
  tableLines(joint).forEach((at, line) => {
    turned(axes, (i) => m[4 * i + at]).forEach((v, i) => {
      out[4 * i + line] = v;
    });
  });
  return out;
}

/**
 * Stress that beads lock in within the joint's own walls, N per mm of closing: of the state in which only they hold. A
 * measured free closing has it in it, and so no limit counts it; what tacks and the frame hold against counts. Taken off, the
 * rest is still positive semidefinite: a joint with its tacks let go along their closing is no stiffer than one without them.
 */
function withinWalls(joint: TabledJoint, state: WeldState): Float64Array {
  const alone = state.map((s) => (s === "welded" ? s : 0)) as unknown as WeldState;
  return tabled(joint, alone).q;
}

const minus16 = (a: Float64Array, b: Float64Array): Float64Array => a.map((v, i) => v - b[i]);

/** The nearest 4 x 4 matrix that gives nothing away: tables that are carried on beyond their knots may lose that. */
function nonNegative(m: Float64Array): Float64Array {
  const { values, vectors } = symmetricEigen([0, 1, 2, 3].map((i) => [...m.subarray(4 * i, 4 * i + 4)]));
  if (values.every((v) => v >= 0)) return m;
  const out = new Float64Array(16);
  values.forEach((value, k) => {
    for (let i = 0; i < 4; i++)
      for (let j = 0; j < 4; j++) out[4 * i + j] = out[4 * i + j] + Math.max(0, value) * vectors[k][i] * vectors[k][j];
  });
  return out;
}

/** Where its open faces touch, in the frame's axes. */
function seamsIn(joint: TabledJoint, table: TabledState): Seam[] {
  if (joint.gapMm === null) return [];
  const axes = tableAxes(joint);
  const lines = tableLines(joint);
  return table.seams.map(({ at, opens, closed, gives }) => ({
    at,
    push: turned(axes, (i) => opens[i]),
    closed: Float64Array.from(lines, (line) => closed[line]),
    gives,
  }));
}

/**
 * How the closing of each line kinks the members that run through, six ways of each after those of the one before. Along a seam that runs on
 * between two members it bends neither.
 */
function kinksOf({ chords, along }: TabledJoint, state: WeldState): Float64Array {
  const kinks = new Float64Array(24 * Math.max(1, chords.length));
  if (along) return kinks;
  chords.forEach((chord, k) => {
    const own = { faces: chord, form: chord.form };
    const there = state.map((_, at) => state[chord.lines.indexOf(at)] ?? 0) as unknown as WeldState;
    kinks.set(atLines(chord, turnedColumns(own, tabled(own, there).c)), 24 * k);
  });
  return kinks;
}

/** Columns of a chord's own lines, in the order of the joint's. */
const atLines = ({ lines }: ChordPlace, m: Float64Array): Float64Array =>
  m.map((_, i) => m[i - (i % 4) + (lines[i % 4] ?? 0)] ?? 0);

/** Joints worked out so far, by all that they are made of and their state: a frame has few that differ, and keeps them when it is edited. */
const MADE = new Map<string, JointStiffness>();
const MADE_MOST = 2000;
/** All that a joint is made of, but for its place and its name. */
const MADE_OF = new WeakMap<TabledJoint, string>();

function madeOf(joint: TabledJoint): string {
  const known = MADE_OF.get(joint);
  if (known !== undefined) return known;
  const { faces, form, stiffness, chords, along, gapMm } = joint;
  const { kind, ...sizes } = faces;
  const through = chords.map(({ member: _, ...chord }) => chord);
  const made = JSON.stringify([kind.name, sizes, form, stiffness, through, along !== null, gapMm === null]);
  MADE_OF.set(joint, made);
  return made;
}

/**
 * Stiffness of a joint in one state of its welds, in the frame's axes: of joints that are alike the same object, not to be changed.
 * @returns what it adds to the frame, what a mm of closing of each line pushes and locks in, and how it kinks a chord.
 */
export function jointStiffness(joint: TabledJoint, state: WeldState): JointStiffness {
  const key = `${state.join()} ${madeOf(joint)}`;
  const known = MADE.get(key);
  if (known) return known;
  const made = stiffnessOf(joint, state);
  if (MADE.size >= MADE_MOST) MADE.clear();
  MADE.set(key, made);
  return made;
}

function stiffnessOf(joint: TabledJoint, state: WeldState): JointStiffness {
  const { stiffness, faces } = joint;
  const table = tabled(joint, state);
  const k = turnedMatrix(tableAxes(joint), table.k).map((v) => stiffness * v);
  const d = turnedColumns(joint, table.d);
  const push = matMul(k, d, 6, 6, 4, new Float64Array(24));
  const locked = new Float64Array(16);
  const lines = tableLines(joint);
  const between = nonNegative(minus16(table.q, withinWalls(joint, state)));
  for (let a = 0; a < 4; a++)
    for (let b = 0; b < 4; b++) {
      const at = 4 * lines[a] + lines[b];
      let sum = stiffness * between[at];
      for (let i = 0; i < 6; i++) sum += d[4 * i + a] * push[4 * i + b];
      locked[4 * a + b] = sum;
    }
  const contact = contactStiffness(faces, state);
  return {
    k: k.map((v, i) => v + contact[i]),
    welds: k,
    push,
    locked,
    free: d,
    kink: kinksOf(joint, state),
    seams: seamsIn(joint, table),
    lines: state.flatMap((s, line) =>
      s === 0
        ? []
        : [{ line, tack: s !== "welded", yieldN: faces.yieldPerMm * (s === "welded" ? lineLengthMm(faces, line) : s) }],
    ),
  };
}

/** Contractions read so far, by form. Bounded; what is read anew is the same. */
const CONTRACTED = new Map<string, ReturnType<typeof chordContraction>>();

function contractionOf(form: ChordPlace["form"]): ReturnType<typeof chordContraction> {
  const key = Object.values(form).join();
  const known = CONTRACTED.get(key) ?? chordContraction({ ...form, tk: 0.2 });
  if (CONTRACTED.size >= KNOWN_MOST) CONTRACTED.clear();
  CONTRACTED.set(key, known);
  return known;
}

/**
 * What a contraction of a chord's own wall at each of the joint's lines does, per mm of it: free movement of the joint, second member
 * against first, push on it in its state, kink of the chord.
 * @returns 6 x 4 each.
 */
export function chordHeat(
  chord: ChordPlace,
  welds: Float64Array,
): { free: Float64Array; push: Float64Array; kink: Float64Array } {
  const own = { faces: chord, form: chord.form };
  const { d, c } = contractionOf(chord.form);
  const sign = chord.of === "a" ? 1 : -1;
  const free = atLines(chord, turnedColumns(own, d)).map((v) => sign * v);
  return {
    free,
    push: matMul(welds, free, 6, 6, 4, new Float64Array(24)),
    kink: atLines(chord, turnedColumns(own, c)),
  };
}

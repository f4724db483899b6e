import { luSolve } from "../../src/core/numeric";
import { type CutNode, FACES, type Leg, type LegForm } from "./leg";

/** Where an open seam touches: near an end of a face, as a mean over columns of nodes from the first that no other face owns. */
const COLUMNS = [0.6, 0.3, 0.1] as const;
/** Half of a tack and a little, so that the nodes at its ends belong to it, over the smallest width. */
const HALF_TACK = 0.112;

interface Point {
  face: number;
  nodes: { node: number; share: number }[];
}

/** Movement of a node square to the cut as the plane moves: along its normal, about the way inside, about the way up. */
const plane = ({ x1Mm, x3Mm }: CutNode): number[] => [1, -x3Mm, x1Mm];

/** Inverse of a small matrix. */
function inverse(a: Float64Array, n: number): Float64Array {
  const out = Float64Array.from({ length: n * n }, (_, k) => (k % (n + 1) === 0 ? 1 : 0));
  if (!luSolve(a.slice(), out, n, n)) throw new RangeError("a singular matrix");
  return out;
}

/** Flexibility of the whole joint in the plane's three ways where these nodes of both legs are tied, per modulus of 1. */
function flexibility({ nodes, f }: Leg, tied: readonly number[]): Float64Array {
  const m = tied.length;
  const a = Float64Array.from({ length: m * m }, (_, k) => f[tied[Math.floor(k / m)] * nodes.length + tied[k % m]]);
  const r = Float64Array.from({ length: 3 * m }, (_, k) => plane(nodes[tied[Math.floor(k / 3)]])[k % 3]);
  const right = r.slice();
  if (!luSolve(a, right, m, 3)) throw new RangeError("a singular leg");
  const k = new Float64Array(9);
  for (let i = 0; i < m; i++)
    for (let p = 0; p < 3; p++) for (let q = 0; q < 3; q++) k[3 * p + q] += r[3 * i + p] * right[3 * i + q];
  return inverse(k, 3).map((v) => 2 * v);
}

/**
 * A leg as the tables of joints have it: whole joints fully welded shall be as flexible as theirs. What its held end and
 * the beam taken off differ by lies in series with every state, the same in all.
 */
function inSeries(leg: Leg, whole: readonly number[], tabled: Float64Array): Leg {
  const own = flexibility(leg, whole);
  const count = leg.nodes.length;
  const f = leg.f.slice();
  leg.nodes.forEach((a, i) => {
    leg.nodes.forEach((b, j) => {
      let sum = 0;
      for (let p = 0; p < 3; p++)
        for (let q = 0; q < 3; q++) sum += ((tabled[3 * p + q] - own[3 * p + q]) / 2) * plane(a)[p] * plane(b)[q];
      f[i * count + j] += sum;
    });
  });
  return { ...leg, f };
}

/** Sum of a symmetric matrix's entries over two weighted sets of nodes. */
const meanOf = (l: Leg, p: Point["nodes"], q: Point["nodes"]): number =>
  p.reduce((sum, a) => sum + q.reduce((s, b) => s + a.share * b.share * l.f[a.node * l.nodes.length + b.node], 0), 0);

/**
 * How the open faces of a mitre touch in each state of its welds, from one leg against the plane of the mitre: what the plane is
 * held against is the leg's cut edge, tied where a weld holds, free to slide in the plane (equal legs are each other's mirror).
 */
export class Contacts {
  private readonly points: Point[];
  private readonly faces: number[][];

  private readonly leg: Leg;

  /** @param whole flexibility of the whole joint, fully welded, by the tables of joints: d2, r1, r3 at a modulus of 1 MPa. */
  constructor(
    leg: Leg,
    private readonly form: LegForm,
    whole: Float64Array,
  ) {
    this.leg = leg;
    this.faces = FACES.map((_, face) => this.nodesOf(face));
    this.leg = inSeries(leg, [...new Set(this.faces.flat())], whole);
    this.points = FACES.flatMap((_, face) => [this.endOf(face, -1), this.endOf(face, 1)]);
  }

  private get sin(): number {
    return Math.sin(((this.form.angleDeg / 2) * Math.PI) / 180);
  }

  private nodesOf(face: number): number[] {
    const { widthMm, heightMm, wallMm } = this.form;
    const y = (x1: number): number => x1 * this.sin;
    return this.leg.nodes.flatMap(({ x1Mm, x3Mm }, i) => {
      const depth = [y(x1Mm) + widthMm / 2, widthMm / 2 - y(x1Mm), heightMm / 2 - x3Mm, x3Mm + heightMm / 2][face];
      return depth < wallMm + 1e-6 ? [i] : [];
    });
  }

  /** Along a face as the section shows it, mm from its middle. */
  private along(face: number, node: number): number {
    const { x1Mm, x3Mm } = this.leg.nodes[node];
    return face < 2 ? x3Mm : x1Mm * this.sin;
  }

  private endOf(face: number, sign: number): Point {
    const { widthMm, heightMm, wallMm } = this.form;
    const inner = (face < 2 ? heightMm : widthMm) / 2 - wallMm - 1e-3;
    const own = this.faces[face].filter((i) => Math.abs(this.along(face, i)) < inner);
    const places = [...new Set(own.map((i) => this.along(face, i).toFixed(4)))]
      .map(Number)
      .sort((a, b) => sign * (b - a));
    return {
      face,
      nodes: COLUMNS.flatMap((share, k) => {
        const column = own.filter((i) => Math.abs(this.along(face, i) - places[k]) < 1e-3);
        return column.map((node) => ({ node, share: share / column.length }));
      }),
    };
  }

  private tackOf(face: number): number[] {
    const half = HALF_TACK * Math.min(this.form.widthMm, this.form.heightMm);
    const stretch = face < 2 ? 1 : 1 / this.sin;
    return this.faces[face].filter((i) => Math.abs(this.along(face, i)) * stretch < half);
  }

  /**
   * A state, its points in the order of the faces and from - to +, those on a welded face left out.
   * @param code digits of the faces: 0 open, 1 tacked, 2 welded.
   * @returns of each point what the plane's movement opens it by (three values), what a mm of closing of each face that holds
   * opens it by; then by what a N at each point opens the others at a modulus of 1 MPa, all with the plane held.
   */
  state(code: string): { opens: number[][]; closed: number[][]; gives: number[][] } {
    const { leg, form } = this;
    const count = leg.nodes.length;
    const digits = [...code].map(Number);
    const tacks = digits.flatMap((d, face) => (d === 1 ? [face] : []));
    const tied = [
      ...new Set(digits.flatMap((d, face) => (d === 2 ? this.faces[face] : d === 1 ? this.tackOf(face) : []))),
    ];
    const points = this.points.filter((p) => digits[p.face] !== 2);
    const m = tied.length;
    const columns = 7 + points.length;
    const a = Float64Array.from({ length: m * m }, (_, k) => leg.f[tied[Math.floor(k / m)] * count + tied[k % m]]);
    const r = new Float64Array(m * columns);
    const tackNodes = new Map(tacks.flatMap((face) => this.tackOf(face).map((i): [number, number] => [i, face])));
    tied.forEach((i, p) => {
      // The plane moves by one; a face closes by one; a N at a point.
      const at = plane(leg.nodes[i]);
      for (let w = 0; w < 3; w++) r[p * columns + w] = at[w];
      for (let face = 0; face < 4; face++)
        if (digits[face] === 2) r[p * columns + 3 + face] = -leg.w[i * 4 + face];
        else if (tackNodes.get(i) === face) r[p * columns + 3 + face] = 0.5;
      points.forEach((q, k) => {
        r[p * columns + 7 + k] = q.nodes.reduce((sum, { node, share }) => sum + share * leg.f[i * count + node], 0);
      });
    });
    if (m > 0 && !luSolve(a, r, m, columns))
      throw new RangeError(`state ${code} of ${JSON.stringify(form)} is singular`);
    const mean = (p: Point, of: (node: number) => number): number =>
      p.nodes.reduce((sum, { node, share }) => sum + share * of(node), 0);
    /** Movement of a point against the plane that the ties bring in a column of r. */
    const brought = (p: Point, c: number): number =>
      tied.reduce((sum, i, row) => sum + r[row * columns + c] * mean(p, (node) => leg.f[node * count + i]), 0);
    return {
      opens: points.map((p) => [0, 1, 2].map((w) => mean(p, (node) => plane(leg.nodes[node])[w]) - brought(p, w))),
      closed: points.map((p) =>
        digits.flatMap((d, face) =>
          d === 0 ? [] : [-2 * ((d === 2 ? mean(p, (node) => leg.w[node * 4 + face]) : 0) + brought(p, 3 + face))],
        ),
      ),
      gives: points.map((p) => points.map((q, k) => 2 * (meanOf(leg, p.nodes, q.nodes) - brought(p, 7 + k)))),
    };
  }
}

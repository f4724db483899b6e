import { luSolve, type Vec2 } from "../numeric";

/** A level member of a frame as a grillage sees it. Lengths in mm, stiffness in N mm2. */
export interface GrillageBar {
  from: Vec2;
  to: Vec2;
  eiNmm2: number;
  gjNmm2: number;
  /** Weight, N per mm. */
  wNPerMm: number;
}

/** How a frame sags on rests that lie in one plane. */
export interface SagOnRests {
  /** Lowest and highest point against the rests, mm. */
  lowMm: number;
  highMm: number;
  /** Where it sags most. */
  at: Vec2;
  /** Load on each rest, N; a rest that would have to pull carries nothing and is left. */
  loadsN: number[];
}

/** Stiffness of a rest, N/mm: far above any tube, far below what would spoil the figures. */
const REST_N_PER_MM = 1e7;
/** A bar is cut into pieces no longer than this share of its length. */
const PIECES = 4;

interface Node extends Vec2 {
  rest: number;
}

/** Nearest point of a bar to `p`, as a share of its length, and how far off it is. */
function nearest(p: Vec2, { from, to }: GrillageBar): { share: number; off: number } {
  const d = { x: to.x - from.x, y: to.y - from.y };
  const share = Math.max(0, Math.min(1, ((p.x - from.x) * d.x + (p.y - from.y) * d.y) / (d.x ** 2 + d.y ** 2)));
  return { share, off: Math.hypot(from.x + share * d.x - p.x, from.y + share * d.y - p.y) };
}

/** Bars cut at rests, at each other's ends and in pieces; ends within `joinMm` of another bar are joined to it. */
function meshOf(bars: readonly GrillageBar[], rests: readonly Vec2[], joinMm: number) {
  const cuts = bars.map((bar) => {
    const shares = new Set<number>([0, 1]);
    for (const other of bars)
      if (other !== bar)
        for (const end of [other.from, other.to]) {
          const { share, off } = nearest(end, bar);
          if (off <= joinMm) shares.add(share);
        }
    return shares;
  });
  rests.forEach((r) => {
    const found = bars.map((b) => nearest(r, b));
    const best = found.reduce((m, f, i) => (f.off < (found[m]?.off ?? Number.POSITIVE_INFINITY) ? i : m), 0);
    cuts[best]?.add(found[best]?.share ?? 0);
  });
  const nodes: Node[] = [];
  const nodeAt = (p: Vec2, within: number): number => {
    const found = nodes.findIndex((n) => Math.hypot(n.x - p.x, n.y - p.y) <= within);
    return found >= 0 ? found : nodes.push({ ...p, rest: -1 }) - 1;
  };
  // Ends first: what lands on a bar's side takes the end's place.
  const pieces: { i: number; j: number; bar: GrillageBar }[] = [];
  bars.forEach((bar, b) => {
    const length = Math.hypot(bar.to.x - bar.from.x, bar.to.y - bar.from.y);
    const near = Math.min(0.02, joinMm / length);
    const sorted = [...(cuts[b] as Set<number>)]
      .sort((p, q) => p - q)
      .filter((s, i, all) => i === 0 || s - (all[i - 1] as number) > near || s === 1);
    const full = sorted.flatMap((s, i) => {
      const next = sorted[i + 1];
      if (next === undefined) return [s];
      const n = Math.max(1, Math.ceil((next - s) * PIECES));
      return Array.from({ length: n }, (_, k) => s + ((next - s) * k) / n);
    });
    const ids = full.map((s) =>
      nodeAt({ x: bar.from.x + s * (bar.to.x - bar.from.x), y: bar.from.y + s * (bar.to.y - bar.from.y) }, joinMm),
    );
    ids.forEach((id, k) => {
      const before = ids[k - 1];
      if (before !== undefined && before !== id) pieces.push({ i: before, j: id, bar });
    });
  });
  rests.forEach((r, k) => {
    const best = nodes.reduce(
      (m, n, i) =>
        Math.hypot(n.x - r.x, n.y - r.y) < Math.hypot((nodes[m] as Node).x - r.x, (nodes[m] as Node).y - r.y) ? i : m,
      0,
    );
    const node = nodes[best];
    if (node) node.rest = k;
  });
  return { nodes, pieces };
}

/** Adds one bar piece to the stiffness and its weight to the load. Freedoms of a node: down, turn about x, turn about y. */
function addPiece(
  k: Float64Array,
  f: Float64Array,
  n: number,
  a: Node,
  b: Node,
  ia: number,
  ib: number,
  bar: GrillageBar,
): void {
  const l = Math.hypot(b.x - a.x, b.y - a.y);
  const [c, s] = [(b.x - a.x) / l, (b.y - a.y) / l];
  const { eiNmm2: ei, gjNmm2: gj } = bar;
  const [k1, k2, k3, k4, t] = [(12 * ei) / l ** 3, (6 * ei) / l ** 2, (4 * ei) / l, (2 * ei) / l, gj / l];
  // Local: up w, twist about the bar, slope about its left: w' is minus the turn about local y.
  const local = [
    [k1, 0, -k2, -k1, 0, -k2],
    [0, t, 0, 0, -t, 0],
    [-k2, 0, k3, k2, 0, k4],
    [-k1, 0, k2, k1, 0, k2],
    [0, -t, 0, 0, t, 0],
    [-k2, 0, k4, k2, 0, k3],
  ];
  // Turn: local twist = c rx + s ry, local y = -s rx + c ry.
  const turn = [
    [1, 0, 0],
    [0, c, s],
    [0, -s, c],
  ];
  const at = [3 * ia, 3 * ia + 1, 3 * ia + 2, 3 * ib, 3 * ib + 1, 3 * ib + 2];
  const t6 = (i: number, j: number): number =>
    Math.floor(i / 3) === Math.floor(j / 3) ? ((turn[i % 3] as number[])[j % 3] as number) : 0;
  for (let i = 0; i < 6; i++)
    for (let j = 0; j < 6; j++) {
      let sum = 0;
      for (let p = 0; p < 6; p++)
        for (let q = 0; q < 6; q++) sum += t6(p, i) * ((local[p] as number[])[q] as number) * t6(q, j);
      const place = (at[i] as number) * n + (at[j] as number);
      k[place] = (k[place] as number) + sum;
    }
  const w = bar.wNPerMm;
  const load = [(-w * l) / 2, 0, (w * l ** 2) / 12, (-w * l) / 2, 0, (-w * l ** 2) / 12];
  for (let i = 0; i < 6; i++) {
    let sum = 0;
    for (let p = 0; p < 6; p++) sum += t6(p, i) * (load[p] as number);
    f[at[i] as number] = (f[at[i] as number] as number) + sum;
  }
}

/**
 * Sag of a level frame under its own weight on rests in one plane. Rests only push: one that would have to hold the frame down
 * is let go. Source: grillage of Euler beams with torsion (stiffness method, closed-form bar).
 * @param bars members on their centre lines, seen from above. @param rests places; each carries the nearest member.
 * @param joinMm ends this near another member are joined to it.
 * @returns null when it cannot stand on them.
 */
export function sagOnRests(bars: readonly GrillageBar[], rests: readonly Vec2[], joinMm: number): SagOnRests | null {
  const long = bars.filter((b) => Math.hypot(b.to.x - b.from.x, b.to.y - b.from.y) > joinMm);
  if (long.length === 0 || rests.length < 3) return null;
  const { nodes, pieces } = meshOf(long, rests, joinMm);
  const n = 3 * nodes.length;
  const stiff = new Float64Array(n * n);
  const load = new Float64Array(n);
  for (const { i, j, bar } of pieces) addPiece(stiff, load, n, nodes[i] as Node, nodes[j] as Node, i, j, bar);
  const held = new Set(nodes.flatMap((node, i) => (node.rest >= 0 ? [i] : [])));
  for (let turn = 0; turn <= rests.length; turn++) {
    if (held.size < 3) return null;
    const a = Float64Array.from(stiff);
    const x = Float64Array.from(load);
    for (const i of held) a[3 * i * n + 3 * i] = (a[3 * i * n + 3 * i] as number) + REST_N_PER_MM;
    if (!luSolve(a, x, n, 1, 1e-14) || !x.every(Number.isFinite)) return null;
    const pulling = [...held].filter((i) => (x[3 * i] as number) > 1e-12);
    if (pulling.length > 0) {
      held.delete(pulling.reduce((m, i) => ((x[3 * i] as number) > (x[3 * m] as number) ? i : m)));
      continue;
    }
    const up = nodes.map((_, i) => x[3 * i] as number);
    const lowest = up.reduce((m, v, i) => (v < (up[m] as number) ? i : m), 0);
    const { x: ax, y: ay } = nodes[lowest] as Node;
    const loadsN = rests.map(() => 0);
    for (const i of held) loadsN[(nodes[i] as Node).rest] = -(x[3 * i] as number) * REST_N_PER_MM;
    // A frame that hangs together by nothing falls without end.
    if (Math.min(...up) < -1e5) return null;
    return { lowMm: Math.min(...up), highMm: Math.max(...up), at: { x: ax, y: ay }, loadsN };
  }
  return null;
}

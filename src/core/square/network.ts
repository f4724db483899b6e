import {
  conditionRatio,
  cross,
  type Diagnosis,
  diagnose,
  dot,
  type LeastSquares,
  leastSquares,
  multiplyColumn,
  type ReadingTests,
  type Rows,
  sub,
  testReadings,
  type Vec2,
  whitening,
  zeros,
} from "../numeric";

/** A taped distance, mm, with the standard uncertainty that is new in each reading. */
interface DistanceReading {
  kind: "distance";
  id: string;
  from: string;
  to: string;
  valueMm: number;
  uMm: number;
  /** Tape whose zero and scale error it shares with others. */
  tape?: string;
  /** What it may differ by because its ends are no points, mm (1 sigma): the tests for a misread allow for it. */
  realMm?: number;
}

/** An angle at `at` between `from` and `to`, rad. */
interface AngleReading {
  kind: "angle";
  id: string;
  from: string;
  at: string;
  to: string;
  valueRad: number;
  uRad: number;
}

/** How far `of` lies off the line from `from` to `to`, mm: positive to the left of one who looks along it. */
interface OffsetReading {
  kind: "offset";
  id: string;
  of: string;
  from: string;
  to: string;
  valueMm: number;
  uMm: number;
}
export type Reading = DistanceReading | AngleReading | OffsetReading;

/** Errors that all readings of one tape share. */
export interface Tape {
  uZeroMm: number;
  /** mm per mm. */
  uScale: number;
}

/** What the adjustment says about one reading. mm, or rad for an angle. */
interface CheckedReading {
  id: string;
  kind: Reading["kind"];
  /** Fitted minus read. */
  residual: number;
  /** Standardised residual; 0 when nothing controls the reading. */
  w: number;
  controlled: boolean;
  /** Share of the reading that the others check, 0 to 1. */
  redundancy: number;
  /** If this reading alone were wrong, it would be too large by this. */
  slip: number;
  uSlip: number;
  /** Smallest slip that would be noticed (alpha 0.001, power 80 %). */
  detectable: number;
}

export interface NetworkFit {
  status: "ok" | "ok_no_check" | "undetermined";
  /** Readings minus unknowns. */
  freedom: number;
  chi2: number | null;
  pValue: number | null;
  /** False when the readings contradict each other more than their uncertainty allows. */
  agree: boolean | null;
  points: Record<string, Vec2>;
  readings: CheckedReading[];
  maxAbsW: number;
  diagnosis: Diagnosis;
  /** How alike two readings' tests are, 0 to 1: at 1 a slip in one looks exactly like a slip in the other. */
  alike: (a: string, b: string) => number;
  /** Standard uncertainty of any number that is computed from the fitted points. */
  uOf: (f: (points: Record<string, Vec2>) => number) => number;
}

interface Network {
  /** Nominal places; the first is held, the second gives the direction. */
  nodes: Record<string, Vec2>;
  readings: Reading[];
  tapes?: Record<string, Tape>;
}

/**
 * A real corner is no point: it has a radius, and faces meet in a small step. What one tape reading may differ by for it, mm
 * (1 sigma): no reading is called misread for less (common practice, no source).
 */
export const REAL_CORNERS_MM = 0.35;

const dotProduct = (a: readonly number[], b: readonly number[]): number => a.reduce((sum, x, i) => sum + x * b[i], 0);

/** Angle at `q` from `p` to `t`, unsigned, rad. */
export function angleBetween(p: Vec2, q: Vec2, t: Vec2): number {
  const a = sub(p, q);
  const b = sub(t, q);
  return Math.atan2(Math.abs(cross(a, b)), dot(a, b));
}

/** Start values turned so that the first node is the origin and the second lies on +x. */
function gauge(nodes: Record<string, Vec2>): { names: string[]; xy: Vec2[] } {
  const names = Object.keys(nodes);
  const [origin, second] = names.map((n) => nodes[n]);
  if (!origin || !second) throw new Error("A network needs two nodes or more.");
  const turn = Math.atan2(second.y - origin.y, second.x - origin.x);
  const c = Math.cos(turn);
  const s = Math.sin(turn);
  return {
    names,
    xy: names.map((n) => {
      const d = sub(nodes[n], origin);
      return { x: c * d.x + s * d.y, y: c * d.y - s * d.x };
    }),
  };
}

/** Column of a coordinate among the unknowns, or -1 when it is held. Node 0 is held, node 1 keeps its y. */
function column(node: number, axis: 0 | 1): number {
  if (node === 0 || (node === 1 && axis === 1)) return -1;
  return node === 1 ? 0 : 2 * node - 3 + axis;
}

/** Value and row of derivatives of one reading. */
function linearise(reading: Reading, xy: Vec2[], index: Map<string, number>, unknowns: number) {
  const row = new Array<number>(unknowns).fill(0);
  const put = (node: number, d: Vec2) => {
    const cx = column(node, 0);
    const cy = column(node, 1);
    if (cx >= 0) row[cx] = (row[cx] ?? 0) + d.x;
    if (cy >= 0) row[cy] = (row[cy] ?? 0) + d.y;
  };
  const at = (name: string): [number, Vec2] => {
    const i = index.get(name);
    const point = i === undefined ? undefined : xy[i];
    if (i === undefined || !point)
      throw new Error(`Reading ${reading.id} names ${name}, which is not a point of the frame.`);
    return [i, point];
  };
  if (reading.kind === "distance") {
    const [i, p] = at(reading.from);
    const [j, q] = at(reading.to);
    const d = sub(q, p);
    const r = Math.hypot(d.x, d.y);
    const e = { x: d.x / r, y: d.y / r };
    put(j, e);
    put(i, { x: -e.x, y: -e.y });
    return { value: r, row };
  }
  if (reading.kind === "offset") {
    const [o, p] = at(reading.of);
    const [i, a] = at(reading.from);
    const [j, b] = at(reading.to);
    const length = Math.hypot(b.x - a.x, b.y - a.y);
    const e = { x: (b.x - a.x) / length, y: (b.y - a.y) / length };
    const off = cross(e, sub(p, a));
    const n = { x: -e.y, y: e.x };
    // The foot of the offset shares its move out to the two ends of the line.
    const t = dot(e, sub(p, a)) / length;
    put(o, n);
    put(i, { x: -(1 - t) * n.x, y: -(1 - t) * n.y });
    put(j, { x: -t * n.x, y: -t * n.y });
    return { value: off, row };
  }
  const [i, p] = at(reading.from);
  const [m, q] = at(reading.at);
  const [j, t] = at(reading.to);
  const a = sub(p, q);
  const b = sub(t, q);
  const sign = Math.sign(cross(a, b));
  const a2 = dot(a, a);
  const b2 = dot(b, b);
  const dt = { x: (-sign * b.y) / b2, y: (sign * b.x) / b2 };
  const dp = { x: (sign * a.y) / a2, y: (-sign * a.x) / a2 };
  put(j, dt);
  put(i, dp);
  put(m, { x: -(dt.x + dp.x), y: -(dt.y + dp.y) });
  return { value: angleBetween(p, q, t), row };
}

/** Covariance of the readings: independent parts, plus zero and scale errors that the readings of one tape share. */
function covariance(readings: Reading[], tapes: Record<string, Tape>): Rows {
  const C = zeros(readings.length, readings.length);
  readings.forEach((ri, i) => {
    const row = C[i];
    row[i] = (ri.kind === "angle" ? ri.uRad : ri.uMm) ** 2;
    readings.forEach((rj, j) => {
      if (ri.kind !== "distance" || rj.kind !== "distance" || !ri.tape || ri.tape !== rj.tape) return;
      const tape = tapes[ri.tape];
      if (tape) row[j] = row[j] + tape.uZeroMm ** 2 + tape.uScale ** 2 * ri.valueMm * rj.valueMm;
    });
  });
  return C;
}

function undetermined(freedom: number, points: Record<string, Vec2>): NetworkFit {
  return {
    status: "undetermined",
    freedom,
    chi2: null,
    pValue: null,
    agree: null,
    points,
    readings: [],
    maxAbsW: 0,
    diagnosis: { status: "none", candidates: [] },
    alike: () => 1,
    uOf: () => Number.POSITIVE_INFINITY,
  };
}

/** Share of the largest eigenvalue below which readings say nothing of a move. */
const OPEN = 1e-9;
const MOST_ROUNDS = 50;
/** The fit stands when no place moves by more, mm. */
const STILL_MM = 1e-9;

/**
 * Places that the readings leave free to move, the freest first, seen from the first two.
 * Source: null space of the readings' derivatives.
 */
export function openPlaces({ nodes, readings }: Network): string[] {
  const { names, xy } = gauge(nodes);
  const index = new Map(names.map((n, i) => [n, i]));
  const unknowns = 2 * names.length - 3;
  const rows = readings.map((r) => {
    const { row } = linearise(r, xy, index, unknowns);
    const size = Math.hypot(...row) || 1;
    return row.map((v) => v / size);
  });
  const { open } = leastSquares(
    rows,
    rows.map(() => 0),
    OPEN,
  );
  const free = names.map(() => 0);
  for (const way of open)
    names.forEach((_, node) => {
      for (const axis of [0, 1] as const) {
        const c = column(node, axis);
        if (c >= 0) free[node] = Math.max(free[node], Math.abs(way[c]));
      }
    });
  const most = Math.max(...free);
  return names
    .map((name, i) => ({ name, share: free[i] }))
    .filter((n) => n.share > 0.3 * most && n.share > 1e-6)
    .sort((a, b) => b.share - a.share)
    .map((n) => n.name);
}

/** Tests of the readings for a misread, made with what real corners may differ by besides. */
function testsOf(
  readings: Reading[],
  tapes: Record<string, Tape>,
  rows: Rows,
  misfit: readonly number[],
  freedom: number,
): ReadingTests {
  const cov = covariance(readings, tapes);
  readings.forEach((r, i) => {
    if (r.kind === "distance") cov[i][i] += (r.realMm ?? 0) ** 2;
  });
  const white = whitening({ cov });
  if (!white) throw new Error("A reading without uncertainty cannot be weighed.");
  const A = white.rows(rows);
  const off = white.column(misfit);
  const found = leastSquares(A, off);
  const left = off.map((v, i) => v - dotProduct(A[i], found.x));
  return testReadings(A, found, left, freedom, white);
}

/**
 * Least-squares fit of points to distances and angles (Gauss-Newton over the least-squares kernel), with the test of the whole and of each
 * reading.
 * @param network nominal places in mm, readings, shared errors. Never assumes a rectangle: with too few readings the
 * status is `undetermined`, with none to spare `ok_no_check`.
 */
export function adjustNetwork(network: Network): NetworkFit {
  const { readings, tapes = {} } = network;
  const { names, xy } = gauge(network.nodes);
  const index = new Map(names.map((n, i) => [n, i]));
  const unknowns = 2 * names.length - 3;
  const freedom = readings.length - unknowns;
  const asRecord = (points: Vec2[]): Record<string, Vec2> => Object.fromEntries(names.map((n, i) => [n, points[i]]));
  if (freedom < 0) return undetermined(freedom, asRecord(xy));

  const white = whitening({ cov: covariance(readings, tapes) });
  if (!white) throw new Error("A reading without uncertainty cannot be weighed.");
  const linear = () => readings.map((r) => linearise(r, xy, index, unknowns));
  let rows = linear();
  if (conditionRatio(rows.map(({ row }, i) => row.map((x) => x / white.u[i]))) < 1e-9)
    return undetermined(freedom, asRecord(xy));

  const observed = readings.map((r) => (r.kind === "angle" ? r.valueRad : r.valueMm));
  const misfit = (): number[] => white.column(rows.map((r, i) => r.value - observed[i]));
  const solve = (): LeastSquares => leastSquares(white.rows(rows.map((r) => r.row)), misfit());
  let found = solve();
  for (let round = 0; found.rank === unknowns && round < MOST_ROUNDS; round++) {
    const dx = found.x;
    xy.forEach((p, node) => {
      const [cx, cy] = [column(node, 0), column(node, 1)];
      if (cx >= 0) p.x -= dx[cx];
      if (cy >= 0) p.y -= dx[cy];
    });
    // Readings so far from any frame that the fit folds up.
    if (!xy.every((p) => Number.isFinite(p.x) && Number.isFinite(p.y))) break;
    rows = linear();
    found = solve();
    if (Math.max(...dx.map(Math.abs)) < STILL_MM) break;
  }
  if (found.rank < unknowns || !xy.every((p) => Number.isFinite(p.x) && Number.isFinite(p.y)))
    return undetermined(freedom, asRecord(gauge(network.nodes).xy));
  const { cofactor } = found;
  const tests = testsOf(
    readings,
    tapes,
    rows.map((r) => r.row),
    rows.map((r, i) => r.value - observed[i]),
    freedom,
  );
  const checked = tests.readings.map((t, i): CheckedReading => ({ id: readings[i].id, kind: readings[i].kind, ...t }));
  return {
    status: freedom === 0 ? "ok_no_check" : "ok",
    freedom,
    chi2: tests.chi2,
    pValue: tests.pValue,
    agree: tests.agree,
    points: asRecord(xy),
    readings: checked,
    maxAbsW: Math.max(0, ...checked.map((c) => Math.abs(c.w))),
    diagnosis: freedom > 0 ? diagnose(checked) : { status: "none", candidates: [] },
    alike: (a, b) => {
      const [i, j] = [a, b].map((id) => readings.findIndex((r) => r.id === id));
      return tests.alike(i, j);
    },
    uOf: (f) => {
      const step = 1e-3;
      const moved = (node: number, axis: "x" | "y", by: number) =>
        f(asRecord(xy.map((p, i) => (i === node ? { ...p, [axis]: p[axis] + by } : p))));
      const g = new Array<number>(unknowns).fill(0);
      xy.forEach((_, node) => {
        (["x", "y"] as const).forEach((axis, a) => {
          const c = column(node, a as 0 | 1);
          if (c >= 0) g[c] = (moved(node, axis, step) - moved(node, axis, -step)) / (2 * step);
        });
      });
      return Math.sqrt(Math.max(0, dotProduct(g, multiplyColumn(cofactor, g))));
    },
  };
}

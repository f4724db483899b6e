import {
  type Diagnosis,
  diagnose,
  Groups,
  leastSquares,
  type Rows,
  testReadings,
  type Vec2,
  whitening,
} from "../numeric";

/** One reading of a survey, by whichever method. Lengths in mm, slopes in mm per metre. */
export type SurveyReading = { id: string; uMm: number } & (
  | { by: "height"; at: string; mm: number; datum: string }
  /** Rod under the level line of one set-up of an optical level. `sightM`: distance of the rod, where it was noted. */
  | { by: "rod"; at: string; mm: number; setUp: string; level: string; sightM: number | null }
  /** A level from point to point: what it shows over a metre. `uMm` is that of the height over the whole length. */
  | {
      by: "slope";
      from: string;
      at: string;
      mmPerM: number;
      level: string;
      /** 1 where its arrow points on, -1 back; between where it was turned and averaged. */
      direction: number;
      /** Length that it reaches over; from place to place when left out. */
      lengthMm?: number;
    }
  | { by: "difference"; from: string; at: string; mm: number }
  /** Gap under a straightedge or string from point to point, on blocks of these heights. */
  | {
      by: "edge";
      from: string;
      to: string;
      at: string;
      gapMm: number;
      blocksMm: readonly [number, number];
      bulgeMm: number;
    }
);

/** What an instrument may be wrong by in all its readings alike, mm per metre (1 sigma; infinite: nothing is known of it). */
type SharedErrors = Readonly<Record<string, number>>;

/** One reading after adjustment. */
interface CheckedHeight {
  id: string;
  /** Adjusted less read, mm. */
  residualMm: number;
  w: number;
  controlled: boolean;
  redundancy: number;
  /** Smallest slip that would show, mm. */
  detectableMm: number;
}

export interface SurveyFit {
  status: "ok" | "ok_no_check";
  /** Points in the order of `zMm` and `cov`. */
  points: string[];
  /** Heights, mm; the lowest is nought. Where the readings do not say how level the bed is, about its own mean plane. */
  zMm: Record<string, number>;
  /** Covariance of the heights, mm2, blind to what the readings do not say (height above all, perhaps tilt). */
  cov: Rows;
  /** Whether the readings say how the bed slopes: gaps under a straightedge alone do not. */
  levelKnown: boolean;
  freedom: number;
  chi2: number;
  pValue: number;
  agree: boolean;
  readings: CheckedHeight[];
  diagnosis: Diagnosis;
  /** Zero error or collimation of each instrument as these readings tell it, mm per metre; left out where they do not tell it. */
  errors: Record<string, { mmPerM: number; uMmPerM: number }>;
}

export type Survey =
  | SurveyFit
  /** Points that nothing ties to the others. */
  | { status: "disconnected"; unreached: string[] }
  /** Points whose height the readings leave open. */
  | { status: "loose"; loose: string[] }
  | { status: "nothing" };

/** Source of every height that a reading speaks of: a point, a datum, a set-up or an instrument's error. */
interface Row {
  id: string;
  parts: Map<string, number>;
  value: number;
  u: number;
  /** Stated on the shelf, not read here. */
  prior: boolean;
}

/** Shares of the largest eigenvalue below which the readings say nothing. */
const NOTHING = 1e-11;

/** How far `p` lies along the way from `a` to `b`, as a share. */
function shareAlong(p: Vec2, a: Vec2, b: Vec2): number {
  const d = { x: b.x - a.x, y: b.y - a.y };
  return ((p.x - a.x) * d.x + (p.y - a.y) * d.y) / (d.x ** 2 + d.y ** 2);
}

function rowOf(r: SurveyReading, places: ReadonlyMap<string, Vec2>): Row {
  const parts = new Map<string, number>();
  const put = (name: string, k: number) => parts.set(name, (parts.get(name) ?? 0) + k);
  const row = (value: number): Row => ({ id: r.id, parts, value, u: r.uMm, prior: false });
  const at = (name: string): Vec2 => places.get(name) as Vec2;
  put(r.at, 1);
  switch (r.by) {
    case "height":
      put(`datum ${r.datum}`, -1);
      return row(r.mm);
    case "rod":
      // Height is the line of sight less the rod; a line that rises by c with every metre reads c d too much.
      put(`set-up ${r.setUp}`, -1);
      if (r.sightM !== null) put(`error ${r.level}`, -r.sightM);
      return row(-r.mm);
    case "slope": {
      const length = (r.lengthMm ?? Math.hypot(at(r.at).x - at(r.from).x, at(r.at).y - at(r.from).y)) / 1000;
      put(r.from, -1);
      put(`error ${r.level}`, r.direction * length);
      return row(r.mmPerM * length);
    }
    case "difference":
      put(r.from, -1);
      return row(r.mm);
    case "edge": {
      const t = shareAlong(at(r.at), at(r.from), at(r.to));
      put(r.from, -(1 - t));
      put(r.to, -t);
      return row((1 - t) * r.blocksMm[0] + t * r.blocksMm[1] - r.gapMm - r.bulgeMm);
    }
  }
}

const pointsIn = (r: SurveyReading): string[] =>
  r.by === "edge" ? [r.from, r.to, r.at] : r.by === "slope" || r.by === "difference" ? [r.from, r.at] : [r.at];

/** The part of `v` over the points that no plane explains, by removing 1, x, y in turn. @param basis orthonormal planes. */
function beyondPlanes(v: readonly number[], basis: readonly (readonly number[])[]): number[] {
  let rest = [...v];
  for (const b of basis) {
    const k = rest.reduce((s, x, i) => s + x * b[i], 0);
    rest = rest.map((x, i) => x - k * b[i]);
  }
  return rest;
}

const lengthOf = (v: readonly number[]): number => Math.hypot(...v);

/** Orthonormal planes over some places: height, then tilt along x and y where the places tell it. */
function planesOver(xy: readonly Vec2[]): number[][] {
  const basis: number[][] = [];
  for (const column of [xy.map(() => 1), xy.map((p) => p.x), xy.map((p) => p.y)]) {
    const rest = beyondPlanes(column, basis);
    const n = lengthOf(rest);
    if (n > 1e-6 * Math.max(1, lengthOf(column))) basis.push(rest.map((x) => x / n));
  }
  return basis;
}

/**
 * Heights of a bed from readings in any order and mixture: heights, rods, slopes, differences, gaps under an edge or string.
 * What a level or an edge leaves open (height above all, tilt) is left open; what it says about flat is taken whole.
 * Source: least squares by the pseudo-inverse of the normal matrix; errors shared by the readings of one instrument are
 * unknowns with the shelf's word for them; single readings are tested after Baarda (from memory).
 * @param places of all points. @param readings of them; points without a reading are left out.
 * @param shared uncertainty of each level's zero or collimation; one that is missing counts as free of error.
 */
export function survey(
  places: ReadonlyMap<string, Vec2>,
  readings: readonly SurveyReading[],
  shared: SharedErrors = {},
): Survey {
  const points = [...places.keys()].filter((p) => readings.some((r) => pointsIn(r).includes(p)));
  if (points.length === 0) return { status: "nothing" };
  const rows = readings.map((r) => rowOf(r, places));
  const errors = [...new Set(rows.flatMap((r) => [...r.parts.keys()].filter((k) => k.startsWith("error "))))];
  for (const e of errors) {
    const u = shared[e.slice("error ".length)] ?? 0;
    // Nothing known of it: the readings alone must tell.
    if (u === Number.POSITIVE_INFINITY) continue;
    // An instrument without a stated error keeps its word: its error is nought.
    rows.push({ id: e, parts: new Map([[e, 1]]), value: 0, u: Math.max(u, 1e-9), prior: true });
  }
  const names = [...points, ...new Set(rows.flatMap((r) => [...r.parts.keys()]).filter((k) => !places.has(k)))];
  const index = new Map(names.map((n, i) => [n, i]));

  const groups = new Groups(names);
  for (const r of rows) {
    const [first, ...others] = [...r.parts.keys()].filter((k) => !k.startsWith("error "));
    for (const o of others) groups.join(first, o);
  }
  const own = groups.of(points[0]);
  const unreached = points.filter((p) => groups.of(p) !== own);
  if (unreached.length > 0) return { status: "disconnected", unreached };

  const plain = rows.map((r) => {
    const row = new Array<number>(names.length).fill(0);
    for (const [name, k] of r.parts) row[index.get(name) ?? -1] = k;
    return row;
  });
  const white = whitening({ u: rows.map((r) => r.u) });
  if (!white) throw new RangeError("A reading without uncertainty cannot be weighed.");
  const weighted = white.rows(plain);
  const observed = white.column(rows.map((r) => r.value));
  const found = leastSquares(weighted, observed, NOTHING);
  const { x, cofactor } = found;
  const basis = planesOver(points.map((p) => places.get(p) as Vec2));
  const loose = new Set<string>();
  let tilts = false;
  for (const v of found.open) {
    const over = v.slice(0, points.length);
    const total = lengthOf(over);
    if (total < 1e-9 * lengthOf(v)) continue;
    const rest = beyondPlanes(over, basis);
    if (lengthOf(rest) > 1e-5 * total) {
      const most = Math.max(...rest.map(Math.abs));
      rest.forEach((x, i) => {
        if (Math.abs(x) > 0.3 * most) loose.add(points[i]);
      });
    } else if (lengthOf(beyondPlanes(over, basis.slice(0, 1))) > 1e-5 * total) tilts = true;
  }
  if (loose.size > 0) return { status: "loose", loose: [...loose] };

  const residuals = weighted.map((row, i) => row.reduce((sum, v, j) => sum + v * x[j], 0) - observed[i]);
  const tests = testReadings(weighted, found, residuals, rows.length - found.rank, white);
  const own2 = tests.readings.flatMap((t, i) => (rows[i].prior ? [] : [{ id: rows[i].id, ...t }]));
  const lowest = Math.min(...points.map((_, i) => x[i]));
  return {
    status: own2.some((c) => c.controlled) ? "ok" : "ok_no_check",
    points,
    zMm: Object.fromEntries(points.map((p, i) => [p, x[i] - lowest])),
    cov: points.map((_, i) => points.map((__, j) => cofactor[i][j])),
    levelKnown: !tilts,
    freedom: tests.freedom,
    chi2: tests.chi2,
    pValue: tests.pValue ?? 1,
    agree: tests.agree ?? true,
    readings: own2.map(({ id, residual, w, controlled, redundancy, detectable }) => ({
      id,
      residualMm: residual,
      w,
      controlled,
      redundancy,
      detectableMm: detectable,
    })),
    diagnosis: diagnose(own2),
    errors: Object.fromEntries(
      errors.flatMap((e) => {
        const i = index.get(e) as number;
        // What may be anything is not found, whatever the least of all answers says.
        if (found.open.some((v) => Math.abs(v[i]) > 1e-9 * lengthOf(v))) return [];
        return [[e.slice("error ".length), { mmPerM: x[i], uMmPerM: Math.sqrt(cofactor[i][i]) }] as const];
      }),
    ),
  };
}

import { cholesky, entry, type Rows, solveCholesky, type Vec2 } from "../numeric";
import { bareUnit, fail, ok, parseLength, plainMm, type Result, type UnitPreference } from "../units";

/** One size taken from an existing object. */
type Taken =
  | { kind: "distance"; line: number; from: string; to: string; mm: number; uMm: number }
  | { kind: "point"; line: number; name: string; at: Vec2; uMm: number };

/** A shape fitted to what was taken, seen from above. */
interface MeasuredShape {
  points: { name: string; at: Vec2; uMm: number | null }[];
  /** Read less fitted, by line. */
  residuals: { line: number; text: string; mm: number; standard: number }[];
  /** Pairs of points between which a distance was taken. */
  taken: [string, string][];
  /** Lines that do not agree with the others. */
  doubtful: number[];
  /** Readings more than are needed to place the points. */
  spare: number;
}

/** Standard uncertainty of a tape reading where none is written, mm (own judgement). */
const USUAL_U_MM = 0.5;
/** Twice this many standard deviations off is doubtful. */
const DOUBT = 3;

const NAME = /^[A-Za-z][A-Za-z0-9]{0,5}$/;

/**
 * Reads what was written down, a line each: `P1 P2 1203.5 ± 0.5` for a distance, `P1 = 0, 20 ± 1` for a point. What follows
 * ± is the standard uncertainty.
 * @returns what was taken, or the first line that cannot be read.
 */
export function readSurvey(text: string, units: UnitPreference): Result<Taken[]> {
  const bare = bareUnit(units);
  const out: Taken[] = [];
  const mm = (s: string, what: string, line: number): Result<number> => {
    const read = parseLength(s, bare);
    return read.ok ? ok(read.value.mm) : fail(`Line ${line}: ${what}: ${read.message}`);
  };
  for (const [i, raw] of text.split("\n").entries()) {
    const line = i + 1;
    const plain = raw.replace(/#.*/, "").trim();
    if (plain === "") continue;
    const [left = "", right, more] = plain.split(/±|\+-/).map((s) => s.trim());
    if (more !== undefined) return fail(`Line ${line}: more than one ±.`);
    const u = right === undefined ? ok(USUAL_U_MM) : mm(right, "uncertainty", line);
    if (!u.ok) return u;
    if (!(u.value > 0)) return fail(`Line ${line}: an uncertainty is more than zero.`);
    const point = /^(\S+)\s*=\s*(.+?)\s*,\s*(.+)$/.exec(left);
    if (point) {
      const [, name = "", sx = "", sy = ""] = point;
      if (!NAME.test(name))
        return fail(`Line ${line}: "${name}" is no name of a point: a letter, then letters or digits.`);
      const [x, y] = [mm(sx, "x", line), mm(sy, "y", line)];
      if (!x.ok) return x;
      if (!y.ok) return y;
      out.push({ kind: "point", line, name: name.toUpperCase(), at: { x: x.value, y: y.value }, uMm: u.value });
      continue;
    }
    const [from = "", to = "", ...rest] = left.split(/\s+/);
    if (!NAME.test(from) || !NAME.test(to) || rest.length === 0)
      return fail(`Line ${line}: write two points and their distance, P1 P2 1203.5, or a point, P1 = 0, 20.`);
    if (from.toUpperCase() === to.toUpperCase()) return fail(`Line ${line}: from ${from} to itself is no distance.`);
    const d = mm(rest.join(" "), "distance", line);
    if (!d.ok) return d;
    if (!(d.value > 0)) return fail(`Line ${line}: a distance is more than zero.`);
    out.push({ kind: "distance", line, from: from.toUpperCase(), to: to.toUpperCase(), mm: d.value, uMm: u.value });
  }
  return ok(out);
}

/** Places points one after the other by two distances each, to start the fit from. */
function firstPlaces(taken: readonly Taken[], names: readonly string[]): Result<Map<string, Vec2>> {
  const at = new Map<string, Vec2>();
  for (const t of taken) if (t.kind === "point" && !at.has(t.name)) at.set(t.name, t.at);
  const distances = taken.filter((t) => t.kind === "distance");
  const of = (name: string) =>
    distances.flatMap((d) => {
      const other = d.from === name ? d.to : d.to === name ? d.from : null;
      const p = other ? at.get(other) : undefined;
      return p ? [{ p, d: d.mm }] : [];
    });
  if (at.size === 0) {
    const d = distances[0];
    if (!d) return fail("Nothing taken yet.");
    at.set(d.from, { x: 0, y: 0 });
    at.set(d.to, { x: d.mm, y: 0 });
  }
  for (let placed = true; placed; ) {
    placed = false;
    // Whoever is tied best goes first: a third tie tells the two sides apart.
    const next = names
      .filter((n) => !at.has(n))
      .map((n) => ({ n, ties: of(n) }))
      .filter((x) => x.ties.length >= 2)
      .sort((a, b) => b.ties.length - a.ties.length)[0];
    if (!next) break;
    const [a, b] = next.ties as [{ p: Vec2; d: number }, { p: Vec2; d: number }];
    const [dx, dy] = [b.p.x - a.p.x, b.p.y - a.p.y];
    const base = Math.hypot(dx, dy);
    if (base < 1e-6)
      return fail(`${next.n} cannot be placed: two of the points that it is tied to are the same place.`);
    const s = (a.d ** 2 - b.d ** 2 + base ** 2) / (2 * base);
    const h2 = a.d ** 2 - s ** 2;
    if (h2 < -0.02 * a.d ** 2)
      return fail(
        `${next.n} cannot be placed: ${plainMm(a.d)} and ${plainMm(b.d)} do not meet over ${plainMm(base)}. Read them again.`,
      );
    const h = Math.sqrt(Math.max(0, h2));
    const candidate = (sign: number): Vec2 => ({
      x: a.p.x + (s * dx - sign * h * dy) / base,
      y: a.p.y + (s * dy + sign * h * dx) / base,
    });
    const miss = (p: Vec2): number =>
      next.ties.reduce((sum, t) => sum + Math.abs(Math.hypot(p.x - t.p.x, p.y - t.p.y) - t.d), 0);
    const [up, down] = [candidate(1), candidate(-1)];
    if (next.ties.length === 2 && at.size > 2 && h > 1)
      return fail(`${next.n} could lie on either side: it is tied by two distances only. Take one more from it.`);
    // The first one off the line goes to the back; from then on the ties decide.
    const first = at.size === 2 && !taken.some((t) => t.kind === "point");
    const [one, other] = first && down.y > up.y ? [down, up] : [up, down];
    at.set(next.n, miss(one) <= miss(other) + 1e-9 ? one : other);
    placed = true;
  }
  const left = names.filter((n) => !at.has(n));
  return left.length > 0 ? fail(`${left.join(", ")}: tied by fewer than two distances. Take more from there.`) : ok(at);
}

/**
 * Fits points to measured distances and places by least squares, each weighted by its uncertainty. Where no point was
 * measured the first lies at the origin and the second along x.
 * Source: Gauss and Newton's method, damped.
 */
export function measuredShape(taken: readonly Taken[]): Result<MeasuredShape> {
  const names = [...new Set(taken.flatMap((t) => (t.kind === "point" ? [t.name] : [t.from, t.to])))];
  if (names.length < 2) return fail("Take at least one distance between two points.");
  const start = firstPlaces(taken, names);
  if (!start.ok) return start;
  const x = new Float64Array(2 * names.length);
  names.forEach((n, i) => {
    const p = start.value.get(n) as Vec2;
    x[2 * i] = p.x;
    x[2 * i + 1] = p.y;
  });
  const index = new Map(names.map((n, i) => [n, i]));
  const tied = new Set(taken.filter((t) => t.kind === "point").map((t) => t.name)).size;
  // Without two known places the whole may slide and turn: the first point and the direction to the second are held.
  const held =
    tied === 0
      ? [0, 1, 3]
      : tied === 1
        ? [
            2 *
              (names.length > 1
                ? (index.get(
                    names.find((n) => !taken.some((t) => t.kind === "point" && t.name === n)) as string,
                  ) as number)
                : 0) +
              1,
          ]
        : [];
  const free = [...x.keys()].filter((i) => !held.includes(i));
  const rows = (at: Float64Array) =>
    taken.flatMap((t): { r: number; j: [number, number][] }[] => {
      if (t.kind === "point") {
        const i = 2 * (index.get(t.name) as number);
        return [
          { r: (t.at.x - entry(at, i)) / t.uMm, j: [[i, 1 / t.uMm]] },
          { r: (t.at.y - entry(at, i + 1)) / t.uMm, j: [[i + 1, 1 / t.uMm]] },
        ];
      }
      const [i, k] = [2 * (index.get(t.from) as number), 2 * (index.get(t.to) as number)];
      const [dx, dy] = [entry(at, k) - entry(at, i), entry(at, k + 1) - entry(at, i + 1)];
      const d = Math.hypot(dx, dy) || 1e-9;
      const [gx, gy] = [dx / d / t.uMm, dy / d / t.uMm];
      return [
        {
          r: (t.mm - d) / t.uMm,
          j: [
            [i, -gx],
            [i + 1, -gy],
            [k, gx],
            [k + 1, gy],
          ],
        },
      ];
    });
  const cost = (at: Float64Array): number => rows(at).reduce((s, { r }) => s + r * r, 0);
  const slot = new Map(free.map((i, k) => [i, k]));
  const normal = (damping: number): { a: Rows; b: number[] } => {
    const n = free.length;
    const a = Array.from({ length: n }, () => new Array<number>(n).fill(0));
    const b = new Array<number>(n).fill(0);
    for (const { r, j } of rows(x))
      for (const [i, gi] of j) {
        const p = slot.get(i);
        if (p === undefined) continue;
        b[p] = entry(b, p) + gi * r;
        for (const [k, gk] of j) {
          const q = slot.get(k);
          if (q !== undefined) (a[p] as number[])[q] = entry(a[p] ?? [], q) + gi * gk;
        }
      }
    for (let p = 0; p < n; p++) (a[p] as number[])[p] = entry(a[p] ?? [], p) * (1 + damping) + 1e-12;
    return { a, b };
  };
  let damping = 1e-3;
  let now = cost(x);
  for (let step = 0; step < 60; step++) {
    const { a, b } = normal(damping);
    const l = cholesky(a);
    if (!l) return fail("These sizes do not fix the shape: take one more, across.");
    const move = solveCholesky(l, b);
    const next = Float64Array.from(x);
    free.forEach((i, k) => {
      next[i] = entry(next, i) + entry(move, k);
    });
    const then = cost(next);
    if (then <= now + 1e-12) {
      x.set(next);
      const done = now - then < 1e-12 * (1 + now) && Math.max(...move.map(Math.abs)) < 1e-7;
      now = then;
      damping = Math.max(1e-9, damping / 10);
      if (done) break;
    } else damping *= 10;
  }
  // Loose when a way to move costs next to nothing.
  const { a } = normal(0);
  const l = cholesky(a);
  const n = free.length;
  const variance = (k: number): number => {
    if (!l) return Number.POSITIVE_INFINITY;
    const e = new Array<number>(n).fill(0);
    e[k] = 1;
    return solveCholesky(l, e)[k] as number;
  };
  const u = names.map((_, i) => {
    const parts = [2 * i, 2 * i + 1].flatMap((c) => {
      const k = slot.get(c);
      return k === undefined ? [] : [variance(k)];
    });
    return parts.length === 0 ? 0 : Math.sqrt(parts.reduce((s, v) => s + v, 0));
  });
  if (u.some((v) => !(v < 1e4))) return fail("These sizes do not fix the shape: take one more, across.");
  const residuals = taken.map((t) => {
    const text = t.kind === "point" ? t.name : `${t.from} to ${t.to}`;
    const i = 2 * (index.get(t.kind === "point" ? t.name : t.from) as number);
    if (t.kind === "point") {
      const mm = Math.hypot(t.at.x - entry(x, i), t.at.y - entry(x, i + 1));
      return { line: t.line, text, mm, standard: mm / t.uMm };
    }
    const k = 2 * (index.get(t.to) as number);
    const mm = t.mm - Math.hypot(entry(x, k) - entry(x, i), entry(x, k + 1) - entry(x, i + 1));
    return { line: t.line, text, mm, standard: mm / t.uMm };
  });
  return ok({
    points: names.map((name, i) => ({
      name,
      at: { x: entry(x, 2 * i), y: entry(x, 2 * i + 1) },
      uMm: u[i] ?? null,
    })),
    residuals,
    taken: taken.flatMap((t): [string, string][] => (t.kind === "distance" ? [[t.from, t.to]] : [])),
    doubtful: residuals.filter((r) => Math.abs(r.standard) > DOUBT).map((r) => r.line),
    spare: taken.reduce((s, t) => s + (t.kind === "point" ? 2 : 1), 0) - free.length,
  });
}

/** Taken distances that cross no other: the sides of the object. A diagonal crosses the other one, or a side. */
export function sidesOf(shape: MeasuredShape): [Vec2, Vec2][] {
  const at = (name: string): Vec2 => shape.points.find((p) => p.name === name)?.at ?? { x: 0, y: 0 };
  const turn = (a: Vec2, b: Vec2, c: Vec2): number => Math.sign((b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x));
  const crosses = ([a, b]: [string, string], [c, d]: [string, string]): boolean => {
    if (new Set([a, b, c, d]).size < 4) return false;
    const [p, q, r, s] = [at(a), at(b), at(c), at(d)];
    return turn(p, q, r) * turn(p, q, s) < 0 && turn(r, s, p) * turn(r, s, q) < 0;
  };
  return shape.taken
    .filter((t, i) => shape.taken.findIndex((x) => x.includes(t[0]) && x.includes(t[1])) === i)
    .filter((t) => !shape.taken.some((x) => crosses(t, x)))
    .map(([a, b]) => [at(a), at(b)]);
}

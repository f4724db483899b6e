import { cholesky, entry, norm, solveCholesky, sub, type Vec2 } from "../numeric";
import type { Places } from "./foundPlaces";

/** Frames with more places than this are measured at their outermost ones. */
const MOST_PLACES = 12;
/** What is left of a row beside others, below which it follows from them. */
const INDEPENDENT = 1e-3;
/** Readings besides those that fix the shape, so that a misread shows: at least, and at most where some would be checked by none. */
const SPARE = { least: 2, most: 4 } as const;
/** A reading is checked when so much of a slip in it is left over after the fit (own judgement: then ten times its scatter shows). */
const CHECKED = 0.02;
/** More than this makes it no better checked than it needs to be. */
const ENOUGH = 0.1;
/** What is checked by none comes first, so many times. */
const FIRST = 10;
const worthOf = (checked: number): number => FIRST * Math.min(CHECKED, checked) + Math.min(ENOUGH, checked);

/** A row of a distance's derivatives, all places free. */
function rowOf(names: readonly string[], nodes: Record<string, Vec2>, from: string, to: string): number[] {
  const d = sub(nodes[to], nodes[from]);
  const n = norm(d) || 1;
  const row = new Array<number>(2 * names.length).fill(0);
  const [i, j] = [names.indexOf(from), names.indexOf(to)];
  [row[2 * i], row[2 * i + 1], row[2 * j], row[2 * j + 1]] = [-d.x / n, -d.y / n, d.x / n, d.y / n];
  return row;
}

/** What is left of a row beside others that are orthonormal. */
function beside(row: readonly number[], basis: readonly (readonly number[])[]): number[] {
  let rest = [...row];
  for (const b of basis) {
    const k = rest.reduce((s, x, i) => s + x * b[i], 0);
    rest = rest.map((x, i) => x - k * b[i]);
  }
  return rest;
}

/** The outermost places in each of so many directions. */
function outermost(nodes: Record<string, Vec2>): string[] {
  const names = Object.keys(nodes);
  if (names.length <= MOST_PLACES) return names;
  const out = new Set<string>();
  for (let k = 0; k < 2 * MOST_PLACES && out.size < MOST_PLACES; k++) {
    const a = (k * Math.PI) / MOST_PLACES;
    const reach = (n: string): number => nodes[n].x * Math.cos(a) + nodes[n].y * Math.sin(a);
    out.add(names.reduce((best, n) => (reach(n) > reach(best) ? n : best)));
  }
  return [...out];
}

/**
 * Spare readings, those first by which most of the others are checked. A reading that follows from the fixing ones closes a sum with them;
 * how much of a slip in one is left over after the fit is its part in all such sums, made square to each other (redundancy numbers: Baarda,
 * from memory).
 * @param fixing rows that fix the shape, independent of each other. @param follow rows that follow from them: those that are read anyway, and
 * what may be read besides.
 * @returns which of the latter to read, as many as it takes.
 */
function spare(
  fixing: readonly number[][],
  follow: { anyway: readonly number[][]; besides: readonly number[][] },
): number[] {
  const product = (p: readonly number[], q: readonly number[]): number => p.reduce((s, x, i) => s + x * entry(q, i), 0);
  const l = cholesky(fixing.map((p) => fixing.map((q) => product(p, q))));
  if (!l) return [];
  const rows = [...follow.anyway, ...follow.besides];
  const sums = rows.map((row, k) => [
    ...solveCholesky(
      l,
      fixing.map((p) => product(p, row)),
    ),
    ...rows.map((_, i) => (i === k ? -1 : 0)),
  ]);
  const square: number[][] = [];
  const checked = [...fixing, ...rows].map(() => 0);
  /** A sum beside those that are closed already, of length 1; nothing where it follows from them. */
  const closes = (k: number): number[] => {
    const left = beside(sums[k] ?? [], square);
    const size = Math.hypot(...left);
    return size > INDEPENDENT ? left.map((x) => x / size) : [];
  };
  const take = (k: number): void => {
    const sum = closes(k);
    for (const [i, x] of sum.entries()) checked[i] = entry(checked, i) + x * x;
    if (sum.length > 0) square.push(sum);
  };
  const worth = (k: number): number =>
    closes(k).reduce((s, x, i) => s + worthOf(entry(checked, i) + x * x) - worthOf(entry(checked, i)), 0);
  follow.anyway.forEach((_, k) => {
    take(k);
  });
  const chosen: number[] = [];
  const isRead = (i: number): boolean =>
    i < fixing.length + follow.anyway.length || chosen.includes(i - fixing.length - follow.anyway.length);
  const isOpen = (): boolean => checked.some((x, i) => isRead(i) && x < CHECKED);
  while (chosen.length < Math.min(SPARE.most, follow.besides.length) && (chosen.length < SPARE.least || isOpen())) {
    const [best] = follow.besides
      .map((_, i) => i)
      .filter((i) => !chosen.includes(i))
      .map((i) => ({ i, worth: worth(follow.anyway.length + i) }))
      .sort((p, q) => q.worth - p.worth);
    if (!best) break;
    take(follow.anyway.length + best.i);
    chosen.push(best.i);
  }
  return chosen;
}

/**
 * Distances that fix the shape of any frame and a few more that check them: along members first, then the longest across, then those by which
 * a misread of the others shows best; in the order in which one walks round it. Source: rank of the distances' derivatives, by Gram and Schmidt.
 * @returns pairs of places.
 */
export function walkingSet({ nodes, along }: Places): [string, string][] {
  const names = outermost(nodes);
  const across = names.flatMap((p, i) => names.slice(i + 1).map((q): [string, string] => [p, q]));
  const lengthOf = ([p, q]: [string, string]): number => norm(sub(nodes[q], nodes[p]));
  const same = (a: readonly string[], b: readonly string[]): boolean => a.every((x) => b.includes(x));
  const members = along.filter((pair) => pair.every((n) => names.includes(n)));
  const rest = across.filter((pair) => !members.some((m) => same(m, pair))).sort((a, b) => lengthOf(b) - lengthOf(a));
  const basis: number[][] = [];
  const set: [string, string][] = [];
  const fixing: number[][] = [];
  const anyway: number[][] = [];
  for (const pair of [...members, ...rest]) {
    const row = rowOf(names, nodes, pair[0], pair[1]);
    const left = beside(row, basis);
    const size = Math.hypot(...left);
    if (size > INDEPENDENT) {
      basis.push(left.map((x) => x / size));
      fixing.push(row);
    } else if (members.includes(pair)) anyway.push(row);
    else continue;
    set.push(pair);
  }
  const besides = rest.filter((pair) => !set.includes(pair));
  const rows = besides.map(([p, q]) => rowOf(names, nodes, p, q));
  set.push(...spare(fixing, { anyway, besides: rows }).map((i) => besides[i] as [string, string]));
  const centre = {
    x: names.reduce((s, n) => s + nodes[n].x, 0) / names.length,
    y: names.reduce((s, n) => s + nodes[n].y, 0) / names.length,
  };
  const bearing = (n: string): number => Math.atan2(nodes[n].y - centre.y, nodes[n].x - centre.x);
  return set
    .map(([p, q]): [string, string] => (bearing(p) <= bearing(q) ? [p, q] : [q, p]))
    .sort((a, b) => bearing(a[0]) - bearing(b[0]) || lengthOf(a) - lengthOf(b));
}

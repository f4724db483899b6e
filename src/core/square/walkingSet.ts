import { norm, sub, type Vec2 } from "../numeric";
import type { Places } from "./places";

/** Frames with more places than this are measured at their outermost ones. */
const MOST_PLACES = 12;
/** Readings besides those that fix the shape, so that a misread shows. */
const SPARE = 2;

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
 * Distances that fix the shape of any frame and a few more that check them: along members first, then the longest across, in
 * the order in which one walks round it. Source: rank of the distances' derivatives, by Gram and Schmidt.
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
  let spare = SPARE;
  for (const pair of [...members, ...rest]) {
    const left = beside(rowOf(names, nodes, pair[0], pair[1]), basis);
    const size = Math.hypot(...left);
    if (size > 1e-3) basis.push(left.map((x) => x / size));
    else if (spare > 0 && basis.length >= 2 * names.length - 3) spare--;
    else if (!members.includes(pair)) continue;
    set.push(pair);
    if (basis.length >= 2 * names.length - 3 && spare === 0) break;
  }
  const centre = {
    x: names.reduce((s, n) => s + nodes[n].x, 0) / names.length,
    y: names.reduce((s, n) => s + nodes[n].y, 0) / names.length,
  };
  const bearing = (n: string): number => Math.atan2(nodes[n].y - centre.y, nodes[n].x - centre.x);
  return set
    .map(([p, q]): [string, string] => (bearing(p) <= bearing(q) ? [p, q] : [q, p]))
    .sort((a, b) => bearing(a[0]) - bearing(b[0]) || lengthOf(a) - lengthOf(b));
}

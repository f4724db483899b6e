import { add, cross, dot, norm, scale, sub, type Vec2 } from "../numeric";

/** Sweeps over all constraints; each brings the moves nearer to every one of them. */
const SWEEPS = 400;
/** Moves that change by less than this in a sweep stand still, mm. */
const STILL_MM = 1e-9;

/** One thing that tubes do not do: a sum over places of weight times move that stays nought. */
type Constraint = { place: string; weight: Vec2 }[];

/** Tubes neither stretch between their places nor bend at them. */
function constraints(nodes: Readonly<Record<string, Vec2>>, rods: readonly (readonly string[])[]): Constraint[] {
  const at = (name: string): Vec2 => nodes[name] as Vec2;
  return rods.flatMap((rod) => {
    const known = rod.filter((name) => nodes[name]);
    return known.slice(1).flatMap((q, i): Constraint[] => {
      const p = known[i] as string;
      const way = sub(at(q), at(p));
      const length = norm(way);
      if (length < 1e-6) return [];
      const u = scale(way, 1 / length);
      const stretch: Constraint = [
        { place: q, weight: u },
        { place: p, weight: scale(u, -1) },
      ];
      const r = known[i + 2];
      if (r === undefined) return [stretch];
      const s = length / norm(sub(at(r), at(p)));
      const n = { x: -u.y, y: u.x };
      return [
        stretch,
        [
          { place: q, weight: n },
          { place: p, weight: scale(n, s - 1) },
          { place: r, weight: scale(n, -s) },
        ],
      ];
    });
  });
}

/**
 * What of wanted moves a frame can make while its joints give way and its tubes do not: the nearest moves that stretch and
 * bend none. Source: projection on an intersection of hyperplanes in turn (Kaczmarz, 1937, from memory).
 * @param moves wanted of each place, mm. @param nodes places, mm. @param rods places of each member in order along it.
 * @param by places against which the others are told to move; all without them.
 */
export function movable(
  moves: Readonly<Record<string, Vec2>>,
  nodes: Readonly<Record<string, Vec2>>,
  rods: readonly (readonly string[])[],
  by: readonly string[] = [],
): Record<string, Vec2> {
  const out = { ...moves };
  const all = constraints(
    nodes,
    rods.map((rod) => rod.filter((p) => moves[p])),
  );
  for (let sweep = 0; sweep < SWEEPS; sweep++) {
    let most = 0;
    for (const c of all) {
      const size = c.reduce((s, { weight }) => s + dot(weight, weight), 0);
      const off = c.reduce((s, { place, weight }) => s + dot(weight, out[place] as Vec2), 0) / size;
      for (const { place, weight } of c) out[place] = add(out[place] as Vec2, scale(weight, -off));
      most = Math.max(most, Math.abs(off));
    }
    if (most < STILL_MM) break;
  }
  return shapeOnly(out, nodes, by);
}

/** Moves without the part that carries the frame as a whole: least squares, small turns. */
function shapeOnly(
  moves: Record<string, Vec2>,
  nodes: Readonly<Record<string, Vec2>>,
  by: readonly string[],
): Record<string, Vec2> {
  const all = Object.keys(moves);
  const chosen = all.filter((p) => by.includes(p));
  const names = chosen.length < 2 ? all : chosen;
  const mean = (of: (name: string) => Vec2): Vec2 =>
    scale(names.map(of).reduce(add, { x: 0, y: 0 }), 1 / Math.max(1, names.length));
  const middle = mean((p) => nodes[p] as Vec2);
  const shift = mean((p) => moves[p] as Vec2);
  const arm = (p: string): Vec2 => sub(nodes[p] as Vec2, middle);
  const size = names.reduce((s, p) => s + dot(arm(p), arm(p)), 0);
  const turn = size > 0 ? names.reduce((s, p) => s + cross(arm(p), moves[p] as Vec2), 0) / size : 0;
  return Object.fromEntries(
    all.map((p) => {
      const r = arm(p);
      return [p, sub(sub(moves[p] as Vec2, shift), { x: -turn * r.y, y: turn * r.x })];
    }),
  );
}

import { add3, norm, norm3, sub, sub3, type Vec2, type Vec3 } from "../../numeric";
import { outcomeKey } from "../../shrink";
import { bestFit, type Feet, laidBy, mouthsOf, type Places } from "../../square";
import { keysOf } from "./freeEnds";
import { LEAST_EFFECT } from "./remedy";

/**
 * What free ends that stand elsewhere do to everything that is told of places: what those are off once the whole is laid over its drawing, and
 * how wide its mouths are.
 * @param moves of places, mm, as the frame is seen. @param judged words of what counts.
 */
export function swung(
  places: Places,
  moves: Readonly<Record<string, Vec2>>,
  judged: readonly string[],
): Record<string, number> {
  const { nodes, beyond } = places;
  const at = (name: string): Vec2 => {
    const [from, by] = [nodes[name] as Vec2, moves[name]];
    return by ? { x: from.x + by.x, y: from.y + by.y } : from;
  };
  const moved = Object.fromEntries(Object.keys(nodes).map((name) => [name, at(name)]));
  const wide = (from: Vec2, to: Vec2): number => norm(sub(to, from));
  const all: [string, number][] = [
    ...Object.entries(bestFit(moved, nodes, laidBy(beyond)).moves).flatMap(([place, { x, y }]): [string, number][] => {
      const [right, up] = keysOf(place);
      return [
        [right, -x],
        [up, -y],
      ];
    }),
    ...mouthsOf(places).map(([from, to]): [string, number] => [
      outcomeKey({ kind: "mouth", from, to }),
      wide(at(from), at(to)) - wide(nodes[from] as Vec2, nodes[to] as Vec2),
    ]),
  ];
  return judgedOf(all, judged);
}

const judgedOf = (all: readonly [string, number][], judged: readonly string[]): Record<string, number> =>
  Object.fromEntries(all.filter(([key, mm]) => judged.includes(key) && Math.abs(mm) > LEAST_EFFECT));

/** What feet that stand elsewhere do to the ways between them. @param moves of feet, mm. @param judged words of what counts. */
export function feetMoved(
  { at, pairs }: Feet,
  moves: Readonly<Record<string, Vec3>>,
  judged: readonly string[],
): Record<string, number> {
  const moved = (name: string): Vec3 => add3(at[name] as Vec3, moves[name] ?? [0, 0, 0]);
  const all = pairs.map(([from, to]): [string, number] => [
    outcomeKey({ kind: "feet", from, to }),
    norm3(sub3(moved(to), moved(from))) - norm3(sub3(at[to] as Vec3, at[from] as Vec3)),
  ]);
  return judgedOf(all, judged);
}

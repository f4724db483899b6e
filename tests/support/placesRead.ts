import { SPANS } from "@/core/geometry";
import type { Entry } from "@/core/job";
import { distance, type Vec2 } from "@/core/numeric";
import { heightPlaces, type Places } from "@/core/square";
import { opened, read } from "./jobs";

/** Places of a frame with some of them elsewhere, mm. */
export const placesMoved = ({ nodes }: Places, moves: Readonly<Record<string, Vec2>>): Record<string, Vec2> =>
  Object.fromEntries(
    Object.entries(nodes).map(([name, at]) => {
      const by = moves[name] ?? { x: 0, y: 0 };
      return [name, { x: at.x + by.x, y: at.y + by.y }];
    }),
  );

/** A cold round in which everything is taped to everything by what lies there, and all heights are as drawn. */
export function coldAt(places: Places, nodes: Readonly<Record<string, Vec2>>): Entry[] {
  const r = opened("cold");
  const names = Object.keys(nodes);
  const pairs = names.flatMap((p, i) => names.slice(i + 1).map((q) => [p, q] as const));
  return [
    r,
    ...pairs.map(([p, q]) => {
      const span = SPANS.find((s) => s === p + q || s === q + p);
      const apart = distance(nodes[p] as Vec2, nodes[q] as Vec2);
      return read(r.id, span ?? `${p}-${q}`, apart.toFixed(2), {}, "calliper");
    }),
    ...Object.keys(heightPlaces(places)).map((at) => read(r.id, `z${at}`, (places.heights[at] ?? 0).toFixed(2))),
  ];
}

import type { MechanicalModel } from "./model";

/**
 * Freedoms in an order that keeps the envelope narrow: nodes breadth first from an end of the frame, then reversed.
 * Source: Cuthill and McKee (1969), reversed after George (1971), from memory.
 */
export function freedomOrder(model: MechanicalModel): Int32Array {
  const next: Set<number>[] = model.nodes.map(() => new Set());
  const link = (a: number, b: number) => {
    next[a]?.add(b);
    next[b]?.add(a);
  };
  for (const e of model.elements) link(e.from, e.to);
  for (const j of model.joints) link(j.nodeA, j.nodeB);
  const walk = (start: number): number[] => {
    const seen = new Set([start]);
    const order = [start];
    for (let i = 0; i < order.length; i++)
      for (const m of [...(next[order[i]] ?? [])].sort((a, b) => (next[a]?.size ?? 0) - (next[b]?.size ?? 0)))
        if (!seen.has(m)) {
          seen.add(m);
          order.push(m);
        }
    return order;
  };
  const all: number[] = [];
  const left = new Set(model.nodes.map((_, i) => i));
  for (const start of [...left]) {
    if (!left.has(start)) continue;
    // The last node of one walk is an end of the frame: the walk from there is long and narrow.
    const order = walk(walk(start).at(-1) as number);
    for (const n of order) left.delete(n);
    all.push(...order);
  }
  all.reverse();
  const place = new Int32Array(model.freedoms);
  all.forEach((node, i) => {
    for (let f = 0; f < 6; f++) place[6 * node + f] = 6 * i + f;
  });
  return place;
}

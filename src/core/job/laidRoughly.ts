import { inSpace, type Structure, type StructureMember, seenAt } from "../frame";
import { add, distance, dot, norm, scale, sub, type Vec2 } from "../numeric";
import { type OutcomeId, type Prediction, sharedAside } from "../shrink";
import { mouthsOf, type Places } from "../square";
import type { Estimate } from "../units";

const NOWHERE: Vec2 = { x: 0, y: 0 };
/** A member that is seen end on has no way in the drawing, mm. */
const END_ON_MM = 1;

/** Places along a member as it is seen, where it can be laid by them: what lands with its only joint goes where that goes. */
function placesOn(structure: Structure, { joints, freeEnds }: Places, m: StructureMember): string[] {
  const own = new Map(structure.joints.flatMap((j) => (j.a === m.id || j.b === m.id ? [[j.id, j] as const] : [])));
  const held = Object.keys(joints).filter((name) => own.has(joints[name] as string));
  const [only] = held;
  if (held.length === 1 && only && own.get(joints[only] as string)?.b === m.id) return [];
  return [...held, ...Object.keys(freeEnds).filter((name) => freeEnds[name]?.member === m.id)];
}

/**
 * How the places of a frame without corners are laid off nominal when it is known by what they are likely to move: as the set-up shape is
 * found, from the places alone. For telling orders apart; what a person reads comes from the whole shape.
 * @param outcomes of every place, to the right and up as the frame is seen.
 */
export function laidRoughly(
  structure: Structure,
  places: Places,
  outcomes: readonly { id: OutcomeId; estimate: Estimate }[],
): Pick<Prediction["setUp"], "targets" | "offsetsMm"> {
  const { nodes, joints, view } = places;
  const off = new Map<string, Vec2>();
  for (const { id, estimate } of outcomes)
    if (id.kind === "place") {
      const own = off.get(id.place) ?? NOWHERE;
      off.set(id.place, id.way === "right" ? { ...own, x: -estimate.value } : { ...own, y: -estimate.value });
    }
  const wanted = new Map(off);
  for (const m of structure.members) {
    const along = sub(seenAt(m.to, view), seenAt(m.from, view));
    if (norm(along) < END_ON_MM) continue;
    const way = scale(along, 1 / norm(along));
    const own = placesOn(structure, places, m).filter((name) => wanted.has(name));
    const by = sharedAside(
      own.map((name) => {
        const wish = wanted.get(name) ?? NOWHERE;
        const aside = sub(wish, scale(way, dot(wish, way)));
        return { s: dot(nodes[name] ?? NOWHERE, way), aside: [aside.x, aside.y, 0] };
      }),
    );
    by.forEach(([x, y], i) => {
      const name = own[i] as string;
      off.set(name, add(off.get(name) ?? NOWHERE, { x, y }));
    });
  }
  const laid = (name: string): Vec2 => add(nodes[name] ?? NOWHERE, off.get(name) ?? NOWHERE);
  return {
    offsetsMm: Object.fromEntries([...off].map(([name, by]) => [joints[name] ?? name, inSpace(by, 0, view)])),
    targets: mouthsOf(places).map(([from, to]) => {
      const value = distance(laid(from), laid(to));
      const nominal = distance(nodes[from] ?? NOWHERE, nodes[to] ?? NOWHERE);
      return { id: { kind: "mouth", from, to }, unit: "mm", target: { value, low: value, high: value }, nominal };
    }),
  };
}

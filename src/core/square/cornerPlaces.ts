import { type Quadrilateral, type Structure, seenAt } from "../frame";
import { CORNERS, ends, nearestOnStretch, SIDES, type Side } from "../geometry";
import { add, distance, scale, sub, type Vec2 } from "../numeric";
import { beyondCorners } from "./beyondCorners";
import {
  AT_FREE_END,
  endsOf,
  type FoundPlaces,
  type Named,
  type Places,
  STANDS_OFF,
  WHERE_LINES_CROSS,
} from "./foundPlaces";
import { clean } from "./freeEnd";

/** How far a place lies along a side of a quadrilateral, 0 to 1, and how far off it, mm. */
const alongSide = (p: Vec2, quad: Quadrilateral, side: Side) => {
  const [from, to] = ends(side).map((c) => quad.corners[c]) as [Vec2, Vec2];
  return nearestOnStretch(p, from, to);
};

/** Places of a quadrilateral with its branches: outside corners, and where the branches' middles show on the outside. */
export function ofQuadrilateral(structure: Structure, quad: Quadrilateral): FoundPlaces {
  const nodes: Places["nodes"] = { ...quad.corners };
  const mark: Places["mark"] = Object.fromEntries(CORNERS.map((c) => [c, "outside corner"]));
  const joints: Places["joints"] = { ...quad.joints };
  const along: Places["along"] = [];
  const onSide = new Map<Side, (Named & { share: number })[]>();
  const sideOf = new Map(SIDES.map((s) => [quad.sides[s], s]));
  const landings = new Map<string, string[]>();
  for (const joint of structure.joints) {
    const side = sideOf.get(joint.a);
    const name = clean(joint.id);
    const corner = CORNERS.some((c) => quad.joints[c] === joint.id);
    const branch = structure.members.find((m) => m.id === joint.b);
    // What stands off the plane shows no mark that a tape could reach in it.
    const standsOff = branch !== undefined && Math.abs(branch.axes[0][quad.view.depth]) > STANDS_OFF;
    if (corner || standsOff || joint.kind === "lap" || nodes[name]) continue;
    const p = sub(seenAt(joint.at, quad.view), quad.origin);
    if (!side) continue;
    const { share } = alongSide(p, quad, side);
    const [from, to] = ends(side).map((c) => quad.corners[c]) as [Vec2, Vec2];
    const at = add(from, scale(sub(to, from), share));
    // Two that land at one place, a rail and its brace, have one mark; what stands in a corner has that.
    const thick = Math.max(branch?.properties.widthMm ?? 0, branch?.properties.heightMm ?? 0);
    const there =
      CORNERS.find((c) => distance(quad.corners[c], at) < thick) ??
      onSide.get(side)?.find((n) => distance(n.at, at) < thick / 2)?.name;
    if (there) {
      landings.set(joint.b, [...(landings.get(joint.b) ?? []), there]);
      continue;
    }
    nodes[name] = at;
    mark[name] = "on the outside, at the middle of the branch";
    joints[name] = joint.id;
    onSide.set(side, [...(onSide.get(side) ?? []), { name, at, share }]);
    landings.set(joint.b, [...(landings.get(joint.b) ?? []), name]);
  }
  for (const side of SIDES) {
    const found = (onSide.get(side) ?? []).sort((a, b) => a.share - b.share).map((n) => n.name);
    const [p, q] = ends(side);
    const line = [p as string, ...found, q as string];
    if (line.length > 2) for (let i = 1; i < line.length; i++) along.push([line[i - 1], line[i]]);
  }
  for (const names of landings.values()) {
    const [a, b] = [...new Set(names)];
    if (a && b) along.push([a, b]);
  }
  const freeEnds: Places["freeEnds"] = {};
  const beyond: string[] = [];
  for (const { name: usual, at, joint, freeEnd } of beyondCorners(structure, quad)) {
    // The end of P and the joint of P on a member E have one name: whoever comes later takes another.
    let name = usual;
    while (nodes[name]) name += "X";
    beyond.push(name);
    nodes[name] = at;
    mark[name] = freeEnd ? AT_FREE_END : WHERE_LINES_CROSS;
    if (joint) joints[name] = joint;
    if (freeEnd) freeEnds[name] = freeEnd;
  }
  return {
    nodes,
    mark,
    joints,
    freeEnds,
    beyond,
    endsOf: endsOf(structure, nodes, quad.view, quad.origin),
    middles: {},
    points: {},
    along,
    seen: quad.view.depth === 2 ? "from above" : "standing",
    view: quad.view,
    origin: quad.origin,
  };
}

import type { ResolvedFrame, Structure } from "../frame";
import type { Vec2 } from "../numeric";

interface Named {
  name: string;
  at: Vec2;
}

/** Places of a frame between which one measures, seen square to its plane. */
export interface Places {
  /** Nominal, mm; corner A or the lower left at the origin. Named by corner and joint: `A`, `M1AB`. */
  nodes: Record<string, Vec2>;
  /** How a place is marked, by its name. */
  mark: Record<
    string,
    "outside corner" | "on the outside, at the middle of the branch" | "where the centre lines cross"
  >;
  /** Pairs that one tape reaches along a member. */
  along: [string, string][];
  /** What is seen: from above, or the frame standing; and which axes of the frame run to the right and up then. */
  seen: "from above" | "standing";
  axes: { right: 0 | 1; up: 1 | 2 };
}

const clean = (joint: string): string => joint.replace(/[^A-Z0-9]/g, "").slice(0, 10);

/** Places of a rectangle with its cross members: outside corners, and where the branches' middles show on the outside. */
function ofRectangle(frame: ResolvedFrame): Places {
  const nodes: Places["nodes"] = { ...frame.corners };
  const mark: Places["mark"] = Object.fromEntries(Object.keys(nodes).map((c) => [c, "outside corner"]));
  const along: Places["along"] = [];
  const onSide = new Map<string, Named[]>();
  for (const joint of frame.joints) {
    if (joint.kind !== "tee") continue;
    const side = joint.members[1];
    const { x, y } = joint.at;
    const at =
      side === "AB"
        ? { x, y: 0 }
        : side === "CD"
          ? { x, y: frame.widthMm }
          : side === "BC"
            ? { x: frame.lengthMm, y }
            : side === "DA"
              ? { x: 0, y }
              : null;
    const name = clean(joint.name);
    if (!at || nodes[name]) continue;
    nodes[name] = at;
    mark[name] = "on the outside, at the middle of the branch";
    onSide.set(side, [...(onSide.get(side) ?? []), { name, at }]);
  }
  for (const side of ["AB", "BC", "CD", "DA"] as const) {
    const [p, q] = [side[0] as "A", side[1] as "B"];
    const start = frame.corners[p];
    const line = [
      { name: p as string, at: start },
      ...(onSide.get(side) ?? []).sort(
        (a, b) => Math.hypot(a.at.x - start.x, a.at.y - start.y) - Math.hypot(b.at.x - start.x, b.at.y - start.y),
      ),
      { name: q as string, at: frame.corners[q] },
    ];
    if (line.length > 2)
      for (let i = 1; i < line.length; i++) along.push([(line[i - 1] as Named).name, (line[i] as Named).name]);
  }
  for (const m of frame.members.filter((x) => x.kind === "cross")) {
    const [a, b] = frame.joints.filter((j) => j.kind === "tee" && j.members[0] === m.name).map((j) => clean(j.name));
    if (a && b && nodes[a] && nodes[b]) along.push([a, b]);
  }
  return { nodes, mark, along, seen: "from above", axes: { right: 0, up: 1 } };
}

/** Joints of any frame that lie in its main plane: the plane of its two longer extents, at the level that holds most of them. */
function ofStructure(structure: Structure): Places {
  const size = structure.high.map((v, i) => v - (structure.low[i] as number)) as [number, number, number];
  // A frame that stands is measured standing; one that lies, from above.
  const depth =
    size[2] <= Math.max(size[0], size[1]) && size[2] <= 1.001 * Math.min(size[0], size[1])
      ? 2
      : size[1] <= size[0]
        ? 1
        : 0;
  const [right, up] = depth === 2 ? [0, 1] : depth === 1 ? [0, 2] : [1, 2];
  const thick = Math.max(...structure.members.map((m) => Math.max(m.properties.widthMm, m.properties.heightMm)), 1);
  const levelOf = (at: readonly number[]): number => Math.round((at[depth] as number) / thick);
  const counts = new Map<number, number>();
  for (const j of structure.joints) counts.set(levelOf(j.at), (counts.get(levelOf(j.at)) ?? 0) + 1);
  const level = [...counts].sort((a, b) => b[1] - a[1])[0]?.[0];
  const nodes: Places["nodes"] = {};
  const onMember = new Map<string, Named[]>();
  for (const j of structure.joints) {
    const name = clean(j.id);
    if (levelOf(j.at) !== level || nodes[name] || !/^[A-Z]/.test(name)) continue;
    const at = {
      x: (j.at[right as 0] as number) - (structure.low[right as 0] as number),
      y: (j.at[up as 1] as number) - (structure.low[up as 1] as number),
    };
    if (Object.values(nodes).some((n) => Math.hypot(n.x - at.x, n.y - at.y) < thick / 2)) continue;
    nodes[name] = at;
    for (const m of [j.a, j.b]) onMember.set(m, [...(onMember.get(m) ?? []), { name, at }]);
  }
  const along: Places["along"] = [];
  for (const list of onMember.values()) {
    const sorted = [...list].sort((a, b) => a.at.x - b.at.x || a.at.y - b.at.y);
    for (let i = 1; i < sorted.length; i++) along.push([(sorted[i - 1] as Named).name, (sorted[i] as Named).name]);
  }
  return {
    nodes,
    mark: Object.fromEntries(Object.keys(nodes).map((n) => [n, "where the centre lines cross"])),
    along,
    seen: depth === 2 ? "from above" : "standing",
    axes: { right: depth === 0 ? 1 : 0, up: depth === 2 ? 1 : 2 },
  };
}

/** @param frame the rectangle of the frame, when it has one. @param structure what is built. */
export const placesOf = (frame: ResolvedFrame | null, structure: Structure): Places =>
  frame ? ofRectangle(frame) : ofStructure(structure);

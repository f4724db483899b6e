import { add3, cross3, dot3, norm3, scale3, sub3, unit3, type Vec3 } from "../numeric";
import { type JointCandidate, type Landed, trimmed } from "./jointHabits";
import { along, type EndName, endOf, PARALLEL, type Placed, passing, reach } from "./meeting";

/** Deeper than this in another member an end has to be cut to it, too, mm: less is what a drawing is off by. */
const DEEP_MM = 1;

/** Whether a place lies in a member's body, short of what cuts it off and as far as it may reach beyond its ends at a corner. */
function isIn(n: Placed, p: Vec3, landed: Landed): boolean {
  const isCutOff = (["from", "to"] as const).some((end) =>
    landed.at(n.id, end).some((f) => dot3(sub3(p, f.point), f.normal) < DEEP_MM),
  );
  if (isCutOff) return false;
  const off = sub3(p, n.from);
  const onward = dot3(off, n.axes[0]);
  const [wide, high] = [reach(n, n.axes[1]), reach(n, n.axes[2])];
  const beyond = Math.max(wide, high);
  return (
    Math.abs(dot3(off, n.axes[1])) < wide - DEEP_MM &&
    Math.abs(dot3(off, n.axes[2])) < high - DEEP_MM &&
    onward > -beyond &&
    onward < n.lengthMm + beyond
  );
}

/** Middles of a member's walls where it ends on what it lands on. */
function wallsEnd(m: Placed, end: EndName, landed: Landed): Vec3[] {
  const corners = trimmed(m, end, landed).filter((_, i) => i % 2 === 1);
  return corners.map((p, i) => scale3(add3(p, corners[(i + 1) % corners.length] as Vec3), 0.5));
}

/**
 * Joints of ends that land on one member of a corner and, beside it, stand in the other: a brace whose middle line misses the corner. Such an
 * end is cut to both.
 * @param found what meets by its lines. @param isTold whether a person said that two have no joint.
 */
export function besideCorners(
  members: readonly Placed[],
  found: readonly JointCandidate[],
  landed: Landed,
  isTold: (a: string, b: string) => boolean,
): JointCandidate[] {
  const pair = (a: string, b: string): string => (a < b ? `${a} ${b}` : `${b} ${a}`);
  const joined = new Set(found.map((f) => pair(f.through.id, f.branch.id)));
  const corners = new Set(found.filter((f) => f.endA && f.endB).map((f) => pair(f.through.id, f.branch.id)));
  const ends = members.flatMap((m) => (["from", "to"] as const).map((end) => ({ m, end })));
  return ends.flatMap(({ m, end }) => {
    const on = landed.at(m.id, end);
    if (on.length === 0) return [];
    const walls = wallsEnd(m, end, landed);
    return members.flatMap((n): JointCandidate[] => {
      const isCorner = on.some((f) => corners.has(pair(f.on, n.id)));
      const across = norm3(cross3(m.axes[0], n.axes[0]));
      if (n === m || !isCorner || joined.has(pair(m.id, n.id)) || isTold(m.id, n.id) || across < PARALLEL) return [];
      const w = unit3(cross3(m.axes[0], n.axes[0]));
      const isOneLevel = Math.abs(dot3(sub3(n.from, m.from), w)) < reach(m, w) + reach(n, w) - DEEP_MM;
      if (!isOneLevel || !walls.some((p) => isIn(n, p, landed))) return [];
      joined.add(pair(m.id, n.id));
      return [
        {
          kind: "tee",
          through: n,
          branch: m,
          endA: null,
          endB: end,
          at: along(n, passing(m, n)[1]),
          atB: endOf(m, end),
        },
      ];
    });
  });
}

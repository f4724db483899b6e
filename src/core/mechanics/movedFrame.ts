import { add3, dot3, scale3, sub3, type Vec3 } from "../numeric";
import type { BeamMember, MechanicalFrame } from "./mechanicalFrame";

/** The two points that place a straight member: its outermost joints, or its ends where it has fewer than two. */
function anchors(frame: MechanicalFrame): Map<string, [string, string]> {
  const joined = new Set(frame.joints.flatMap((j) => [j.point, j.pointB ?? j.point]));
  return new Map(
    frame.members.map((m) => {
      const held = m.points.filter((p) => joined.has(p));
      const [first, last] = [held[0], held.at(-1)];
      const [from, to] = [m.points[0], m.points.at(-1)] as [string, string];
      if (first === undefined || last === undefined) return [m.id, [from, to]];
      if (first !== last) return [m.id, [first, last]];
      // One joint alone: the end that is farther from it is the other one.
      const far = (p: string): number => {
        const d = sub3(frame.points[p], frame.points[first]);
        return dot3(d, d);
      };
      return [m.id, far(from) > far(to) ? [from, first] : [first, to]];
    }),
  );
}

/** Branches whose end stands beside the place where they land: it goes where that goes. */
const followers = (frame: MechanicalFrame): Map<string, string> =>
  new Map(
    frame.joints.flatMap((j) =>
      j.kind !== "lap" && j.pointB && j.pointB !== j.point ? [[j.pointB, j.point] as const] : [],
    ),
  );

/** Members on which a point is carried along between or beyond the two that place them. */
function carriers(frame: MechanicalFrame, placed: ReadonlyMap<string, readonly string[]>): Map<string, BeamMember> {
  const out = new Map<string, BeamMember>();
  for (const m of frame.members)
    for (const p of m.points) if (!placed.get(m.id)?.includes(p) && !out.has(p)) out.set(p, m);
  return out;
}

/**
 * Points whose place follows from some others alone: those themselves, and what lies on members that they place.
 * @param roots points that are set.
 */
export function placedBy(frame: MechanicalFrame, roots: ReadonlySet<string>): Set<string> {
  const placed = anchors(frame);
  const carried = carriers(frame, placed);
  const following = followers(frame);
  const known = new Map<string, boolean>();
  const follows = (name: string, trail: readonly string[]): boolean => {
    const before = known.get(name);
    if (before !== undefined) return before;
    if (roots.has(name)) return true;
    if (trail.includes(name)) return false;
    const next = [...trail, name];
    const leader = following.get(name);
    const carrier = carried.get(name);
    const out = leader
      ? follows(leader, next)
      : carrier !== undefined && (placed.get(carrier.id) as [string, string]).every((p) => follows(p, next));
    known.set(name, out);
    return out;
  };
  return new Set(Object.keys(frame.points).filter((p) => follows(p, [])));
}

/**
 * The same frame with points moved off their place, as it is set up: members stay straight, what lies on one goes with it. Its pieces are
 * cut as before.
 * Source: linear interpolation along each member.
 * @param moves by point, mm; points that are carried along or follow another one go with it.
 */
export function movedFrame(frame: MechanicalFrame, moves: Readonly<Record<string, Vec3>>): MechanicalFrame {
  const placed = anchors(frame);
  const carried = carriers(frame, placed);
  const following = followers(frame);
  const still: Vec3 = [0, 0, 0];
  const done = new Map<string, Vec3>();
  const shift = (name: string, trail: readonly string[]): Vec3 => {
    const known = done.get(name);
    if (known) return known;
    if (trail.includes(name)) return still;
    const next = [...trail, name];
    const carrier = carried.get(name);
    const leader = following.get(name);
    let out: Vec3 = moves[name] ?? still;
    if (leader) out = shift(leader, next);
    else if (carrier) {
      const [p, q] = placed.get(carrier.id) as [string, string];
      const [from, to, at] = [p, q, name].map((k) => frame.points[k]) as [Vec3, Vec3, Vec3];
      const span = sub3(to, from);
      const share = dot3(sub3(at, from), span) / dot3(span, span);
      out = add3(scale3(shift(p, next), 1 - share), scale3(shift(q, next), share));
    }
    done.set(name, out);
    return out;
  };
  const points = Object.fromEntries(
    Object.entries(frame.points).map(([name, at]) => [name, add3(at, shift(name, []))]),
  );
  return { ...frame, points, cutBy: frame.cutBy ?? frame.points };
}

import type { EndName, Structure } from "../frame";
import { hull } from "../geometry";
import { dot3, norm3, sub3, type Vec2, type Vec3 } from "../numeric";
import { clean, FREE_ENDS } from "./freeEnd";

/** Free ends of what stands up: legs are set square by the ways between their feet. */
export interface Feet {
  /** Where each lies, mm, from the same origin as the members. */
  at: Record<string, Vec3>;
  /** Member whose free end a foot is. */
  ends: Record<string, { member: string; end: EndName }>;
  /** Ways that are taped: round about, then across. */
  pairs: [from: string, to: string][];
}

/** A member that rises by more than this, sine, stands up. */
const STANDS_UP = 0.7;
/** So many feet show by the ways between them whether legs lean; two are a mouth. */
const FEWEST_FEET = 3;
/** Feet that lie in one row, to so many mm, go round nothing. */
const ROW_MM = 20;

const NONE: Feet = { at: {}, ends: {}, pairs: [] };

/** How far apart two feet are drawn, mm. */
export const footWayMm = ({ at }: Feet, from: string, to: string): number | null => {
  const [p, q] = [at[from], at[to]];
  return p && q ? norm3(sub3(q, p)) : null;
};

/** Names that other places have already, and of which free ends they are. */
interface Taken {
  nodes: Readonly<Record<string, unknown>>;
  freeEnds: Readonly<Record<string, { member: string; end: EndName }>>;
}

/** A foot has the name of its free end; of a joint that is called so it has another. */
function nameOf(member: string, end: EndName, letter: string, { nodes, freeEnds }: Taken): string {
  const isOther = (name: string): boolean =>
    nodes[name] !== undefined && !(freeEnds[name]?.member === member && freeEnds[name]?.end === end);
  let name = clean(`${member}${letter}`);
  while (isOther(name)) name += "X";
  return name;
}

/** How far a place lies beside the line between two others, seen from above, mm. */
function asideMm(at: Vec3, from: Vec3, to: Vec3): number {
  const [far, off] = [sub3(to, from), sub3(at, from)];
  const along = Math.hypot(far[0], far[1]) || 1;
  return Math.abs(dot3(off, [-far[1] / along, far[0] / along, 0]));
}

/** Feet of a frame: free ends that point down, or up of one that is drawn upside down; none of fewer than three, or of a row. */
export function feetOf({ members }: Pick<Structure, "members">, taken: Taken = { nodes: {}, freeEnds: {} }): Feet {
  const ends = members.flatMap((m) =>
    FREE_ENDS.flatMap(([end, letter]) => {
      const rises = end === "to" ? m.axes[0][2] : -m.axes[0][2];
      const { at, joints } = m.ends[end];
      return joints.length > 0 || Math.abs(rises) < STANDS_UP
        ? []
        : [{ name: nameOf(m.id, end, letter, taken), member: m.id, end, at, isDown: rises < 0 }];
    }),
  );
  const down = ends.filter((e) => e.isDown);
  const up = ends.filter((e) => !e.isDown);
  const all = up.length > down.length ? up : down;
  const named = new Map(all.map((e) => [e.name, e]));
  if (named.size < FEWEST_FEET || named.size < all.length) return NONE;
  const seen = (e: { at: Vec3 }): Vec2 => ({ x: e.at[0], y: e.at[1] });
  const outline = hull(all.map(seen));
  const outer = outline.flatMap((p) => all.find((e) => e.at[0] === p.x && e.at[1] === p.y) ?? []);
  // Between two others of one row a foot is no corner, whichever way it stands out of that by a hundredth.
  const round = outer.filter((e, i) => {
    const [before, after] = [outer.at(i - 1), outer[(i + 1) % outer.length]];
    return before && after && asideMm(e.at, before.at, after.at) >= ROW_MM;
  });
  const [first, second] = round;
  if (!first || !second || round.length < FEWEST_FEET) return NONE;
  if (round.every((e) => asideMm(e.at, first.at, second.at) < ROW_MM)) return NONE;
  const pair = (i: number, k: number): [string, string][] => {
    const [p, q] = [round[i % round.length], round[(i + k) % round.length]];
    return p && q ? [[p.name, q.name].sort() as [string, string]] : [];
  };
  const half = Math.floor(round.length / 2);
  const pairs = [
    ...round.flatMap((_, i) => pair(i, 1)),
    ...(half > 1 ? Array.from({ length: half }, (_, i) => pair(i, half)).flat() : []),
  ];
  return {
    at: Object.fromEntries(round.map((e) => [e.name, e.at])),
    ends: Object.fromEntries(round.map(({ name, member, end }) => [name, { member, end }])),
    pairs,
  };
}

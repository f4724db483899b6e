import { type EndName, type Structure, seenAt, type ViewAxes } from "../frame";
import { distance, sub, type Vec2 } from "../numeric";
import type { Feet } from "./feet";

export interface Named {
  name: string;
  at: Vec2;
}

/** Places of a frame between which one measures, seen square to its plane. */
export interface Places {
  /** Nominal, mm, from the origin. Named by corner and joint: `A`, `M1AB`. */
  nodes: Record<string, Vec2>;
  /** How a place is marked, by its name. */
  mark: Record<
    string,
    | "outside corner"
    | "on the outside, at the middle of the branch"
    | "where the centre lines cross"
    | "at its free end, on the centre line"
  >;
  /** Joint that a place belongs to. */
  joints: Record<string, string>;
  /** Member whose free end a place is, and which way it points; the others belong to a joint. */
  freeEnds: Record<string, { member: string; end: EndName; way: Vec2 }>;
  /** Of a frame with corners, places that lie well beyond them: the tip of a drawbar. What they are off is told against the corners. */
  beyond: string[];
  /** The two ends of every member as one says them, the way that it is drawn: a place there, or where that end lies in the drawing. */
  endsOf: Record<string, readonly [from: string, to: string]>;
  /** Middles of members, at which a height is read where the other places are too few to tell whether it is flat: any three are. */
  middles: Record<string, { member: string; at: Vec2 }>;
  /** Where legs stand, apart from all that: no place of a plane, but for one that lies in it. */
  feet: Feet;
  /** How much higher than the lowest of them the underside at a place of which a height is read is drawn, mm. */
  heights: Record<string, number>;
  /** Points that are no part of the frame, mm from the same origin: taped to, never moved. */
  points: Record<string, Vec2>;
  /** Pairs that one tape reaches along a member. */
  along: [string, string][];
  /** How it is seen, and where the origin lies then. */
  seen: "from above" | "standing";
  view: ViewAxes;
  origin: Vec2;
}

export const AT_FREE_END = "at its free end, on the centre line";
export const WHERE_LINES_CROSS = "where the centre lines cross";

/** Places before their heights are known. */
export type FoundPlaces = Omit<Places, "heights" | "feet">;

/** A branch that leaves the plane by more than this, sine, stands off it. */
export const STANDS_OFF = 0.7;

/** An end this many widths of its tube from a place is not called by it: the outside corner lies beside the centre line's end. */
const AT_PLACE_WIDTHS = 1.5;

/** Ends of members by the places that they lie at, where both have one of their own; else by where they lie as the frame is seen. */
export function endsOf(structure: Structure, nodes: Places["nodes"], view: ViewAxes, origin: Vec2): Places["endsOf"] {
  return Object.fromEntries(
    structure.members.map((m) => {
      const [from, to] = [m.from, m.to].map((end) => sub(seenAt(end, view), origin)) as [Vec2, Vec2];
      const near = AT_PLACE_WIDTHS * Math.max(m.properties.widthMm, m.properties.heightMm);
      const placeAt = (p: Vec2): string | undefined =>
        Object.entries(nodes)
          .map(([name, at]) => ({ name, far: distance(at, p) }))
          .filter(({ far }) => far < near)
          .sort((a, b) => a.far - b.far)[0]?.name;
      const [first, last] = [placeAt(from), placeAt(to)];
      if (first && last && first !== last) return [m.id, [first, last] as const];
      const along = sub(to, from);
      const words =
        Math.abs(along.x) >= Math.abs(along.y)
          ? ["its left end", "its right end"]
          : ["its lower end in the drawing", "its upper end in the drawing"];
      const isForward = Math.abs(along.x) >= Math.abs(along.y) ? along.x >= 0 : along.y >= 0;
      return [m.id, (isForward ? words : words.reverse()) as [string, string]];
    }),
  );
}

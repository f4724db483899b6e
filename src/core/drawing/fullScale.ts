import { markingOut } from "../cut";
import { meets, type Structure, type StructureMember, seenAt, tubeBeginsMm, type ViewAxes } from "../frame";
import { add3, degrees, dot3, entry, norm3, scale3, sub3, type Vec2 } from "../numeric";
import { inScene } from "./scene";

/** What is drawn of a frame at full size, each on a layer of its own. */
export const LAYERS = ["outline", "centre", "cut", "joint", "distance", "hole", "stop", "datum"] as const;
export type LayerName = (typeof LAYERS)[number];

/** One thing on a layer, mm, up is up. */
export type LayoutItem = { layer: LayerName } & (
  | { kind: "line"; points: readonly Vec2[]; closed: boolean }
  | { kind: "circle"; at: Vec2; radiusMm: number }
  /** A place, by a cross with arms so long. */
  | { kind: "cross"; at: Vec2; armMm: number }
  | { kind: "text"; at: Vec2; text: string; heightMm: number }
);

/** A frame at full size: what paper and files are written from. */
export interface FullScale {
  low: Vec2;
  high: Vec2;
  items: LayoutItem[];
}

/** Something that is marked by its place: a hole, a stop. */
export interface Marked {
  layer: "hole" | "stop";
  at: Vec2;
  /** Nought for a cross. */
  radiusMm: number;
  text: string;
}

/** Heights of letters, arms of crosses, mm. */
const LETTER_MM = 5;
const CROSS_MM = 15;
/** A member that is seen shorter than this share of its length stands nearly end on: its outline alone is drawn. */
const END_ON = 0.2;
const SQUARE_DEG = 0.05;

interface Edge {
  off: number;
  /** Corner of the outline that is seen there, across the member. */
  corner: Vec2;
  begins: number;
  finishes: number;
}

/** A place of a cut: along the member, off its line, and in the drawing. */
interface Cut {
  along: number;
  off: number;
  at: Vec2;
}
/** More straight cuts than this an end has not: it is a curve. */
const MOST_CUTS = 2;

/** Places across a member at which its end is worked out. */
const ACROSS = 48;
const HALVINGS = 40;
/** Places that lie on a line within this are one cut, mm. */
const STRAIGHT_MM = 0.02;

/**
 * How an end is cut as it is seen: from one edge to the other, as places across (0 to 1) and along, mm; the corners alone where cuts are
 * straight. An end that fits into a corner of others has two cuts, one that lands on a round a curve.
 */
function cutAcross(m: StructureMember, end: "from" | "to", one: Edge, two: Edge): { share: number; along: number }[] {
  const [x, y, z] = m.axes;
  const out = end === "to" ? x : scale3(x, -1);
  const { cutters } = m.ends[end];
  const plain = [
    { share: 0, along: end === "to" ? one.finishes : one.begins },
    { share: 1, along: end === "to" ? two.finishes : two.begins },
  ];
  if (cutters.length < 2 && cutters.every((c) => c.kind === "plane")) return plain;
  /** Where it ends there, and by which cut. */
  const at = (share: number): { share: number; along: number; by: number } => {
    const c = {
      x: one.corner.x + share * (two.corner.x - one.corner.x),
      y: one.corner.y + share * (two.corner.y - one.corner.y),
    };
    const origin = add3(m.from, add3(scale3(y, c.x), scale3(z, c.y)));
    const far = cutters.map((cut) => meets(cut, origin, out) ?? Number.POSITIVE_INFINITY);
    const least = Math.min(...far);
    return {
      share,
      along: Number.isFinite(least) ? (end === "to" ? least : -least) : Number.NaN,
      by: far.indexOf(least),
    };
  };
  const even = Array.from({ length: ACROSS + 1 }, (_, i) => at(i / ACROSS));
  const places = even.flatMap((p, i) => {
    const next = even[i + 1];
    if (!next || next.by === p.by) return [p];
    // Where one cut gives way to the other there is a corner.
    let [low, high] = [p, next];
    for (let k = 0; k < HALVINGS; k++) {
      const middle = at((low.share + high.share) / 2);
      if (middle.by === p.by) low = middle;
      else high = middle;
    }
    return [p, low];
  });
  if (places.some((p) => Number.isNaN(p.along))) return plain;
  return places.filter((p, i) => {
    const [a, b] = [places[i - 1], places[i + 1]];
    if (!a || !b) return true;
    const between = a.along + ((b.along - a.along) * (p.share - a.share)) / (b.share - a.share || 1);
    return Math.abs(p.along - between) > STRAIGHT_MM;
  });
}

/** Edges of a member to both sides as it is seen. */
function edgesOf(m: StructureMember, view: ViewAxes): { across: Vec2; size: number; edges: [Edge, Edge] } {
  const along = seenAt(m.axes[0], view);
  const size = Math.hypot(along.x, along.y);
  const across = { x: -along.y / size, y: along.x / size };
  const [y, z] = [seenAt(m.axes[1], view), seenAt(m.axes[2], view)];
  const offs = m.outline.map((p) => (p.x * y.x + p.y * z.x) * across.x + (p.x * y.y + p.y * z.y) * across.y);
  const edge = (pick: (list: readonly number[]) => number): Edge => {
    const off = pick(offs);
    // Of corners that lie over each other the longer counts: it is what is seen.
    const own = offs.flatMap((o, i) => (Math.abs(o - off) < 1e-6 ? [i] : []));
    const first = m.outline[offs.indexOf(off)] ?? { x: 0, y: 0 };
    return {
      off,
      corner: first,
      begins: Math.min(...own.map((i) => entry(m.begins, i))),
      finishes: Math.max(...own.map((i) => entry(m.finishes, i))),
    };
  };
  return { across, size, edges: [edge((l) => Math.max(...l)), edge((l) => Math.min(...l))] };
}

/**
 * A frame at full size in a plane view: outlines, centre lines, cut lines with their angles, joints, running distances of what lands on
 * each member, and what is marked.
 * @param shift where a place along a member lies off its drawn place, as it is set up. @param words a length as it is written.
 */
export function fullScale(
  structure: Structure,
  seen: { view: ViewAxes; origin: Vec2 },
  shift: (member: string, alongMm: number) => Vec2,
  marked: readonly Marked[],
  words: (mm: number) => string,
): FullScale {
  const items: LayoutItem[] = [];
  const line = (layer: LayerName, points: readonly Vec2[], closed = false): void => {
    items.push({ layer, kind: "line", points, closed });
  };
  const text = (layer: LayerName, at: Vec2, what: string): void => {
    items.push({ layer, kind: "text", at, text: what, heightMm: LETTER_MM });
  };
  const cross = (layer: LayerName, at: Vec2): void => {
    items.push({ layer, kind: "cross", at, armMm: CROSS_MM / 2 });
  };
  const placeOn = (m: StructureMember, alongMm: number): Vec2 => {
    const p = inScene(seen, add3(m.from, scale3(m.axes[0], alongMm)));
    const off = shift(m.id, alongMm);
    return { x: p.x + off.x, y: p.y + off.y };
  };
  const plain = markingOut(structure, []);
  const moved = markingOut(structure, [], (member, alongMm) => {
    const m = structure.members.find((x) => x.id === member);
    const way = m ? seenAt(m.axes[0], seen.view) : { x: 0, y: 0 };
    const off = shift(member, alongMm);
    return off.x * way.x + off.y * way.y;
  });
  for (const m of structure.members) {
    const { across, size, edges } = edgesOf(m, seen.view);
    const [one, two] = edges;
    const at = (e: Edge, alongMm: number): Vec2 => {
      const p = placeOn(m, alongMm);
      return { x: p.x + e.off * across.x, y: p.y + e.off * across.y };
    };
    if (!(size > END_ON)) continue;
    const long = norm3(sub3(m.to, m.from));
    const [first, last] = (["from", "to"] as const).map((end) => {
      const places = cutAcross(m, end, one, two);
      return places.map(({ share, along }) => ({
        along,
        off: one.off + share * (two.off - one.off),
        at: at({ ...one, off: one.off + share * (two.off - one.off) }, along),
      }));
    }) as [Cut[], Cut[]];
    line("outline", [...first.map((p) => p.at), ...last.map((p) => p.at).reverse()], true);
    line("centre", [placeOn(m, 0), placeOn(m, long)]);
    for (const [cut, into] of [
      [first, 1],
      [last, -1],
    ] as const) {
      line(
        "cut",
        cut.map((p) => p.at),
      );
      if (cut.length > MOST_CUTS + 1) continue;
      cut.slice(1).forEach((b, i) => {
        const a = cut[i] as Cut;
        const fromSquare = degrees(Math.atan2(Math.abs(a.along - b.along), Math.abs(a.off - b.off)));
        if (fromSquare <= SQUARE_DEG) return;
        const along = (into > 0 ? Math.max(a.along, b.along) : Math.min(a.along, b.along)) + into * CROSS_MM;
        text("cut", at({ ...one, off: (a.off + b.off) / 2 }, along), `${fromSquare.toFixed(1)}°`);
      });
    }
    text("joint", placeOn(m, long / 2), m.id);
    // Running distances from the first end of what lands on it, as one marks them out along a tape.
    const begin = tubeBeginsMm(m);
    const said = moved.find((p) => p.member === m.id)?.marks ?? [];
    (plain.find((p) => p.member === m.id)?.marks ?? []).forEach((mark, i) => {
      if (mark.kind === "hole") return;
      const alongMm = begin + mark.centreMm;
      line("distance", [at(one, alongMm), at(two, alongMm)]);
      const what = mark.kind === "seam" ? `seam with ${mark.member}` : mark.member;
      text("distance", at(one, alongMm), `${what} ${words(said[i]?.centreMm ?? mark.centreMm)}`);
    });
  }
  for (const j of structure.joints) {
    const p = inScene(seen, j.at);
    const own = structure.members.find((m) => m.id === j.a);
    const off = own ? shift(own.id, dot3(sub3(j.at, own.from), own.axes[0])) : { x: 0, y: 0 };
    cross("joint", { x: p.x + off.x, y: p.y + off.y });
  }
  for (const { layer, at, radiusMm, text: what } of marked) {
    if (radiusMm > 0) items.push({ layer, kind: "circle", at, radiusMm });
    cross(layer, at);
    text(layer, { x: at.x + CROSS_MM / 2, y: at.y + 1 }, what);
  }
  cross("datum", { x: 0, y: 0 });
  text(
    "datum",
    { x: CROSS_MM / 2, y: -LETTER_MM - 1 },
    structure.quad?.view.depth === seen.view.depth ? "A, outside: 0, 0" : "0, 0",
  );
  const all = items.flatMap((i) => {
    if (i.kind === "line") return i.points;
    const reach = i.kind === "circle" ? i.radiusMm : i.kind === "cross" ? i.armMm : 0;
    return [
      { x: i.at.x - reach, y: i.at.y - reach },
      { x: i.at.x + reach, y: i.at.y + reach },
    ];
  });
  return {
    low: { x: Math.min(...all.map((p) => p.x)), y: Math.min(...all.map((p) => p.y)) },
    high: { x: Math.max(...all.map((p) => p.x)), y: Math.max(...all.map((p) => p.y)) },
    items,
  };
}

/** The two lines of a cross. */
export const crossLines = ({ at, armMm }: { at: Vec2; armMm: number }): [Vec2, Vec2][] => [
  [
    { x: at.x - armMm, y: at.y },
    { x: at.x + armMm, y: at.y },
  ],
  [
    { x: at.x, y: at.y - armMm },
    { x: at.x, y: at.y + armMm },
  ],
];

/** The same with some layers alone; the size stays that of the whole. */
export const onLayers = (drawing: FullScale, layers: readonly LayerName[]): FullScale => ({
  ...drawing,
  items: drawing.items.filter((i) => layers.includes(i.layer)),
});

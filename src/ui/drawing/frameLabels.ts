import type { Scene } from "@/core/drawing";
import { CORNERS, type Corner, ends } from "@/core/geometry";
import { add, scale, sub, unit, type Vec2 } from "@/core/numeric";
import { formatLength, type UnitPreference } from "@/core/units";
import { COLOUR, type LineMark, type PointMark, type SpanMark, type Tone } from "./marks";
import { alongStretch, type Box, type Label, placeLabels } from "./placeLabels";
import type { Projection } from "./projection";

export const middle = (a: Vec2, b: Vec2): Vec2 => scale(add(a, b), 0.5);

/** A line that stands upright on the screen has its words turned along it. */
const isUpright = (p: Projection, a: Vec2, b: Vec2): boolean =>
  Math.abs(p.to(a).x - p.to(b).x) < Math.abs(p.to(a).y - p.to(b).y);

/** Room that the letters at both ends of a side take of it, px. */
const LETTERS_PX = 30;
/** Seen shorter than this a member has no room for its name, px. */
const ROOM_PX = 24;

/** Half of what a place's dot takes, and the triangle of a point, px. */
const DOT_PX = 5;
const TRIANGLE_PX = 9;

/** What may be said on a frame's drawing. */
interface Said {
  scene: Scene;
  units: UnitPreference;
  spans?: readonly SpanMark[];
  points?: readonly PointMark[];
  lines?: readonly LineMark[];
  places?: readonly { name: string; at: Vec2 }[];
  cornerText?: Partial<Record<Corner, string>>;
  cornerTone?: Tone;
  bare?: boolean;
}

/** Words of a drawing with their look. */
type Spoken = Label & { colour: string; strong?: boolean };

/** Everything that is said on a drawing, with a place for each that no other covers; and ways out from its middle. */
export function frameLabels(
  {
    scene,
    units,
    spans = [],
    points = [],
    lines = [],
    places = [],
    cornerText = {},
    cornerTone = "brass",
    bare = false,
  }: Said,
  p: Projection,
) {
  const { low, high, corners, items } = scene;
  const centre = middle(low, high);
  const outward = (q: Vec2, px: number): Vec2 => {
    const d = p.direction(unit(sub(q, centre)));
    const at = p.to(q);
    return { x: at.x + d.x * px, y: at.y + d.y * px };
  };
  const off = (m: Vec2, away: Vec2, px: number): Vec2 => {
    const d = p.direction(away);
    const at = p.to(m);
    return { x: at.x + d.x * px, y: at.y + d.y * px };
  };
  const sideOut = (a: Vec2, b: Vec2, px: number): Vec2 => {
    const along = unit(sub(b, a));
    const normal = { x: -along.y, y: along.x };
    const m = middle(a, b);
    const out = normal.x * (m.x - centre.x) + normal.y * (m.y - centre.y) >= 0;
    return off(m, out ? normal : scale(normal, -1), px);
  };
  /** Everything that is said on the drawing, the weightiest first: each finds a place that no other covers. */
  const words: Spoken[] = [];
  const say = (label: Spoken) => {
    if (label.text !== "") words.push(label);
  };
  if (corners)
    for (const mark of spans) {
      const [a, b] = ends(mark.span).map((c) => corners[c]) as [Vec2, Vec2];
      const diagonal = mark.span === "AC" || mark.span === "BD";
      say({
        key: `span ${mark.span}`,
        text: mark.text,
        size: 14,
        at: diagonal
          ? alongStretch(p.to(a), p.to(b), [0.32, 0.24, 0.4, 0.68, 0.76])
          : [20, 34].map((px) => sideOut(a, b, px)),
        upright: !diagonal && isUpright(p, a, b),
        must: true,
        colour: COLOUR[mark.tone],
        strong: mark.active ?? false,
      });
    }
  for (const mark of points) {
    const { x, y } = p.to(mark.at);
    const side = p.to(centre).y > y ? 22 : -20;
    say({
      key: `point ${mark.id}`,
      text: mark.text,
      size: 14,
      at: [
        { x, y: y + side },
        { x, y: y - side },
        ...[1, -1].map((k) => ({ x: x + k * (14 + mark.text.length * 4.5), y })),
      ],
      must: true,
      colour: COLOUR[mark.tone],
      strong: mark.active ?? false,
    });
  }
  if (corners)
    for (const c of CORNERS) {
      const at = outward(corners[c], 26);
      const left = at.x < p.width / 2;
      say({
        key: `corner ${c}`,
        text: cornerText[c] ?? "",
        size: 14,
        at: [
          { x: at.x + (left ? 19 : -19), y: at.y + (at.y < p.height / 2 ? -1 : 1) },
          { x: at.x + (left ? 19 : -19), y: at.y + (at.y < p.height / 2 ? -14 : 14) },
        ],
        anchor: left ? "start" : "end",
        must: true,
        colour: COLOUR[cornerTone],
      });
    }
  for (const mark of lines)
    say({
      key: `line ${mark.id}`,
      text: mark.text,
      size: 13,
      at: alongStretch(p.to(mark.from), p.to(mark.to), [0.42, 0.3, 0.55, 0.68, 0.2]),
      upright: isUpright(p, mark.from, mark.to),
      must: true,
      colour: COLOUR[mark.tone],
      strong: mark.active ?? false,
    });
  if (!bare)
    for (const item of items)
      if (item.kind === "dimension") {
        const text = formatLength(item.lengthMm, units, { trim: true }).text;
        const upright = isUpright(p, item.from, item.to);
        // A side that is shorter than its figure has it laid level, inside.
        const short = upright && item.lengthMm * p.pxPerMm < text.length * 9 + LETTERS_PX;
        say({
          key: `size ${item.from.x}/${item.from.y}`,
          text,
          size: 14,
          at: [0.5, 0.32, 0.68].flatMap((k) =>
            (short ? [-text.length * 5 - 8] : [24, 38]).map((px) =>
              off(add(item.from, scale(sub(item.to, item.from), k)), item.away, px),
            ),
          ),
          upright: upright && !short,
          must: true,
          colour: "var(--ink-soft)",
        });
      }
  for (const { name, at } of places) {
    const { x, y } = p.to(at);
    const beside = 8 + name.length * 4;
    say({
      key: `place ${name}`,
      text: name,
      size: 12,
      at: [outward(at, 15), { x, y: y - 14 }, { x, y: y + 14 }, { x: x + beside, y }, { x: x - beside, y }],
      must: true,
      colour: "var(--ink-soft)",
    });
  }
  // A member called as a point is goes without its name where that point is marked.
  const marked = new Set(points.map(({ id }) => id));
  for (const item of items)
    if (item.kind === "text" && item.role === "member" && item.roomMm * p.pxPerMm > ROOM_PX && !marked.has(item.text))
      say({
        key: `name ${item.text}`,
        text: item.text,
        size: 13,
        at: item.along ? alongStretch(p.to(item.along[0]), p.to(item.along[1])) : [p.to(item.at)],
        colour: "var(--ink-soft)",
      });
  const around = ({ x, y }: Vec2, px: number): Box => ({ left: x - px, right: x + px, top: y - px, bottom: y + px });
  const letters = corners ? CORNERS.map((c) => around(outward(corners[c], 26), 13)) : [];
  const dots = places.map(({ at }) => around(p.to(at), DOT_PX));
  const triangles = points.map(({ at }) => around(p.to(at), TRIANGLE_PX));
  const placed = placeLabels(words, [...letters, ...dots, ...triangles]);
  return { centre, outward, words, placed };
}

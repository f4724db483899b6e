"use client";

import type { KeyboardEvent, ReactNode } from "react";
import type { Scene, SceneLine, SceneOutline } from "@/core/drawing";
import { CORNERS, type Corner, ends } from "@/core/geometry";

import { add, scale, sub, unit, type Vec2 } from "@/core/numeric";
import { formatLength, type UnitPreference } from "@/core/units";
import { setDevice, useDevice } from "../parts/device";
import { alongStretch, type Label, placeLabels } from "./placeLabels";
import { type Projection, projection } from "./projection";
import { useWidth } from "./useWidth";

/** What a mark stands for: advice, something measured, something predicted, nothing special. */
export type Tone = "plum" | "brass" | "cool" | "plain";

/** A line between two corners with words on it, for a side or a diagonal. */
export interface SpanMark {
  span: string;
  text: string;
  tone: Tone;
  /** The one to read next. */
  active?: boolean;
}

/** A point on the bed with words beside it. */
export interface PointMark {
  id: string;
  at: Vec2;
  text: string;
  tone: Tone;
  active?: boolean;
}

/** A line between two places of the frame with words on it. */
export interface LineMark {
  id: string;
  from: Vec2;
  to: Vec2;
  text: string;
  tone: Tone;
  active?: boolean;
}

interface Props {
  /** What is drawn: see core/drawing. */
  scene: Scene;
  units: UnitPreference;
  /** What the drawing shows, for those who do not see it. */
  label: string;
  /** Members to bring forward. */
  selected?: readonly string[];
  onPick?: (member: string) => void;
  spans?: readonly SpanMark[];
  points?: readonly PointMark[];
  lines?: readonly LineMark[];
  /** Places that are measured besides the corners, by name. */
  places?: readonly { name: string; at: Vec2 }[];
  /** Words at corners, beside their names. */
  cornerText?: Partial<Record<Corner, string>>;
  /** The joint being worked on and where on it, as a direction from the joint. */
  joint?: { at: Vec2; toward: Vec2 } | null;
  /** Joints that are done. */
  doneJoints?: readonly Vec2[];
  /** Slide of a side: drawn as an arrow along it. */
  slide?: { side: string; push: Corner; towards: Corner; text: string } | null;
  /** Members moved, exaggerated: closed outlines where they would be drawn, mm. */
  moved?: { outlines: readonly SceneLine[]; note: string } | null;
  /** Words at corners are predicted, not measured. */
  cornerTone?: Tone;
  /** Hide the nominal sizes (when the spans carry readings). */
  bare?: boolean;
  maxHeight?: number;
  children?: (p: Projection) => ReactNode;
}

const COLOUR: Record<Tone, string> = {
  plum: "var(--plum)",
  brass: "var(--brass)",
  cool: "var(--cool)",
  plain: "var(--ink-soft)",
};
const MARGIN = 56;
const path = (p: Projection, points: readonly Vec2[]): string =>
  `${points.map((q, i) => `${i === 0 ? "M" : "L"}${p.to(q).x.toFixed(1)} ${p.to(q).y.toFixed(1)}`).join("")}Z`;
const middle = (a: Vec2, b: Vec2): Vec2 => scale(add(a, b), 0.5);

/** A line that stands upright on the screen has its words turned along it. */
const isUpright = (p: Projection, a: Vec2, b: Vec2): boolean =>
  Math.abs(p.to(a).x - p.to(b).x) < Math.abs(p.to(a).y - p.to(b).y);

function Words({
  at,
  text,
  colour,
  anchor = "middle",
  strong = false,
  size = 14,
  upright = false,
}: {
  at: Vec2;
  text: string;
  colour: string;
  anchor?: "start" | "middle" | "end";
  strong?: boolean;
  size?: number;
  upright?: boolean;
}) {
  return (
    <text
      x={at.x}
      y={at.y}
      transform={upright ? `rotate(-90 ${at.x} ${at.y})` : undefined}
      textAnchor={anchor}
      dominantBaseline="central"
      fill={colour}
      stroke="var(--sheet)"
      strokeWidth={5}
      paintOrder="stroke"
      className="fig"
      fontSize={size}
      fontWeight={strong ? 700 : 500}
    >
      {text}
    </text>
  );
}

function Member({
  outline,
  p,
  chosen,
  onPick,
}: {
  outline: SceneOutline;
  p: Projection;
  chosen: boolean;
  onPick: ((name: string) => void) | undefined;
}) {
  const pick = onPick && {
    role: "button",
    tabIndex: 0,
    "aria-label": `Member ${outline.member}`,
    "aria-pressed": chosen,
    className: "cursor-pointer",
    onClick: () => onPick(outline.member),
    onKeyDown: (e: KeyboardEvent) => {
      if (e.key !== "Enter" && e.key !== " ") return;
      e.preventDefault();
      onPick(outline.member);
    },
  };
  return (
    <g {...pick}>
      <path
        d={path(p, outline.points)}
        fill={chosen ? "var(--plum-soft)" : "var(--tube)"}
        stroke={chosen ? "var(--plum)" : "var(--ink)"}
        strokeWidth={chosen ? 2 : 1}
        strokeLinejoin="round"
      />
    </g>
  );
}

function Slide({
  corners,
  centre,
  p,
  slide,
}: {
  corners: Record<Corner, Vec2>;
  centre: Vec2;
  p: Projection;
  slide: NonNullable<Props["slide"]>;
}) {
  const [a, b] = [corners[slide.push], corners[slide.towards]];
  const along = unit(sub(b, a));
  const from = p.to(a);
  const d = p.direction(along);
  const out = p.direction(unit(sub(middle(a, b), centre)));
  const start = { x: from.x + out.x * 20, y: from.y + out.y * 20 };
  const span = Math.hypot(p.to(b).x - from.x, p.to(b).y - from.y);
  const length = Math.min(74, 0.28 * span);
  const tip = { x: start.x + d.x * length, y: start.y + d.y * length };
  const upright = Math.abs(d.x) < Math.abs(d.y);
  const words = { x: (start.x + tip.x) / 2 + out.x * 17, y: (start.y + tip.y) / 2 + out.y * 17 };
  return (
    <g stroke="var(--plum)" fill="var(--plum)">
      <path d={`M${start.x} ${start.y}L${tip.x} ${tip.y}`} strokeWidth={4} />
      <path
        d={`M${tip.x + d.x * 14} ${tip.y + d.y * 14}L${tip.x - d.y * 8} ${tip.y + d.x * 8}L${tip.x + d.y * 8} ${tip.y - d.x * 8}Z`}
        stroke="none"
      />
      <Words at={words} text={slide.text} colour="var(--plum)" strong upright={upright} />
    </g>
  );
}

/** Room that the letters at both ends of a side take of it, px. */
const LETTERS_PX = 30;
/** Seen shorter than this a member has no room for its name, px. */
const ROOM_PX = 24;
const SEEN = { 2: "seen from above", 1: "seen from the front", 0: "seen from the right" } as const;

/** Any frame, to scale, in the same place with the same names on every stage: a scene with marks laid over it. */
export function FrameDrawing(props: Props) {
  const {
    scene,
    units,
    label,
    selected = [],
    onPick,
    spans = [],
    points = [],
    lines = [],
    places = [],
    cornerText = {},
    cornerTone = "brass",
    joint,
    doneJoints = [],
    slide,
    moved,
    bare = false,
    maxHeight = 460,
    children,
  } = props;
  const { turn } = useDevice();
  const [ref, width] = useWidth(600);
  const { low, high, corners, items } = scene;
  const box = [low, { x: high.x, y: low.y }, high, { x: low.x, y: high.y }];
  const p = projection(
    [...box, ...points.map((m) => m.at), ...places.map((n) => n.at)],
    width,
    width < 480 ? Math.min(maxHeight, 330) : maxHeight,
    width < 480 ? 44 : MARGIN,
    turn,
  );
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
  const words: (Label & { colour: string; strong?: boolean })[] = [];
  const say = (label: (typeof words)[number]) => {
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
  for (const item of items)
    if (item.kind === "text" && item.role === "member" && item.roomMm * p.pxPerMm > ROOM_PX)
      say({
        key: `name ${item.text}`,
        text: item.text,
        size: 13,
        at: item.along ? alongStretch(p.to(item.along[0]), p.to(item.along[1])) : [p.to(item.at)],
        colour: "var(--ink-soft)",
      });
  const letters = corners ? CORNERS.map((c) => outward(corners[c], 26)) : [];
  const placed = placeLabels(
    words,
    letters.map(({ x, y }) => ({ left: x - 13, right: x + 13, top: y - 13, bottom: y + 13 })),
  );
  return (
    <div ref={ref} className="relative min-w-0">
      <svg
        viewBox={`0 0 ${p.width} ${p.height.toFixed(0)}`}
        width="100%"
        role={onPick ? "group" : "img"}
        aria-label={label}
        className="block select-none"
        style={{ aspectRatio: `${p.width} / ${p.height.toFixed(0)}` }}
      >
        {items.map((item) =>
          item.kind === "outline" ? (
            <Member key={item.member} outline={item} p={p} chosen={selected.includes(item.member)} onPick={onPick} />
          ) : item.kind === "part" ? (
            <path key={item.part} d={path(p, item.points)} fill="var(--brass-soft)" stroke="var(--brass)" />
          ) : null,
        )}
        {moved ? (
          <path
            d={moved.outlines.map((o) => path(p, o.points)).join("")}
            fill="none"
            stroke="var(--cool)"
            strokeWidth={1.75}
            strokeDasharray="7 4"
            data-testid="moved"
          />
        ) : null}
        {corners
          ? spans.map((mark) => {
              const [a, b] = ends(mark.span).map((c) => corners[c]) as [Vec2, Vec2];
              const diagonal = mark.span === "AC" || mark.span === "BD";
              const colour = COLOUR[mark.tone];
              const [from, to] = [p.to(a), p.to(b)];
              return (
                <g key={mark.span}>
                  {diagonal || mark.active ? (
                    <path
                      d={`M${from.x} ${from.y}L${to.x} ${to.y}`}
                      stroke={colour}
                      strokeWidth={mark.active ? 4 : 1.25}
                      strokeDasharray={mark.active ? undefined : "2 4"}
                    />
                  ) : null}
                </g>
              );
            })
          : null}
        {lines.map((mark) => {
          const [from, to] = [p.to(mark.from), p.to(mark.to)];
          const colour = COLOUR[mark.tone];
          return (
            <g key={mark.id}>
              <path
                d={`M${from.x} ${from.y}L${to.x} ${to.y}`}
                stroke={colour}
                strokeWidth={mark.active ? 4 : 1.5}
                strokeDasharray={mark.active ? undefined : "2 4"}
              />
            </g>
          );
        })}
        {places.map(({ name, at }) => (
          <g key={name}>
            <circle cx={p.to(at).x} cy={p.to(at).y} r={4} fill="var(--sheet)" stroke="var(--ink)" strokeWidth={1.5} />
          </g>
        ))}
        {doneJoints.map((q) => (
          <circle key={`${q.x}/${q.y}`} cx={p.to(q).x} cy={p.to(q).y} r={4} fill="var(--ink)" />
        ))}
        {joint ? (
          <g fill="none" stroke="var(--plum)">
            <circle cx={p.to(joint.at).x} cy={p.to(joint.at).y} r={17} strokeWidth={3} />
            <circle
              cx={p.to(joint.at).x + p.direction(joint.toward).x * 17}
              cy={p.to(joint.at).y + p.direction(joint.toward).y * 17}
              r={6}
              fill="var(--plum)"
              stroke="var(--sheet)"
              strokeWidth={2}
            />
          </g>
        ) : null}
        {points.map((mark) => {
          const at = p.to(mark.at);
          const c = COLOUR[mark.tone];
          return (
            <g key={mark.id}>
              <path
                d={`M${at.x} ${at.y - 9}L${at.x + 8} ${at.y + 6}L${at.x - 8} ${at.y + 6}Z`}
                fill={mark.active ? c : "var(--sheet)"}
                stroke={c}
                strokeWidth={2}
              />
            </g>
          );
        })}
        {corners
          ? CORNERS.map((c) => {
              const at = outward(corners[c], 26);
              return (
                <g key={c}>
                  <circle cx={at.x} cy={at.y} r={13} fill="var(--ink)" />
                  <text
                    x={at.x}
                    y={at.y}
                    textAnchor="middle"
                    dominantBaseline="central"
                    fill="var(--sheet)"
                    fontWeight={700}
                    fontSize={15}
                  >
                    {c}
                  </text>
                </g>
              );
            })
          : null}
        {words.map(({ key, text, colour, strong, anchor, upright, size }) => {
          const at = placed.get(key);
          return at ? (
            <Words
              key={key}
              at={at}
              text={text}
              colour={colour}
              strong={strong ?? false}
              size={size}
              upright={upright ?? false}
              anchor={anchor ?? "middle"}
            />
          ) : null;
        })}
        {slide && corners ? <Slide corners={corners} centre={centre} p={p} slide={slide} /> : null}
        {children?.(p)}
      </svg>
      <div className="screen-only flex items-center justify-between gap-2 text-sm text-soft">
        <span>{moved?.note ?? `To scale, ${SEEN[scene.view.depth]}.`}</span>
        <button
          type="button"
          className="tap shrink-0 rounded-[3px] px-2 whitespace-nowrap underline md:min-h-8"
          onClick={() => setDevice({ turn: ((turn + 1) % 4) as 0 | 1 | 2 | 3 })}
        >
          Turn the drawing
        </button>
      </div>
    </div>
  );
}

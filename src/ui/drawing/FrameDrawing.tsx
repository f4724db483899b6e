"use client";

import type { KeyboardEvent, ReactNode } from "react";
import type { Scene, SceneLine, SceneOutline } from "@/core/drawing";
import { CORNERS, type Corner, ends } from "@/core/geometry";
import { sub, unit, type Vec2 } from "@/core/numeric";
import type { UnitPreference } from "@/core/units";
import { setDevice, useDevice } from "../parts/device";
import { frameLabels, middle } from "./frameLabels";
import { COLOUR, type LineMark, type PointMark, type SpanMark, type Tone } from "./marks";
import { type Projection, projection } from "./projection";
import { fitsRoom, type Rooms, roomAt } from "./room";
import { useWidth } from "./useWidth";

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
  /** Whether what is drawn over it can be taken hold of. */
  live?: boolean;
  children?: (p: Projection) => ReactNode;
}

const MARGIN_PX = 56;
const MARGIN_NARROW_PX = 44;
const MOST_NARROW_PX = 330;
const path = (p: Projection, points: readonly Vec2[]): string =>
  `${points.map((q, i) => `${i === 0 ? "M" : "L"}${p.to(q).x.toFixed(1)} ${p.to(q).y.toFixed(1)}`).join("")}Z`;
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

const SEEN = { 2: "seen from above", 1: "seen from the front", 0: "seen from the right" } as const;

/** Any frame, to scale, in the same place with the same names on every stage: a scene with marks laid over it. */
export function FrameDrawing(props: Props) {
  const {
    scene,
    label,
    selected = [],
    onPick,
    spans = [],
    points = [],
    lines = [],
    places = [],
    joint,
    doneJoints = [],
    slide,
    moved,
    maxHeight = 460,
    live = false,
    children,
  } = props;
  const { turn } = useDevice();
  const [ref, width] = useWidth(600);
  const rooms: Rooms = {
    wide: { marginPx: MARGIN_PX, mostPx: maxHeight },
    narrow: { marginPx: MARGIN_NARROW_PX, mostPx: Math.min(maxHeight, MOST_NARROW_PX) },
  };
  const room = roomAt(rooms, width);
  const { low, high, corners, items } = scene;
  const box = [low, { x: high.x, y: low.y }, high, { x: low.x, y: high.y }];
  const p = projection(
    [...box, ...points.map((m) => m.at), ...places.map((n) => n.at)],
    width,
    room.mostPx,
    room.marginPx,
    turn,
  );
  const { outward, centre, words, placed } = frameLabels(props, p);
  const { className, style } = fitsRoom(rooms, p.tall);
  return (
    <div ref={ref} className="@container relative min-w-0">
      <svg
        viewBox={`0 0 ${p.width} ${p.height.toFixed(0)}`}
        role={onPick || live ? "group" : "img"}
        aria-label={label}
        className={`${className} block select-none`}
        style={style}
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

"use client";

import type { KeyboardEvent, ReactNode } from "react";
import { CORNERS, type Corner, ends, type ResolvedFrame, type ResolvedMember } from "@/core/frame";
import { add, scale, sub, unit, type Vec2 } from "@/core/numeric";
import { formatLength, type UnitPreference } from "@/core/units";
import { setDevice, useDevice } from "../parts/device";
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
  frame: ResolvedFrame;
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
  /** The frame has no corners A to D: its box is drawn for, not named. */
  unnamed?: boolean;
  /** How it is seen, said below. */
  seen?: string;
  /** Words at corners, beside their names. */
  cornerText?: Partial<Record<Corner, string>>;
  /** The joint being worked on and where on it, as a direction from the joint. */
  joint?: { at: Vec2; toward: Vec2 } | null;
  /** Joints that are done. */
  doneJoints?: readonly Vec2[];
  /** Slide of a side: drawn as an arrow along it. */
  slide?: { side: string; push: Corner; towards: Corner; text: string } | null;
  /** Members moved, exaggerated: closed outlines where they would be drawn, mm. */
  moved?: { outlines: readonly (readonly Vec2[])[]; note: string } | null;
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
  member,
  p,
  chosen,
  onPick,
}: {
  member: ResolvedMember;
  p: Projection;
  chosen: boolean;
  onPick: ((name: string) => void) | undefined;
}) {
  const pick = onPick && {
    role: "button",
    tabIndex: 0,
    "aria-label": `${member.kind === "side" ? "Side" : "Cross member"} ${member.name}`,
    "aria-pressed": chosen,
    className: "cursor-pointer",
    onClick: () => onPick(member.name),
    onKeyDown: (e: KeyboardEvent) => {
      if (e.key !== "Enter" && e.key !== " ") return;
      e.preventDefault();
      onPick(member.name);
    },
  };
  return (
    <g {...pick}>
      <path
        d={path(p, member.outline)}
        fill={chosen ? "var(--plum-soft)" : "var(--tube)"}
        stroke={chosen ? "var(--plum)" : "var(--ink)"}
        strokeWidth={chosen ? 2 : 1}
        strokeLinejoin="round"
      />
    </g>
  );
}

function Slide({ frame, p, slide }: { frame: ResolvedFrame; p: Projection; slide: NonNullable<Props["slide"]> }) {
  const [a, b] = [frame.corners[slide.push], frame.corners[slide.towards]];
  const along = unit(sub(b, a));
  const from = p.to(a);
  const d = p.direction(along);
  const centre = { x: frame.lengthMm / 2, y: frame.widthMm / 2 };
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

/** The frame, to scale, in the same place with the same names on every stage. */
export function FrameDrawing(props: Props) {
  const {
    frame,
    units,
    label,
    selected = [],
    onPick,
    spans = [],
    points = [],
    lines = [],
    places = [],
    unnamed = false,
    seen = "seen from above",
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
  const corners = CORNERS.map((c) => frame.corners[c]);
  const p = projection(
    [...corners, ...points.map((m) => m.at)],
    width,
    width < 480 ? Math.min(maxHeight, 330) : maxHeight,
    width < 480 ? 44 : MARGIN,
    turn,
  );
  const centre = { x: frame.lengthMm / 2, y: frame.widthMm / 2 };
  const outward = (q: Vec2, px: number): Vec2 => {
    const d = p.direction(unit(sub(q, centre)));
    const at = p.to(q);
    return { x: at.x + d.x * px, y: at.y + d.y * px };
  };
  const sideOut = (a: Vec2, b: Vec2, px: number): Vec2 => {
    const m = middle(a, b);
    const away =
      Math.abs(a.x - b.x) > Math.abs(a.y - b.y)
        ? { x: 0, y: Math.sign(m.y - centre.y) }
        : { x: Math.sign(m.x - centre.x), y: 0 };
    const d = p.direction(away);
    const at = p.to(m);
    return { x: at.x + d.x * px, y: at.y + d.y * px };
  };
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
        {frame.members.map((m) => (
          <Member key={m.name} member={m} p={p} chosen={selected.includes(m.name)} onPick={onPick} />
        ))}
        {moved ? (
          <path
            d={moved.outlines.map((o) => path(p, o)).join("")}
            fill="none"
            stroke="var(--cool)"
            strokeWidth={1.75}
            strokeDasharray="7 4"
            data-testid="moved"
          />
        ) : null}
        {spans.map((mark) => {
          const [a, b] = ends(mark.span).map((c) => frame.corners[c]) as [Vec2, Vec2];
          const diagonal = mark.span === "AC" || mark.span === "BD";
          const colour = COLOUR[mark.tone];
          const [from, to] = [p.to(a), p.to(b)];
          const at = diagonal ? p.to(add(a, scale(sub(b, a), 0.32))) : sideOut(a, b, 20);
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
              <Words
                at={at}
                text={mark.text}
                colour={colour}
                strong={mark.active ?? false}
                upright={!diagonal && isUpright(p, a, b)}
              />
            </g>
          );
        })}
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
              <Words
                at={p.to(add(mark.from, scale(sub(mark.to, mark.from), 0.42)))}
                text={mark.text}
                colour={colour}
                strong={mark.active ?? false}
                size={13}
                upright={isUpright(p, mark.from, mark.to)}
              />
            </g>
          );
        })}
        {places.map(({ name, at }) => (
          <g key={name}>
            <circle cx={p.to(at).x} cy={p.to(at).y} r={4} fill="var(--sheet)" stroke="var(--ink)" strokeWidth={1.5} />
            <Words at={outward(at, 15)} text={name} colour="var(--ink-soft)" size={12} />
          </g>
        ))}
        {frame.members
          .filter((m) => m.kind === "cross")
          .map((m) => (
            <Words
              key={m.name}
              at={p.to(middle(m.axis[0], m.axis[1]))}
              text={m.name}
              colour="var(--ink-soft)"
              size={13}
            />
          ))}
        {bare
          ? null
          : (["AB", "BC"] as const).map((s) => {
              const [a, b] = ends(s).map((c) => frame.corners[c]) as [Vec2, Vec2];
              return (
                <Words
                  key={s}
                  at={sideOut(a, b, 24)}
                  text={formatLength(s === "AB" ? frame.lengthMm : frame.widthMm, units, { trim: true }).text}
                  upright={isUpright(p, a, b)}
                  colour="var(--ink-soft)"
                />
              );
            })}
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
              <Words
                at={{ x: at.x, y: at.y + (p.to(centre).y > at.y ? 22 : -20) }}
                text={mark.text}
                colour={c}
                strong={mark.active ?? false}
              />
            </g>
          );
        })}
        {(unnamed ? [] : CORNERS).map((c) => {
          const at = outward(frame.corners[c], 26);
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
              {cornerText[c] ? (
                <Words
                  at={{ x: at.x + (at.x < p.width / 2 ? 19 : -19), y: at.y + (at.y < p.height / 2 ? -1 : 1) }}
                  text={cornerText[c] ?? ""}
                  colour={COLOUR[cornerTone]}
                  anchor={at.x < p.width / 2 ? "start" : "end"}
                />
              ) : null}
            </g>
          );
        })}
        {slide ? <Slide frame={frame} p={p} slide={slide} /> : null}
        {children?.(p)}
      </svg>
      <div className="screen-only flex items-center justify-between gap-2 text-sm text-soft">
        <span>{moved?.note ?? `To scale, ${seen}.`}</span>
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

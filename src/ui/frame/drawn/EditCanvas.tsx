"use client";

import { type KeyboardEvent, memo, type PointerEvent, useEffect, useMemo, useRef, useState } from "react";
import {
  type DrawnFrame,
  type EndName,
  middleOf,
  moveCorner,
  moveEnd,
  moveMembers,
  place,
  resolveStructure,
  type Snap,
  type StructureMember,
  snap,
} from "@/core/frame";
import { hull } from "@/core/geometry";
import { add3, sub3, type Vec2, type Vec3 } from "@/core/numeric";
import { formatLength, type UnitPreference } from "@/core/units";
import { MemberName, placeNames } from "../../drawing/MemberName";
import { fitsRoom, type Rooms, roomAt } from "../../drawing/room";
import { useWidth } from "../../drawing/useWidth";
import { fitted, type Look, screenOf, seen, VIEWS, type ViewName } from "../../drawing/views";
import type { PointedEnd } from "./AddMember";

interface Props {
  frame: DrawnFrame;
  /** The same frame, worked out. */
  drawn: ReturnType<typeof resolveStructure>;
  units: UnitPreference;
  view: ViewName;
  tool: "pick" | "draw";
  picked: readonly string[];
  /** Members with an error, to be marked. */
  wrong: ReadonlySet<string>;
  /** Joint that is brought forward. */
  joint: string | null;
  /** Corners stay together when one is moved. */
  together: boolean;
  gridMm: number;
  look: Look;
  onPick: (ids: string[]) => void;
  onJoint: (id: string | null) => void;
  /** An end that is pressed and not moved is pointed at. */
  onEnd: (end: PointedEnd) => void;
  pointed: PointedEnd | null;
  onEdit: (frame: DrawnFrame) => void;
  onDraw: (from: Vec3, to: Vec3) => void;
  onKey: (event: KeyboardEvent) => void;
}

type Drag =
  | { kind: "members"; ids: string[]; anchor: Vec3; start: Vec3; moved: boolean }
  | { kind: "corner"; at: Vec3; member: string; end: EndName; moved: boolean };

const MARGIN = 48;
const ROOMS: Rooms = { wide: { marginPx: MARGIN, mostPx: 470 }, narrow: { marginPx: MARGIN, mostPx: 340 } };
const FITS = fitsRoom(ROOMS, null);
/** Nearer than this on the screen a point is drawn to what is there, px. */
const SNAP_PX = 11;
/** A press that moves less is a pick, px. */
const STILL_PX = 4;

const SNAP_WORDS: Record<Snap["what"], string> = {
  end: "end of",
  middle: "middle of",
  "on the line": "on the line of",
  face: "face of",
  "equal gap": "equal gaps",
  grid: "",
};

const pathOf = (points: readonly Vec2[]): string =>
  `${points.map((p, i) => `${i === 0 ? "M" : "L"}${p.x.toFixed(1)} ${p.y.toFixed(1)}`).join("")}Z`;

const Body = memo(function Body({
  d,
  id,
  label,
  chosen,
  wrong,
  onToggle,
}: {
  d: string;
  id: string;
  label: string;
  chosen: boolean;
  wrong: boolean;
  onToggle: (id: string, more: boolean) => void;
}) {
  return (
    // biome-ignore lint/a11y/useSemanticElements: a shape in a drawing cannot be a button element
    <g
      role="button"
      tabIndex={0}
      aria-label={label}
      aria-pressed={chosen}
      data-member={id}
      className="cursor-pointer"
      onKeyDown={(e) => {
        if (e.key !== "Enter" && e.key !== " ") return;
        e.preventDefault();
        e.stopPropagation();
        onToggle(id, e.shiftKey);
      }}
    >
      <path
        d={d}
        fill={chosen ? "var(--plum-soft)" : wrong ? "var(--fail-soft)" : "var(--tube)"}
        stroke={chosen ? "var(--plum)" : wrong ? "var(--fail)" : "var(--ink)"}
        strokeWidth={chosen ? 2 : 1}
        strokeDasharray={wrong ? "6 3" : undefined}
        strokeLinejoin="round"
      />
    </g>
  );
});

/** The frame in one view, where members are picked, drawn and moved. */
export function EditCanvas(props: Props) {
  const { frame, units, view, tool, picked, wrong, joint, together, gridMm, onPick, onJoint, onEdit, onDraw, onKey } =
    props;
  const [ref, width] = useWidth(640);
  const height = roomAt(ROOMS, width).mostPx;
  const axes = VIEWS[view];
  const [draft, setDraft] = useState<DrawnFrame | null>(null);
  const [drag, setDrag] = useState<Drag | null>(null);
  const [first, setFirst] = useState<Vec3 | null>(null);
  const [at, setAt] = useState<Snap | null>(null);
  const svg = useRef<SVGSVGElement>(null);
  const { drawn: committed } = props;
  const shown = useMemo(() => (draft ? resolveStructure(draft) : committed), [draft, committed]);
  const { structure, placed } = shown;
  // The window stays where it is while something is moved.
  const window_ = useMemo(
    () => fitted(committed.structure, axes, width, height, MARGIN, props.look),
    [committed, axes, width, height, props.look],
  );
  const screen = screenOf(axes, window_, width, height);
  const depthMm = committed.structure.low[axes.depth];

  useEffect(() => {
    if (tool === "pick") {
      setFirst(null);
      setAt(null);
    }
  }, [tool]);

  const pointer = (e: PointerEvent): Vec2 => {
    const box = svg.current?.getBoundingClientRect();
    return box
      ? { x: ((e.clientX - box.left) * width) / box.width, y: ((e.clientY - box.top) * height) / box.height }
      : { x: 0, y: 0 };
  };
  const drawn = (p: Vec3, leave?: ReadonlySet<string>): Snap =>
    snap(committed.placed.values(), p, axes, SNAP_PX * screen.mmPerPx, gridMm, leave);

  const toggle = useRef((_id: string, _more: boolean) => undefined as undefined);
  useEffect(() => {
    toggle.current = (id, more) => {
      onPick(
        more
          ? picked.includes(id)
            ? picked.filter((x) => x !== id)
            : [...picked, id]
          : picked.length === 1 && picked[0] === id
            ? []
            : [id],
      );
      return undefined;
    };
  });
  const onToggle = useMemo(() => (id: string, more: boolean) => toggle.current(id, more), []);

  const down = (e: PointerEvent<SVGSVGElement>) => {
    if (e.button !== 0) return;
    const p = pointer(e);
    if (tool === "draw") {
      const place_ = drawn(screen.from(p, first?.[axes.depth] ?? depthMm));
      if (!first) setFirst(place_.at);
      else {
        onDraw(first, place_.at);
        setFirst(null);
      }
      return;
    }
    const target = e.target as Element;
    const handle = target.closest<SVGElement>("[data-end]");
    if (handle) {
      const member = handle.dataset.of as string;
      const end = handle.dataset.end as EndName;
      const m = frame.members.find((x) => x.id === member);
      if (m) setDrag({ kind: "corner", at: place(m[end]), member, end, moved: false });
      svg.current?.setPointerCapture(e.pointerId);
      return;
    }
    const mark = target.closest<SVGElement>("[data-joint]");
    if (mark) {
      onJoint(mark.dataset.joint as string);
      return;
    }
    const body = target.closest<SVGElement>("[data-member]");
    if (!body) {
      if (!e.shiftKey) onPick([]);
      return;
    }
    const id = body.dataset.member as string;
    const member = frame.members.find((m) => m.id === id);
    if (e.shiftKey || !member) {
      toggle.current(id, true);
      return;
    }
    const ids = picked.includes(id) ? [...picked] : [id];
    if (!picked.includes(id)) onPick(ids);
    const start = screen.from(p, depthMm);
    const near = (q: Vec3): number => Math.hypot(q[axes.right] - start[axes.right], q[axes.up] - start[axes.up]);
    const [a, b] = [place(member.from), place(member.to)];
    setDrag({ kind: "members", ids, anchor: near(a) < near(b) ? a : b, start, moved: false });
    svg.current?.setPointerCapture(e.pointerId);
  };

  const move = (e: PointerEvent<SVGSVGElement>) => {
    const p = pointer(e);
    if (tool === "draw") {
      setAt(drawn(screen.from(p, first?.[axes.depth] ?? depthMm)));
      return;
    }
    if (!drag) return;
    if (drag.kind === "corner") {
      const to = drawn(screen.from(p, drag.at[axes.depth]), new Set([drag.member]));
      const goal = [...to.at] as [number, number, number];
      goal[axes.depth] = drag.at[axes.depth];
      setAt({ ...to, at: goal });
      setDraft(together ? moveCorner(frame, drag.at, goal, units) : moveEnd(frame, drag.member, drag.end, goal, units));
      if (!drag.moved) setDrag({ ...drag, moved: true });
      return;
    }
    const here = screen.from(p, depthMm);
    if (
      !drag.moved &&
      Math.hypot(here[axes.right] - drag.start[axes.right], here[axes.up] - drag.start[axes.up]) <
        STILL_PX * screen.mmPerPx
    )
      return;
    const wish = add3(drag.anchor, sub3(here, drag.start));
    const to = drawn(wish, new Set(drag.ids));
    const by = [...sub3(to.at, drag.anchor)] as [number, number, number];
    by[axes.depth] = 0;
    setAt(to);
    setDraft(moveMembers(frame, drag.ids, by, units, together));
    if (!drag.moved) setDrag({ ...drag, moved: true });
  };

  const up = () => {
    if (drag?.moved && draft) onEdit(draft);
    else if (drag?.kind === "corner" && !drag.moved) props.onEnd({ member: drag.member, end: drag.end });
    setDrag(null);
    setDraft(null);
    if (tool === "pick") setAt(null);
  };
  const leave = () => {
    setDrag(null);
    setDraft(null);
    setFirst(null);
    setAt(null);
  };

  const members = useMemo(() => {
    const deep = (m: StructureMember): number => middleOf(m)[axes.depth];
    const far = view === "front" ? -1 : 1;
    return [...structure.members].sort((a, b) => far * (deep(a) - deep(b)));
  }, [structure, axes, view]);
  const named = placeNames(
    members,
    screen,
    picked,
    structure.joints.map((j) => screen.to(j.at)),
  );
  const handles = tool === "pick" ? picked.flatMap((id) => (placed.get(id) ? [placed.get(id)] : [])) : [];
  const size = (mm: number): string => formatLength(mm, units, { trim: true }).text;
  const overall = [axes.right, axes.up].map((k) => structure.high[k] - structure.low[k]) as [number, number];
  const corner = (x: 0 | 1, y: 0 | 1): Vec2 =>
    screen.toFlat({
      x: (x === 0 ? structure.low : structure.high)[axes.right],
      y: (y === 0 ? structure.low : structure.high)[axes.up],
    });

  return (
    <div ref={ref} className="@container min-w-0">
      {/* biome-ignore lint/a11y/useSemanticElements: a drawing that holds its members as buttons */}
      <svg
        ref={svg}
        viewBox={`0 0 ${width} ${height}`}
        role="group"
        aria-label={`Frame ${axes.words}: ${structure.members.length} members`}
        className={`${FITS.className} block touch-none select-none border border-line bg-well ${tool === "draw" ? "cursor-crosshair" : ""}`}
        style={FITS.style}
        data-testid="canvas"
        onPointerDown={down}
        onPointerMove={move}
        onPointerUp={up}
        onPointerCancel={leave}
        onKeyDown={(e) => {
          if (e.key === "Escape") leave();
          onKey(e);
        }}
      >
        {structure.parts.map((p) => (
          <path
            key={p.id}
            d={pathOf(hull(p.corners.map((c) => screen.to(c))))}
            fill="var(--brass-soft)"
            stroke="var(--brass)"
          />
        ))}
        {frame.obstacles.map((o) => {
          const low = place(o.at);
          const [a, b] = [screen.to(low), screen.to(add3(low, place(o.size)))];
          return (
            <g key={o.id} fill="none" stroke="var(--close)" strokeDasharray="3 3">
              <rect
                x={Math.min(a.x, b.x)}
                y={Math.min(a.y, b.y)}
                width={Math.abs(a.x - b.x)}
                height={Math.abs(a.y - b.y)}
              />
              <text
                x={(a.x + b.x) / 2}
                y={(a.y + b.y) / 2}
                fill="var(--close)"
                stroke="none"
                fontSize={13}
                textAnchor="middle"
              >
                {o.name || o.id}
              </text>
            </g>
          );
        })}
        {members.map((m) => (
          <Body
            key={m.id}
            id={m.id}
            d={pathOf(seen(m, axes).map(screen.toFlat))}
            label={`Member ${m.id}, ${size(m.longMm)} long`}
            chosen={picked.includes(m.id)}
            wrong={wrong.has(m.id)}
            onToggle={onToggle}
          />
        ))}
        {members.map((m) => {
          const at = named.get(m.id);
          return at ? (
            <MemberName key={m.id} name={m.id} at={at} chosen={picked.includes(m.id)} ground="var(--well)" />
          ) : null;
        })}
        {structure.joints.map((j) => {
          const q = screen.to(j.at);
          const chosen = j.id === joint;
          return (
            <circle
              key={j.id}
              data-joint={j.id}
              cx={q.x}
              cy={q.y}
              r={chosen ? 7 : 4}
              fill={chosen ? "var(--plum)" : "var(--sheet)"}
              stroke={chosen ? "var(--plum)" : "var(--ink-soft)"}
              strokeWidth={1.5}
              className="cursor-pointer"
            />
          );
        })}
        {handles.flatMap((m) =>
          m
            ? (["from", "to"] as const).map((end) => {
                const q = screen.to(end === "from" ? m.from : m.to);
                return (
                  <rect
                    key={`${m.id}/${end}`}
                    data-of={m.id}
                    data-end={end}
                    x={q.x - 7}
                    y={q.y - 7}
                    width={14}
                    height={14}
                    fill="var(--sheet)"
                    stroke="var(--plum)"
                    strokeWidth={props.pointed?.member === m.id && props.pointed.end === end ? 5 : 2.5}
                    className="cursor-move"
                  />
                );
              })
            : [],
        )}
        {structure.members.length > 0 ? (
          <g className="fig pointer-events-none" fontSize={14} fill="var(--ink-soft)" textAnchor="middle">
            <text x={(corner(0, 0).x + corner(1, 0).x) / 2} y={Math.min(height - 10, corner(0, 0).y + 28)}>
              {size(overall[0])}
            </text>
            <text
              transform={`translate(${Math.max(16, corner(0, 0).x - 26)} ${(corner(0, 0).y + corner(0, 1).y) / 2}) rotate(-90)`}
            >
              {size(overall[1])}
            </text>
          </g>
        ) : null}
        {first && at ? (
          <path
            d={`M${screen.to(first).x} ${screen.to(first).y}L${screen.to(at.at).x} ${screen.to(at.at).y}`}
            stroke="var(--plum)"
            strokeWidth={2}
            strokeDasharray="6 4"
          />
        ) : null}
        {at ? (
          <g className="pointer-events-none">
            <circle
              cx={screen.to(at.at).x}
              cy={screen.to(at.at).y}
              r={6}
              fill="none"
              stroke="var(--plum)"
              strokeWidth={2}
            />
            <text
              x={screen.to(at.at).x}
              y={screen.to(at.at).y - 12}
              fontSize={13}
              textAnchor="middle"
              fill="var(--plum)"
              stroke="var(--well)"
              strokeWidth={4}
              paintOrder="stroke"
              className="fig"
            >
              {at.what === "grid"
                ? `${size(at.at[axes.right])}, ${size(at.at[axes.up])}`
                : `${SNAP_WORDS[at.what]}${at.of ? ` ${at.of}` : ""}`}
            </text>
          </g>
        ) : null}
      </svg>
    </div>
  );
}

"use client";

import { type KeyboardEvent, type PointerEvent, useRef } from "react";
import type { LaidElement, LaidOut } from "@/core/job";
import { formatSmall, type UnitPreference } from "@/core/units";
import type { Projection } from "../drawing/projection";

/** A stop is drawn so wide and thick, and a clamp's arrow so long; it is taken hold of within so much, px. */
const WIDE = 18;
const THICK = 8;
const ARROW = 22;
const HOLD = 14;
/** A key moves an element by so much, mm, and finely by a tenth of it. */
const STEP_MM = 10;

/** What is moved along its member; an end stop and a square have one place. */
const MOVABLE: ReadonlySet<string> = new Set(["stop", "clamp", "V-block", "riser"]);

/** What is done with an element that is moved along its member. */
export interface Moving {
  units: UnitPreference;
  picked: string | null;
  onPick: (id: string | null) => void;
  /** Where a member's tube begins along its line. */
  beginsMm: (member: string) => number;
  /** While it is drawn along. */
  onMove: (id: string, alongMm: number) => void;
  /** Where it was let go. */
  onPlace: (id: string, alongMm: number) => void;
}

/** An element as it looks, with its back where it stands. */
function Look({ laid: { element, from }, isPicked, p }: { laid: LaidElement; isPicked: boolean; p: Projection }) {
  const at = p.to(from);
  const way = p.direction(element.push);
  const across = { x: -way.y, y: way.x };
  const point = (along: number, side: number): string =>
    `${(at.x - along * way.x + side * across.x).toFixed(1)} ${(at.y - along * way.y + side * across.y).toFixed(1)}`;
  const colour = isPicked ? "var(--plum)" : element.kind === "clamp" ? "var(--brass)" : "var(--ink)";
  if (element.kind === "clamp")
    return (
      <g stroke={colour} fill={colour} strokeWidth={isPicked ? 4 : 2}>
        <path d={`M${point(ARROW, 0)}L${point(4, 0)}`} fill="none" />
        <path d={`M${point(0, 0)}L${point(9, 5)}L${point(9, -5)}Z`} stroke="none" />
      </g>
    );
  if (element.kind === "square")
    return (
      <path
        d={`M${point(0, 0)}L${point(-WIDE, 0)}L${point(-WIDE, THICK / 2)}L${point(-THICK / 2, THICK / 2)}L${point(-THICK / 2, WIDE)}L${point(0, WIDE)}Z`}
        fill="var(--sheet)"
        stroke={colour}
        strokeWidth={isPicked ? 4 : 2}
      />
    );
  if (element.kind === "V-block")
    return (
      <path
        d={`M${point(WIDE / 2, -THICK)}L${point(WIDE / 2, THICK)}L${point(0, 0)}L${point(-WIDE / 2, THICK)}L${point(-WIDE / 2, -THICK)}L${point(0, 0)}Z`}
        fill={colour}
        stroke={colour}
        strokeWidth={isPicked ? 4 : 2}
      />
    );
  if (element.kind === "riser")
    return (
      <path
        d={`M${point(-WIDE / 2, -THICK / 2)}L${point(WIDE / 2, -THICK / 2)}L${point(WIDE / 2, THICK / 2)}L${point(-WIDE / 2, THICK / 2)}Z`}
        fill="var(--sheet)"
        stroke={colour}
        strokeWidth={isPicked ? 4 : 2}
      />
    );
  const box = `M${point(0, WIDE / 2)}L${point(0, -WIDE / 2)}L${point(THICK, -WIDE / 2)}L${point(THICK, WIDE / 2)}Z`;
  return (
    <path
      d={box}
      fill={element.kind === "end stop" ? "var(--sheet)" : colour}
      stroke={colour}
      strokeWidth={isPicked ? 4 : 2}
      strokeDasharray={element.kind === "end stop" ? "3 2" : undefined}
    />
  );
}

/** An element that is moved along its member, by hand or by key. */
function Mark({ laid, moving, p }: { laid: LaidElement; moving: Moving; p: Projection }) {
  const { element, from } = laid;
  const { id, alongMm, longMm } = element;
  const begins = moving.beginsMm(element.member);
  const held = useRef<{ x: number; y: number; alongMm: number; now: number } | null>(null);
  const at = p.to(from);
  const back = p.direction(element.push);
  const middle =
    element.kind === "clamp" ? ARROW / 2 : element.kind === "V-block" || element.kind === "riser" ? 0 : THICK / 2;
  const kept = (mm: number): number => Math.min(longMm, Math.max(0, mm));
  const take = (e: PointerEvent<SVGGElement>) => {
    e.currentTarget.setPointerCapture(e.pointerId);
    held.current = { x: e.clientX, y: e.clientY, alongMm, now: alongMm };
    moving.onPick(id);
  };
  const draw = (e: PointerEvent<SVGGElement>) => {
    const hold = held.current;
    const svg = e.currentTarget.ownerSVGElement;
    if (!hold || !svg) return;
    const scale = svg.getBoundingClientRect().width / (svg.viewBox.baseVal.width || p.width);
    const way = p.direction(element.way);
    const px = ((e.clientX - hold.x) * way.x + (e.clientY - hold.y) * way.y) / (scale || 1);
    hold.now = kept(hold.alongMm + px / p.pxPerMm);
    moving.onMove(id, hold.now);
  };
  const drop = () => {
    const hold = held.current;
    held.current = null;
    if (hold && hold.now !== hold.alongMm) moving.onPlace(id, hold.now);
  };
  const key = (e: KeyboardEvent) => {
    const way = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[e.key];
    if (!way) return;
    e.preventDefault();
    moving.onPlace(id, kept(alongMm + way * (e.shiftKey ? STEP_MM / 10 : STEP_MM)));
  };
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label={`${id}, on the drawing`}
      aria-valuemin={Math.round(-begins)}
      aria-valuemax={Math.round(longMm - begins)}
      aria-valuenow={Math.round(alongMm - begins)}
      aria-valuetext={formatSmall(alongMm - begins, moving.units, { decimals: 0 })}
      className="cursor-grab touch-none"
      onPointerDown={take}
      onPointerMove={draw}
      onPointerUp={drop}
      onPointerCancel={drop}
      onKeyDown={key}
      onFocus={() => moving.onPick(id)}
    >
      <rect
        x={at.x - middle * back.x - HOLD}
        y={at.y - middle * back.y - HOLD}
        width={2 * HOLD}
        height={2 * HOLD}
        fill="transparent"
      />
      <Look laid={laid} isPicked={id === moving.picked} p={p} />
    </g>
  );
}

/** Stops, end stops and clamps about a frame. @param moving on paper nothing is moved. */
export function ElementMarks({ laid, moving, p }: { laid: LaidOut; moving: Moving | null; p: Projection }) {
  return laid.elements.map((e) =>
    moving && MOVABLE.has(e.element.kind) ? (
      <Mark key={e.element.id} laid={e} moving={moving} p={p} />
    ) : (
      <Look key={e.element.id} laid={e} isPicked={e.element.id === moving?.picked} p={p} />
    ),
  );
}

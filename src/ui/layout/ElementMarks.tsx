import type { LaidElement, LaidOut } from "@/core/job";
import type { Projection } from "../drawing/projection";

/** A stop is drawn so wide and thick, and a clamp's arrow so long, px. */
const WIDE = 18;
const THICK = 8;
const ARROW = 22;

/** One element about the frame, with its back where it stands. */
function Mark({ laid: { element, from }, isPicked, p }: { laid: LaidElement; isPicked: boolean; p: Projection }) {
  const at = p.to(from);
  // Up is up in the frame, down on the screen.
  const way = { x: element.push.x, y: -element.push.y };
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

/** Stops, end stops and clamps about a frame. */
export function ElementMarks({ laid, picked, p }: { laid: LaidOut; picked: string | null; p: Projection }) {
  return laid.elements.map((e) => <Mark key={e.element.id} laid={e} isPicked={e.element.id === picked} p={p} />);
}

import type { StructureMember } from "@/core/frame";
import type { Vec2 } from "@/core/numeric";
import { alongStretch, placeLabels } from "./placeLabels";
import type { Screen } from "./views";

/** Seen shorter than this a member has no room for its name, px. */
const ROOM_PX = 24;
const SIZE = 12;
/** Half of the mark of a joint, px. */
const JOINT_PX = 6;

/**
 * Where the names of members stand so that none covers another; what is picked comes first and is always named.
 * @param joints whose marks are not covered either.
 */
export function placeNames(
  members: readonly StructureMember[],
  screen: Screen,
  picked: readonly string[],
  joints: readonly Vec2[] = [],
): Map<string, Vec2> {
  const chosen = (m: StructureMember): boolean => picked.includes(m.id);
  const order = [...members].sort((a, b) => Number(chosen(b)) - Number(chosen(a)));
  return placeLabels(
    order.flatMap((m) => {
      const [a, b] = [screen.to(m.ends.from.at), screen.to(m.ends.to.at)];
      if (Math.hypot(a.x - b.x, a.y - b.y) < ROOM_PX && !chosen(m)) return [];
      return [{ key: m.id, text: m.id, size: SIZE, at: alongStretch(a, b), must: chosen(m) }];
    }),
    joints.map(({ x, y }) => ({ left: x - JOINT_PX, right: x + JOINT_PX, top: y - JOINT_PX, bottom: y + JOINT_PX })),
  );
}

/** A member's name. */
export function MemberName({ name, at, chosen, ground }: { name: string; at: Vec2; chosen: boolean; ground: string }) {
  return (
    <text
      x={at.x}
      y={at.y}
      fontSize={SIZE}
      textAnchor="middle"
      dominantBaseline="central"
      fill={chosen ? "var(--plum)" : "var(--ink-soft)"}
      stroke={ground}
      strokeWidth={4}
      paintOrder="stroke"
      className="fig pointer-events-none"
      fontWeight={chosen ? 700 : 500}
    >
      {name}
    </text>
  );
}

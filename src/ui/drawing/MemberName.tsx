import { middleOf, type StructureMember } from "@/core/frame";
import type { Screen } from "./views";

/** Seen shorter than this a member has no room for its name, px. */
const ROOM_PX = 24;

/** A member's name at its middle; seen end on it would only hide what lies there. */
export function MemberName({
  member,
  screen,
  chosen,
  ground,
}: {
  member: StructureMember;
  screen: Screen;
  chosen: boolean;
  ground: string;
}) {
  const [a, b, mid] = [member.ends.from.at, member.ends.to.at, middleOf(member)].map(screen.to) as [
    { x: number; y: number },
    { x: number; y: number },
    { x: number; y: number },
  ];
  if (Math.hypot(a.x - b.x, a.y - b.y) < ROOM_PX && !chosen) return null;
  return (
    <text
      x={mid.x}
      y={mid.y}
      fontSize={12}
      textAnchor="middle"
      dominantBaseline="central"
      fill={chosen ? "var(--plum)" : "var(--ink-soft)"}
      stroke={ground}
      strokeWidth={4}
      paintOrder="stroke"
      className="fig pointer-events-none"
      fontWeight={chosen ? 700 : 500}
    >
      {member.id}
    </text>
  );
}

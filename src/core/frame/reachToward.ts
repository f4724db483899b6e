import { dot3, type Vec3 } from "../numeric";
import type { StructureMember } from "./structure";
import type { ViewAxes } from "./viewAxes";

/** How far a member's outline reaches from its line that way, mm. @param way square to the line, of length one. */
export const reachToward = ({ outline, axes }: Pick<StructureMember, "outline" | "axes">, way: Vec3): number =>
  Math.max(...outline.map((p) => p.x * dot3(axes[1], way) + p.y * dot3(axes[2], way)));

/** Along an axis of the frame. */
const along = (axis: 0 | 1 | 2, sign: 1 | -1): Vec3 => [0, 1, 2].map((k) => (k === axis ? sign : 0)) as never;

/** Between which depths of a view a member that lies flat in it has its body, mm. */
export const depthsOf = (m: StructureMember, { depth }: Pick<ViewAxes, "depth">): [low: number, high: number] => [
  m.from[depth] - reachToward(m, along(depth, -1)),
  m.from[depth] + reachToward(m, along(depth, 1)),
];

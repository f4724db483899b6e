import { type Structure, type StructureMember, seenAt } from "../frame";
import { add3, dot3, entry, scale3, sub3, type Vec2, type Vec3 } from "../numeric";
import type { Replay } from "../shrink";
import { inScene, type Scene, type SceneLine } from "./scene";

/** A member that is seen shorter than this share of its length stands nearly end on. */
const END_ON = 0.2;

/** Edges of a member to both sides as it is seen: how far off its line, and where each begins and ends along it. */
function edgesOf(m: StructureMember, view: Scene["view"]) {
  const along = seenAt(m.axes[0], view);
  const size = Math.hypot(along.x, along.y);
  const across = { x: -along.y / size, y: along.x / size };
  const [y, z] = [seenAt(m.axes[1], view), seenAt(m.axes[2], view)];
  const offsets = m.outline.map((p) => (p.x * y.x + p.y * z.x) * across.x + (p.x * y.y + p.y * z.y) * across.y);
  const edge = (pick: (list: readonly number[]) => number) => {
    const off = pick(offsets);
    const i = offsets.indexOf(off);
    return { off, begins: entry(m.begins, i), finishes: entry(m.finishes, i) };
  };
  return { across, size, edges: [edge((l) => Math.max(...l)), edge((l) => Math.min(...l))] as const };
}

/** Where every member lies after a row of a replay, exaggerated: one closed outline each, as it is seen in a scene. */
export function movedLines(
  structure: Structure,
  scene: Pick<Scene, "view" | "origin">,
  { points, history }: Pick<Replay, "points" | "history">,
  row: number,
  factor: number,
): SceneLine[] {
  const out = history[row];
  if (!out) return [];
  return structure.members.flatMap((m): SceneLine[] => {
    const { across, size, edges } = edgesOf(m, scene.view);
    if (!(size > END_ON)) return [];
    const own = points
      .filter((p) => p.member === m.id)
      .map((p) => ({
        s: dot3(sub3(p.at, m.from), m.axes[0]),
        move: [0, 1, 2].map((k) => factor * entry(out, p.first + k)) as unknown as Vec3,
      }))
      .sort((a, b) => a.s - b.s);
    if (own.length < 2) return [];
    const side = ({ off, begins, finishes }: (typeof edges)[number]): Vec2[] =>
      own.map(({ s, move }, i) => {
        const place = i === 0 ? begins : i === own.length - 1 ? finishes : Math.min(finishes, Math.max(begins, s));
        const p = inScene(scene, add3(add3(m.from, scale3(m.axes[0], place)), move));
        return { x: p.x + off * across.x, y: p.y + off * across.y };
      });
    return [{ kind: "line", role: "moved", points: [...side(edges[0]), ...side(edges[1]).reverse()] }];
  });
}

/** The largest movement is drawn about this share of the frame. */
const SHARE = 0.035;

/**
 * A round factor that makes the largest movement well seen: one for all of the tacking and one for all of the welding, so
 * that steps can be compared.
 * @param rows of the replay that share the factor.
 */
export function exaggeration(
  structure: Structure,
  view: Scene["view"],
  { points, history }: Pick<Replay, "points" | "history">,
  rows: readonly number[],
): number {
  const size = [view.right, view.up].map((k) => structure.high[k] - structure.low[k]);
  let largest = 0;
  for (const row of rows) {
    const out = history[row];
    if (!out) continue;
    for (const p of points)
      largest = Math.max(largest, Math.hypot(entry(out, p.first + view.right), entry(out, p.first + view.up)));
  }
  if (largest <= 0) return 1;
  const wanted = (SHARE * Math.max(1, Math.min(...size))) / largest;
  const power = 10 ** Math.floor(Math.log10(wanted));
  return Math.max(1, power * ([5, 2, 1].find((n) => n * power <= wanted) ?? 1));
}

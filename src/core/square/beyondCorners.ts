import { type Quadrilateral, type Structure, seenAt } from "../frame";
import { CORNERS, hull } from "../geometry";
import { cross, norm, sub, type Vec2, type Vec3 } from "../numeric";
import { clean, FREE_ENDS, freeEndOf } from "./freeEnd";

/** Centre lines of one level lie this near to each other, besides half of what they differ by in height, mm. */
const LEVEL_MM = 1;

/** Beyond the corners by this share of the shorter side a place can be well off while they are right (own judgement). */
const BEYOND_SHARE = 0.25;
/** So many such places are asked for at most. */
const MOST_BEYOND = 4;

/** How far a point lies outside of a convex outline, across that edge of it beyond which it is farthest, mm; less than nought inside. */
const outsideMm = (outline: readonly Vec2[], p: Vec2): number =>
  Math.max(
    ...outline.map((from, i) => {
      const edge = sub(outline[(i + 1) % outline.length] as Vec2, from);
      return cross(sub(p, from), edge) / (norm(edge) || 1);
    }),
  );

/** Joints and free ends that reach beyond the corners of a quadrilateral, in its plane, the farthest first; what runs along with them is left. */
export function beyondCorners({ members, joints }: Structure, quad: Quadrilateral) {
  const { view, origin } = quad;
  const thick = Math.max(...members.map((m) => Math.max(m.properties.widthMm, m.properties.heightMm)));
  const isLevel = (at: Vec3): boolean => Math.abs(at[view.depth] - quad.at.A[view.depth]) <= thick + LEVEL_MM;
  const sides = new Set<string>(Object.values(quad.sides));
  const jointsThere = joints.flatMap((j) =>
    isLevel(j.at) ? [{ name: clean(j.id), at: sub(seenAt(j.at, view), origin), joint: j.id, freeEnd: null }] : [],
  );
  // Where a side itself runs on, it goes where that is taped.
  const endsThere = members.flatMap((m) =>
    FREE_ENDS.flatMap(([end, letter]) => {
      if (sides.has(m.id) || m.ends[end].joints.length > 0 || !isLevel(m.ends[end].at)) return [];
      const { at, place } = freeEndOf(m, end, view, origin);
      return [{ name: clean(`${m.id}${letter}`), at, joint: null, freeEnd: place }];
    }),
  );
  const corners = CORNERS.map((c) => quad.corners[c]);
  const least = BEYOND_SHARE * Math.min(quad.lengthMm, quad.widthMm);
  const all = [...jointsThere, ...endsThere].filter(({ name }) => /^[A-Z]/.test(name));
  const found: typeof all = [];
  while (found.length < MOST_BEYOND) {
    const outline = hull([...corners, ...found.map((f) => f.at)]);
    const [next] = all
      .map((place) => ({ place, mm: outsideMm(outline, place.at) }))
      .sort((p, q) => q.mm - p.mm || (p.place.name < q.place.name ? -1 : 1));
    if (!next || next.mm < least) break;
    found.push(next.place);
  }
  return found;
}

import type { ViewAxes } from "../frame";
import type { Vec2 } from "../numeric";
import type { Outcome } from "./outcomes";
import type { OutputPoint } from "./outputs";

/** A place of a frame with the point that it moves with. */
export interface FollowedPlace {
  name: string;
  /** As the frame is seen, mm. */
  at: Vec2;
  point: OutputPoint;
}

/** Places that are told at most: of more, those that lie farthest out. */
const MOST_PLACES = 40;

/** The places that are told. */
function told(places: readonly FollowedPlace[]): FollowedPlace[] {
  if (places.length <= MOST_PLACES) return [...places];
  const middle = meanOf(places);
  const far = ({ at }: FollowedPlace): number => Math.hypot(at.x - middle.x, at.y - middle.y);
  return [...places].sort((a, b) => far(b) - far(a)).slice(0, MOST_PLACES);
}

const meanOf = (places: readonly FollowedPlace[]): Vec2 => ({
  x: places.reduce((s, p) => s + p.at.x, 0) / places.length,
  y: places.reduce((s, p) => s + p.at.y, 0) / places.length,
});

/**
 * How far each place of a frame ends up off where it belongs, to the right and up as the frame is seen, once the whole is laid over its drawing
 * by least squares: two outcomes for each, linear in what places move by. Source: rigid best fit, for small turns: t = mean u,
 * th = sum p x u / sum p.p, r = u - t - th (-p_y, p_x), with places from the middle of those by which it is laid.
 * @param by names of those; all without them.
 */
export function placeOutcomes(all: readonly FollowedPlace[], view: ViewAxes, by: readonly string[] = []): Outcome[] {
  const places = told(all);
  const isLaidBy = places.map(({ name }) => by.length === 0 || by.includes(name));
  const ofLaid = <T>(of: readonly T[]): T[] => of.filter((_, i) => isLaidBy[i]);
  const middle = meanOf(ofLaid(places));
  const from = places.map(({ at }) => ({ x: at.x - middle.x, y: at.y - middle.y }));
  const size = ofLaid(from).reduce((s, p) => s + p.x ** 2 + p.y ** 2, 0);
  // Two places have a distance and no shape.
  if (places.length < 3 || size === 0) return [];
  const right = places.map(({ point }) => point.first + view.right);
  const up = places.map(({ point }) => point.first + view.up);
  const at = [...right, ...up];
  const share = 1 / ofLaid(places).length;
  return places.flatMap(({ name }, i) =>
    (["right", "up"] as const).map((way): Outcome => {
      // What the turn that is taken off does at this place.
      const arm = way === "right" ? from[i].y / size : -from[i].x / size;
      const own = (is: boolean, j: number): number => (is ? (i === j ? 1 : 0) - (isLaidBy[j] ? share : 0) : 0);
      const turned = (mm: number, j: number): number => (isLaidBy[j] ? arm * mm : 0);
      const value = [
        ...from.map((p, j) => own(way === "right", j) - turned(p.y, j)),
        ...from.map((p, j) => own(way === "up", j) + turned(p.x, j)),
      ];
      const row = { at, value };
      return { id: { kind: "place", place: name, way }, unit: "mm", unsigned: false, uses: at, weights: () => row };
    }),
  );
}

import { HALF_BAND, type Limit, normalBelow } from "../check";
import { seenAt } from "../frame";
import { add, norm, scale, smoothQuantile, sub, type Vec2 } from "../numeric";
import { type PlaceTold, type Prediction, placesTold, predicted } from "../shrink";
import { bestFit, laidBy, type Measured, type Places } from "../square";
import type { Estimate } from "../units";
import type { FrameRound } from "./frameRound";

/** How far a place is off where it belongs, to the right and up as the frame is seen, mm. */
interface Off {
  right: Measured;
  up: Measured;
}

/** Draws are smoothed by this share of their scatter, so that the chance does not jump from one to the next. */
const SMOOTH_SHARE = 0.25;
const MEDIAN = 0.5;
const TAIL = 0.05;
const SURE_MM = 1e-9;

const exactly = (value: number): Measured => ({ value, u: 0 });

/** How far places are off once the whole is laid over the drawing. */
const offFrom = (laid: Record<string, Vec2>, { nodes, beyond }: Drawn): Record<string, Vec2> =>
  Object.fromEntries(
    Object.entries(bestFit(laid, nodes, laidBy(beyond)).moves).map(([name, move]) => [name, scale(move, -1)]),
  );

/** Places as far as laying others over them asks. */
type Drawn = Pick<Places, "nodes" | "beyond">;

/** What rounds said of where places lie, worked out once: a forecast is asked for in every draw. */
const READ = new WeakMap<FrameRound, Record<string, Off> | null>();

/** How far off a round found the places that its readings fix; null where they fix none. */
export function placesRead(round: FrameRound, drawn: Drawn): Record<string, Off> | null {
  const known = READ.get(round);
  if (known !== undefined) return known;
  const { fit, bestFit: found } = round.general ?? {};
  const ofFrame = (all: Record<string, Vec2>) =>
    Object.fromEntries(Object.entries(all).filter(([name]) => drawn.nodes[name]));
  const made =
    fit && found
      ? Object.fromEntries(
          Object.entries(offFrom(ofFrame(fit.points), drawn)).map(([name, { x, y }]): [string, Off] => {
            const u = (way: "x" | "y"): number => fit.uOf((p) => offFrom(ofFrame(p), drawn)[name]?.[way] ?? 0);
            return [name, { right: { value: x, u: u("x") }, up: { value: y, u: u("y") } }];
          }),
        )
      : null;
  READ.set(round, made);
  return made;
}

/** How far off places are laid, so that they end where they belong: as far as tubes can be laid so. */
function placesLaid(prediction: Prediction, places: Places): Record<string, Off> {
  const { nodes, joints, view } = places;
  const laid = Object.fromEntries(
    Object.entries(nodes).map(([name, at]) => {
      const off = prediction.setUp.offsetsMm[joints[name] ?? name];
      return [name, off ? add(at, seenAt(off, view)) : at];
    }),
  );
  return Object.fromEntries(
    Object.entries(offFrom(laid, places)).map(([name, { x, y }]) => [name, { right: exactly(x), up: exactly(y) }]),
  );
}

/** What makes the way between two places longer: how far either of them is off, to the right and up, each by so much. Null for no way. */
export function wayParts(
  { nodes }: Pick<Places, "nodes">,
  from: string,
  to: string,
): { place: string; way: "right" | "up"; by: number }[] | null {
  const [p, q] = [nodes[from], nodes[to]];
  if (!p || !q) return null;
  const along = scale(sub(q, p), 1 / Math.max(norm(sub(q, p)), SURE_MM));
  return [
    { place: from, way: "right", by: -along.x },
    { place: from, way: "up", by: -along.y },
    { place: to, way: "right", by: along.x },
    { place: to, way: "up", by: along.y },
  ];
}

/** What the way between two places of a frame changes by from a gate on; null where nothing is predicted of them. */
export function wayChange(
  prediction: Prediction,
  places: Pick<Places, "nodes">,
  from: string,
  to: string,
  gate: string | null,
): Estimate | null {
  const [mouth] = [`${from}-${to}`, `${to}-${from}`].flatMap((ends) => {
    const [p = "", q = ""] = ends.split("-");
    return predicted(prediction, { kind: "mouth", from: p, to: q }, gate) ?? [];
  });
  if (mouth) return mouth;
  const all = placesTold(prediction, gate);
  const parts = wayParts(places, from, to);
  const told = parts?.flatMap(({ place, way, by }) => {
    const here = all.get(place)?.[way];
    return here ? [{ by, ...here }] : [];
  });
  if (!parts || !told || told.length < parts.length) return null;
  const value = told.reduce((sum, { by, change }) => sum + by * change.value, 0);
  const count = Math.min(...told.map(({ draws }) => draws.length));
  if (count === 0) return { value, low: value, high: value };
  const drawn = Float64Array.from({ length: count }, (_, d) =>
    told.reduce((sum, { by, draws }) => sum + by * (draws[d] ?? 0), 0),
  ).sort();
  const [low, high] = [smoothQuantile(drawn, TAIL), smoothQuantile(drawn, 1 - TAIL)];
  return { value, low: Math.min(value, low), high: Math.max(value, high) };
}

/** What something is, and what welding changes it by: both may be off. */
export function afterChange(start: Measured, change: Estimate): Estimate {
  const value = start.value + change.value;
  const own = HALF_BAND * start.u;
  return {
    value,
    low: value - Math.hypot(change.value - change.low, own),
    high: value + Math.hypot(change.high - change.value, own),
  };
}

/**
 * How far the place that is farthest off ends from where it belongs, with the chance that it stays within the limit, of a frame with corners the
 * farthest of those beyond them: by draws, in each of which another may be the farthest; where none are kept, by what is likely.
 * @param read places as they were read last, null where they were not. @param gate step from which on changes count then.
 * @param isSetUp whether the frame is set up off nominal.
 */
export function placeForecast(
  { upper }: Limit,
  places: Places,
  prediction: Prediction,
  read: Record<string, Off> | null,
  gate: string | null,
  isSetUp: boolean,
): { cold: Estimate; chance: number; where: string } | null {
  if (upper === null) return null;
  const [whole, since] = [placesTold(prediction, null), placesTold(prediction, gate)];
  const laid = isSetUp ? placesLaid(prediction, places) : {};
  const judged = places.beyond.length > 0 ? places.beyond : Object.keys(places.nodes);
  const ways = judged.flatMap((place) => {
    // What was not read is as it was set up.
    const here = (read?.[place] ? since : whole).get(place);
    const { right, up } = read?.[place] ?? laid[place] ?? { right: exactly(0), up: exactly(0) };
    // What the reading itself may be off by, whichever way that is more.
    const u = Math.max(right.u, up.u);
    return here ? [{ place, u, right: { start: right, ...here.right }, up: { start: up, ...here.up } }] : [];
  });
  const [first] = ways;
  if (!first) return null;
  /** The farthest in a draw; in what is likely without one. */
  const farthest = (draw: number | null) => {
    const offBy = ({ start, change, draws }: PlaceTold & { start: Measured }): number =>
      start.value + (draw === null ? change.value : (draws[draw] ?? change.value));
    return ways
      .map(({ place, u, right, up }) => ({ place, u, mm: Math.hypot(offBy(right), offBy(up)) }))
      .reduce((a, b) => (b.mm > a.mm ? b : a));
  };
  const count = first.right.draws.length;
  if (count === 0) {
    const { place, u, mm } = farthest(null);
    const cold = afterChange({ value: 0, u }, { value: mm, low: mm, high: mm });
    return { cold, chance: normalBelow((upper - mm) / Math.max(SURE_MM, u)), where: place };
  }
  const drawn = Array.from({ length: count }, (_, d) => farthest(d));
  const sorted = Float64Array.from(drawn, ({ mm }) => mm).sort();
  const [low, value, high] = [TAIL, MEDIAN, 1 - TAIL].map((share) => smoothQuantile(sorted, share)) as [
    number,
    number,
    number,
  ];
  const times = new Map<string, number>();
  for (const { place } of drawn) times.set(place, (times.get(place) ?? 0) + 1);
  const [where] = [...times].sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1))[0] as [string, number];
  const u = ways.find((w) => w.place === where)?.u ?? 0;
  const cold = afterChange({ value: 0, u }, { value, low, high });
  const mean = sorted.reduce((s, mm) => s + mm, 0) / count;
  const scatter = Math.sqrt(sorted.reduce((s, mm) => s + (mm - mean) ** 2, 0) / count);
  const smooth = Math.max(SURE_MM, Math.hypot(u, SMOOTH_SHARE * scatter));
  const chance = sorted.reduce((s, mm) => s + normalBelow((upper - mm) / smooth), 0) / count;
  return { cold: { ...cold, low: Math.max(0, cold.low) }, chance, where };
}

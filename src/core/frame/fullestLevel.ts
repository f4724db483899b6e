import { depthsOf } from "./reachToward";
import type { Structure } from "./structure";
import type { ViewAxes } from "./viewAxes";

/**
 * Tubes that lie in one plane, of whatever heights, have their middle lines no farther apart than this share of the tallest: flush with it, one
 * of a tenth of its height has (own judgement).
 */
const FLUSH_SHARE = 0.45;
/** A member that leaves the plane by more than this, cosine, does not lie in it. */
const LEAVES = 0.5;

/**
 * The level of a view that holds most of some depths, the lowest where several hold as many.
 * @param depths of middle lines, mm. @returns whether a depth lies in it; none does where there are no depths.
 */
export function fullestLevel(
  { members }: Pick<Structure, "members">,
  view: ViewAxes,
  depths: readonly number[],
): (depthMm: number) => boolean {
  const lying = members.filter((m) => Math.abs(m.axes[0][view.depth]) < LEAVES).map((m) => depthsOf(m, view));
  const span = FLUSH_SHARE * Math.max(0, ...lying.map(([low, high]) => high - low));
  const sorted = [...depths].sort((p, q) => p - q);
  const runs = sorted.map((from, i) => sorted.slice(i).filter((d) => d - from <= span));
  const most = runs.reduce<number[]>((best, run) => (run.length > best.length ? run : best), []);
  const [from, to] = [most[0], most.at(-1)];
  return from === undefined || to === undefined ? () => false : (d) => Math.abs(d - (from + to) / 2) <= span;
}

import type { Structure, StructureMember } from "../frame";
import { fullU, type Mean } from "./rounds";

/** Runs more along the bed's length than across it. */
const isAlong = ({ axes }: StructureMember): boolean => Math.abs(axes[0][0]) >= Math.abs(axes[0][1]);
/** Lies, by the sine of its rise. */
const LIES = 0.2;

/** Members that a frame's level is read along, one each way: the longest that lie; sides of a quadrilateral before others. */
export function levelMembers(structure: Structure): string[] {
  const sides = structure.quad ? [structure.quad.sides.AB, structure.quad.sides.DA] : [];
  const lying = structure.members.filter((m) => Math.abs(m.axes[0][2]) < LIES);
  const rank = (m: StructureMember): number => (sides.includes(m.id) ? Number.POSITIVE_INFINITY : m.centreMm);
  return [true, false].flatMap((way) => {
    const found = lying.filter((m) => isAlong(m) === way).sort((a, b) => rank(b) - rank(a))[0];
    return found ? [found.id] : [];
  });
}

/**
 * How far a frame is out of level: the steepest slope that was read, once it was read each way that it can be; before that
 * only where it is past the limit already.
 * @param upper limit, mm/m.
 */
export function levelOf(
  means: ReadonlyMap<string, Mean>,
  structure: Structure | null,
  upper: number | null,
): { value: number; u: number; where: string } | null {
  const read = [...means.values()].flatMap((m) => (m.what.kind === "level" ? [{ at: m.what.at, m }] : []));
  const worst = read.reduce<(typeof read)[number] | null>(
    (w, r) => (!w || Math.abs(r.m.mm) > Math.abs(w.m.mm) ? r : w),
    null,
  );
  if (!worst) return null;
  const found = { value: Math.abs(worst.m.mm), u: fullU(worst.m), where: worst.at };
  const ways = (ids: readonly string[]): Set<boolean> =>
    new Set((structure?.members ?? []).flatMap((m) => (ids.includes(m.id) ? [isAlong(m)] : [])));
  const wanted = structure ? ways(levelMembers(structure)) : new Set<boolean>();
  const got = ways(read.map((r) => r.at));
  const all = [...wanted].every((way) => got.has(way));
  return all || (upper !== null && found.value - 2 * found.u > upper) ? found : null;
}

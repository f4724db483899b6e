import { crossings, isRaised, lyingMembers, lyingOn, measuredFrom, trestlesUnder, triangleUnder } from "../fixture";
import type { Structure } from "../frame";
import { add, scale, sub, type Vec2 } from "../numeric";
import { stated } from "../units";
import { fixtureWish } from "./fixtureWish";
import type { Plan, Rest } from "./planSchema";

/** A trestle or bar as a plan keeps it. */
export type PlannedBearer = NonNullable<NonNullable<Plan["fixture"]>["bearers"]>[number];

/** Places are laid to whole steps of the job's own unit: a millimetre, an eighth of an inch. */
const stepMm = (units: Plan["units"]): number => (units === "mm" ? 1 : 25.4 / 8);

const lowOf = ({ low }: Structure): Vec2 => ({ x: low[0], y: low[1] });

/** Trestles across a frame, or a triangle under it, from where places are measured. @param count of trestles, two or more. */
export function bearersUnder(
  structure: Structure,
  units: Plan["units"],
  what: { trestles: number } | "triangle",
): PlannedBearer[] {
  const { low, high } = structure;
  const over = { lengthMm: high[0] - low[0], widthMm: high[1] - low[1] };
  const off = sub(lowOf(structure), measuredFrom(structure));
  const step = stepMm(units);
  const inSteps = (mm: number) => stated(step * Math.round(mm / step), units);
  const place = (p: Vec2): PlannedBearer["from"] => {
    const { x, y } = add(p, off);
    return { x: inSteps(x), y: inSteps(y) };
  };
  const found = what === "triangle" ? triangleUnder(over) : trestlesUnder(over, what.trestles);
  return found.map(({ id, from, to }) => ({ id, from: place(from), to: place(to) }));
}

/** Rests nearer to each other than this are one, mm. */
const SAME_PLACE_MM = 5;
const MOST_RESTS = 40;

/** Rests where members lie on a plan's trestles or bars, from the footprint's origin, as far as so many are kept. */
export function restsOnBearers(plan: Plan, structure: Structure, origin: Vec2): Rest[] {
  const { bearers, side } = fixtureWish(plan, structure);
  const places: Vec2[] = [];
  for (const m of lyingMembers(structure)) {
    const lying = lyingOn(structure, m, side);
    // What is higher than the bed lies on its risers.
    if (isRaised(structure, lying)) continue;
    for (const { alongMm } of crossings(lying, bearers)) {
      const p = sub(add(lying.begin, scale(lying.way, alongMm)), origin);
      if (places.every((q) => Math.hypot(p.x - q.x, p.y - q.y) > SAME_PLACE_MM)) places.push(p);
    }
  }
  return places
    .slice(0, MOST_RESTS)
    .map((p, i) => ({ id: `R${i + 1}`, x: stated(p.x, plan.units), y: stated(p.y, plan.units) }));
}

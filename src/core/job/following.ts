import { footprint } from "../bed";
import { builtOf } from "./built";
import { restsUnder } from "./plan";
import type { Plan } from "./planSchema";

/**
 * What goes along with a change of the frame: rests that were laid under it lie under it still. Those that somebody placed
 * by hand stay, and so does everything that was surveyed.
 * @param surveyed whether a bed was read already: its readings belong to where the rests were.
 */
export function following(before: Plan, after: Plan, surveyed: boolean): Plan {
  const { laid } = after.bed;
  if (!laid || surveyed || before.frame === after.frame || before.bed !== after.bed) return after;
  const { structure } = builtOf(after);
  const over = structure && footprint(structure);
  if (!over) return after;
  return { ...after, bed: { ...after.bed, rests: restsUnder(over, laid, after.units) } };
}

import { CLAMP_N, heldByPads } from "../fixture";
import { MATERIALS, type Structure } from "../frame";
import { SIDES } from "../geometry";
import { norm3, sub3 } from "../numeric";
import { lossOf, predicted, type Told } from "../shrink";
import { formatSmall, type UnitPreference } from "../units";
import { shortForce } from "./releaseWords";

/**
 * What friction under clamps would do, which the forecast leaves out: how much of what a member draws together two clamps hold back before
 * they slide, of the member that draws together most. @returns null where none is predicted to.
 */
export function frictionWords(structure: Structure, told: Told, units: UnitPreference): string | null {
  const { quad, members } = structure;
  const drawn = members.flatMap((member) => {
    const side = quad && SIDES.find((s) => quad.sides[s] === member.id);
    const found = predicted(told, side ? { kind: "span", span: side } : { kind: "length", member: member.id });
    return found ? [{ member, mm: lossOf(found).value }] : [];
  });
  const [most] = drawn.sort((a, b) => b.mm - a.mm);
  if (!most || most.mm <= 0) return null;
  const { id, from, to, properties, material } = most.member;
  const bar = { eaN: MATERIALS[material].eMPa * properties.areaMm2, lengthMm: norm3(sub3(to, from)) };
  const { sticks, frictionN, slipMm } = heldByPads(bar, most.mm, CLAMP_N);
  // The loss in the decimals that it has everywhere; what pads hold is often a hundredth of it.
  const size = (mm: number, decimals: number): string => formatSmall(mm, units, { decimals });
  const decimals = units === "mm" ? 3 : 2;
  const back = size(most.mm + slipMm, decimals);
  const goes = `${id} is likely to draw together by ${size(most.mm, units === "mm" ? 2 : 1)}`;
  return sticks
    ? `Friction under clamps is not counted. ${goes}; two clamps of ${shortForce(CLAMP_N, units)} that do not slide would hold all of that back with ${shortForce(frictionN, units)}: let them slide, or look again when they are off.`
    : `Friction under clamps is not counted: ${goes}, and two clamps of ${shortForce(CLAMP_N, units)} hold ${back === size(0, decimals) ? "next to nothing" : back} of that back before they slide.`;
}

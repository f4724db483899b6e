import { beamStiffness, type ModelMember, toGlobal } from "../mechanics";
import { matVec, type Sparse } from "../numeric";
import type { WeldedModel } from "./weldedModel";

/**
 * Nodal loads of a kink of a member at a node of its own, a unit of one of its six ways: the part beyond against the one
 * before it, half on each side. f = -K e on the elements there; a side without an element drops its half.
 * @param way 0 to 5, in the frame's axes: mm, rad. @returns a sparse column over the freedoms.
 */
export function kinkLoad(model: WeldedModel, at: { member: string; node: number }, way: number): Sparse {
  const member = model.members.get(at.member) as ModelMember;
  const { eMPa, nu } = model.frame.material;
  const out: Sparse = { at: [], value: [] };
  for (const element of model.elements) {
    const beyond = element.from === at.node;
    if (element.member !== member.id || !(beyond || element.to === at.node)) continue;
    const k = toGlobal(beamStiffness(member.section, element.lengthMm, eMPa, eMPa / (2 * (1 + nu))), member.axes);
    const e = new Float64Array(12);
    e[beyond ? way : 6 + way] = beyond ? 0.5 : -0.5;
    matVec(k, e, 12, 12, new Float64Array(12)).forEach((f, i) => {
      out.at.push(6 * (i < 6 ? element.from : element.to) + (i % 6));
      out.value.push(-f);
    });
  }
  return out;
}

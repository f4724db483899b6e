import { type MechanicalFrame, type MechanicalModel, modelOf } from "../mechanics";
import { frameProblems } from "./frameProblems";
import { JOINT_KINDS } from "./jointKinds";

/** Far above any tube and far below what would spoil the figures, N/mm and N mm/rad. */
const RIGID = { alongNPerMm: 1e7, aboutNmm: 1e11 } as const;

/**
 * The same frame as one piece: every joint rigid, as far as its own weight is concerned.
 * @throws RangeError with the first problem when the frame has one.
 */
export function rigidModel(frame: MechanicalFrame): MechanicalModel {
  const [problem] = frameProblems(frame);
  if (problem) throw new RangeError(`${problem.path}: ${problem.message}`);
  const contact = new Float64Array(36);
  for (let i = 0; i < 6; i++) contact[7 * i] = i < 3 ? RIGID.alongNPerMm : RIGID.aboutNmm;
  return modelOf(frame, (input) => {
    const { at, nodeBAt } = JOINT_KINDS[input.spec.kind].place(input);
    return { at, ...(nodeBAt ? { nodeBAt } : {}), contact, contactShare: 1, gapMm: null };
  });
}

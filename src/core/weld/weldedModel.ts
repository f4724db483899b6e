import {
  type JointInput,
  type MadeJoint,
  type MechanicalFrame,
  type MechanicalModel,
  type ModelJoint,
  modelOf,
} from "../mechanics";
import { contactStiffness, type Faces } from "./faces";
import { FACTORS } from "./factors";
import { frameProblems } from "./frameProblems";
import { type JointForm, type JointPlace, OPEN } from "./jointKind";
import { JOINT_KINDS } from "./jointKinds";

/** How joints are taken: what multiplies their tables' stiffness, and what of the faces that are still open. */
export interface JointFactors {
  joint: number;
  /** Springs on open faces, both ways, as a share of the full wall. */
  fitup: number;
  /** How far open seams stand from each other where nobody measured it, mm; null where they are taken not to touch. */
  gapMm: number | null;
}
/**
 * Open faces touch and do not pull. The springs only keep parts that nothing holds yet where they lie: at this share they do
 * nothing that shows.
 */
export const NOMINAL_JOINTS: JointFactors = { joint: 1, fitup: 3e-4, gapMm: FACTORS.gap.value };

/** A joint that is welded: its faces, its table, what runs through it, and why its entry is the nearest one; empty within. */
interface WeldJoint extends MadeJoint {
  faces: Faces;
  form: JointForm;
  stiffness: number;
  chords: JointPlace["chords"];
  along: JointPlace["along"];
  unfitted: string[];
}
export type WeldedModel = MechanicalModel<WeldJoint>;
export type WeldedJoint = ModelJoint<WeldJoint>;

function facesOf({ frame, spec }: JointInput, place: JointPlace, fitup: number): Faces {
  const { eMPa, nu, yieldMPa } = frame.material;
  return {
    kind: JOINT_KINDS[spec.kind],
    normal: place.normal,
    e1: place.e1,
    e2: place.e2,
    half1Mm: place.half1Mm,
    half2Mm: place.half2Mm,
    perWidth: (eMPa * place.wallMm) / place.widthMm,
    yieldPerMm: yieldMPa * place.wallMm,
    fitup,
    gPerE: 1 / (2 * (1 + nu)),
  };
}

/**
 * The mechanics of a frame with its welds: beams, and at each joint its faces and the table of its kind.
 * @param frame a frame without problems. @param factors what a draw changes.
 * @throws RangeError with the first problem when the frame has one: ask frameProblems first.
 */
export function weldedModel(frame: MechanicalFrame, factors: JointFactors = NOMINAL_JOINTS): WeldedModel {
  const [problem] = frameProblems(frame);
  if (problem) throw new RangeError(`${problem.path}: ${problem.message}`);
  return modelOf(frame, (input): WeldJoint => {
    const kind = JOINT_KINDS[input.spec.kind];
    const place = kind.place(input);
    const faces = facesOf(input, place, factors.fitup);
    return {
      at: place.at,
      ...(place.nodeBAt ? { nodeBAt: place.nodeBAt } : {}),
      contact: contactStiffness(faces, OPEN),
      contactShare: factors.fitup,
      // A lap lies flat on its chord: it has no seam that stands open.
      gapMm: factors.gapMm === null || input.spec.kind === "lap" ? null : (input.spec.gapMm ?? factors.gapMm),
      faces,
      form: place.form,
      stiffness: factors.joint,
      chords: place.chords,
      along: place.along,
      unfitted: kind.unfitted(input.a.section, input.b.section, place),
    };
  });
}

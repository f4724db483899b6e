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

/** What a joint is by how its pieces are cut, wherever it is set. */
type Cut = Pick<WeldJoint, "contact" | "faces" | "form" | "chords" | "along">;

const cutOf = ({ contact, faces, form, chords, along }: WeldedJoint): Cut => ({ contact, faces, form, chords, along });

function cutFor(input: JointInput, place: JointPlace, { fitup }: JointFactors): Cut {
  const faces = facesOf(input, place, fitup);
  return { contact: contactStiffness(faces, OPEN), faces, form: place.form, chords: place.chords, along: place.along };
}

/**
 * The mechanics of a frame with its welds: beams, and at each joint its faces and the table of its kind. Set up off its drawing, a frame
 * keeps the joints that it was cut for: they are turned by less than their tables tell apart.
 * @param frame a frame without problems. @param factors what a draw changes.
 * @throws RangeError with the first problem when the frame has one: ask frameProblems first.
 */
export function weldedModel(frame: MechanicalFrame, factors: JointFactors = NOMINAL_JOINTS): WeldedModel {
  const { cutBy, ...own } = frame;
  // Set up off its drawing by what the weld takes, it has the problems of its drawing and no others.
  const [problem] = cutBy ? [] : frameProblems(frame);
  if (problem) throw new RangeError(`${problem.path}: ${problem.message}`);
  const drawn = cutBy ? weldedModel({ ...own, points: cutBy }, factors).joints : [];
  const cut = new Map(drawn.map((j) => [j.id, cutOf(j)]));
  return modelOf(frame, (input): WeldJoint => {
    const { spec, a, b } = input;
    const kind = JOINT_KINDS[spec.kind];
    const place = kind.place(input);
    const { at, nodeBAt } = place;
    return {
      at,
      ...(nodeBAt ? { nodeBAt } : {}),
      ...(cut.get(spec.id) ?? cutFor(input, place, factors)),
      contactShare: factors.fitup,
      // A lap lies flat on its chord: it has no seam that stands open.
      gapMm: factors.gapMm === null || spec.kind === "lap" ? null : (spec.gapMm ?? factors.gapMm),
      stiffness: factors.joint,
      unfitted: kind.unfitted(a.section, b.section, place),
    };
  });
}

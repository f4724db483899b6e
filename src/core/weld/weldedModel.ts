import {
  type JointInput,
  type MadeJoint,
  type MechanicalFrame,
  type MechanicalModel,
  type ModelJoint,
  modelOf,
  secondMomentAbout,
} from "../mechanics";
import type { Vec3 } from "../numeric";
import { frameProblems } from "./frameProblems";
import { type JointPlace, OPEN } from "./jointKind";
import { JOINT_KINDS } from "./jointKinds";
import { type Ring, ringStiffness } from "./ring";
import { SERIES } from "./ringConstants";

/** Factors on stiffness that a draw may change. Fit-up is an absolute share of the full wall, the others multiply. */
export interface StiffnessFactors {
  ring: number;
  fitup: number;
  series: number;
}
export const NOMINAL_STIFFNESS: StiffnessFactors = { ring: 1, fitup: 0.01, series: 1 };

/** A joint that is welded: its lines, what runs through, and why its constants are the nearest ones; empty when fitted. */
interface WeldJoint extends MadeJoint {
  ring: Ring;
  chord: JointPlace["chord"];
  unfitted: string[];
}
export type WeldedModel = MechanicalModel<WeldJoint>;
export type WeldedJoint = ModelJoint<WeldJoint>;

function ringOf({ frame, spec }: JointInput, place: JointPlace, factors: StiffnessFactors): Ring {
  const kind = JOINT_KINDS[spec.kind];
  const { eMPa, nu, yieldMPa } = frame.material;
  const { section, axes, slenderness } = place.lozenge;
  const gPerE = 1 / (2 * (1 + nu));
  const unit =
    (factors.series * (place.widthMm / (eMPa * secondMomentAbout(section, axes, place.e1))) * slenderness ** 2) /
    SERIES.slenderness ** 2;
  const series = new Float64Array(9);
  const soften = (axis: Vec3, c: number): void => {
    for (let i = 0; i < 3; i++)
      for (let j = 0; j < 3; j++) series[3 * i + j] = series[3 * i + j] + c * axis[i] * axis[j];
  };
  soften(place.e1, kind.lozenge.about1 * unit);
  soften(place.e2, kind.lozenge.about2 * unit);
  return {
    kind,
    normal: place.normal,
    e1: place.e1,
    e2: place.e2,
    half1Mm: place.half1Mm,
    half2Mm: place.half2Mm,
    perWidth: (eMPa * place.wallMm) / place.widthMm,
    perWall: eMPa * place.wallMm,
    narrow: Math.min(1, Math.max(0.2, 1 - 2 * (1 - place.beta))),
    shear: kind.shear * gPerE,
    gPerE,
    series,
    yieldPerMm: yieldMPa * place.wallMm,
    stiffness: factors.ring,
    fitup: factors.fitup,
  };
}

/**
 * The mechanics of a frame with its welds: beams, and at each joint a ring of weld lines of its kind.
 * @param frame a frame without problems. @param factors what a draw changes.
 * @throws RangeError with the first problem when the frame has one: ask frameProblems first.
 */
export function weldedModel(frame: MechanicalFrame, factors: StiffnessFactors = NOMINAL_STIFFNESS): WeldedModel {
  const [problem] = frameProblems(frame);
  if (problem) throw new RangeError(`${problem.path}: ${problem.message}`);
  return modelOf(frame, (input): WeldJoint => {
    const kind = JOINT_KINDS[input.spec.kind];
    const place = kind.place(input);
    const ring = ringOf(input, place, factors);
    return {
      at: place.at,
      ...(place.nodeBAt ? { nodeBAt: place.nodeBAt } : {}),
      contact: ringStiffness(ring, OPEN).kj,
      contactShare: factors.fitup,
      ring,
      chord: place.chord,
      unfitted: kind.unfitted(input.a.section, input.b.section, place),
    };
  });
}

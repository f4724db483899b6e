import type { ResolvedFrame, ResolvedJoint } from "../frame";
import { SIDES } from "../frame";
import { clampPoints, fromFrame, heatJPerMm, lineOf, type SimulationStep, type Weld } from "../shrink";
import type { Step } from "./step";

/** A clamp with its share of a bar bent over the bed, N/mm (own judgement; it matters only through tacks that yield). */
const CLAMP_N_PER_MM = 2e4;

/**
 * An order of work as the mechanics sees it. Each step keeps its key, so that movement can be told by step; one step may
 * become several. Clamps press the sides down on the bed; measuring while the corners hinge puts the shape back; waiting
 * changes nothing in the model.
 * @param frame resolved. @param weld settings: the same heat for tacks and beads (a tack's share is a factor of the model).
 */
export function simulationSteps(frame: ResolvedFrame, weld: Weld, steps: readonly Step[]): SimulationStep[] {
  const heat = heatJPerMm(weld);
  const mechanical = fromFrame(frame);
  const clamps = SIDES.flatMap((side) => clampPoints(mechanical, side).map((point) => ({ side, point })));
  const joint = (name: string | null): ResolvedJoint | undefined => frame.joints.find((j) => j.name === name);
  const stepsOf = (step: Step): SimulationStep[] => {
    const id = step.key;
    const at = joint(step.joint);
    switch (step.kind) {
      case "hold":
        return clamps.map(({ side, point }) => ({
          id,
          do: "clamp",
          clamp: `${side} ${point}`,
          member: side,
          point,
          direction: [0, 0, 1],
          stiffnessNPerMm: CLAMP_N_PER_MM,
          toMm: 0,
        }));
      case "release":
        return clamps.map(({ side, point }) => ({ id, do: "unclamp", clamp: `${side} ${point}` }));
      case "flip":
        return [{ id, do: "flip" }];
      case "tack":
        return at && step.face
          ? [
              {
                id,
                do: "tack",
                joint: at.name,
                line: lineOf(at, step.face),
                lengthMm: weld.tackLength.mm,
                heatJPerMm: heat,
              },
            ]
          : [];
      case "bead":
        return at && step.face
          ? [{ id, do: "bead", joint: at.name, line: lineOf(at, step.face), heatJPerMm: heat }]
          : [];
      case "measure":
        return step.closes ? [{ id, do: "square up", residualShare: 0 }] : [{ id, do: "wait" }];
      case "wait":
        return [{ id, do: "wait" }];
    }
  };
  return steps.flatMap(stepsOf);
}

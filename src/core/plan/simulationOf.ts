import { type FaceLine, type ResolvedFrame, type ResolvedJoint, SIDES, type Structure } from "../frame";
import { fromStructure, lineOfFace } from "../mechanics";
import { clampPoints, fromFrame, lineOf, type SimulationStep } from "../shrink";
import { heatFromFillet, heatJPerMm, type Weld } from "../weld";
import type { Step } from "./step";

/** A clamp with its share of a bar bent over the bed, N/mm (own judgement; it matters only through tacks that yield). */
const CLAMP_N_PER_MM = 2e4;

/** A face of a joint as the mechanics sees it. */
interface Face {
  line: FaceLine;
  /** Size of its bead, null when nobody gave one. */
  legMm: number | null;
}

/** One place where a frame is held down. */
interface Clamp {
  member: string;
  point: string;
}

/**
 * An order of work as the mechanics sees it. Each step keeps its key, so that movement can be told by step; one step may
 * become several. Clamps press what lies on the bed down; measuring while the joints turn puts the shape back; waiting
 * changes nothing in the model. A tack has the heat of the settings (its share is a factor of the model), and so has a bead
 * whose size nobody gave.
 * @param face what a joint's face is to the mechanics, null when there is no such joint.
 */
function inSteps(
  steps: readonly Step[],
  weld: Weld,
  clamps: readonly Clamp[],
  face: (joint: string, face: NonNullable<Step["face"]>) => Face | null,
): SimulationStep[] {
  const heat = heatJPerMm(weld);
  const one = (step: Step): SimulationStep[] => {
    const id = step.key;
    const at = step.joint && step.face ? face(step.joint, step.face) : null;
    switch (step.kind) {
      case "hold":
        return clamps.map(({ member, point }) => ({
          id,
          do: "clamp",
          clamp: `${member} ${point}`,
          member,
          point,
          direction: [0, 0, 1],
          stiffnessNPerMm: CLAMP_N_PER_MM,
          toMm: 0,
        }));
      case "release":
        return clamps.map(({ member, point }) => ({ id, do: "unclamp", clamp: `${member} ${point}` }));
      case "flip":
        return [{ id, do: "flip" }];
      case "tack":
        return at && step.joint
          ? [{ id, do: "tack", joint: step.joint, line: at.line, lengthMm: weld.tackLength.mm, heatJPerMm: heat }]
          : [];
      case "bead":
        return at && step.joint
          ? [
              {
                id,
                do: "bead",
                joint: step.joint,
                line: at.line,
                heatJPerMm: at.legMm === null ? heat : heatFromFillet(weld.process, at.legMm),
              },
            ]
          : [];
      case "measure":
        return step.closes ? [{ id, do: "square up", residualShare: 0 }] : [{ id, do: "wait" }];
      case "wait":
        return [{ id, do: "wait" }];
    }
  };
  return steps.flatMap(one);
}

/** @param frame a rectangle. @param weld settings. @param steps its order of work. */
export function simulationSteps(frame: ResolvedFrame, weld: Weld, steps: readonly Step[]): SimulationStep[] {
  const mechanical = fromFrame(frame);
  const clamps = SIDES.flatMap((member) => clampPoints(mechanical, member).map((point) => ({ member, point })));
  return inSteps(steps, weld, clamps, (name, face) => {
    const joint: ResolvedJoint | undefined = frame.joints.find((j) => j.name === name);
    return joint ? { line: lineOf(joint, face), legMm: null } : null;
  });
}

/** Members whose ends both lie this near to the lowest lie on the bed, mm. */
const ON_BED_MM = 1;
/** More clamps than this hold nothing better and cost time. */
const MOST_CLAMPS = 12;

/** The same for any frame: held down at the ends of what lies lowest. */
export function structureSteps(structure: Structure, weld: Weld, steps: readonly Step[]): SimulationStep[] {
  const { frame } = fromStructure(structure);
  const height = (p: string | undefined): number => frame.points[p ?? ""]?.[2] ?? 0;
  const flat = frame.members.filter((m) => Math.abs(height(m.points[0]) - height(m.points.at(-1))) < ON_BED_MM);
  const lowest = Math.min(...flat.map((m) => height(m.points[0])));
  const seen = new Set<string>();
  const clamps: Clamp[] = flat
    .filter((m) => height(m.points[0]) - lowest < ON_BED_MM)
    .flatMap((m) => [m.points[0], m.points.at(-1)].map((point) => ({ member: m.id, point: point as string })))
    .filter(({ point }) => !seen.has(point) && seen.add(point))
    .slice(0, MOST_CLAMPS);
  // Three that hold a plane, or none: two would only pin a line.
  const held = clamps.length >= 3 ? clamps : [];
  return inSteps(steps, weld, held, (name, face) => {
    const joint = structure.joints.find((j) => j.id === name);
    return joint
      ? { line: lineOfFace(joint, face), legMm: joint.faces.find((f) => f.line === face)?.legMm ?? null }
      : null;
  });
}

import type { Structure } from "../frame";
import { lineOfFace } from "../mechanics";
import type { SimulationStep } from "../shrink";
import { heatFromFillet, heatJPerMm, processOf, seamShare, settingsBy, type Weld } from "../weld";
import type { ClampPlace } from "./clamps";
import { seamKind, seamPosition } from "./seam";
import type { Step } from "./step";

/** A clamp with its share of a bar bent over the bed, N/mm (own judgement; it matters only through tacks that yield). */
const CLAMP_N_PER_MM = 2e4;

/**
 * What is left of a shape whose tacks are cut at one corner of four, set and tacked again: those of that corner pull anew (own judgement).
 */
const RETACKED_SHARE = 0.25;

/**
 * An order of work as the mechanics sees it. Each step keeps its key, so that movement can be told by step; one step may
 * become several. Clamps press what lies on the bed down; measuring while the joints turn puts the shape back; waiting
 * changes nothing in the model. A tack has the heat of the settings (its share is a factor of the model), and so has a bead
 * whose size nobody gave.
 * @param clamps where the frame is held down.
 */
export function loadSteps(
  structure: Structure,
  weld: Weld,
  steps: readonly Step[],
  clamps: readonly ClampPlace[],
): SimulationStep[] {
  const one = ({ id: what, key: id, closes, up }: Step): SimulationStep[] => {
    switch (what.do) {
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
      case "bead": {
        const joint = structure.joints.find((j) => j.id === what.joint);
        if (!joint) return [];
        const line = lineOfFace(joint, what.line);
        const arc = settingsBy(weld, processOf(weld, what));
        const heat = heatJPerMm(arc);
        if (what.do === "tack")
          return [{ id, do: "tack", joint: joint.id, line, lengthMm: weld.tackLength.mm, heatJPerMm: heat }];
        const face = joint.faces.find((f) => f.line === what.line);
        const legMm = face?.legMm ?? null;
        // What was read on a machine holds for every bead; what one begins with goes by the joint and how it lies.
        const share =
          face && arc.from === "starting"
            ? seamShare(seamKind(joint, face), seamPosition(structure, joint, face, up))
            : 1;
        const heatJPerMmOfBead = legMm === null ? share * heat : heatFromFillet(arc.process, legMm);
        return [{ id, do: "bead", joint: joint.id, line, heatJPerMm: heatJPerMmOfBead }];
      }
      case "measure":
        if (!closes) return [{ id, do: "wait" }];
        return what.cut
          ? [{ id, do: "square up", residualShare: RETACKED_SHARE, holds: true }]
          : [{ id, do: "square up", residualShare: 0 }];
      case "wait":
        return [{ id, do: "wait" }];
    }
  };
  return steps.flatMap(one);
}

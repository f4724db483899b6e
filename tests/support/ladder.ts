import {
  fromRectangle,
  type Rectangle,
  type ResolvedFrame,
  resolveFrame,
  resolveStructure,
  type Structure,
} from "@/core/frame";
import { newPlan } from "@/core/job";
import { lineOf, type SimulationStep } from "@/core/shrink";
import { length } from "@/core/units";

function ladderFrame(rungs: number, tube: { size: string; wall: string }): Rectangle {
  const { frame } = newPlan("ladder", "mm");
  const side = rungs === 0 ? 508 : 300 * (rungs + 1);
  return {
    ...frame,
    length: length(String(side)),
    width: length(rungs === 0 ? "508" : "900"),
    section: { profile: null, face: length(tube.size), depth: length(tube.size), wall: length(tube.wall) },
    cross: Array.from({ length: rungs }, (_, i) => ({ id: `M${i + 1}`, at: length(String(300 * (i + 1))) })),
  };
}

/** A ladder of square tube with so many rungs: 4 mitres and two tees per rung. */
export const ladder = (rungs: number, tube = { size: "50", wall: "3" }): ResolvedFrame =>
  resolveFrame(ladderFrame(rungs, tube));

/** The same in space. */
export const ladderStructure = (rungs: number, tube = { size: "50", wall: "3" }): Structure =>
  resolveStructure(fromRectangle(ladderFrame(rungs, tube), "mm")).structure;

/** So many tacks on every mitre and tee, then all their beads: faces in the order of the joint's own list. */
export function tacksThenBeads(
  frame: ResolvedFrame,
  counts: { mitreTacks: number; teeTacks: number; teeBeads: number },
  heatJPerMm = 400,
): { steps: SimulationStep[]; tacks: number } {
  const tacks = frame.joints.flatMap((j) =>
    j.faces.slice(0, j.kind === "mitre" ? counts.mitreTacks : counts.teeTacks).map(
      (face): SimulationStep => ({
        id: `tack/${j.name}/${face}`,
        do: "tack",
        joint: j.name,
        line: lineOf(j, face),
        lengthMm: 10,
        heatJPerMm,
      }),
    ),
  );
  const beads = frame.joints.flatMap((j) =>
    j.faces.slice(0, j.kind === "mitre" ? 4 : counts.teeBeads).map(
      (face): SimulationStep => ({
        id: `bead/${j.name}/${face}`,
        do: "bead",
        joint: j.name,
        line: lineOf(j, face),
        heatJPerMm,
      }),
    ),
  );
  return { steps: [...tacks, ...beads], tacks: tacks.length };
}

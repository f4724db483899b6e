import { fromRectangle, type Rectangle, resolveStructure, type Structure } from "@/core/frame";
import { fromStructure } from "@/core/mechanics";
import { frameOutcomes, frameOutputs, type SimulationInput, type SimulationStep } from "@/core/shrink";
import { length } from "@/core/units";
import { rectangle } from "./plans";

/** What is built of a rectangle's sizes. */
export const built = (sizes: Rectangle): Structure => resolveStructure(fromRectangle(sizes, "mm")).structure;

/** A ladder of square tube with so many rungs: 4 mitres and two tees per rung. */
export function ladder(rungs: number, tube = { size: "50", wall: "3", depth: "" }): Structure {
  const side = rungs === 0 ? 508 : 300 * (rungs + 1);
  return built(
    rectangle({
      length: length(String(side)),
      width: length(rungs === 0 ? "508" : "900"),
      section: {
        profile: null,
        face: length(tube.size),
        depth: length(tube.depth || tube.size),
        wall: length(tube.wall),
      },
      cross: Array.from({ length: rungs }, (_, i) => ({ id: `M${i + 1}`, at: length(String(300 * (i + 1))) })),
    }),
  );
}

/** What is simulated of a structure with these steps: everything that is predicted of it. */
export function simulationOf(
  structure: Structure,
  steps: readonly SimulationStep[],
  more: Partial<SimulationInput> = {},
): SimulationInput {
  const { frame, joints } = fromStructure(structure);
  return {
    frame,
    steps,
    outputs: frameOutputs(structure, joints),
    outcomes: frameOutcomes(structure, joints),
    ...more,
  };
}

/** So many tacks on every mitre and tee, then all their beads: faces in the order of the joint's own list. */
export function tacksThenBeads(
  { joints }: Structure,
  counts: { mitreTacks: number; teeTacks: number; teeBeads: number },
  heatJPerMm = 400,
): { steps: SimulationStep[]; tacks: number } {
  const tacks = joints.flatMap((j) =>
    j.faces.slice(0, j.kind === "mitre" ? counts.mitreTacks : counts.teeTacks).map(
      ({ line }): SimulationStep => ({
        id: `tack/${j.id}/${line}`,
        do: "tack",
        joint: j.id,
        line,
        lengthMm: 10,
        heatJPerMm,
      }),
    ),
  );
  const beads = joints.flatMap((j) =>
    j.faces
      .slice(0, j.kind === "mitre" ? 4 : counts.teeBeads)
      .map(({ line }): SimulationStep => ({ id: `bead/${j.id}/${line}`, do: "bead", joint: j.id, line, heatJPerMm })),
  );
  return { steps: [...tacks, ...beads], tacks: tacks.length };
}

import type { Structure } from "../frame";
import { CORNERS } from "../geometry";
import { finishedFrame, type StructureMechanics } from "../mechanics";
import { sparseDot } from "../numeric";
import { type ShrinkFactors, weldedModel } from "../weld";
import { CompileCache } from "./compileCache";
import { compilingLoads } from "./compileSteps";
import { frameOutputs } from "./frameOutcomes";
import type { SimulationStep } from "./simulationSteps";

/**
 * How stiff a finished frame is in twist: the force that lifts one corner of its quadrilateral by 1 mm with the other three
 * held, N/mm. Four unit forces, up and down in turn, on the frame with every face beaded; they balance, so no support is needed.
 * @returns null for a frame that has no quadrilateral.
 */
export function* twistStiffness(
  structure: Structure,
  { frame, joints }: StructureMechanics,
  factors: ShrinkFactors,
): Generator<number, number | null> {
  const { quad } = structure;
  if (!quad) return null;
  const model = weldedModel(frame);
  const depth = quad.view.depth;
  const beads = model.joints.flatMap((joint) =>
    joint.faces.kind.lines.map(
      (line): SimulationStep => ({ id: `${joint.id}/${line}`, do: "bead", joint: joint.id, line, closingMm: 0 }),
    ),
  );
  const loads = CORNERS.map((c, i): SimulationStep => {
    const joint = structure.joints.find((j) => j.id === quad.joints[c]);
    const wrench: [number, number, number, number, number, number] = [0, 0, 0, 0, 0, 0];
    wrench[depth] = i % 2 === 0 ? 1 : -1;
    return { id: c, do: "load", member: joint?.a ?? "", point: joints.get(quad.joints[c])?.a ?? "", wrench };
  });
  const plan = yield* compilingLoads(new CompileCache(model, factors), [...beads, ...loads]);
  const { rows, points } = frameOutputs(structure, joints)(model);
  const across = points.slice(0, CORNERS.length).map((p) => rows[p.first + depth]);
  yield 0.5;
  const movedBy = finishedFrame(plan, beads.length);
  yield 0.9;
  const twist = loads.reduce((sum, _, k) => {
    const moved = movedBy(beads.length + k);
    return sum + across.reduce((s, row, i) => s + (i % 2 === 0 ? 1 : -1) * sparseDot(row, moved), 0);
  }, 0);
  return 1 / twist;
}

import { CORNERS, type ResolvedFrame } from "../frame";
import { condensing, LowRankRun } from "../mechanics";
import { type ShrinkFactors, weldedModel } from "../weld";
import { CompileCache } from "./compileCache";
import { compilingLoads } from "./compileSteps";

import { frameOutputs } from "./frameQuantities";
import { fromFrame } from "./fromFrame";
import type { SimulationStep } from "./simulationSteps";

/** Side on which each corner is pushed. */
const SIDE_OF = { A: "AB", B: "AB", C: "CD", D: "CD" } as const;

/**
 * How stiff the finished frame is in twist: the force that lifts one corner by 1 mm with the other three held, N/mm. Four
 * unit forces, up and down in turn, on the frame with every face beaded; they balance, so no support is needed.
 */
export function* twistStiffness(frame: ResolvedFrame, factors: ShrinkFactors): Generator<number, number> {
  const model = weldedModel(fromFrame(frame));
  const steps: SimulationStep[] = [
    ...model.joints.flatMap((joint) =>
      joint.ring.kind.lines.map(
        (line): SimulationStep => ({ id: `${joint.id}/${line}`, do: "bead", joint: joint.id, line, closingMm: 0 }),
      ),
    ),
    ...CORNERS.map(
      (c, i): SimulationStep => ({
        id: c,
        do: "load",
        member: SIDE_OF[c],
        point: c,
        wrench: [0, 0, i % 2 === 0 ? 1 : -1, 0, 0, 0],
      }),
    ),
  ];
  const plan = yield* compilingLoads(new CompileCache(model, factors), steps);
  const outputs = frameOutputs(frame)(model);
  const corners = outputs.points.filter((p) => p.member === null);
  const condensed = yield* condensing(plan, outputs.rows.slice(0, 3 * corners.length));
  const out = yield* new LowRankRun(condensed).whole(plan);
  const twist = corners.reduce((s, p, i) => s + (i % 2 === 0 ? 1 : -1) * (out[p.first + 2] as number), 0);
  return 1 / twist;
}

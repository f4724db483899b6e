import { MATERIALS } from "../frame";
import { heldMechanics, USUAL_ORDER } from "../plan";
import { gapStiffness } from "../shrink";
import { closingPerGap, factorsFor, processOf } from "../weld";
import { builtOf } from "./built";
import { factorsOf } from "./factorsOf";
import { heldOf } from "./held";
import type { Job } from "./jobSchema";
import { type JointFit, jointOf, type ReadGap, withFilled, withShut } from "./jointFit";
import { orderOutlook } from "./outlookByDraws";
import type { Plan } from "./planSchema";
import { materialOf, weldOf } from "./settings";

/** Works a gap out: the frame with it filled, with it shut, and how hard it is to draw shut. A generator, as a prediction is. */
export function* jointFit(job: Job, gap: ReadGap, draws?: number): Generator<number, JointFit> {
  const { structure, on } = builtOf(job.plan);
  if (!structure) throw new RangeError("The frame has errors.");
  const order = job.plan.order ?? USUAL_ORDER;
  const look = (plan: Plan) => orderOutlook({ ...job, plan }, order, draws);
  const filled = yield* look(withFilled(job.plan, gap));
  const shut = yield* look(withShut(job.plan, gap.joint));
  const { mechanics } = heldMechanics(structure, on, heldOf(structure, job.plan));
  const factors = factorsFor(structure.members[0]?.material === "mild steel", factorsOf(job.plan));
  const stiffness = yield* gapStiffness(structure, mechanics, factors, gap.joint, weldOf(job.plan).tackLength.mm);
  const joint = jointOf(structure, gap.joint);
  const wallMm = Math.min(
    ...structure.members.filter((m) => m.id === joint?.a || m.id === joint?.b).map((m) => m.properties.wallMm),
  );
  const [widest] = [...(gap.faces ?? [])].sort((a, b) => b.mm - a.mm);
  const line = widest?.line ?? joint?.faces.find((f) => f.bead)?.line ?? "top";
  const process = processOf(weldOf(job.plan), { do: "bead", joint: gap.joint, line });
  const closesMm = gap.mm * closingPerGap(process, MATERIALS[materialOf(job.plan)], factors.transverse.value);
  return { gap, filled, shut, stiffness, wallMm, closesMm };
}

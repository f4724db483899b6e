import { newPlan } from "./src/core/job";
import { builtOf } from "./src/core/job/built";
import { weldOf } from "./src/core/job/settings";
import { drain } from "./src/core/numeric";
import { clampedMechanics, loadSteps } from "./src/core/plan";
import { frameOutcomes, frameOutputs } from "./src/core/shrink/frameOutcomes";
import { settingUp } from "./src/core/shrink/settingUp";
import { simulate } from "./src/core/shrink/simulate";
import { twistStiffness } from "./src/core/shrink/twistStiffness";
import { FACTORS, factorsFor } from "./src/core/weld";

const p0 = newPlan("x", "mm");
const plan = {
  ...p0,
  frame: {
    by: "sizes",
    sizes: {
      ...(p0.frame as any).sizes,
      length: { mm: 3000, text: "3000", unit: "mm" },
      cross: Array.from({ length: 9 }, (_, i) => ({
        id: `M${i + 1}`,
        at: { mm: 200 + 280 * i, text: String(200 + 280 * i), unit: "mm" },
      })),
    },
  } as any,
};
for (const p of [p0, plan]) {
  const { structure, order, on } = builtOf(p as any);
  const { mechanics, clamps } = clampedMechanics(structure!, on);
  const weld = weldOf(p as any);
  const steps = loadSteps(structure!, weld, order!.steps, clamps);
  for (let k = 0; k < 4; k++) {
    let t = performance.now();
    const s = drain(settingUp(structure!, mechanics, steps, factorsFor(true, FACTORS)));
    const a = performance.now() - t;
    t = performance.now();
    const sim = drain(
      simulate({
        frame: s.frame,
        steps,
        outputs: frameOutputs(structure!, mechanics.joints),
        outcomes: frameOutcomes(structure!, mechanics.joints),
        factors: FACTORS,
        draws: 240,
      }),
    );
    const b = performance.now() - t;
    t = performance.now();
    drain(
      simulate({
        frame: s.frame,
        steps,
        outputs: frameOutputs(structure!, mechanics.joints),
        outcomes: frameOutcomes(structure!, mechanics.joints),
        factors: FACTORS,
        draws: 0,
      }),
    );
    const b0 = performance.now() - t;
    t = performance.now();
    drain(twistStiffness(structure!, mechanics, FACTORS));
    const c = performance.now() - t;
    console.log(
      steps.length,
      "steps setup",
      a.toFixed(0),
      "rounds",
      s.toSetUp(sim).rounds,
      "sim",
      b.toFixed(0),
      "nominal sim",
      b0.toFixed(0),
      "twist",
      c.toFixed(0),
    );
  }
}

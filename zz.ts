import { resolveStructure, setJoint } from "./src/core/frame";
import { newPlan } from "./src/core/job";
import { predict } from "./src/core/job/predict";
import { outcomeKey } from "./src/core/shrink";
import { squareTube, started } from "./tests/support/drawnFrames";
import { withDrawn } from "./tests/support/plans";

for (const [long, wide, rungs, butted] of [
  [10, 6, 1, true],
  [10, 6, 1, false],
  [20, 8, 2, true],
  [20, 8, 2, false],
  [30, 15, 4, true],
  [25, 6, 3, false],
] as const) {
  let frame = started("ladder", { length: 100 * long, width: 100 * wide, rungs }, squareTube(40, 3));
  if (butted)
    for (const j of resolveStructure(frame).structure.joints.filter((x) => x.kind === "mitre"))
      frame = setJoint(frame, j.a, j.b, { kind: "butt", through: /^(AB|CD)/.test(j.a) ? j.a : j.b });
  const f = predict(withDrawn(newPlan("Ladder", "mm"), frame))!;
  const o = f.prediction.outcomes.find((o) => o.id.kind === "square")!;
  console.log(
    long,
    wide,
    rungs,
    butted,
    o.nominal.toFixed(2),
    o.estimate.value.toFixed(2),
    o.estimate.low.toFixed(2),
    o.estimate.high.toFixed(2),
    "ratio",
    (Math.abs(o.estimate.value) / ((o.estimate.high - o.estimate.low) / 2)).toFixed(2),
    "mid",
    ((o.estimate.high + o.estimate.low) / 2).toFixed(2),
  );
}
{
  let frame = started("ladder", { length: 1000, width: 600, rungs: 1 }, squareTube(40, 3));
  for (const j of resolveStructure(frame).structure.joints.filter((x) => x.kind === "mitre"))
    frame = setJoint(frame, j.a, j.b, { kind: "butt", through: /^(AB|CD)/.test(j.a) ? j.a : j.b });
  const f = predict(withDrawn(newPlan("Ladder", "mm"), frame))!;
  const sq = f.replay.outcomes.find((o) => outcomeKey(o.id) === "square")!;
  f.replay.ids.forEach((id, i) => {
    if (!id.startsWith("hold")) console.log(id, f.replay.lines[i], "square", sq.after[i]!.toFixed(3));
  });
}

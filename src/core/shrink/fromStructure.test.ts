import { describe, expect, it } from "vitest";
import { squareTube, started } from "../../../tests/support/drawnFrames";
import { ladder, ladderStructure, tacksThenBeads } from "../../../tests/support/ladder";
import { rectangleIn, resolveStructure, SHAPES, STARTERS, setJoint } from "../frame";
import { newPlan, orderOf, predict, whyNoPrediction } from "../job";
import { fromStructure } from "../mechanics";
import { drain } from "../numeric";
import { length } from "../units";
import { frameProblems } from "../weld";
import { frameOutputs, frameQuantities } from "./frameQuantities";
import { fromFrame } from "./fromFrame";
import { simulate } from "./simulate";
import { structureOutputs, structureQuantities } from "./structureQuantities";

describe("the mechanics of any frame", () => {
  it("of a rectangle drawn freely is that of the rectangle by its sizes", () => {
    const [frame, structure] = [ladder(2), ladderStructure(2)];
    const { steps } = tacksThenBeads(frame, { mitreTacks: 3, teeTacks: 2, teeBeads: 4 });
    const own = simulate({
      frame: fromFrame(frame),
      steps,
      outputs: frameOutputs(frame),
      quantities: frameQuantities(frame),
      draws: 0,
    });
    const rectangle = rectangleIn(structure);
    const mechanics = fromStructure(structure);
    const free = simulate({
      frame: mechanics.frame,
      steps,
      outputs: structureOutputs(structure, rectangle, mechanics.joints),
      quantities: structureQuantities(structure, rectangle, mechanics.joints),
      draws: 0,
    });
    const [a, b] = [drain(own), drain(free)];
    for (const id of ["AB", "BC", "CD", "DA", "AC", "BD", "square", "twist"]) {
      const [p, q] = [a, b].map((r) => r.quantities.find((x) => x.id === id)?.nominal ?? Number.NaN);
      // Points for clamps split the sides of the one and not of the other: that changes nothing but the last digits.
      expect(q, id).toBeCloseTo(p ?? 0, 7);
    }
  });
  it("of every starter can be worked through in its own order: finite, and its steps add up", () => {
    for (const s of STARTERS) {
      const plan = { ...newPlan("x", "mm"), free: started(s.name) };
      expect(whyNoPrediction(plan), s.name).toBeNull();
      const found = predict(plan);
      if (!found) throw new Error("no prediction");
      const { prediction, replay } = found;
      for (const q of prediction.quantities) {
        expect(Number.isFinite(q.nominal), `${s.name} ${q.id}`).toBe(true);
        expect(q.estimate.low).toBeLessThanOrEqual(q.estimate.high);
      }
      for (const q of replay.quantities.filter((x) => x.id.startsWith("span")))
        expect(
          q.byStep.reduce((sum, v) => sum + v, 0),
          `${s.name} ${q.id}`,
        ).toBeCloseTo(q.after.at(-1) ?? 0, 9);
      // Steel that is welded draws together: what stands between two others comes nearer or stays.
      for (const [id, span] of Object.entries(prediction.spansMm))
        expect(span.value, `${s.name} ${id}`).toBeGreaterThan(-0.2);
      // A frame that stands on one rail has nothing to be clamped by at three places.
      const done = new Set(replay.ids);
      for (const step of orderOf(plan))
        if (!["hold", "release"].includes(step.kind)) expect(done.has(step.key), step.key).toBe(true);
    }
  });
  it("of any section: tube, round, angle, channel, flat and round bar all come out finite, and no frame is refused for it", () => {
    for (const shape of SHAPES)
      for (const name of ["rectangle", "A-shaped drawbar", "table base"]) {
        const section = { ...squareTube(40, 4), shape, height: length(shape === "flat" ? "10" : "40") };
        const plan = { ...newPlan("x", "mm"), free: started(name, {}, section) };
        expect(whyNoPrediction(plan), `${shape} ${name}`).toBeNull();
        for (const q of predict(plan)?.prediction.quantities ?? []) {
          expect(Number.isFinite(q.nominal), `${shape} ${name} ${q.id}`).toBe(true);
          expect(Math.abs(q.nominal), `${shape} ${name} ${q.id}`).toBeLessThan(30);
        }
      }
  });
  it("a larger bead pulls more, in the ratio of its area", () => {
    const free = started("ladder", { rungs: 1 });
    const sized = (leg: string) => {
      const faces = (["plus", "minus", "top", "bottom"] as const).map((line) => ({
        line,
        bead: true,
        leg: length(leg),
        care: "none" as const,
      }));
      const plan = {
        ...newPlan("x", "mm"),
        free: setJoint(setJoint(free, "M1", "AB", { faces }), "M1", "CD", { faces }),
      };
      return predict(plan)?.prediction.spansMm.M1?.value ?? 0;
    };
    const [small, large] = [sized("3"), sized("4.2")];
    expect(large).toBeGreaterThan(small);
    // Twice the deposit; part of what the rung is drawn in by are the corners, which stay as they are.
    expect(large / small).toBeGreaterThan(1.4);
    expect(large / small).toBeLessThan(2.2);
  });
  it("of what is one's mirror image is mirrored too: left and right arms of a drawbar lose alike", () => {
    const plan = { ...newPlan("x", "mm"), free: started("A-shaped drawbar") };
    const spans = predict(plan)?.prediction.spansMm ?? {};
    expect(spans.L1?.value).toBeCloseTo(spans.R1?.value ?? 0, 1);
  });
  it("says which joints and members it stands on: no problem in any starter", () => {
    for (const s of STARTERS) {
      const { frame, joints } = fromStructure(resolveStructure(started(s.name)).structure);
      expect(frameProblems(frame), s.name).toEqual([]);
      expect(joints.size, s.name).toBe(frame.joints.length);
    }
  });
});

describe("the order of any frame", () => {
  it("tacks before it welds, beads every face that gets one just once, and turns back what it turned over", () => {
    for (const s of STARTERS) {
      const steps = orderOf({ ...newPlan("x", "mm"), free: started(s.name) });
      const keys = steps.map((x) => x.key);
      expect(new Set(keys).size, s.name).toBe(keys.length);
      const beads = steps.filter((x) => x.kind === "bead");
      for (const b of beads)
        expect(
          steps.findIndex((x) => x.kind === "tack" && x.joint === b.joint),
          `${s.name} ${b.key}`,
        ).toBeLessThan(steps.indexOf(b));
      expect(beads).toHaveLength(4 * new Set(beads.map((b) => b.joint)).size);
      let up = "top";
      for (const x of steps) {
        if (x.kind === "flip") up = x.up;
        expect(x.up, `${s.name} ${x.key}`).toBe(up);
      }
      expect(keys.indexOf("release/all")).toBeGreaterThan(keys.lastIndexOf(beads.at(-1)?.key ?? ""));
    }
  });
  it("leaves out the faces that stay clear", () => {
    const free = started("ladder", { rungs: 1 });
    const clear = {
      ...free,
      joints: [
        {
          between: ["AB", "M1"] as [string, string],
          kind: null,
          through: null,
          faces: [{ line: "top" as const, bead: false, leg: null, care: "keep clear" as const }],
        },
      ],
    };
    const keys = (f: typeof free) => orderOf({ ...newPlan("x", "mm"), free: f }).map((x) => x.key);
    expect(keys(free)).toContain("bead/M1/AB/top");
    expect(keys(clear)).not.toContain("bead/M1/AB/top");
  });
});

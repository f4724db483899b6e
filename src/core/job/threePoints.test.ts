import { describe, expect, it } from "vitest";
import { evaluate, job, opened, read } from "../../../tests/support/jobs";
import { stepWords } from "../plan";
import { length } from "../units";
import { builtOf } from "./built";
import type { Plan } from "./planSchema";
import { predict } from "./predict";
import { predictionKey } from "./predictable";

const onThree = (p: Plan): Plan => ({
  ...p,
  bed: {
    ...p.bed,
    school: "three",
    rests: [
      ["R1", "20", "20"],
      ["R2", "980", "20"],
      ["R3", "500", "580"],
      ["R4", "500", "300"],
    ].map(([id, x, y]) => ({ id: id as string, x: length(x as string), y: length(y as string) })),
  },
});

describe("a frame on three points", () => {
  it("is held over them alone, in words and in the mechanics: nothing bends it", () => {
    const three = onThree(job([]).plan);
    const surface: Plan = { ...three, bed: { ...three.bed, school: "surface" } };
    const { structure, order, on } = builtOf(three);
    expect(on).toBe("three rests");
    if (!structure || !order) throw new Error("a frame expected");
    expect(stepWords(structure, order.steps[0] as never).say).toMatch(/three rests/);
    const [a, b] = [predict(three), predict(surface)];
    if (!a || !b) throw new Error("predictions expected");
    // Statics: three places that hold a plane carry no force of the weld's.
    expect(a.replay.clampForces.flat()).toEqual([]);
    expect(new Set(b.replay.clampForces.flat().map((c) => c.id)).size).toBe(8);
  });
  it("is one only while three of its rests carry it, and as before when a surface is chosen again", () => {
    const surface = job([]).plan;
    const key = predictionKey(surface);
    const three = onThree(surface);
    expect(predictionKey(three)).not.toBe(key);
    expect(predictionKey({ ...three, bed: surface.bed })).toBe(key);
    // Two rests, or three on a line, carry nothing.
    for (const keep of [
      ["R1", "R2"],
      ["R1", "R2", "R5"],
    ]) {
      const line = { id: "R5", x: length("500"), y: length("20") };
      const rests = [...three.bed.rests, line].filter((r) => keep.includes(r.id));
      expect(builtOf({ ...three, bed: { ...three.bed, rests } }).on).toBe("surface");
    }
  });
  it("is told which risers clear a bed that stands proud between", () => {
    const heights = (middle: string) => {
      const r = opened("bed");
      const entries = [
        ["R1", "0"],
        ["R2", "0"],
        ["R3", "0"],
        ["R4", middle],
      ].map(([rest, z]) => read(r.id, { kind: "rest", rest: rest as string }, z as string, {}, "height-gauge"));
      return evaluate(job([r, ...entries], onThree)).bedRounds[0]?.verdict;
    };
    const proud = heights("1.6");
    expect(proud?.word).toBe("good on three rests");
    // 1.6 proud, 2 for a bead, and what the frame sags (hundredths), half-way between the two that stay and the one that is raised.
    expect(proud?.why).toMatch(/R4 stands 1\.6 mm above their plane: risers of 7\.[123] mm under R3 or more clear it/);
    expect(heights("-6")?.why).not.toMatch(/riser/);
  });
});

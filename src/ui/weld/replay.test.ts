import { describe, expect, it } from "vitest";
import { newPlan, predict } from "@/core/job";
import { largestSteps, replayed } from "@/core/shrink";
import { cornerLifts, rowOf } from "./replay";

const replay = predict(newPlan("x", "mm"))?.replay;
if (!replay) throw new Error("no replay");
const last = replay.ids.length - 1;

describe("the replay on the drawing", () => {
  it("finds the last row of a step, and none of a step that is not there", () => {
    expect(rowOf(replay, "tack/A/inside")).toBeGreaterThan(0);
    expect(rowOf(replay, "hold")).toBe(7);
    expect(rowOf(replay, "tack/Z/inside")).toBe(-1);
    expect(cornerLifts(replay, -1)).toBeNull();
  });
  it("names the steps that did most, largest first, without those that squaring up took back", () => {
    const most = largestSteps(replay, { kind: "square" });
    expect(most.length).toBeGreaterThan(3);
    const sizes = most.map((m) => Math.abs(m.change));
    expect([...sizes].sort((a, b) => b - a)).toEqual(sizes);
    expect(most.some((m) => m.step === "tack/A/inside")).toBe(false);
    expect(largestSteps(replay, { kind: "length", member: "nothing" })).toEqual([]);
  });
  it("lifts A and C against B and D by the twist", () => {
    const lifts = cornerLifts(replay, last);
    const twist = replayed(replay, { kind: "twist" })?.after.at(-1) ?? 0;
    if (!lifts) throw new Error("no lifts");
    expect(lifts.A - lifts.B + lifts.C - lifts.D).toBeCloseTo(twist, 9);
  });
});

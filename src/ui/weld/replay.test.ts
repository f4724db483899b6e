import { describe, expect, it } from "vitest";
import { resolveFrame } from "@/core/frame";
import { newPlan, predict } from "@/core/job";
import { cornerLifts, exaggeration, largestSteps, movedOutlines, rowOf } from "./replay";

const plan = newPlan("x", "mm");
const frame = resolveFrame(plan.frame);
const replay = predict(plan)?.replay;
if (!replay) throw new Error("no replay");
const last = replay.ids.length - 1;

describe("the replay on the drawing", () => {
  it("draws nothing moved as the members lie, corners included", () => {
    const still = movedOutlines(frame, replay, last, 0);
    for (const [i, m] of frame.members.entries()) {
      const xs = (list: readonly { x: number; y: number }[]) => list.flatMap((p) => [p.x, p.y]);
      // The replay starts from the set-up shape, some tenths larger than nominal.
      expect(Math.min(...xs(still[i] ?? []))).toBeCloseTo(Math.min(...xs(m.outline)), 0);
      expect(Math.max(...xs(still[i] ?? []))).toBeCloseTo(Math.max(...xs(m.outline)), 0);
    }
  });
  it("draws the cold frame smaller by the factor times what it loses", () => {
    const factor = 100;
    const side = movedOutlines(frame, replay, last, factor)[0] ?? [];
    const width = Math.max(...side.map((p) => p.x)) - Math.min(...side.map((p) => p.x));
    const loss = replay.quantities.find((q) => q.id === "AB")?.after.at(-1) ?? 0;
    expect((width - frame.lengthMm) / factor).toBeCloseTo(loss, 0);
    expect(loss).toBeLessThan(-0.1);
  });
  it("takes a round factor that makes the largest movement a few hundredths of the frame", () => {
    const rows = replay.ids.map((_, i) => i);
    const factor = exaggeration(frame, replay, rows);
    expect(String(factor)).toMatch(/^[125]0*$/);
    const largest = Math.max(
      ...rows.flatMap((r) =>
        replay.points.map((p) => Math.hypot(replay.history[r]?.[p.first] ?? 0, replay.history[r]?.[p.first + 1] ?? 0)),
      ),
    );
    expect(factor * largest).toBeLessThanOrEqual(0.035 * frame.widthMm);
    expect(factor * largest).toBeGreaterThan(0.01 * frame.widthMm);
    expect(exaggeration(frame, replay, [])).toBe(1);
  });
  it("finds the last row of a step, and none of a step that is not there", () => {
    expect(rowOf(replay, "tack/A/inside")).toBeGreaterThan(0);
    expect(rowOf(replay, "hold/clamp")).toBe(7);
    expect(rowOf(replay, "tack/Z/inside")).toBe(-1);
    expect(movedOutlines(frame, replay, -1, 10)).toEqual([]);
    expect(cornerLifts(replay, -1)).toBeNull();
  });
  it("names the steps that did most, largest first, without those that squaring up took back", () => {
    const most = largestSteps(replay, "square");
    expect(most.length).toBeGreaterThan(3);
    const sizes = most.map((m) => Math.abs(m.change));
    expect([...sizes].sort((a, b) => b - a)).toEqual(sizes);
    expect(most.some((m) => m.step === "tack/A/inside")).toBe(false);
    expect(largestSteps(replay, "nothing")).toEqual([]);
  });
  it("lifts A and C against B and D by the twist", () => {
    const lifts = cornerLifts(replay, last);
    const twist = replay.quantities.find((q) => q.id === "twist")?.after.at(-1) ?? 0;
    if (!lifts) throw new Error("no lifts");
    expect(lifts.A - lifts.B + lifts.C - lifts.D).toBeCloseTo(twist, 9);
  });
});

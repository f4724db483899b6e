import { describe, expect, it } from "vitest";
import { started } from "../../../tests/support/drawnFrames";
import { job } from "../../../tests/support/jobs";
import { ladder } from "../../../tests/support/ladder";
import { type MaterialName, resolveStructure, STARTERS } from "../frame";
import { weldOf } from "../job";
import { orderOfWork } from "./schools";
import { coolsFor, interpassWait, timelineOf, timeWords, warmthOf } from "./timeline";

const weld = weldOf(job([]).plan);

describe("the time of an order", () => {
  it("is the arc's by length over travel, and every step follows the one before", () => {
    const structure = ladder(1);
    const { steps } = orderOfWork(structure);
    const found = timelineOf(structure, weld, steps);
    const tacks = steps.filter((s) => s.id.do === "tack").length;
    const beads = structure.joints.flatMap((j) => j.faces.filter((f) => f.bead).map((f) => f.lengthMm));
    const arc = (tacks * weld.tackLength.mm + beads.reduce((a, b) => a + b, 0)) / weld.travelMmPerS;
    expect(found.arcS).toBeCloseTo(arc, 6);
    let at = 0;
    for (const s of steps) {
      expect(found.steps.get(s.key)?.atS).toBeCloseTo(at, 9);
      at += found.steps.get(s.key)?.takesS ?? Number.NaN;
    }
    expect(found.totalS).toBeCloseTo(at, 9);
  });
  it("waits where the order waits, longer for cold than for a touch, on every frame", () => {
    for (const { name } of STARTERS) {
      const { structure } = resolveStructure(started(name));
      const { steps } = orderOfWork(structure);
      const found = timelineOf(structure, weld, steps);
      const cold = found.steps.get("wait/cold")?.takesS ?? 0;
      expect(cold, name).toBeGreaterThan(60);
      expect(found.steps.get("wait/touch")?.takesS ?? 0, name).toBeLessThan(cold);
      expect(found.waitS, name).toBeLessThan(found.totalS);
    }
  });
  it("of cooling goes by when steps were ticked, and ends", () => {
    const structure = ladder(0);
    const { steps } = orderOfWork(structure);
    const done = steps.filter((s) => s.key.startsWith("bead/A/"));
    const ticked = new Map(done.map((s, i) => [s.key, 30 * i]));
    const first = coolsFor(structure, weld, steps, ticked, 100, "touch");
    expect(first?.joint).toBe(structure.quad?.joints.A);
    const later = coolsFor(structure, weld, steps, ticked, 160, "touch");
    expect((first?.seconds ?? 0) - (later?.seconds ?? 0)).toBeCloseTo(60, 3);
    expect(coolsFor(structure, weld, steps, ticked, 100 + (first?.seconds ?? 0) + 1, "touch")).toBeNull();
    expect(coolsFor(structure, weld, steps, new Map(), 100, "cold")).toBeNull();
  });
  it("of warmth: what was welded last is hottest, all cools, and hot, warm and cold go with the time to wait", () => {
    for (const { name } of STARTERS) {
      const { structure } = resolveStructure(started(name));
      const { steps } = orderOfWork(structure);
      const beads = steps.filter((s) => s.id.do === "bead");
      const ticked = new Map(beads.map((s, i) => [s.key, 60 * i]));
      const end = 60 * beads.length;
      let before = Number.POSITIVE_INFINITY;
      for (const after of [10, 600, 3600, 6 * 3600]) {
        const warmth = warmthOf(structure, weld, steps, ticked, end + after);
        expect(warmth).toHaveLength(new Set(beads.map((b) => b.joint)).size);
        expect(warmth[0]?.riseK ?? 0, name).toBeLessThan(before);
        before = warmth[0]?.riseK ?? 0;
        for (const [until, hotter] of [
          ["touch", ["hot"]],
          ["cold", ["hot", "warm"]],
        ] as const)
          expect(coolsFor(structure, weld, steps, ticked, end + after, until) !== null, `${name} ${after}`).toBe(
            warmth.some((w) => (hotter as readonly string[]).includes(w.is)),
          );
      }
      expect(warmthOf(structure, weld, steps, new Map(), 0)).toEqual([]);
    }
  });
  it("before the next bead on a joint is longer for stainless and aluminium, ends, and is none elsewhere", () => {
    const wait = (material: MaterialName, after: number, at: "A" | "C" = "A") => {
      const plain = ladder(0);
      const structure = { ...plain, members: plain.members.map((m) => ({ ...m, material })) };
      const { steps } = orderOfWork(structure);
      const done = steps.filter((s) => s.key.startsWith(`bead/${structure.quad?.joints.A}/`)).slice(0, 3);
      const ticked = new Map(done.map((s, i) => [s.key, 20 * i]));
      const next = steps.find(
        (s) => s.id.do === "bead" && s.joint === structure.quad?.joints[at] && !ticked.has(s.key),
      );
      return next ? interpassWait(structure, weld, steps, next, ticked, 40 + after) : undefined;
    };
    const [steel, stainless] = [wait("mild steel", 5), wait("stainless 304", 5)];
    expect(stainless?.limitK).toBe(130);
    expect(stainless?.seconds ?? 0).toBeGreaterThan(steel?.seconds ?? 0);
    const later = wait("stainless 304", 35);
    expect((stainless?.seconds ?? 0) - (later?.seconds ?? 0)).toBeCloseTo(30, 3);
    expect(wait("stainless 304", 5 + (stainless?.seconds ?? 0) + 1)).toBeNull();
    expect(wait("stainless 304", 5, "C")).toBeNull();
  });
  it("is said in minutes and hours", () => {
    expect([10, 300, 5000, 7300, 9000].map(timeWords)).toEqual(["1 min", "5 min", "83 min", "2 h", "2 h 30 min"]);
  });
});

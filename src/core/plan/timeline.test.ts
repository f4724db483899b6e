import { describe, expect, it } from "vitest";
import { squareTube, started } from "../../../tests/support/drawnFrames";
import { job } from "../../../tests/support/jobs";
import { ladder } from "../../../tests/support/ladder";
import { type MaterialName, resolveStructure, STARTERS } from "../frame";
import { weldOf } from "../job";
import { withSeamHow } from "../weld";
import { loadSteps } from "./loadSteps";
import { orderOfWork } from "./schools";
import { coolsFor, HANDLING_S, interpassWait, timelineOf, timeWords, warmthOf } from "./timeline";

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
  it("of two who weld is no longer than that of one, never two at one joint, and what is done to the whole waits for both", () => {
    for (const { name } of STARTERS) {
      const { structure } = resolveStructure(started(name));
      const { steps } = orderOfWork(structure);
      const [one, two] = ([1, 2] as const).map((welders) => timelineOf(structure, weld, steps, { welders }));
      if (!one || !two) throw new Error("no time");
      expect(two.totalS, name).toBeLessThan(one.totalS);
      expect(two.arcS, name).toBeCloseTo(one.arcS, 6);
      const spans = steps.map((s) => ({ s, ...(two.steps.get(s.key) ?? { atS: 0, takesS: 0, welder: 1 as const }) }));
      spans.forEach((a, i) => {
        for (const b of spans.slice(i + 1)) {
          const overlap = Math.min(a.atS + a.takesS, b.atS + b.takesS) - Math.max(a.atS, b.atS);
          if (overlap <= 1e-6) continue;
          // Whatever overlaps are welds at two joints by two people.
          expect([a.s.joint, b.s.joint], `${name} ${a.s.key} ${b.s.key}`).not.toContain(null);
          expect(a.s.joint, name).not.toBe(b.s.joint);
          expect(a.welder, name).not.toBe(b.welder);
        }
      });
    }
  });
  it("of a bead in lengths is longer by the moves between them, and no arc is longer", () => {
    const structure = ladder(1);
    const { steps } = orderOfWork(structure);
    const bead = steps.find((s) => s.id.do === "bead");
    if (bead?.id.do !== "bead") throw new Error("no bead");
    const seams = withSeamHow(undefined, bead.id, { lengths: 4 });
    const [whole, short] = [weld, { ...weld, seams }].map((w) => timelineOf(structure, w, steps));
    const takes = (t: typeof whole): number => t?.steps.get(bead.key)?.takesS ?? Number.NaN;
    expect(takes(short) - takes(whole)).toBeCloseTo(3 * HANDLING_S.move, 6);
    expect(short?.arcS).toBeCloseTo(whole?.arcS ?? 0, 9);
    // What the mechanics works with is one bead.
    expect(loadSteps(structure, { ...weld, seams }, steps)).toEqual(loadSteps(structure, weld, steps));
  });
  it("has a joint cool between beads that follow each other there, as its material wants it", () => {
    const aluminium = resolveStructure(started("ladder", {}, { ...squareTube(60, 5), material: "aluminium 6061" }));
    const { steps } = orderOfWork(aluminium.structure, "surface", "hinge first", "joint by joint");
    const hot = { ...weld, amps: 2 * weld.amps };
    const found = timelineOf(aluminium.structure, hot, steps);
    const ticked = new Map([...found.steps].map(([k, s]) => [k, s.atS + s.takesS] as const));
    let waited = 0;
    for (const s of steps.filter((x) => x.id.do === "bead")) {
      const { atS, takesS } = found.steps.get(s.key) ?? { atS: 0, takesS: 0 };
      const before = new Map([...ticked].filter(([, at]) => at <= atS));
      const wait = interpassWait(aluminium.structure, hot, steps, s, before, atS)?.seconds ?? 0;
      waited += wait;
      expect(takesS).toBeGreaterThan(wait);
    }
    expect(waited).toBeGreaterThan(0);
    expect(found.waitS).toBeGreaterThan(waited - 1e-6);
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

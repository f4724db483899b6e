import fc from "fast-check";
import { describe, expect, it, vi } from "vitest";
import { aroundMiddle, LEANING_FRAMES, ring, squareTube, started } from "../../../tests/support/drawnFrames";
import { drawnPlan, sized } from "../../../tests/support/plans";
import type { DrawnFrame } from "../frame";
import { newPlan, predict, predicting } from "../job";
import { drain, norm3 } from "../numeric";
import { length } from "../units";
import { outcomeKey } from "./outcomeId";
import * as simulating from "./simulate";

describe("set-up targets", () => {
  it("land the nominal frame on nominal: built off by them, the order brings it home", () => {
    const plan = newPlan("x", "mm");
    const found = predict(plan);
    if (!found) throw new Error("no prediction");
    const { setUp } = found.prediction;
    expect(setUp.leftMm).toBeLessThan(5e-3);
    for (const s of ["AB", "BC", "CD", "DA", "AC", "BD"]) {
      const target = setUp.targets.find((t) => outcomeKey(t.id) === s);
      const change = found.prediction.outcomes.find((q) => outcomeKey(q.id) === s);
      // Movement is linear in the corners to a few thousandths of itself.
      expect((target?.target.value ?? 0) + (change?.nominal ?? 0)).toBeCloseTo(target?.nominal ?? 0, 3);
      expect(target?.target.low).toBeLessThan(target?.target.value ?? 0);
    }
    expect(setUp.targets.find((t) => outcomeKey(t.id) === "AB")?.target.value).toBeGreaterThan(1000.1);
    const bow = found.prediction.outcomes.find((q) => outcomeKey(q.id) === "bow AB")?.nominal ?? 0;
    expect(setUp.targets.find((t) => outcomeKey(t.id) === "bow AB")?.target.value).toBeCloseTo(-bow, 12);
  });
  it("make every side of a mitred ring longer by what it loses, whichever side was drawn last", () => {
    const rings = fc.oneof(
      fc.constant([500, 500, 500]),
      fc.array(fc.integer({ min: 420, max: 560 }), { minLength: 5, maxLength: 7 }),
    );
    fc.assert(
      fc.property(rings, fc.constantFrom(25, 40), (radii, mm) => {
        const plan = drawnPlan(ring(aroundMiddle(radii), squareTube(mm, 2)));
        const found = drain(predicting(plan, { draws: 16 })).prediction;
        const longer = found.setUp.targets.filter((t) => t.id.kind === "length");
        expect(longer).toHaveLength(radii.length);
        for (const { id, target, nominal } of longer) {
          const change = found.outcomes.find((o) => outcomeKey(o.id) === outcomeKey(id))?.nominal ?? 0;
          expect(change).toBeLessThan(0);
          expect(target.value - nominal).toBeCloseTo(-change, 2);
          expect(found.allowancesMm["member" in id ? id.member : ""]?.value).toBeCloseTo(-change, 2);
        }
      }),
      { numRuns: 12 },
    );
  });
  it("are set anew where a hot frame does not land on nominal by the first, until it does", () => {
    const plan = sized(newPlan("x", "mm"), { length: length("600"), width: length("500") });
    const weld = { ...plan.weld, volts: 30, amps: 250, travelMmPerS: 2, from: "machine" as const };
    const setUp = predict({ ...plan, weld })?.prediction.setUp;
    expect(setUp?.beyondMm).toBeNull();
    expect(setUp?.rounds).toBeGreaterThan(2);
    expect(setUp?.leftMm).toBeLessThan(5e-3);
  });
  it("stand still before bands are worked out where corners go far: draws of a hot gate leaf are worked through once", () => {
    const cold = drawnPlan(started("gate leaf", {}, squareTube(25, 2)));
    const plan = { ...cold, weld: { ...cold.weld, volts: 24, amps: 200, travelMmPerS: 3, from: "machine" as const } };
    const moved = vi.spyOn(simulating, "simulate");
    const { setUp } = drain(predicting(plan, { draws: 2 })).prediction;
    expect(moved).toHaveBeenCalledTimes(1);
    moved.mockRestore();
    expect(setUp.rounds).toBeGreaterThan(2);
    expect(setUp.leftMm).toBeLessThan(5e-3);
    expect(Math.max(...Object.values(setUp.offsetsMm).map(norm3))).toBeGreaterThan(1);
  });
});

describe("a frame without corners, set up off nominal", () => {
  it("shares what legs lean in by among their places: rails are cut longer, and every leg stays one straight line", () => {
    for (const frame of Object.values<DrawnFrame>(LEANING_FRAMES)) {
      const prediction = predict(drawnPlan(frame))?.prediction;
      if (!prediction) throw new Error("no prediction");
      const { setUp, allowancesMm, reasons } = prediction;
      const offOf = (name: string): number => setUp.offsetsMm[name]?.[0] ?? Number.NaN;
      // Both legs lean in, so both are laid out, alike on either side.
      const rails = Object.keys(setUp.offsetsMm).filter((name) => name.includes("/"));
      for (const leg of ["L1", "L2"]) {
        const way = leg === "L1" ? -1 : 1;
        expect(way * offOf(`${leg}S`), leg).toBeGreaterThan(1);
        expect(setUp.asideMm?.[leg], leg).toBeGreaterThan(0.5);
        expect(reasons.join(" ")).toMatch(new RegExp(`shared among its places \\(.*${leg} by up to \\d`));
        // Along the leg its offsets lie in one line.
        const at = (name: string): number => {
          const rail = /R\d/.exec(name)?.[0];
          const y = frame.members.find((m) => m.id === rail)?.from.y.mm;
          return y ?? (name.endsWith("S") ? 0 : 900);
        };
        const own = [...rails.filter((r) => r.includes(leg)), `${leg}S`, ...(offOf(`${leg}E`) ? [`${leg}E`] : [])];
        const [a, b, ...others] = own.map((name) => [at(name), offOf(name)] as const);
        for (const [y, x] of others)
          if (a && b) expect(x).toBeCloseTo(a[1] + ((y - a[0]) / (b[0] - a[0])) * (b[1] - a[1]), 6);
      }
      const added = frame.members.filter((m) => m.id.startsWith("R")).map((m) => allowancesMm[m.id]?.value ?? 0);
      expect(Math.max(...added)).toBeGreaterThan(0.5);
    }
  });
  it("lands nearer to the drawing than it does with joints on nominal and ends wherever they lean", () => {
    for (const frame of Object.values<DrawnFrame>(LEANING_FRAMES)) {
      const prediction = predict(drawnPlan(frame))?.prediction;
      if (!prediction) throw new Error("no prediction");
      const { outcomes, setUp } = prediction;
      const off = new Map(Object.entries(setUp.offsetsMm).map(([name, by]) => [name.replace("/", ""), by] as const));
      const rights = outcomes.flatMap(({ id, nominal }) =>
        id.kind === "place" && id.way === "right" ? [{ by: off.get(id.place)?.[0] ?? Number.NaN, nominal }] : [],
      );
      expect(rights.length).toBeGreaterThan(3);
      const left = rights.map(({ by, nominal }) => Math.abs(by + nominal));
      const bare = rights.map(({ nominal }) => Math.abs(nominal));
      expect(Math.max(...left)).toBeLessThan(0.8 * Math.max(...bare));
    }
  });
});

import { describe, expect, it } from "vitest";
import { comb, FREE_FRAMES } from "../../../tests/support/drawnFrames";
import { job as jobOf, opened, read } from "../../../tests/support/jobs";
import { countedChance } from "../../../tests/support/outlook";
import { drawnPlan } from "../../../tests/support/plans";
import { distance, type Vec2 } from "../numeric";
import { predicted } from "../shrink";
import { mouthsOf } from "../square";
import { length } from "../units";
import { tapedPairs } from "./coldSet";
import type { Entry } from "./entrySchema";
import { evaluate } from "./evaluate";
import { gateAdvice } from "./gateAdvice";
import { wayChange } from "./placeForecast";
import type { Plan } from "./planSchema";
import { predict } from "./predict";

const withReach = (plan: Plan, mm: number): Plan => {
  if (plan.limits.kind !== "own") throw new Error("own limits");
  const either = { lower: length(String(-mm)), upper: length(String(mm)) };
  return { ...plan, limits: { ...plan.limits, length: either, width: either } };
};
const placeOf = (plan: Plan, entries: Entry[] = []) => {
  const e = evaluate(
    jobOf(entries, () => plan),
    predict(plan)?.prediction ?? null,
  );
  const found = e.forecasts.find((f) => f.limit.kind === "place");
  if (!found) throw new Error("no such limit");
  return { e, found };
};

describe("where the places of a frame without corners are likely to end", () => {
  it("has a chance on any frame, and the one that is read off four hundred other draws, nearly", () => {
    for (const [name, frame] of Object.entries(FREE_FRAMES)) {
      const first = placeOf(drawnPlan(frame)).found;
      if (!first.cold) throw new Error(name);
      // Where the limit cuts through the middle of what may come, and where it is at its edge.
      for (const mm of [first.cold.value, first.cold.high]) {
        const plan = withReach(drawnPlan(frame), +mm.toFixed(3));
        const { found } = placeOf(plan);
        const counted = countedChance(plan, "place");
        expect(
          Math.abs((found.chance ?? Number.NaN) - counted),
          `${name} at ${mm}: ${found.chance}, ${counted}`,
        ).toBeLessThan(0.12);
      }
      const { low, value, high } = first.cold;
      expect(low, name).toBeGreaterThanOrEqual(0);
      expect(value, name).toBeGreaterThan(low);
      expect(high, name).toBeGreaterThan(value);
    }
  });
  it("is nearer to where it belongs when set up for the weld than as drawn", () => {
    for (const name of ["drawbar", "rails with a kink", "rack"] as const) {
      const plan = drawnPlan(FREE_FRAMES[name]);
      const [setUp, asDrawn] = [placeOf(plan), placeOf({ ...plan, aim: "drawing" })].map(
        ({ found }) => found.cold?.value ?? 0,
      );
      expect(setUp, name).toBeLessThan(asDrawn as number);
    }
  });
  it("starts from what was read before welding: what stands off by far is told so, with what to do, and where", () => {
    const plan = drawnPlan(FREE_FRAMES.drawbar);
    const { places } = evaluate(
      jobOf([], () => plan),
      null,
    );
    if (!places) throw new Error("no places");
    const taped = (nodes: Record<string, Vec2>): Entry[] => {
      const r = opened("tacked");
      return [
        r,
        ...tapedPairs(places).map(([p, q]) =>
          read(r.id, `${p}-${q}`, distance(nodes[p] as Vec2, nodes[q] as Vec2).toFixed(1)),
        ),
      ];
    };
    const right = placeOf(plan, taped(places.nodes));
    const [moved] = Object.keys(places.joints);
    const at = places.nodes[moved as string] as Vec2;
    const off = placeOf(plan, taped({ ...places.nodes, [moved as string]: { x: at.x + 9, y: at.y } }));
    expect(right.found.cold?.value).toBeLessThan(2);
    expect(off.found.cold?.value).toBeGreaterThan(3);
    expect(off.found.chance).toBeLessThan(0.05);
    expect(off.found.where).toBe(moved);
    expect(gateAdvice(off.e.forecasts, [], false)?.say).toBe(
      `Tap ${moved} to where it belongs now, while the joints still turn.`,
    );
    // The tape is not surer than it is: a band that is read is no narrower than its uncertainty.
    const { cold } = right.found;
    expect((cold?.high ?? 0) - (cold?.value ?? 0)).toBeGreaterThan(0.2);
  });
  it("tells the way between two places as the mouth between two ends is told, and by the same draws", () => {
    for (const name of ["foot", "rails with a kink"] as const) {
      const plan = drawnPlan(FREE_FRAMES[name]);
      const prediction = predict(plan)?.prediction;
      const { places } = evaluate(
        jobOf([], () => plan),
        null,
      );
      if (!prediction || !places) throw new Error(name);
      const mouths = mouthsOf(places);
      for (const [from, to] of mouths) {
        const mouth = predicted(prediction, { kind: "mouth", from, to });
        const others = prediction.outcomes.filter((o) => o.id.kind !== "mouth");
        const way = wayChange({ ...prediction, outcomes: others }, places, from, to, null);
        expect(way?.value, `${from} to ${to}`).toBeCloseTo(mouth?.value ?? Number.NaN, 6);
        expect(way?.low).toBeCloseTo(mouth?.low ?? Number.NaN, 2);
        expect(way?.high).toBeCloseTo(mouth?.high ?? Number.NaN, 2);
      }
      expect(mouths.length + Number(name !== "foot")).toBeGreaterThan(0);
    }
  });
  it("is held against what was taped before welding and cold", () => {
    const plan = drawnPlan(FREE_FRAMES.drawbar);
    const prediction = predict(plan)?.prediction;
    const { places } = evaluate(
      jobOf([], () => plan),
      null,
    );
    if (!prediction || !places) throw new Error("no prediction");
    const pairs = tapedPairs(places);
    const round = (gate: "dry fit" | "cold", mm: (from: string, to: string, drawn: number) => number): Entry[] => {
      const r = opened(gate);
      const drawnMm = ([p, q]: [string, string]) => distance(places.nodes[p] as Vec2, places.nodes[q] as Vec2);
      return [r, ...pairs.map((w) => read(r.id, w.join("-"), mm(...w, drawnMm(w)).toFixed(2), {}, "calliper"))];
    };
    const of = (cold: Entry[]) =>
      evaluate(
        jobOf([...round("dry fit", (_, __, mm) => mm), ...cold], () => plan),
        prediction,
      ).losses;
    const asPredicted = of(round("cold", (p, q, mm) => mm + (wayChange(prediction, places, p, q, null)?.value ?? 0)));
    expect(asPredicted.map((l) => l.name)).toEqual(pairs.map(([p, q]) => `${p} to ${q}`));
    for (const l of asPredicted) {
      expect(l.measured?.value, l.name).toBeCloseTo(l.predicted.value, 1);
      expect(["inside the band", "cannot tell"], l.name).toContain(l.agrees);
    }
    for (const l of of(round("cold", (_, __, mm) => mm - 9))) expect(l.agrees, l.name).toBe("more than predicted");
    // Read before alone, there is nothing to hold against it yet.
    expect(of([]).every((l) => l.measured === null)).toBe(true);
  });
  it("says a rail that bends away under its teeth hardly ever keeps to its drawing", () => {
    const { found } = placeOf(drawnPlan(comb(7, 210, 300)));
    expect(found.chance).toBeLessThan(0.05);
  });
});

import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { deckWithPole, FRAMES_THAT_REACH_BEYOND } from "../../../tests/support/drawnFrames";
import { job as jobOf, opened, read } from "../../../tests/support/jobs";
import { countedChance } from "../../../tests/support/outlook";
import { drawnPlan } from "../../../tests/support/plans";
import { type DrawnFrame, resolveStructure } from "../frame";
import { CORNERS, ends, SPANS } from "../geometry";
import { distance, type Vec2 } from "../numeric";
import { stepWords } from "../plan";
import { adjustNetwork, type Places, placesOf } from "../square";
import { length } from "../units";
import { beyondPairs, coldSet } from "./coldSet";
import type { Entry } from "./entrySchema";
import { evaluate } from "./evaluate";
import { gateAdvice } from "./gateAdvice";
import type { Plan } from "./planSchema";
import { predict } from "./predict";
import { beyondWords } from "./words";

const placesIn = (frame: DrawnFrame): Places => placesOf(resolveStructure(frame).structure);
const evaluated = (plan: Plan, entries: Entry[] = []) =>
  evaluate(
    jobOf(entries, () => plan),
    predict(plan)?.prediction ?? null,
  );

/** Sides, diagonals and the ways to what lies beyond, as they would be taped; cold with the heights besides. */
function taped(places: Places, gate: "tacked" | "cold", ways = beyondPairs(places)): Entry[] {
  const r = opened(gate);
  const apart = ([p, q]: readonly [string, string]): string =>
    distance(places.nodes[p] as Vec2, places.nodes[q] as Vec2).toFixed(2);
  return [
    r,
    ...SPANS.map((span) => read(r.id, span, apart(ends(span)), {}, "calliper")),
    ...ways.map((w) => read(r.id, w.join("-"), apart(w), {}, "calliper")),
    ...(gate === "cold" ? CORNERS.map((c) => read(r.id, `z${c}`, "0")) : []),
  ];
}

const withReach = (plan: Plan, mm: number): Plan => {
  if (plan.limits.kind !== "own") throw new Error("own limits");
  const either = { lower: length(String(-mm)), upper: length(String(mm)) };
  return { ...plan, limits: { ...plan.limits, length: either, width: either } };
};

const shifted = (places: Places, name: string, by: Vec2): Places => {
  const at = places.nodes[name] as Vec2;
  return { ...places, nodes: { ...places.nodes, [name]: { x: at.x + by.x, y: at.y + by.y } } };
};

describe("what lies well beyond the corners of a frame", () => {
  it("is taped from three corners, by which a slip of an inch in any of the ways shows", () => {
    const sizes = fc.record({
      long: fc.integer({ min: 600, max: 5000 }),
      wide: fc.integer({ min: 500, max: 2200 }),
      pole: fc.double({ min: 0.4, max: 1.5, noNaN: true }),
    });
    fc.assert(
      fc.property(sizes, ({ long, wide, pole }) => {
        const places = placesIn(deckWithPole(Math.round(pole * wide), [long, wide]));
        const { nodes } = places;
        const ways = beyondPairs(places);
        expect(ways).toHaveLength(3);
        const corners = Object.fromEntries(CORNERS.map((c) => [c, nodes[c] as Vec2]));
        const all = [...SPANS.map((s) => ends(s)), ...ways] as [string, string][];
        const fit = adjustNetwork({
          nodes: { ...corners, PE: nodes.PE as Vec2 },
          readings: all.map(([from, to]) => ({
            kind: "distance" as const,
            id: `${from}-${to}`,
            from,
            to,
            valueMm: distance(nodes[from] as Vec2, nodes[to] as Vec2),
            // A tape to half a millimetre between pencil marks.
            uMm: 0.3,
          })),
          tapes: {},
        });
        expect(fit.status).toBe("ok");
        const reading = (p: string, q: string) => fit.readings.find((r) => r.id === `${p}-${q}`)?.detectable;
        for (const [p, q] of ways) expect(reading(p, q) ?? Number.POSITIVE_INFINITY, `${p}-${q}`).toBeLessThan(25.4);
      }),
      { numRuns: 60 },
    );
  });
  it("is asked for cold, has a limit, and no frame passes before it is read", () => {
    for (const [name, { frame, beyond }] of Object.entries(FRAMES_THAT_REACH_BEYOND)) {
      const plan = drawnPlan(frame);
      const places = placesIn(frame);
      const none = evaluated(plan);
      const asked = coldSet(none).flatMap((q) => (q.kind === "distance" ? [q.from, q.to] : []));
      for (const place of beyond) expect(asked, name).toContain(place);
      const limit = none.limits.find((l) => l.id === "place");
      expect(limit, name).toMatchObject({ label: "Farthest place beyond the corners", upper: 1.5 });
      const bare = evaluated(plan, taped(places, "cold", [])).cold;
      expect(bare?.overall, name).toBe("not measured");
      expect(bare?.verdicts.filter((v) => v.result === null).map((v) => v.limit.id)).toEqual(["place"]);
      // One of two is not all of them.
      if (beyond.length > 1)
        expect(evaluated(plan, taped(places, "cold", beyondPairs(places).slice(0, 3))).cold?.overall).toBe(
          "not measured",
        );
      expect(evaluated(plan, taped(places, "cold")).cold?.overall, name).toBe("pass");
      // The corners are where they were: what is off is the place beyond them, by all of it.
      const [first] = places.beyond as [string];
      const off = evaluated(plan, taped(shifted(places, first, { x: 0, y: 5 }), "cold")).cold;
      const worst = off?.verdicts.find((v) => v.limit.id === "place");
      expect(worst?.measured?.value, name).toBeCloseTo(5, 1);
      expect(worst?.result?.verdict, name).toBe("fail");
      expect(off?.verdicts.filter((v) => v.result?.verdict !== "pass").map((v) => v.limit.id)).toEqual(["place"]);
    }
  });
  it("has a chance, which is the one that is read off four hundred other draws, nearly", () => {
    for (const [name, { frame, beyond }] of Object.entries(FRAMES_THAT_REACH_BEYOND)) {
      const first = evaluated(drawnPlan(frame)).forecasts.find((f) => f.limit.kind === "place");
      if (!first?.cold) throw new Error(name);
      expect(beyond).toContain(first.where);
      const plan = withReach(drawnPlan(frame), +first.cold.value.toFixed(3));
      const found = evaluated(plan).forecasts.find((f) => f.limit.kind === "place");
      const counted = countedChance(plan, "place");
      expect(Math.abs((found?.chance ?? Number.NaN) - counted), `${name}: ${found?.chance}, ${counted}`).toBeLessThan(
        0.12,
      );
      // Set off for what the weld takes it ends nearer than as drawn.
      const asDrawn = evaluated({ ...plan, aim: "drawing" }).forecasts.find((f) => f.limit.kind === "place");
      expect(found?.cold?.value, name).toBeLessThan(asDrawn?.cold?.value ?? 0);
    }
  });
  it("is asked for once it is square, tapped right while it turns, and starts the forecast from where it was read", () => {
    const { frame } = FRAMES_THAT_REACH_BEYOND["a pole"] as { frame: DrawnFrame };
    const plan: Plan = { ...drawnPlan(frame), aim: "drawing" };
    const places = placesIn(frame);
    const leave = { act: "leave" as const, say: "Leave it.", why: "" };
    const words = (entries: Entry[]) =>
      beyondWords(leave, evaluated(plan, entries).frameRounds.at(-1) ?? null, places, "mm");
    expect(words(taped(places, "tacked", [])).say).toBe("Read the ways to PE.");
    expect(words(taped(places, "tacked"))).toBe(leave);
    const off = taped(shifted(places, "PE", { x: 0, y: 6 }), "tacked");
    expect(words(off).say).toMatch(/^Tap PE: toward B by 6\.0 mm ± /);
    const { forecasts } = evaluated(plan, off);
    const place = forecasts.find((f) => f.limit.kind === "place");
    expect(place?.chance).toBeLessThan(0.05);
    expect(gateAdvice(forecasts, [], false)?.say).toBe("Tap PE to where it belongs now, while the joints still turn.");
    // What was not read is as it is set up, though the rest was read.
    const unread = evaluated(plan, taped(places, "tacked", [])).forecasts.find((f) => f.limit.kind === "place");
    const before = evaluated(plan).forecasts.find((f) => f.limit.kind === "place");
    expect(unread?.cold).toEqual(before?.cold);
  });
  it("goes along with a frame that shall end longer or wider than drawn, and gets no longer with it", () => {
    const { frame } = FRAMES_THAT_REACH_BEYOND["a pole"] as { frame: DrawnFrame };
    const plan = drawnPlan(frame);
    if (plan.limits.kind !== "own") throw new Error("own limits");
    const only = (mm: number) => ({ lower: length("0"), upper: length(String(mm)) });
    const longer: Plan = { ...plan, limits: { ...plan.limits, length: only(4), width: only(2) } };
    const [drawn, grown] = [evaluated(plan), evaluated(longer)];
    const shift = (name: string) => {
      const [from, to] = [drawn, grown].map((e) => e.prediction?.setUp.offsetsMm[name]);
      if (!from || !to) throw new Error(name);
      return [to[0] - from[0], to[1] - from[1]];
    };
    expect(shift("P/E2")[0]).toBeCloseTo(1, 6);
    expect(shift("PE")).toEqual(shift("P/E2").map((mm) => expect.closeTo(mm, 6)));
    const pieceMm = (e: typeof drawn) => e.cut.find((p) => p.members.includes("P"))?.cutLongPointMm ?? Number.NaN;
    expect(pieceMm(grown)).toBeCloseTo(pieceMm(drawn), 6);
  });
  it("is named where the order asks for readings", () => {
    const { frame } = FRAMES_THAT_REACH_BEYOND.forks as { frame: DrawnFrame };
    const { steps, structure } = evaluated(drawnPlan(frame));
    if (!structure) throw new Error("no structure");
    const said = steps.filter((s) => s.id.do === "measure").map((s) => stepWords(structure, s, "mm").say);
    expect(said[0]).toBe("Measure four sides, both diagonals and the ways to F1E and F2E, dry");
    expect(said.at(-1)).toContain("Measure cold: four sides, both diagonals and the ways to F1E and F2E");
  });
});

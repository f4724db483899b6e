import { describe, expect, it } from "vitest";
import { deckWithPole, FREE_FRAMES } from "../../../tests/support/drawnFrames";
import { changesWhenHotter } from "../../../tests/support/hotter";
import { base, job, round } from "../../../tests/support/jobs";
import { drawnPlan } from "../../../tests/support/plans";
import type { DrawnFrame } from "../frame";
import { SPANS } from "../geometry";
import { learnShop } from "../learn";
import { distance, type Vec2 } from "../numeric";
import { outcomeKey } from "../shrink";
import { placesOf } from "../square";
import { builtOf } from "./built";
import { beyondPairs, tapedPairs } from "./coldSet";
import { evaluate } from "./evaluate";
import { frameTeachingOf } from "./frameLesson";
import type { Job } from "./jobSchema";
import type { Plan } from "./planSchema";
import { predict } from "./predict";

/** A frame of a shop whose heat is so many times the tables', taped as asked when it was tacked, and cold. */
function built(frame: DrawnFrame, times: number): { built: Job; ways: string[] } {
  const fresh = drawnPlan(frame);
  const plan: Plan = { ...fresh, weld: { ...fresh.weld, volts: 18, amps: 120, travelMmPerS: 5, from: "machine" } };
  const { structure } = builtOf(plan);
  if (!structure) throw new Error("no frame");
  const places = placesOf(structure);
  const by = changesWhenHotter(plan, times);
  const change = (key: string): number => by[key] ?? 0;
  const cold = Object.fromEntries(
    Object.entries(places.nodes).map(([place, at]): [string, Vec2] => [
      place,
      {
        x: at.x + change(outcomeKey({ kind: "place", place, way: "right" })),
        y: at.y + change(outcomeKey({ kind: "place", place, way: "up" })),
      },
    ]),
  );
  const pairs = structure.quad
    ? [...SPANS.map((s) => s.split("") as [string, string]), ...beyondPairs(places)]
    : tapedPairs(places);
  const nameOf = ([p, q]: [string, string]): string => (SPANS.some((s) => s === p + q) ? p + q : `${p}-${q}`);
  const taped = (nodes: Record<string, Vec2>): Record<string, string> =>
    Object.fromEntries(pairs.map((w) => [nameOf(w), distance(nodes[w[0]] as Vec2, nodes[w[1]] as Vec2).toFixed(3)]));
  return {
    built: job(
      [...round("tacked", taped(places.nodes), "calliper"), ...round("cold", taped(cold), "calliper")],
      () => plan,
    ),
    ways: pairs.map(([p, q]) => `${p} to ${q}`),
  };
}

const FRAMES: [string, DrawnFrame][] = [
  ["a ring of six", FREE_FRAMES["six sides"]],
  ["a bent ring", FREE_FRAMES["an L"]],
  ["a foot", FREE_FRAMES.foot],
  ["a deck with a pole", deckWithPole(800)],
];

describe("ways between places", () => {
  it("teach a shop as sides do: a hot one is found hot, and one that is as the tables say is left alone", () => {
    for (const [name, frame] of FRAMES) {
      const hotter = [1.4, 1].map((times) => {
        const told = frameTeachingOf(built(frame, times).built);
        if (!told.ok) throw new Error(`${name}: ${told.why}`);
        expect(told.taught.lesson.readings.length, name).toBeGreaterThanOrEqual(2);
        const lesson = { kind: "frame" as const, ...base(), ...told.taught.lesson };
        return learnShop([lesson], "2026-11-25T08:00:00.000Z").learned.factors.transverse.mean[0] ?? Number.NaN;
      }) as [number, number];
      expect(hotter[0], name).toBeGreaterThan(hotter[1] + 0.03);
      expect(Math.abs(hotter[1]), name).toBeLessThan(0.06);
    }
  });
  it("are told against what was predicted, to what lies beyond the corners with the sides", () => {
    const { built: own } = built(deckWithPole(800), 1);
    const evaluation = evaluate(own, predict(own.plan)?.prediction ?? null);
    const names = evaluation.losses.map((l) => l.name);
    expect(names.slice(0, 4)).toEqual(["AB", "BC", "CD", "DA"]);
    expect(names.slice(4)).toHaveLength(3);
    for (const loss of evaluation.losses) {
      if (!loss.measured) throw new Error(`${loss.name} was read`);
      // Read as the nominal frame does: near the middle of what was predicted.
      expect(loss.measured.value, loss.name).toBeCloseTo(loss.predicted.value, 1);
      expect(loss.agrees, loss.name).not.toBe("more than predicted");
    }
  });
});

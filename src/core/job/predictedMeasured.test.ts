import { describe, expect, it } from "vitest";
import { job, opened, read } from "../../../tests/support/jobs";
import type { Entry } from "./entrySchema";
import { evaluate } from "./evaluate";
import { predict } from "./predict";
import { lossesOf, shapeChanges } from "./predictedMeasured";

type Spans = Record<string, string>;
const before: Spans = { AB: "1000.5", BC: "600.5", CD: "1000.5", DA: "600.5", AC: "1167", BD: "1167" };

/** The frame of a new job with its corners taped before welding and cold. */
function taped(cold: Spans, instrument?: string) {
  const [dry, after] = [opened("dry fit"), opened("cold")];
  const all = (round: Entry & { kind: "round" }, spans: Spans): Entry[] =>
    Object.entries(spans).map(([w, t]) => read(round.id, w, t, {}, instrument));
  const j = job([dry, ...all(dry, before), after, ...all(after, cold)]);
  const prediction = predict(j.plan)?.prediction;
  if (!prediction) throw new Error("a prediction expected");
  const { frameRounds } = evaluate(j, prediction);
  return { prediction, frameRounds, cold: frameRounds.find((r) => r.round.gate === "cold") ?? null };
}

describe("predicted against measured", () => {
  it("takes the cold length from the one before welding, and says more only beyond band and tape together", () => {
    const { prediction, frameRounds, cold } = taped({ ...before, AB: "990.5", BC: "600.4" });
    const losses = lossesOf(prediction, frameRounds, cold);
    const ab = losses.find((l) => l.name === "AB");
    expect(ab?.measured?.value).toBeCloseTo(10, 9);
    expect(ab?.agrees).toBe("more than predicted");
    for (const l of losses) {
      expect(l.predicted.low).toBeLessThanOrEqual(l.predicted.value);
      if (!l.measured) throw new Error("measured");
      expect(l.agrees === "more than predicted").toBe(l.measured.value - 2 * l.measured.u > l.predicted.high);
    }
  });
  it("leaves out the zero of one tape that read both, and compares nothing that was not read twice", () => {
    const { prediction, frameRounds, cold } = taped(before);
    const [one] = lossesOf(prediction, frameRounds, cold);
    const first = frameRounds[0]?.means.get("AB");
    expect(one?.measured?.u).toBeCloseTo(Math.SQRT2 * (first?.uMm ?? Number.NaN), 9);
    expect(
      lossesOf(prediction, frameRounds.slice(0, 1), null).every((l) => l.measured === null && l.agrees === null),
    ).toBe(true);
  });
  it("has the diagonals' change from the same two rounds, and no twist while no corner's height was read", () => {
    const { prediction, frameRounds, cold } = taped({ ...before, AC: "1168", BD: "1165" });
    const [square, twist] = shapeChanges(prediction, frameRounds, cold);
    expect(square?.measured?.value).toBeCloseTo(3, 9);
    expect(twist).toMatchObject({ measured: null, agrees: null });
  });
});

import { describe, expect, it } from "vitest";
import { tableWith } from "../../../tests/support/drawnFrames";
import { job as jobOf, round } from "../../../tests/support/jobs";
import { drawnPlan } from "../../../tests/support/plans";
import { resolveStructure } from "../frame";
import { drain } from "../numeric";
import { outcomeKey, predicted } from "../shrink";
import { footWayMm, placesOf } from "../square";
import { coldSet } from "./coldSet";
import { correcting } from "./correction";
import { correctedQuantity } from "./correctionWords";
import { evaluate } from "./evaluate";
import { predict } from "./predict";
import { quantityKey } from "./quantityId";

const frame = tableWith(700, 0);
const plan = drawnPlan(frame);
const { feet } = placesOf(resolveStructure(frame).structure);
const ways = Object.fromEntries(feet.pairs.map(([p, q]) => [`${p}-${q}`, footWayMm(feet, p, q) ?? Number.NaN]));
const readingsOf = (off: Record<string, number>): Record<string, string> =>
  Object.fromEntries(Object.entries(ways).map(([way, mm]) => [way, (mm + (off[way] ?? 0)).toFixed(1)]));

describe("a table's feet", () => {
  it("are taped cold, each way once, and judged where they were read: a frame passes without them", () => {
    const j = jobOf([], () => plan);
    const bare = evaluate(j, null);
    const asked = coldSet(bare).map(quantityKey);
    for (const way of Object.keys(ways)) expect(asked.filter((k) => k === way)).toHaveLength(1);
    expect(bare.limits.filter((l) => l.ofFeet).every((l) => l.optional)).toBe(true);
    const [first = ""] = Object.keys(ways);
    const leaning = jobOf(round("cold", readingsOf({ [first]: -6 }), "calliper"), () => plan);
    const verdicts = evaluate(leaning, null).cold?.verdicts.filter((v) => v.limit.ofFeet) ?? [];
    expect(verdicts).toHaveLength(6);
    for (const v of verdicts) expect(v.result?.verdict, v.limit.label).toBe(v.limit.id === first ? "fail" : "pass");
    expect(verdicts[0]?.limit.label).toMatch(/^Feet G\d. to G\d.$/);
  });
  it("are told before welding: what the beads draw them by is what legs are set out by", () => {
    const prediction = predict(plan)?.prediction;
    if (!prediction) throw new Error("a prediction expected");
    for (const [from, to] of feet.pairs) {
      const change = predicted(prediction, { kind: "feet", from, to });
      const target = prediction.setUp.targets.find(({ id }) => outcomeKey(id) === `feet ${from}-${to}`);
      if (!change || !target) throw new Error(`nothing is told of ${from} to ${to}`);
      // Legs welded all round lean by more than a hair: a tee's beads turn it, and its foot is a leg's length away.
      expect(change.high - change.low).toBeGreaterThan(0.5);
      expect(target.target.value).toBeCloseTo(target.nominal - change.value, 9);
    }
    // A leg twice as long carries its foot about twice as far.
    const long = predict(drawnPlan(tableWith(1400, 0)))?.prediction;
    const width = (p: typeof prediction): number => {
      const e = predicted(p, { kind: "feet", from: "G1E", to: "G2E" });
      return e ? e.high - e.low : Number.NaN;
    };
    if (!long) throw new Error("a prediction expected");
    expect(width(long) / width(prediction)).toBeGreaterThan(1.5);
    expect(width(long) / width(prediction)).toBeLessThan(2.5);
  });
  it("say so where no remedy moves them far enough, by their own name", () => {
    const [first = ""] = Object.keys(ways);
    const found = drain(correcting(jobOf(round("cold", readingsOf({ [first]: -6 }), "calliper"), () => plan)));
    expect(found?.quantities[`feet ${first}`]?.value).toBeCloseTo((ways[first] ?? 0) - 6, 1);
    expect(correctedQuantity(`feet ${first}`)).toBe(`feet ${first.replace("-", " to ")}`);
    expect(found?.remedies.some((r) => r.option.effect[`feet ${first}`] !== undefined)).toBe(true);
  });
});

import { describe, expect, it } from "vitest";
import { squareTube, started, tableWith, without } from "../../../tests/support/drawnFrames";
import { job as jobOf, round } from "../../../tests/support/jobs";
import { drawnPlan } from "../../../tests/support/plans";
import { MATERIALS, resolveStructure } from "../frame";
import { add3, drain, norm3, scale3, sub3, unit3, type Vec3 } from "../numeric";
import { outcomeKey, predicted } from "../shrink";
import { footWayMm, mouthsOf, placesOf } from "../square";
import { coldSet } from "./coldSet";
import { correcting } from "./correction";
import { correctedQuantity, correctionWayWords } from "./correctionWords";
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
  it("are pushed apart past yield by two cantilevers; what is left is what a new reading finds", () => {
    // Short, thick legs: of long ones more comes back than can be steered.
    const stout = tableWith(400, 0, [1200, 700], squareTube(50, 4));
    const own = placesOf(resolveStructure(stout).structure).feet;
    const middle = { x: 600, y: 350 };
    type Feet3 = Record<string, Vec3>;
    const drawnIn: Feet3 = Object.fromEntries(
      Object.entries(own.at).map(([foot, [x, y, z]]) => [
        foot,
        [x - 2.5 * Math.sign(x - middle.x), y - 2.5 * Math.sign(y - middle.y), z],
      ]),
    );
    const between = (at: Feet3, [p, q]: [string, string]): number => norm3(sub3(at[q] as Vec3, at[p] as Vec3));
    const texts = Object.fromEntries(own.pairs.map((w) => [w.join("-"), between(drawnIn, w).toFixed(2)]));
    const found = drain(correcting(jobOf(round("cold", texts, "calliper"), () => drawnPlan(stout))));
    const best = found?.ways[0];
    if (!found || !best) throw new Error("nothing to judge");
    expect(best.chance).toBeGreaterThan(found.doNothing + 0.2);
    let then = drawnIn;
    for (const { remedy, amount } of best.steps) {
      const made = found.remedies.find((r) => r.option.id === remedy);
      if (made?.id.do !== "legs" || !made.push) throw new Error(`${remedy} pushes no legs`);
      const { from, to, way } = made.id;
      expect(way).toBe("apart");
      expect(correctionWayWords(found, best, "mm")).toContain(`feet ${from} and ${to} apart`);
      const by = scale3(unit3(sub3(own.at[to] as Vec3, own.at[from] as Vec3)), amount / 2);
      then = { ...then, [from]: sub3(then[from] as Vec3, by), [to]: add3(then[to] as Vec3, by) };
      // Give of two cantilevers at the force that turns them, F L^3 / 3 E I each, and what the top gives besides.
      const { eMPa, yieldMPa } = MATERIALS["mild steel"];
      const [face, hole, long] = [50, 50 - 2 * 4, 400];
      const force = (1.15 * yieldMPa * (face ** 3 - hole ** 3)) / 4 / long;
      const give = (2 * force * long ** 3) / (3 * eMPa * ((face ** 4 - hole ** 4) / 12));
      expect(made.push.forceN / force).toBeCloseTo(1, 1);
      expect(made.push.springbackMm / give).toBeGreaterThan(0.9);
    }
    for (const w of own.pairs)
      expect(best.leaves[`feet ${w.join("-")}`]?.value, w.join()).toBeCloseTo(between(then, w), 0);
  });
  it("that are a mouth of the frame's plane, too, take the ways to the other feet along", () => {
    const stand = without(
      started("stand", { length: 1000, width: 600, height: 1100, shelves: 1 }, squareTube(100, 5)),
      "CD",
    );
    const places = placesOf(resolveStructure(stand).structure);
    const [mouth] = mouthsOf(places).filter(([p, q]) => places.feet.at[p] && places.feet.at[q]);
    if (!mouth) throw new Error("no mouth between feet");
    const texts = Object.fromEntries(
      places.feet.pairs.map(([p, q]) => {
        const isMouth = [p, q].sort().join() === [...mouth].sort().join();
        return [`${p}-${q}`, ((footWayMm(places.feet, p, q) ?? 0) - (isMouth ? 5 : 0)).toFixed(1)];
      }),
    );
    const found = drain(correcting(jobOf(round("cold", texts, "calliper"), () => drawnPlan(stand))));
    const spread = found?.remedies.find((r) => r.id.do === "spread");
    if (!spread) throw new Error(found?.refused.join(" ") ?? "nothing to judge");
    const moved = Object.entries(spread.option.effect).filter(([key, by]) => key.startsWith("feet ") && by > 0.1);
    // Across: either foot of the mouth and the one that lies across from it.
    expect(moved).toHaveLength(2);
  });
  it("are told by their own name where no remedy brings them inside", () => {
    const [first = ""] = Object.keys(ways);
    const found = drain(correcting(jobOf(round("cold", readingsOf({ [first]: -6 }), "calliper"), () => plan)));
    expect(found?.quantities[`feet ${first}`]?.value).toBeCloseTo((ways[first] ?? 0) - 6, 1);
    expect(correctedQuantity(`feet ${first}`)).toBe(`feet ${first.replace("-", " to ")}`);
    expect(found?.refused.join(" ")).toMatch(/Pushing the feet G\dE to G\dE past yield means going about/);
  });
});

import { describe, expect, it } from "vitest";
import { squareTube, started } from "../../../tests/support/drawnFrames";
import { drawnPlan, sizesPlan } from "../../../tests/support/plans";
import { STARTERS } from "../frame";
import { drain } from "../numeric";
import type { SimulationStep } from "../shrink";
import { hasInsideTrade } from "./hasInsideTrade";
import { insidesMoved, insideTrade } from "./insideTrade";
import { insideTradeWords } from "./insideTradeWords";

const bead = (joint: string, line: "inside" | "outside" | "top"): SimulationStep => ({
  id: `${joint}/${line}`,
  do: "bead",
  joint,
  line,
  heatJPerMm: 300,
});

describe("insides last or first", () => {
  it("changes nothing but where the inside beads of the corners stand", () => {
    const tack: SimulationStep = { id: "t", do: "tack", joint: "A", line: "inside", lengthMm: 10, heatJPerMm: 300 };
    const steps = [tack, bead("A", "outside"), bead("B", "top"), bead("A", "inside"), bead("T", "inside")];
    const ways = insidesMoved(steps, new Set(["A", "B"]));
    expect(ways?.first.map((s) => s.id)).toEqual(["t", "A/inside", "A/outside", "B/top", "T/inside"]);
    expect(ways?.last.map((s) => s.id)).toEqual(["t", "A/outside", "B/top", "T/inside", "A/inside"]);
    expect(ways?.planned).toBe("last");
    expect(insidesMoved(ways?.first ?? [], new Set(["A", "B"]))?.planned).toBe("first");
    const between = [tack, bead("A", "outside"), bead("A", "inside"), bead("B", "top")];
    expect(insidesMoved(between, new Set(["A", "B"]))?.planned).toBe("between");
    expect(insidesMoved(steps, new Set(["B"]))).toBeNull();
  });
  it("says of every frame what its own numbers bear, and never which is better where they are alike", () => {
    for (const plan of [
      sizesPlan(),
      drawnPlan(started("ladder", {}, squareTube(60, 4))),
      drawnPlan(started("rectangle", {}, squareTube(30, 2))),
    ]) {
      const trade = drain(insideTrade(plan));
      if (!trade) throw new Error("four mitres have the choice");
      const [last, first, better] = insideTradeWords(trade, "mm");
      expect(last).toContain(`± ${trade.last.squareMm.toFixed(2)}`);
      expect(first).toContain(`flat within ${trade.first.flatMm.toFixed(2)}`);
      for (const [what, a, b] of [
        ["square", trade.last.squareMm, trade.first.squareMm],
        ["flat", trade.last.flatMm, trade.first.flatMm],
      ] as const) {
        const said = new RegExp(`insides (last|first) for ${what}`).exec(better ?? "")?.[1];
        const apart = Math.abs(a - b) / Math.max(a, b);
        expect(said).toBe(apart < 0.1 ? undefined : a < b ? "last" : "first");
      }
    }
  });
  it("calls as in this order what is so in the order that was chosen", () => {
    const plan = (weld: "strength first" | "joint by joint") =>
      ({ ...sizesPlan(), order: { by: "schools", tack: "hinge first", weld } }) as const;
    const words = (weld: "strength first" | "joint by joint") => {
      const trade = drain(insideTrade(plan(weld)));
      return trade ? insideTradeWords(trade, "mm") : [];
    };
    expect(words("strength first")[0]).toMatch(/^Insides of the corners last, all else as it is/);
    expect(words("strength first")[1]).toMatch(/^Insides first, as in this order/);
    expect(words("joint by joint")[0]).toMatch(/^Insides of the corners where this order has them/);
  });
  it("is no question for a frame without four corners", () => {
    expect(drain(insideTrade(drawnPlan(started("A-shaped drawbar"))))).toBeNull();
    // It is asked of just those frames of which there is something to say.
    for (const { name } of STARTERS) {
      const plan = drawnPlan(started(name));
      expect(hasInsideTrade(plan), name).toBe(drain(insideTrade(plan)) !== null);
    }
  });
});

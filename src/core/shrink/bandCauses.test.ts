import { describe, expect, it } from "vitest";
import { ladder, simulationOf, tacksThenBeads } from "../../../tests/support/ladder";
import { drain } from "../numeric";
import { FACTORS } from "../weld";
import { bandCauses, COUPON_LEAVES, couponNarrows, HARDLY } from "./bandCauses";
import { outcomeKey } from "./outcomeId";
import { type SimulationInput, simulate } from "./simulate";

/** The factors once coupons were measured: what is shared by all beads scatters by so much less. */
const learned = Object.fromEntries(
  Object.entries(FACTORS).map(([name, factor]) => [
    name,
    ["transverse", "longitudinal", "filletClosing", "tackHeat", "day", "otherMaterial"].includes(name)
      ? { ...factor, cv: COUPON_LEAVES * factor.cv }
      : factor,
  ]),
) as unknown as typeof FACTORS;

/** So many that what narrows is the frame's, and not chance. */
const MANY = 1000;

describe("what makes a band wide", () => {
  const frames = [ladder(0), ladder(1), ladder(2, { size: "40", wall: "3", depth: "" })];
  it("is true of the frame: with coupons the bands narrow by what it says or more, and else little", () => {
    for (const frame of frames) {
      const { steps } = tacksThenBeads(frame, { mitreTacks: 3, teeTacks: 2, teeBeads: 4 });
      const of = (how: Partial<SimulationInput>) => drain(simulate(simulationOf(frame, steps, how))).outcomes;
      const told = of({});
      const [now, then] = [of({ draws: MANY }), of({ draws: MANY, factors: learned })];
      now.forEach((outcome, i) => {
        if (!["length", "square", "flat", "twist"].includes(outcome.id.kind)) return;
        const [wide, narrow] = [outcome, then[i] ?? outcome].map(({ estimate }) => estimate.high - estimate.low);
        const narrows = 1 - (narrow ?? 0) / (wide ?? 1);
        const said = couponNarrows(told[i] ?? outcome);
        if (said >= HARDLY) expect(narrows, outcomeKey(outcome.id)).toBeGreaterThan(said - 0.03);
        else expect(narrows, outcomeKey(outcome.id)).toBeLessThan(0.2);
      });
    }
  });
  it("is told with its numbers, and nothing is told without draws", () => {
    const [frame] = frames;
    if (!frame) throw new Error("no frame");
    const { steps } = tacksThenBeads(frame, { mitreTacks: 3, teeTacks: 0, teeBeads: 0 });
    const { outcomes } = drain(simulate(simulationOf(frame, steps)));
    const [what, coupons] = bandCauses(outcomes);
    const lengths = outcomes.filter((o) => o.id.kind === "length");
    const share = lengths.reduce((s, o) => s + (o.wide?.heat ?? 0), 0) / lengths.length;
    const said = Number(/lengths: heat that all beads share (\d+) %/.exec(what ?? "")?.[1]);
    expect(Math.abs(said / 100 - share)).toBeLessThan(0.02);
    expect(coupons).toMatch(/lengths by \d+ %.*; that of .*AC less BD little or not at all/);
    expect(bandCauses(drain(simulate(simulationOf(frame, steps, { draws: 0 }))).outcomes)).toEqual([]);
  });
});

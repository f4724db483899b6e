import { describe, expect, it } from "vitest";
import { FREE_FRAMES, LEANING_FRAMES } from "../../../tests/support/drawnFrames";
import { job as jobOf } from "../../../tests/support/jobs";
import { drawnPlan } from "../../../tests/support/plans";
import type { DrawnFrame } from "../frame";
import { drain } from "../numeric";
import { orderKey } from "../plan";
import type { Prediction } from "../shrink";
import { placesOf } from "../square";
import { length } from "../units";
import { builtOf } from "./built";
import { forecasting } from "./evaluate";
import type { Forecast } from "./forecast";
import { laidRoughly } from "./laidRoughly";
import { schoolChoices } from "./orderChoices";
import { worthBy } from "./orderWorth";
import { orderOutlook } from "./outlookByDraws";
import { predict } from "./predict";

const FRAMES: Record<string, DrawnFrame> = { ...FREE_FRAMES, ...LEANING_FRAMES };

describe("how a frame without corners is laid, from what its places are likely to move by", () => {
  it("ends about where it ends when it is laid by the whole set-up shape", () => {
    for (const [name, frame] of Object.entries(FRAMES)) {
      const plan = drawnPlan(frame);
      const job = jobOf([], () => plan);
      const { structure } = builtOf(plan);
      const prediction = predict(plan)?.prediction;
      if (!structure || !prediction) throw new Error(name);
      const places = placesOf(structure);
      const { of } = forecasting(job, prediction);
      const farthest = (all: Forecast[]) => all.find((f) => f.limit.kind === "place")?.cold?.value ?? Number.NaN;
      const nominal = prediction.outcomes.map((o) => ({ ...o, estimate: { ...o.estimate, value: o.nominal } }));
      const laid: Partial<Prediction["setUp"]> = laidRoughly(structure, places, nominal);
      const [whole, roughly] = [farthest(of(prediction.outcomes)), farthest(of(prediction.outcomes, laid))];
      const asDrawn = farthest(of(prediction.outcomes, { offsetsMm: {} }));
      expect(Math.abs(roughly - whole), `${name}: ${roughly}, ${whole}, as drawn ${asDrawn}`).toBeLessThan(
        0.2 + 0.15 * asDrawn,
      );
    }
  });
  it("is what orders are told apart by: the school that few draws favour is about as likely as the likeliest", () => {
    const wide = { lower: length("-2.5"), upper: length("2.5") };
    for (const [name, frame] of Object.entries<DrawnFrame>(LEANING_FRAMES)) {
      const { limits, ...rest } = drawnPlan(frame);
      if (limits.kind !== "own") throw new Error("own limits");
      const plan = { ...rest, limits: { ...limits, length: wide, width: wide } };
      const job = jobOf([], () => plan);
      const worth = worthBy(job);
      const choices = schoolChoices(job);
      const chances = new Map(choices.map((c) => [orderKey(c), drain(orderOutlook(job, c, 200)).chance ?? 0]));
      const best = choices.reduce((a, b) => (worth(b) > worth(a) ? b : a));
      expect(Math.max(...chances.values()) - (chances.get(orderKey(best)) ?? 0), name).toBeLessThan(0.06);
    }
  });
});

import "fake-indexeddb/auto";
import { describe, expect, it } from "vitest";
import { newPlan, predict } from "@/core/job";
import { KeptForecasts } from "./keptForecasts";

const made = (() => {
  const found = predict(newPlan("kept", "mm"));
  if (!found) throw new Error("no prediction");
  return { prediction: found.prediction, replay: found.replay };
})();

describe("forecasts that took long", () => {
  it("are there again as they were, for the plan and the computation that they are of", async () => {
    const kept = new KeptForecasts("one");
    expect(await kept.of("a")).toBeNull();
    await kept.keep("a", made);
    expect(await new KeptForecasts("one").of("a")).toEqual(made);
    expect(await kept.of("b")).toBeNull();
    expect(await new KeptForecasts("two").of("a")).toBeNull();
  });

  it("make room for newer ones, and for those of another computation", async () => {
    const kept = new KeptForecasts("one");
    for (const key of ["a", "b", "c"]) {
      await kept.keep(key, made);
      await new Promise((resolve) => setTimeout(resolve, 2));
    }
    expect(await kept.of("a")).toBeNull();
    expect(await kept.of("b")).toEqual(made);
    expect(await kept.of("c")).toEqual(made);
    const other = new KeptForecasts("two");
    await other.keep("d", made);
    expect(await kept.of("c")).toBeNull();
    expect(await other.of("d")).toEqual(made);
  });

  it("are not kept where nobody knows what made them", async () => {
    const none = new KeptForecasts(null);
    await none.keep("z", made);
    expect(await none.of("z")).toBeNull();
  });
});

import { afterAll, describe, expect, it } from "vitest";
import { newPlan, predict } from "@/core/job";
import { length } from "@/core/units";
import { closePool, keepPrediction, loadPrediction, pool } from "@/store";
import { sized } from "../support/plans";

afterAll(closePool);

describe("predictions in the store", () => {
  it("come back as they were, to their own model alone, and the oldest go first", async () => {
    const prediction = predict(sized(newPlan("Kept", "mm"), { width: length("500") }));
    if (!prediction) throw new Error("no prediction");
    await keepPrediction(pool(), "one", "model a", prediction.prediction, 3);
    expect(await loadPrediction(pool(), "one", "model a")).toEqual(prediction.prediction);
    expect(await loadPrediction(pool(), "one", "model b")).toBeNull();
    expect(await loadPrediction(pool(), "two", "model a")).toBeNull();
    // Kept once more changes nothing.
    await keepPrediction(pool(), "one", "model a", prediction.prediction, 3);
    for (const key of ["two", "three", "four"]) {
      await new Promise((resolve) => setTimeout(resolve, 5));
      await keepPrediction(pool(), key, "model a", prediction.prediction, 3);
    }
    expect(await loadPrediction(pool(), "one", "model a")).toBeNull();
    expect(await loadPrediction(pool(), "four", "model a")).not.toBeNull();
  });
});

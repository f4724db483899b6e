import { afterAll, describe, expect, it } from "vitest";
import { newPlan } from "@/core/job";
import { length } from "@/core/units";
import { forecastOf } from "@/server/predictions";
import { closePool } from "@/store";
import { largeFrame } from "../support/largeFrame";
import { sizesPlan, withDrawn } from "../support/plans";

afterAll(closePool);

describe("the forecast that a file is made with", () => {
  it("of a frame that takes minutes is not waited for, and nothing else waits behind it", async () => {
    const large = withDrawn(newPlan("large", "mm"), largeFrame(49));
    const refused = await forecastOf(large, 50);
    expect(refused).toMatchObject({ ok: false, status: 503 });
    expect(!refused.ok && refused.message).toMatch(/of 94 joints takes minutes.*again later/);
    // Asked for again it is the one that is under way.
    let isReady = false;
    const again = forecastOf(large, 600_000).finally(() => {
      isReady = true;
    });
    const small = await forecastOf(newPlan("small", "mm"));
    expect(small.ok && small.value?.outcomes.length).toBeGreaterThan(4);
    expect(isReady).toBe(false);
    const found = await again;
    expect(found.ok && found.value?.outcomes.length).toBeGreaterThan(50);
    expect(await forecastOf(large, 2000)).toEqual(found);
  }, 300_000);
  it("is none while the plan has errors", async () => {
    expect(await forecastOf(sizesPlan({ length: length("10") }))).toEqual({ ok: true, value: null });
  });
});

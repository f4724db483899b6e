import { describe, expect, it } from "vitest";
import { length } from "@/core/units";
import { job as jobOf } from "../../../tests/support/jobs";
import { coldKey } from "./coldKey";

describe("what follows from a cold frame", () => {
  const job = jobOf([]);
  const { plan } = job;

  it("is worked out again when anything changes that it hangs on, saved or not", () => {
    const others = [
      { ...plan, units: "inch-fraction" as const },
      { ...plan, units: "inch-decimal" as const },
      { ...plan, held: { lies: "weight" as const } },
      { ...plan, weld: { ...plan.weld, tackLength: length("12") } },
      ...(plan.limits.kind === "own" ? [{ ...plan, limits: { ...plan.limits, flat: length("1") } }] : []),
    ].map((p) => coldKey({ ...job, plan: p }));
    expect(others).toHaveLength(5);
    expect(new Set([coldKey(job), ...others]).size).toBe(6);
  });

  it("is kept when only a name changes", () => {
    expect(coldKey({ ...job, plan: { ...plan, name: "Another name" } })).toBe(coldKey(job));
  });
});

import { describe, expect, it } from "vitest";
import { job } from "../../../tests/support/jobs";
import { builtOf, type Plan, predict, settingsWords, weldOf } from "../job";
import { loadSteps } from "../plan";
import { heatJPerMm } from "./heat";
import { isUnsure, processesOf, seamHow, settingsBy, withSeamHow } from "./seamHow";
import { seamShare, startingSettings } from "./starting";

const { plan } = job([]);
const place = { do: "bead", joint: "A", line: "top" } as const;
const heats = (p: Plan): Map<string, number> => {
  const { structure, order } = builtOf(p);
  if (!structure || !order) throw new Error("no frame");
  return new Map(
    loadSteps(structure, weldOf(p), order.steps).flatMap((s) =>
      s.do === "tack" || s.do === "bead" ? [[s.id, s.heatJPerMm ?? Number.NaN] as const] : [],
    ),
  );
};

describe("how a single weld is laid", () => {
  it("by another process has the heat of that one's settings, and every other weld is as it was", () => {
    const other: Plan = { ...plan, weld: { ...plan.weld, seams: withSeamHow(undefined, place, { process: "TIG" }) } };
    const [before, after] = [heats(plan), heats(other)];
    const tig = heatJPerMm({ process: "TIG", ...startingSettings("TIG", 3) });
    for (const [key, heat] of after)
      if (key === "bead/A/top") expect(heat).toBeCloseTo(tig * seamShare("groove", "flat"), 9);
      else expect(heat, key).toBe(before.get(key));
    expect(processesOf(weldOf(other))).toEqual(["MAG", "TIG"]);
    expect(settingsWords(other)).toMatch(/some beads by TIG/);
  });
  it("of all tacks by another process changes the tacks alone, and the prediction with them", () => {
    const tacked: Plan = { ...plan, weld: { ...plan.weld, tackProcess: "TIG" } };
    const [before, after] = [heats(plan), heats(tacked)];
    for (const [key, heat] of after)
      if (key.startsWith("tack/")) expect(heat).toBeGreaterThan(1.05 * (before.get(key) ?? 0));
      else expect(heat, key).toBe(before.get(key));
    const flat = (p: Plan) => predict(p)?.prediction.outcomes.map((o) => o.nominal);
    expect(flat(tacked)).not.toEqual(flat(plan));
  });
  it("goes by what was read of that process, and is as unsure as the settings that were not", () => {
    const read = { volts: 20, amps: 150, travelMmPerS: 5, from: "machine" as const };
    const weld = weldOf({
      ...plan,
      weld: { ...plan.weld, ...read, tackProcess: "TIG", others: [{ id: "TIG", ...read, amps: 99 }] },
    });
    expect(settingsBy(weld, "TIG").amps).toBe(99);
    expect(isUnsure(weld)).toBe(false);
    expect(isUnsure(weldOf({ ...plan, weld: { ...plan.weld, ...read, tackProcess: "TIG" } }))).toBe(true);
    expect(() => settingsBy(weld, "stick")).toThrow(RangeError);
  });
  it("is forgotten when it is laid as the others are", () => {
    const one = withSeamHow(undefined, place, { lengths: 3, turned: true });
    expect(seamHow({ seams: one }, place)).toMatchObject({ lengths: 3, turned: true });
    const two = withSeamHow(one, place, { turned: undefined });
    expect(seamHow({ seams: two }, place).lengths).toBe(3);
    expect(withSeamHow(two, place, { lengths: undefined })).toBeUndefined();
  });
});

import { describe, expect, it } from "vitest";
import { good } from "../../../tests/support/corner";
import { weldedModel } from "../weld";

const product = (entries: readonly [number, number, number][], n: number, v: Float64Array): Float64Array => {
  const out = new Float64Array(n);
  for (const [i, j, k] of entries) out[i] = (out[i] ?? 0) + k * (v[j] ?? 0);
  return out;
};

describe("a frame as beams and springs", () => {
  const model = weldedModel(good);
  it("has a node of each member at each of its points, and one spring per joint", () => {
    expect(model.nodes.map((n) => `${n.member} ${n.point}`)).toEqual([
      "LA P",
      "LA M",
      "LA A",
      "LB P",
      "LB B",
      "TT M",
      "TT T",
    ]);
    expect(model.freedoms).toBe(42);
    expect(model.joints.map((j) => j.id)).toEqual(["J", "K"]);
    expect(() => model.nodeOf("LA", "Z")).toThrow(/no point Z/);
  });
  it("takes no force to be moved as a whole, and every joint opens by nothing", () => {
    for (const motion of model.hold) {
      const force = product(model.entries, model.freedoms, motion);
      for (const f of force) expect(Math.abs(f)).toBeLessThan(1e-4);
      for (const joint of model.joints)
        for (const row of joint.rows) {
          const opened = row.at.reduce((s, i, k) => s + (row.value[k] ?? 0) * (motion[i] ?? 0), 0);
          expect(Math.abs(opened)).toBeLessThan(1e-9);
        }
    }
    expect(model.hold).toHaveLength(6);
  });
  it("is stiff in tension by E A / L, closed form", () => {
    const { entries, freedoms } = model;
    const pulled = new Float64Array(freedoms);
    pulled[6 * model.nodeOf("LB", "B") + 1] = 1;
    const force = product(entries, freedoms, pulled);
    expect(force[6 * model.nodeOf("LB", "B") + 1]).toBeCloseTo((210_000 * 564) / 500, 3);
  });
});

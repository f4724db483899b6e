import { describe, expect, it } from "vitest";

import { built } from "../../../tests/support/ladder";
import { rectangle } from "../../../tests/support/plans";
import type { Rectangle } from "../frame";
import { type Instrument, SHELF } from "../instruments";
import { newPlan } from "../job";
import { REAL_CORNERS_MM } from "../square";
import { length } from "../units";
import { conformity } from "./conformity";
import { resolveLimits } from "./limits";
import { provable, slipsThatShow } from "./provable";

const plan = newPlan("x", "mm");
const cornersOf = (change: Partial<Rectangle>) => {
  const { quad } = built(rectangle(change));
  if (!quad) throw new Error("no corners");
  return quad;
};
const of = (change: Partial<Rectangle>, limits = plan.limits) => {
  const quad = cornersOf(change);
  return provable(quad.corners, resolveLimits(limits, quad, quad), SHELF);
};
const own = plan.limits.kind === "own" ? plan.limits : null;
if (!own) throw new Error("own limits expected");
const can = (list: ReturnType<typeof provable>, id: string) =>
  Object.fromEntries(list.find((p) => p.limit.id === id)?.proofs.map((p) => [p.instrument.id, p.can]) ?? []);

describe("what can be proven before measuring", () => {
  it("is what a perfect frame would be told: no means that even it is too close to call", () => {
    const tight = of({}, { ...own, flat: length("0.1"), square: { as: "diagonal", limit: length("0.5") } });
    for (const { limit, proofs } of tight)
      for (const { uncertainty, can: word } of proofs) {
        const perfect = conformity(limit.nominal, uncertainty / 2, limit.lower, limit.upper, limit.nonnegative);
        if (word === "no") expect(perfect.verdict).not.toBe("pass");
        else expect(perfect.verdict).toBe("pass");
      }
    expect(tight.flatMap((p) => p.proofs.map((x) => x.can))).toContain("no");
    expect(tight.flatMap((p) => p.proofs.map((x) => x.can))).toContain("yes");
  });
  it("asks a tape for lengths and a gauge for heights, and no calliper for a metre", () => {
    const list = of({});
    expect(Object.keys(can(list, "AB"))).toContain("tape-ii");
    expect(Object.keys(can(list, "AB"))).not.toContain("calliper");
    expect(Object.keys(can(list, "flat"))).toContain("height-gauge");
    expect(Object.keys(can(list, "flat"))).not.toContain("tape-ii");
  });
  it("offers nothing that cannot reach: no surface plate for five metres, unless the card says how far it reaches", () => {
    const long = { length: length("5200"), width: length("2200") };
    const flat = (shelf: readonly Instrument[]) => {
      const quad = cornersOf(long);
      return provable(quad.corners, resolveLimits(plan.limits, quad, quad), shelf)
        .find((p) => p.limit.id === "flat")
        ?.proofs.map((p) => p.instrument.id);
    };
    expect(flat(SHELF)).toEqual(["level-rod"]);
    const plate = { ...(SHELF.find((i) => i.id === "plate-balls") as Instrument), reachMm: 6000 };
    expect(flat([plate])).toEqual(["plate-balls"]);
    expect(Object.keys(can(of({ length: length("600"), width: length("400") }), "flat"))).toContain("plate-balls");
  });
  it("says what would do where nothing on the shelf does", () => {
    const tight = of({}, { ...own, square: { as: "diagonal", limit: length("0.2") } });
    const square = tight.find((p) => p.limit.id === "square");
    expect(square?.proofs.every((p) => p.can === "no")).toBe(true);
    // 0.4 wide over 4 x 1.6.
    expect(square?.wouldDo).toBeCloseTo(0.0625, 9);
  });
  it("says how small a misread tape shows: about 4 mm on a diagonal, 6 on a square's side, where tape and corners come to 0.5 mm (notes of the trade)", () => {
    const half = {
      id: "t",
      name: "t",
      kind: "tape",
      resolutionMm: (Math.sqrt(0.5 ** 2 - REAL_CORNERS_MM ** 2) * Math.sqrt(12)) / Math.SQRT2,
      handlingMm: 0,
      zeroMm: 0,
      scaleMmPerM: 0,
    } as const;
    const square = cornersOf({ length: length("1000"), width: length("1000") }).corners;
    const slips = slipsThatShow(square, half);
    expect(slips?.diagonalMm).toBeCloseTo(4.1, 0);
    expect(slips?.sideMm).toBeCloseTo(5.8, 0);
    // 6 x 0.5 m: a slip on the short side hides up to 50 mm.
    const thin = cornersOf({ length: length("6000"), width: length("500") }).corners;
    expect(slipsThatShow(thin, half)?.sideMm).toBeGreaterThan(40);
    expect(["BC", "DA"]).toContain(slipsThatShow(thin, half)?.side);
    expect(slipsThatShow(thin, { ...half, kind: "calliper" })).toBeNull();
  });
  it("lets a limit that is open to one side be proven by anything that reads it", () => {
    const open = of({}, { ...own, length: { lower: null, upper: length("1") } });
    expect(new Set(Object.values(can(open, "AB")))).toEqual(new Set(["yes"]));
  });
});

import { describe, expect, it } from "vitest";
import { conformity } from "./conformity";
import type { LimitVerdict } from "./verdicts";
import { overall, verdicts } from "./verdicts";

const limit = {
  id: "flat",
  kind: "flat",
  label: "Out of flat",
  nominal: 0,
  lower: null,
  upper: 2,
  unit: "mm",
  nonnegative: true,
  source: "test",
} as LimitVerdict["limit"];
const verdict = (value: number | null): LimitVerdict => ({
  limit,
  measured: value === null ? null : { value, u: 0.1 },
  result: value === null ? null : conformity(value, 0.1, null, 2, true),
  why: "",
});

describe("a frame against all of its limits", () => {
  it("is as good as its worst one, and nothing better than not measured while one is unread", () => {
    expect(overall([verdict(0.5), verdict(1)])).toBe("pass");
    expect(overall([verdict(0.5), verdict(1.95)])).toBe("too close to call");
    expect(overall([verdict(0.5), verdict(null)])).toBe("not measured");
    expect(overall([verdict(3), verdict(null)])).toBe("fail");
    expect(overall([])).toBe("not measured");
  });
  it("says by how much each is inside or outside, and beside it the very figure that it was held against", () => {
    for (const units of ["mm", "inch-fraction"] as const)
      for (const value of [0.5, 1.8, 1.82, 1.9, 1.99, 2.05, 2.18, 2.5]) {
        const said = verdicts([limit], { sides: {}, square: null, flatMm: { value, u: 0.1 } }, units)[0];
        const figures = said?.why.match(
          /(Inside|Outside) by ([\d.]+) \w+; a reading so uncertain is (sure from|sure only from) ([\d.]+)/,
        );
        const [, side, by, compared, needed] = figures ?? [];
        expect(side === "Inside", said?.why).toBe(value <= 2);
        expect(compared === "sure from").toBe(Number(by) >= Number(needed));
        expect(compared === "sure from").toBe(said?.result?.verdict !== "too close to call");
      }
  });
});

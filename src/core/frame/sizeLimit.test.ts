import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { built } from "../../../tests/support/ladder";
import { rectangle } from "../../../tests/support/plans";
import { length } from "../units";
import { fits, splitForSize } from "./sizeLimit";

describe("a frame and the room that it must go into", () => {
  it("fits whichever way both are turned, or not at all", () => {
    const size = fc.tuple(
      fc.integer({ min: 1, max: 3000 }),
      fc.integer({ min: 1, max: 3000 }),
      fc.integer({ min: 1, max: 3000 }),
    );
    fc.assert(
      fc.property(size, size, ([a, b, c], room) => {
        expect(fits([c, a, b], room)).toBe(fits([a, b, c], room));
      }),
    );
    expect(fits([100, 200, 300], [300, 100, 200])).toBe(true);
    expect(fits([100, 200, 301], [300, 100, 200])).toBe(false);
  });
  it("is parted across its length into pieces that each go in, away from rungs", () => {
    const rungs = [700, 1400, 2100, 2800].map((mm, i) => ({ id: `M${i + 1}`, at: length(String(mm)) }));
    const structure = built(rectangle({ length: length("3500"), width: length("900"), cross: rungs }));
    expect(splitForSize(structure, [4000, 1000, 200])).toBeNull();
    const plan = splitForSize(structure, [2000, 1000, 200]);
    expect(plan?.axis).toBe("x");
    const at = [0, ...(plan?.at ?? []), 3500];
    for (let i = 1; i < at.length; i++) expect((at[i] ?? 0) - (at[i - 1] ?? 0)).toBeLessThanOrEqual(2000);
    for (const x of plan?.at ?? [])
      for (const m of [700, 1400, 2100, 2800]) expect(Math.abs(x - m)).toBeGreaterThan(60);
    for (const cut of plan?.cuts ?? []) expect(cut.sort()).toEqual(["AB", "CD"]);
  });
});

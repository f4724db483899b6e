import { describe, expect, it } from "vitest";
import { flatness } from "./flatness";
import { fourCorners } from "./fourCorners";

describe("four corners", () => {
  it("rock by their twist and are out of flat by half of it, as the minimum zone says", () => {
    const z = { A: 0.4, B: 0, C: 1, D: 0.2 };
    const found = fourCorners(z, 0.1);
    expect(found).toMatchObject({ highPair: "AC" });
    expect(found.twistMm).toBeCloseTo(1.2, 12);
    expect(found.rockMm).toBeCloseTo(1.2, 12);
    const zone = flatness(
      [
        { x: 0, y: 0 },
        { x: 900, y: 0 },
        { x: 900, y: 500 },
        { x: 0, y: 500 },
      ],
      [z.A, z.B, z.C, z.D],
      0.1,
    );
    expect(found.flatnessMm).toBeCloseTo(zone.zoneMm ?? 0, 5);
    // Four readings of u each, with signs: 2 u.
    expect(found.uTwistMm).toBeCloseTo(0.2, 12);
  });
  it("say which pair is high, or neither", () => {
    expect(fourCorners({ A: 0, B: 1, C: 0, D: 0 }, 0.1).highPair).toBe("BD");
    expect(fourCorners({ A: 1, B: 2, C: 2, D: 1 }, 0.1).highPair).toBe("none");
  });
});

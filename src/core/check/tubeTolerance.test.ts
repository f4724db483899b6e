import { describe, expect, it } from "vitest";
import { squareTube, started } from "../../../tests/support/drawnFrames";
import { built } from "../../../tests/support/ladder";
import { rectangle } from "../../../tests/support/plans";
import { resolveStructure } from "../frame";
import { tubeFits } from "./tubeTolerance";

const flat = built(rectangle());

describe("what the tube itself brings", () => {
  it("is told by the standard of its units, with what it does to a fit", () => {
    const metric = tubeFits(flat, "mm");
    expect(metric.map((f) => f.standard)).toEqual(Array.from({ length: 4 }, () => "EN 10219-2"));
    // 40 mm: 1 %, at least 0.5; twist 2 mm + 0.5 mm/m; straightness 0.15 %.
    expect(metric.map((f) => +f.limitMm.toFixed(3))).toEqual([0.5, 1.5, 2.5, 0.698]);
    expect(metric[0]?.does).toContain("1.0 mm");
    expect(tubeFits(flat, "inch-fraction")[0]).toMatchObject({ standard: "ASTM A500", limitMm: 0.02 * 25.4 });
  });
  it("is not told of what these standards are not about: angle, round tube, stainless, aluminium", () => {
    for (const other of [
      { shape: "angle" as const },
      { shape: "round tube" as const },
      { material: "stainless 304" as const },
      { material: "aluminium 6061" as const },
    ])
      expect(
        tubeFits(resolveStructure(started("rectangle", {}, { ...squareTube(), ...other })).structure, "mm"),
      ).toEqual([]);
  });
});

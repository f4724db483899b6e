import { describe, expect, it } from "vitest";
import { length } from "../units";
import type { DrawnSection } from "./drawnSchema";
import { sectionWords } from "./sectionWords";

const of = (shape: DrawnSection["shape"], [width, height, wall]: [string, string, string], unit: "mm" | "in") =>
  sectionWords(
    {
      sections: [
        {
          id: "S1",
          shape,
          profile: null,
          width: length(width, unit),
          height: length(height, unit),
          wall: length(wall, unit),
          material: "mild steel",
        },
      ],
    },
    "S1",
  );

describe("what a section is called", () => {
  it("is its sizes in the unit that they were said in, the wall as thin as it was said", () => {
    expect(of("tube", ["40", "40", "3"], "mm")).toBe("tube 40×40×3");
    expect(of("tube", ["25", "25", "1.65"], "mm")).toBe("tube 25×25×1.65");
    expect(of("tube", ["1 1/2", "1 1/2", "0.083"], "in")).toBe("tube 1 1/2×1 1/2×0.083 in");
    expect(of("round tube", ["1.315", "1.315", "0.133"], "in")).toBe("round tube 1.315×0.133 in");
    expect(of("flat", ["2", "1/4", "1/4"], "in")).toBe("flat 2×1/4 in");
    expect(of("bar", ["1/2", "1/2", "1/4"], "in")).toBe("round bar 1/2 in");
    expect(of("bar", ["12", "12", "6"], "mm")).toBe("round bar 12 mm");
  });
});

import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { inRuns } from "./inRuns";

describe("names in runs", () => {
  it("tell what is counted on by its ends, and everything else by its name", () => {
    expect(inRuns(["AB", "CD", "E1", "E3", "J1", "J3"])).toBe("AB, CD, E1, E3, J1, J3");
    expect(inRuns(["M1", "M2", "M3", "M4"])).toBe("M1 to M4");
    expect(inRuns(["L1", "L2"])).toBe("L1, L2");
    expect(inRuns(["AB", "M1", "M2", "M3", "N4", "N5"])).toBe("AB, M1 to M3, N4, N5");
    expect(inRuns([])).toBe("");
  });
  it("hold every name and no other", () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.tuple(fc.constantFrom("A", "M"), fc.integer({ min: 1, max: 12 })), {
          selector: (x) => x.join(""),
        }),
        (list) => {
          const names = list.map(([letter, n]) => `${letter}${n}`);
          const told = inRuns(names)
            .split(", ")
            .filter((part) => part !== "")
            .flatMap((part) => {
              const [from, to] = part.split(" to ") as [string, string?];
              const last = Number((to ?? from).slice(1));
              return Array.from(
                { length: last - Number(from.slice(1)) + 1 },
                (_, i) => `${from[0]}${Number(from.slice(1)) + i}`,
              );
            });
          expect(told).toEqual(names);
        },
      ),
    );
  });
});

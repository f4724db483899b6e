import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { conformity } from "./conformity";

describe("conformity", () => {
  it("never passes and fails the same reading, and is monotone in the guard", () => {
    fc.assert(
      fc.property(
        fc.double({ min: -5, max: 5, noNaN: true }),
        fc.double({ min: 0.01, max: 2, noNaN: true }),
        (y, u) => {
          const wide = conformity(y, u, -1.5, 1.5);
          const fine = conformity(y, u / 10, -1.5, 1.5);
          if (wide.verdict === "pass") expect(fine.verdict).toBe("pass");
          if (wide.verdict === "fail") expect(fine.verdict).toBe("fail");
          expect(wide.pc).toBeGreaterThanOrEqual(0);
          expect(wide.pc).toBeLessThanOrEqual(1);
        },
      ),
    );
  });
  it("takes one open side", () => {
    expect(conformity(1, 0.1, null, 2).verdict).toBe("pass");
    expect(conformity(1, 0.1, 2, null).verdict).toBe("fail");
    expect(conformity(1.95, 0.1, null, 2).verdict).toBe("too close to call");
  });
});

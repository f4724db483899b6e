import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { Groups } from "./groups";

describe("groups", () => {
  it("two are in one group just when joins lead from one to the other", () => {
    const pair = fc.tuple(fc.nat(11), fc.nat(11));
    fc.assert(
      fc.property(fc.array(pair, { maxLength: 14 }), (joins) => {
        const ids = Array.from({ length: 12 }, (_, i) => `M${i}`);
        const groups = new Groups(ids);
        for (const [a, b] of joins) groups.join(`M${a}`, `M${b}`);
        // By walking from one to the next until nothing new is reached.
        const reached = (from: number): Set<number> => {
          const seen = new Set([from]);
          for (let size = 0; size < seen.size; ) {
            size = seen.size;
            for (const [a, b] of joins)
              if (seen.has(a) || seen.has(b)) {
                seen.add(a);
                seen.add(b);
              }
          }
          return seen;
        };
        for (let a = 0; a < 12; a++)
          for (let b = 0; b < 12; b++) expect(groups.of(`M${a}`) === groups.of(`M${b}`)).toBe(reached(a).has(b));
      }),
    );
  });
});

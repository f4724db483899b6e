import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { frontier } from "./frontier";

const outlook = fc.record({
  chance: fc.option(fc.double({ min: 0, max: 1, noNaN: true }), { freq: 6 }),
  totalS: fc.integer({ min: 60, max: 20_000 }),
});

describe("orders that no other beats both ways", () => {
  it("are each likelier than every quicker one, and none that is left out beats them", () => {
    fc.assert(
      fc.property(fc.array(outlook, { maxLength: 20 }), fc.constantFrom(0, 0.02), (all, equal) => {
        const kept = frontier(all, equal);
        kept.forEach((o, i) => {
          const before = kept[i - 1];
          if (before) {
            expect(o.totalS).toBeGreaterThanOrEqual(before.totalS);
            expect(o.chance ?? 0).toBeGreaterThanOrEqual((before.chance ?? 0) + equal);
          }
        });
        for (const o of all.filter((x) => x.chance !== null)) {
          if (kept.includes(o)) continue;
          const quicker = kept.filter((k) => k.totalS <= o.totalS);
          expect(Math.max(...quicker.map((k) => k.chance ?? 0))).toBeGreaterThan((o.chance ?? 0) - equal - 1e-12);
        }
        expect(kept.length > 0).toBe(all.some((o) => o.chance !== null));
      }),
    );
  });
});

import { describe, expect, it } from "vitest";
import { couponAsRead } from "./couponAsRead";
import { FRAME_COUPONS } from "./couponPlan";
import { frameTeachingOf } from "./frameLesson";
import { newPlan } from "./plan";

describe("what a small frame would tell, before it is cut", () => {
  it("is told for each, in either system, and more by a finer instrument", () => {
    for (const units of ["mm", "inch-fraction"] as const)
      for (const kind of FRAME_COUPONS) {
        const told = (instrument: string): Record<string, number> => {
          const answer = frameTeachingOf(couponAsRead(kind, newPlan(kind, units), instrument));
          if (!answer.ok) throw new Error(`${kind}, ${units}: ${answer.why}`);
          return answer.taught.narrowedTo;
        };
        const [coarse, fine] = [told("tape-ii"), told("calliper")];
        expect(Object.keys(coarse).length).toBeGreaterThan(2);
        for (const [factor, share] of Object.entries(coarse)) {
          expect(share).toBeLessThanOrEqual(1 + 1e-9);
          expect(fine[factor] ?? 2).toBeLessThanOrEqual(share + 1e-9);
        }
        expect(Math.min(...Object.values(fine))).toBeLessThan(0.97);
      }
  });
});

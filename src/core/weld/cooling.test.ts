import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { ladder } from "../../../tests/support/ladder";
import {
  COLD_RISE_K,
  type CoolingJoint,
  coolingJoint,
  LOSS_W_PER_MM2_K,
  riseK,
  secondsUntil,
  TOUCH_RISE_K,
} from "./cooling";

/** A mitre of square steel tube, as the constants of the table below have it. */
const mitre = (width: number, height: number, wall: number): CoolingJoint => ({
  areaMm2: 2 * wall * (width + height - 2 * wall),
  depthMm: wall,
  arms: 2,
  heatJPerMm3K: 4e-3,
  conductsWPerMmK: 0.045,
});

/** Lambert's W by Newton's steps, for the closed form of one bead. */
function lambertW(x: number): number {
  let w = Math.log(1 + x);
  for (let i = 0; i < 60; i++) w -= (w * Math.exp(w) - x) / (Math.exp(w) * (w + 1));
  return w;
}

describe("a joint that cools", () => {
  it("takes as long as the closed form says: t = W(2 B (C / dT)^2) / (2 B)", () => {
    for (const [w, h, t, jPerMm] of [
      [40, 40, 3, 346],
      [25, 25, 1.6, 150],
      [100, 50, 4, 460],
    ] as const) {
      const joint = mitre(w, h, t);
      const energyJ = jPerMm * w;
      const b = LOSS_W_PER_MM2_K / (joint.heatJPerMm3K * t);
      const a = joint.conductsWPerMmK / joint.heatJPerMm3K;
      const c = energyJ / (joint.heatJPerMm3K * joint.areaMm2 * Math.sqrt(4 * Math.PI * a));
      const closed = lambertW(2 * b * (c / TOUCH_RISE_K) ** 2) / (2 * b);
      expect(secondsUntil(joint, [{ atS: 0, energyJ }], 0, TOUCH_RISE_K)).toBeCloseTo(closed, 3);
    }
  });

  // Minutes to 50 C in air of 20 C: closed form, one bead, two and all four of a mitre at once; one-dimensional numerical
  // solutions with a loss that grows with temperature lie within 20 % of these.
  it.each([
    [40, 40, 3, 346, [4.2, 8.7, 16.2]],
    [25, 25, 1.6, 150, [2.5, 5.0, 9.1]],
    [100, 50, 4, 460, [6.5, 12.8, 20.2]],
  ] as const)("agrees with worked figures: tube %i x %i x %f", (w, h, t, jPerMm, minutes) => {
    const joint = mitre(w, h, t);
    // The first two on the broad faces, the others on the narrow ones.
    [w, 2 * w, 2 * (w + h)].forEach((beadMm, i) => {
      const pulses = [{ atS: 0, energyJ: jPerMm * beadMm }];
      const found = secondsUntil(joint, pulses, 0, TOUCH_RISE_K) / 60;
      expect(found / (minutes[i] ?? Number.NaN), `${beadMm} mm`).toBeGreaterThan(0.8);
      expect(found / (minutes[i] ?? Number.NaN), `${beadMm} mm`).toBeLessThan(1.25);
    });
  });

  it("keeps its heat: what lies in long rods and what left their surface is what went in", () => {
    const joint = mitre(40, 40, 3);
    const energyJ = 10_000;
    const a = joint.conductsWPerMmK / joint.heatJPerMm3K;
    const b = LOSS_W_PER_MM2_K / (joint.heatJPerMm3K * joint.depthMm);
    for (const t of [30, 300, 900]) {
      const middle = riseK(joint, [{ atS: 0, energyJ }], t);
      // Over the rods the rise falls off as exp(-x2 / 4at): its integral is closed.
      const left = joint.heatJPerMm3K * joint.areaMm2 * middle * Math.sqrt(4 * Math.PI * a * t);
      expect(left / energyJ).toBeCloseTo(Math.exp(-b * t), 9);
    }
  });

  it("is warmer with more heat, cooler with time, and waits the longer the more was welded", () => {
    const structure = ladder(1);
    const joints = structure.joints.map((j) => coolingJoint(structure, j));
    fc.assert(
      fc.property(
        fc.nat(joints.length - 1),
        fc.array(fc.record({ atS: fc.integer({ min: 0, max: 600 }), energyJ: fc.integer({ min: 500, max: 30_000 }) }), {
          minLength: 1,
          maxLength: 6,
        }),
        (i, pulses) => {
          const joint = joints[i] as CoolingJoint;
          expect(riseK(joint, pulses, 1300)).toBeLessThan(riseK(joint, pulses, 700));
          const wait = secondsUntil(joint, pulses, 600, TOUCH_RISE_K);
          expect(
            secondsUntil(joint, [...pulses, { atS: 500, energyJ: 9000 }], 600, TOUCH_RISE_K),
          ).toBeGreaterThanOrEqual(wait);
          expect(secondsUntil(joint, pulses, 600, COLD_RISE_K)).toBeGreaterThanOrEqual(wait);
          expect(secondsUntil(joint, pulses, 600 + wait, TOUCH_RISE_K)).toBeLessThan(1);
        },
      ),
    );
  });

  it("runs away in three rods of a tee sooner than in two of a mitre", () => {
    const structure = ladder(1);
    const of = (kind: string) => {
      const joint = structure.joints.find((j) => j.kind === kind);
      if (!joint) throw new Error(kind);
      return coolingJoint(structure, joint);
    };
    const pulses = [{ atS: 0, energyJ: 14_000 }];
    const ratio = secondsUntil(of("tee"), pulses, 0, TOUCH_RISE_K) / secondsUntil(of("mitre"), pulses, 0, TOUCH_RISE_K);
    expect(ratio).toBeGreaterThan(0.5);
    expect(ratio).toBeLessThan(0.8);
  });
});

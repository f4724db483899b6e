import { describe, expect, it } from "vitest";
import { built, ladder } from "../../../tests/support/ladder";
import { rectangle } from "../../../tests/support/plans";
import { bedVerdict } from "../check";
import type { Structure } from "../frame";
import { restsUnder } from "../job";
import { length } from "../units";
import { footprint } from "./footprint";
import { onThreeRests } from "./lying";
import "./footprint";
import { lying } from "./lying";

const over = footprint(ladder(1));
if (!over) throw new Error("no footprint");
const frame = over;
const rests = [
  { id: "R1", x: 25, y: 25 },
  { id: "R2", x: frame.lengthMm - 25, y: 25 },
  { id: "R3", x: frame.lengthMm - 25, y: frame.widthMm - 25 },
  { id: "R4", x: 25, y: frame.widthMm - 25 },
];
const on = (h: number[], k: number | null = null) =>
  lying(rests, Object.fromEntries(rests.map((r, i) => [r.id, h[i] as number])), frame, k, "mm");

describe("how a frame lies on its rests", () => {
  it("steady on a plane; with one rest low it stands on three and says the gap and the push", () => {
    expect(on([0, 0, 0, 0])?.say[0]).toMatch(/does not rock/);
    const low = on([0, 0, 0, -0.5])?.say ?? [];
    expect(low.join(" ")).toMatch(/It rocks by itself between R1, R2, R3 and R1, R3, R4/);
    const off = lying(
      rests.map((r) => (r.id === "R3" ? { ...r, x: r.x - 60 } : r)),
      { R1: 0, R2: 0, R3: 0, R4: -0.5 },
      frame,
      null,
      "mm",
    );
    expect(off?.say.join(" ")).toMatch(
      /It stands on R1, R2, R3; gaps: R4 0\.\d\d mm\. A push of \d+ kg on R4 rocks it/,
    );
  });
  it("falls when its weight is outside, and says nothing of rests that were not read", () => {
    const aside = rests.map((r) => ({ ...r, x: r.x + 3000 }));
    expect(lying(aside, { R1: 0, R2: 0, R3: 0, R4: 0 }, frame, null, "mm")?.say[0]).toMatch(/outside the rests/);
    expect(lying(rests, { R1: 0, R2: 0, R3: 0 }, frame, null, "mm")).toBeNull();
  });
  it("a stiffer frame closes less of its gap: by weight over four times the stiffness", () => {
    expect(on([0, 0, 0, 0], 10)?.say.join(" ")).toMatch(
      new RegExp(`${((frame.massKg * 9.80665) / 40).toFixed(2)} mm by its own`),
    );
  });
});

describe("three rests out of those at hand", () => {
  const flat = built(rectangle());
  const under = (structure: Structure, count: 3 | 4 | 6) => {
    const over = footprint(structure);
    if (!over) throw new Error("no footprint");
    return placed(restsUnder(over, count, "mm"));
  };
  const placed = (rests: ReturnType<typeof restsUnder>) => rests.map((r) => ({ id: r.id, x: r.x.mm, y: r.y.mm }));
  it("hold the weight well inside, and the frame hardly sags between them", () => {
    const three = onThreeRests(under(flat, 6), flat);
    expect(three?.rests).toHaveLength(3);
    expect(three?.marginMm).toBeGreaterThan(0.05 * 600);
    expect(three?.sagMm).toBeGreaterThan(0);
    expect(three?.sagMm).toBeLessThan(0.2);
  });
  it("sag more under a longer frame, as its fourth power says", () => {
    const long = built(rectangle({ length: length("4000") }));
    const [short3, long3] = [flat, long].map((f) => onThreeRests(under(f, 6), f)?.sagMm ?? 0);
    expect(long3).toBeGreaterThan(20 * (short3 ?? 0));
  });
  it("are all that is needed: with only three, the bed is judged by how the frame hangs and how it slopes", () => {
    const rests = under(flat, 3);
    const three = onThreeRests(rests, flat);
    const verdict = (z: number[], level: number | null) =>
      bedVerdict(
        rests,
        {
          points: rests.map((r) => r.id),
          heightsMm: Object.fromEntries(rests.map((r, i) => [r.id, z[i] as number])),
          cov: [0, 1, 2].map((i) => [0, 1, 2].map((j) => (i === j ? 0.01 : 0))),
          levelKnown: true,
        },
        2,
        level,
        { by: "shims", mode: "level", pitchMm: 1.5, thread: "right" },
        "mm",
        three,
      );
    expect(three?.rests).toEqual(["R1", "R2", "R3"]);
    expect(verdict([0, 7, -4], null).word).toBe("good on three rests");
    expect(verdict([0, 0, 0.1], 2).word).toBe("good on three rests");
    expect(verdict([0, 7, -4], 2)).toMatchObject({
      word: "not good",
      why: expect.stringMatching(/slopes .* mm\/m of 2/),
    });
  });
  it("are none where its weight lies outside or on their edge", () => {
    const side = under(flat, 6).filter((r) => r.y < 600 / 2);
    expect(onThreeRests(side, flat)).toBeNull();
    expect(onThreeRests(under(flat, 4).slice(0, 2), flat)).toBeNull();
    // Of four corners any three have the weight on their longest side.
    expect(onThreeRests(under(flat, 4), flat)).toBeNull();
  });
});

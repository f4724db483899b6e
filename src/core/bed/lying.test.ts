import { describe, expect, it } from "vitest";
import { ladder } from "../../../tests/support/ladder";
import { footprint } from "./footprint";
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

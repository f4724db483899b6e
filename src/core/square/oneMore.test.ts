import { describe, expect, it } from "vitest";
import { angle, QUAD, readOff, SIX, tape } from "../../../tests/support/networks";
import { normalDraw, seeded } from "../numeric";
import { adjustNetwork, type Reading } from "./network";
import { type Candidate, cheapestSets, oneMore } from "./oneMore";
import { cornerAngleDeg, type Quad } from "./shape";

describe("what to measure", () => {
  const known = ["AB", "BC", "CD", "DA"].map(
    (s) => ({ ...tape(s[0] as string, s[1] as string, 2), id: `${s} as cut` }) as Reading,
  );
  const cut: Candidate = { readings: known, cost: 0 };
  const corner: Candidate = { readings: [angle("D", "A", "B")], cost: 2 };

  it("tells six tapes apart by none of them: their tests are all alike", () => {
    const fit = adjustNetwork({ nodes: QUAD, readings: readOff(QUAD, SIX) });
    for (const a of SIX) for (const b of SIX) expect(fit.alike(a.id, b.id)).toBeCloseTo(1, 4);
  });

  it("asks for what would tell them apart, and then the planted misread is really named", () => {
    const suspects = SIX.map((r) => r.id);
    // The pieces' lengths alone leave all diagonals and sides alike, and so does one angle: together they do not.
    expect(oneMore(QUAD, SIX, {}, suspects, [cut, corner])?.ids).toEqual([...known.map((r) => r.id), "D^A^B"]);
    expect(oneMore(QUAD, SIX, {}, suspects, [])).toBeNull();
    const random = seeded(14);
    let named = 0;
    const runs = 120;
    const all = [...SIX, ...known, angle("D", "A", "B")];
    for (let k = 0; k < runs; k++) {
      const slipped = SIX[4 + (k % 2)] as Reading;
      const readings = readOff(QUAD, all).map(
        (r): Reading =>
          r.kind === "angle"
            ? { ...r, valueRad: r.valueRad + r.uRad * normalDraw(random) }
            : { ...r, valueMm: r.valueMm + r.uMm * normalDraw(random) + (r.id === slipped.id ? 20 : 0) },
      );
      const { diagnosis } = adjustNetwork({ nodes: QUAD, readings });
      if (diagnosis.status === "located" && diagnosis.candidates[0]?.id === slipped.id) named++;
    }
    expect(named / runs).toBeGreaterThan(0.9);
  });

  it("finds the cheapest set: five tapes fix a frame, six show a misread, more say which", () => {
    const sets = cheapestSets(
      QUAD,
      [
        ...SIX.map((r) => ({ readings: [r], cost: 1 })),
        ...["DAB", "ABC"].map((n) => ({ readings: [angle(n[0] as string, n[1] as string, n[2] as string)], cost: 2 })),
      ],
      {},
      (fit) => fit.uOf((p) => cornerAngleDeg(p as Quad, "A")),
      10,
    );
    expect(sets.decides?.ids.length).toBe(5);
    expect(sets.decides?.detectableMm).toBe(Number.POSITIVE_INFINITY);
    expect([...(sets.notices?.ids ?? [])].sort()).toEqual(SIX.map((r) => r.id).sort());
    expect(sets.locates === null || sets.locates.cost > 6).toBe(true);
  });

  it("finds none when no set is sure enough", () => {
    const sets = cheapestSets(
      QUAD,
      SIX.map((r) => ({ readings: [r], cost: 1 })),
      {},
      (fit) => fit.uOf((p) => cornerAngleDeg(p as Quad, "A")),
      1e-4,
    );
    expect(sets).toEqual({ decides: null, notices: null, locates: null });
  });
});

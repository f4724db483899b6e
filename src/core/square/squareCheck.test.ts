import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { impossible } from "./impossible";
import { type Quad, slides, squareDifferenceMm2 } from "./shape";
import { type SpanReading, squareCheck } from "./squareCheck";

const d = (p: { x: number; y: number }, q: { x: number; y: number }) => Math.hypot(p.x - q.x, p.y - q.y);
const taped = (q: Quad, u = 0.4): Record<string, SpanReading> => ({
  AB: { mm: d(q.A, q.B), uMm: u },
  BC: { mm: d(q.B, q.C), uMm: u },
  CD: { mm: d(q.C, q.D), uMm: u },
  DA: { mm: d(q.D, q.A), uMm: u },
  AC: { mm: d(q.A, q.C), uMm: u },
  BD: { mm: d(q.B, q.D), uMm: u },
});
const rect = (l: number, h: number): Quad => ({
  A: { x: 0, y: 0 },
  B: { x: l, y: 0 },
  C: { x: l, y: h },
  D: { x: 0, y: h },
});
const moved = fc.record({
  L: fc.integer({ min: 400, max: 4000 }),
  H: fc.integer({ min: 400, max: 4000 }),
  b: fc.double({ min: -6, max: 6, noNaN: true }),
  cx: fc.double({ min: -6, max: 6, noNaN: true }),
  cy: fc.double({ min: -6, max: 6, noNaN: true }),
  dx: fc.double({ min: -6, max: 6, noNaN: true }),
  dy: fc.double({ min: -6, max: 6, noNaN: true }),
});
const quadOf = (m: { L: number; H: number; b: number; cx: number; cy: number; dx: number; dy: number }): Quad => ({
  A: { x: 0, y: 0 },
  B: { x: m.L + m.b, y: 0 },
  C: { x: m.L + m.cx, y: m.H + m.cy },
  D: { x: m.dx, y: m.H + m.dy },
});

describe("a taped frame", () => {
  it("is found again from perfect readings, whatever its shape", () => {
    fc.assert(
      fc.property(moved, (m) => {
        const q = quadOf(m);
        const check = squareCheck(rect(m.L, m.H), taped(q));
        expect(check.fit.status).toBe("ok");
        for (const c of ["B", "C", "D"] as const)
          expect(d(check.corners?.[c] ?? { x: 0, y: 0 }, q[c])).toBeLessThan(1e-6);
      }),
      { numRuns: 60 },
    );
  });

  it("has equal diagonals after the slide that it asks for, whichever side is slid", () => {
    fc.assert(
      fc.property(moved, fc.constantFrom("CD", "AB", "BC", "DA" as const), (m, side) => {
        const q = quadOf(m);
        const s = slides(q)[side as "CD"];
        const from = { CD: ["D", "C"], AB: ["A", "B"], BC: ["B", "C"], DA: ["A", "D"] }[side] as ["A", "B"];
        const len = d(q[from[0]], q[from[1]]);
        const shift = { x: ((q[from[1]].x - q[from[0]].x) / len) * s, y: ((q[from[1]].y - q[from[0]].y) / len) * s };
        const after = { ...q };
        for (const c of side.split("") as ("A" | "B")[]) after[c] = { x: q[c].x + shift.x, y: q[c].y + shift.y };
        expect(Math.abs(squareDifferenceMm2(after))).toBeLessThan(1e-4 * m.L);
      }),
      { numRuns: 100 },
    );
  });

  it("names the same nudge when it is told in other units or turned about", () => {
    const q = quadOf({ L: 1500, H: 900, b: 1, cx: 3, cy: -1, dx: 2, dy: 1 });
    const a = squareCheck(rect(1500, 900), taped(q));
    // The same frame named from B: AB becomes BC and so on.
    const turned: Quad = { A: q.B, B: q.C, C: q.D, D: q.A };
    const b = squareCheck(rect(900, 1500), taped(turned));
    expect(b.slidesMm?.DA).toBeCloseTo(-(a.slidesMm?.AB ?? 0), 6);
    expect(b.angleDeg?.A.value).toBeCloseTo(a.angleDeg?.B.value ?? 0, 6);
  });

  it("never assumes what was not read", () => {
    const q = quadOf({ L: 1200, H: 800, b: 0, cx: 2, cy: 0, dx: 2, dy: 0 });
    const all = taped(q);
    const { AC: _ac, BD: _bd, ...sides } = all;
    expect(squareCheck(rect(1200, 800), sides)).toMatchObject({ corners: null, nudges: [], missing: ["AC", "BD"] });
    const { AB: _ab, ...five } = all;
    expect(squareCheck(rect(1200, 800), five).fit.status).toBe("ok_no_check");
    expect(
      squareCheck(rect(1200, 800), { AB: all.AB as SpanReading, BC: all.BC as SpanReading, CD: all.CD as SpanReading })
        .corners,
    ).toBeNull();
  });

  it("notices a misread tape and does not pretend to know which", () => {
    const q = quadOf({ L: 1200, H: 800, b: 0, cx: 0, cy: 0, dx: 0, dy: 0 });
    const readings = taped(q);
    const AC = readings.AC as SpanReading;
    const check = squareCheck(rect(1200, 800), { ...readings, AC: { ...AC, mm: AC.mm + 10 } });
    expect(check.fit.agree).toBe(false);
    expect(check.fit.diagnosis.status).toBe("detected_not_located");
    expect(check.fit.diagnosis.candidates.map((c) => c.id).sort()).toEqual(["AB", "AC", "BC", "BD", "CD", "DA"]);
  });

  it("is refused where no quadrilateral could have the readings", () => {
    expect(impossible({ AB: 1200, BC: 800, AC: 2100 }, 5)).toMatchObject({
      span: "AC",
      message: expect.stringMatching(/longer than AB and BC together/),
    });
    expect(impossible({ AB: 1200, BC: 800, CD: 1200, DA: 800, AC: 1442, BD: 380 }, 5)?.span).toBe("BD");
    expect(impossible({ AB: -1 }, 5)?.span).toBe("AB");
    expect(impossible({ AB: 1200, BC: 800, CD: 1200, DA: 800, AC: 1442, BD: 1442 }, 5)).toBeNull();
  });
});

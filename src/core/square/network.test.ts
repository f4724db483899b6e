import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { adjustNetwork, openPlaces, type Reading } from "./network";

const NODES = { A: { x: 0, y: 0 }, B: { x: 1200, y: 0 }, C: { x: 1200, y: 800 }, D: { x: 0, y: 800 } };
const tape = (from: keyof typeof NODES, to: keyof typeof NODES, off = 0, uMm = 0.4): Reading => ({
  kind: "distance",
  id: `${from}${to}`,
  from,
  to,
  valueMm: Math.hypot(NODES[from].x - NODES[to].x, NODES[from].y - NODES[to].y) + off,
  uMm,
});
const SIX = [tape("A", "B"), tape("B", "C"), tape("C", "D"), tape("D", "A"), tape("A", "C"), tape("B", "D")];

describe("a network of readings", () => {
  it("gives the drawn places back from perfect readings, with what each is checked by", () => {
    const fit = adjustNetwork({ nodes: NODES, readings: SIX });
    expect(fit).toMatchObject({ status: "ok", freedom: 1, agree: true });
    for (const [n, p] of Object.entries(NODES)) {
      expect(fit.points[n]?.x).toBeCloseTo(p.x, 6);
      expect(fit.points[n]?.y).toBeCloseTo(p.y, 6);
    }
    expect(fit.readings.reduce((s, r) => s + r.redundancy, 0)).toBeCloseTo(1, 9);
  });
  it("is as sure of a side that one tape alone reads as that tape is", () => {
    const fit = adjustNetwork({ nodes: NODES, readings: SIX.slice(0, 5) });
    expect(fit.status).toBe("ok_no_check");
    expect(fit.uOf((p) => Math.hypot((p.B?.x ?? 0) - (p.A?.x ?? 0), (p.B?.y ?? 0) - (p.A?.y ?? 0)))).toBeCloseTo(
      0.4,
      6,
    );
  });
  it("takes an error that all readings of a tape share for a change of size, not of shape", () => {
    fc.assert(
      fc.property(fc.double({ min: -3, max: 3, noNaN: true }), (hook) => {
        const worn = SIX.map(
          (r) => ({ ...r, valueMm: (r as { valueMm: number }).valueMm + hook, tape: "t" }) as Reading,
        );
        const fit = adjustNetwork({ nodes: NODES, readings: worn, tapes: { t: { uZeroMm: 2, uScale: 0 } } });
        expect(fit.agree).toBe(true);
        expect((fit.points.C?.x ?? 0) - (fit.points.B?.x ?? 0)).toBeCloseTo(0, 1);
      }),
      { numRuns: 20 },
    );
  });
  it("says what is left open, and never guesses it", () => {
    const loose = { nodes: NODES, readings: [tape("A", "B"), tape("B", "C"), tape("A", "C")] };
    expect(adjustNetwork(loose).status).toBe("undetermined");
    expect(openPlaces(loose)).toEqual(["D"]);
    expect(adjustNetwork({ nodes: NODES, readings: SIX.slice(0, 4) }).status).toBe("undetermined");
  });
});

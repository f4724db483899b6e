import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { squareTube, started } from "../../../tests/support/drawnFrames";
import { resolveStructure, type Structure, type StructureMember } from "../frame";
import { length } from "../units";
import { closingGaps, closingMembers, closingProblems } from "./closing";
import { cutList } from "./cutList";

/** How far a member's body reaches along a way, mm. */
const reach = (m: StructureMember, way: readonly number[]): [number, number] => {
  const dot = (v: readonly number[]): number => v.reduce((s, x, i) => s + x * (way[i] ?? 0), 0);
  const half = Math.max(...m.outline.map((p) => p.x * dot(m.axes[1]) + p.y * dot(m.axes[2])));
  const ends = [dot(m.from), dot(m.to)];
  return [Math.min(...ends) - half, Math.max(...ends) + half];
};

/** Clear distance between two members along a way, mm, by their outlines alone. */
function clear(structure: Structure, [a, b]: readonly string[], way: readonly number[]): number {
  const [p, q] = [a, b].map((id) => reach(structure.members.find((m) => m.id === id) as StructureMember, way));
  const [[pLow, pHigh], [qLow, qHigh]] = [p, q] as [[number, number], [number, number]];
  return Math.max(qLow - pHigh, pLow - qHigh);
}

const frames = fc.tuple(
  fc.constantFrom("ladder", "table base", "stand", "gate leaf", "two frames stacked", "rack"),
  fc.constantFrom(25, 40, 60),
  fc.constantFrom(0, 2),
);
const resolved = (name: string, face: number, root: number): Structure =>
  resolveStructure({ ...started(name, {}, squareTube(face, 3)), gap: length(String(root)) }).structure;

describe("a piece that goes between two others", () => {
  it("has as its gap what is clear between them, on any frame to begin with, whatever is left open at its ends", () => {
    fc.assert(
      fc.property(frames, ([name, face, root]) => {
        const structure = resolved(name, face, root);
        for (const { member, between, gapMm } of closingMembers(structure)) {
          const m = structure.members.find((x) => x.id === member) as StructureMember;
          expect(gapMm, `${name} ${member}`).toBeCloseTo(clear(structure, between, m.axes[0]), 6);
          expect(m.longMm, `${name} ${member}`).toBeCloseTo(gapMm - 2 * root, 6);
        }
      }),
      { numRuns: 36 },
    );
  });
  it("is a rung, a stretcher, a rail; no side of a mitred ring, no leg, no brace that fits a corner", () => {
    const names = (name: string): string[] => closingMembers(resolved(name, 40, 0)).map((c) => c.member);
    expect(names("ladder")).toEqual(["M1", "M2", "M3", "M4"]);
    expect(names("table base")).toEqual(["T1", "T2", "T3"]);
    expect(names("gate leaf")).toEqual(["M1"]);
    expect(names("rectangle")).toEqual([]);
  });
  it("is cut to the gap that was measured, less what stays open; the others are cut as before", () => {
    fc.assert(
      fc.property(fc.double({ min: -8, max: 8, noNaN: true }), fc.constantFrom(0, 2), (off, root) => {
        const structure = resolved("table base", 40, root);
        const t3 = closingMembers(structure).find((c) => c.member === "T3");
        if (!t3) throw new Error("no stretcher");
        const allowances = Object.fromEntries(
          structure.members.map((m) => [m.id, { value: 0.4, low: 0.2, high: 0.8 }] as const),
        );
        const gapMm = t3.gapMm + off;
        const list = (gaps: ReadonlyMap<string, number>) =>
          cutList(structure, allowances, () => 0, new Set(), "square", "mm", gaps);
        const [cut, before] = [list(new Map([["T3", gapMm]])), list(new Map())];
        const piece = cut.find((p) => p.members.includes("T3"));
        expect(piece?.members).toEqual(["T3"]);
        expect(piece?.cutLongPointMm).toBeCloseTo(gapMm - 2 * root, 9);
        expect(piece?.toGap?.workedOutMm).toBeCloseTo(t3.gapMm - 2 * root + 0.4, 9);
        expect(piece?.allowanceMm?.value).toBe(0);
        // Two that are alike, fitted each to its own gap, are a line each, with what is worked out for each.
        const alike = closingMembers(structure).find((c) => c.member === "T1")?.gapMm ?? 0;
        const both = list(
          new Map([
            ["T1", alike],
            ["T2", alike],
          ]),
        ).filter((p) => p.toGap);
        expect(both.map((p) => p.members)).toEqual([["T1"], ["T2"]]);
        const rest = (all: typeof cut) => all.filter((p) => !p.members.includes("T3"));
        expect(rest(cut)).toEqual(rest(before));
      }),
      { numRuns: 20 },
    );
  });
  it("is asked about where its gap is far from the drawing, refused where nothing goes in, left out where it goes between no two", () => {
    const structure = resolved("table base", 40, 2);
    const said = (id: string, mm: number): string[] =>
      closingProblems(structure, [{ id, gap: { mm } }], "mm").map((p) => `${p.severity} ${p.path}`);
    const drawn = closingMembers(structure).find((c) => c.member === "T3")?.gapMm ?? 0;
    expect(said("T3", drawn + 2)).toEqual([]);
    expect(said("T3", drawn / 25.4)).toEqual(["warning closing.T3.gap"]);
    expect(said("T3", 4)).toEqual(["error closing.T3.gap"]);
    expect(said("L1", 300)).toEqual(["warning closing.L1.gap"]);
    expect(said("GONE", 300)).toEqual([]);
    expect([
      ...closingGaps(structure, [
        { id: "L1", gap: { mm: 300 } },
        { id: "T3", gap: { mm: 4 } },
      ]),
    ]).toEqual([]);
  });
});

import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { railsOnRing, started } from "../../../tests/support/drawnFrames";
import { emptyFrame, member, resolveStructure, STARTERS } from "../frame";
import { length } from "../units";
import { markingOut } from "./markingOut";

const tube = (id: string, w: number, shape: "tube" | "round tube" | "bar" = "tube") => ({
  ...{ id, shape, profile: null, width: length(String(w)), height: length(String(w)), wall: length("3") },
  material: "mild steel" as const,
});

describe("what is marked on a piece", () => {
  it("is where uprights stand on a rail, from its end: their middle and both edges", () => {
    const rail = member("R", [0, 0, 20], [1600, 0, 20], "S1", "mm");
    const up = (i: number) => member(`U${i}`, [170 + 210 * i, 0, 20], [170 + 210 * i, 0, 320], "S2", "mm");
    const frame = {
      ...emptyFrame(tube("S1", 40)),
      sections: [tube("S1", 40), tube("S2", 12, "bar")],
      members: [rail, ...Array.from({ length: 7 }, (_, i) => up(i))],
    };
    const [marked] = markingOut(resolveStructure(frame).structure, []);
    expect(marked).toMatchObject({ member: "R", from: null, looks: "left", isSlanted: false, longMm: 1600 });
    expect(marked?.marks.map((m) => m.centreMm)).toEqual(
      Array.from({ length: 7 }, (_, i) => expect.closeTo(170 + 210 * i, 9)),
    );
    const first = marked?.marks[0];
    expect(first).toMatchObject({ kind: "lands", member: "U0", face: "up" });
    if (first?.kind === "lands") expect(first.edgesMm[1] - first.edgesMm[0]).toBeCloseTo(12, 1);
  });
  it("lies on the piece that it is marked on, also where what lands reaches beyond its end", () => {
    for (const frame of [
      railsOnRing(2, 3),
      railsOnRing(1, 5, 60),
      started("two frames stacked"),
      started("table base"),
    ]) {
      const pieces = markingOut(resolveStructure(frame).structure, []);
      expect(pieces.length).toBeGreaterThan(0);
      for (const piece of pieces)
        for (const m of piece.marks)
          if (m.kind !== "hole") {
            expect(m.edgesMm[0], `${piece.member} ${m.member}`).toBeGreaterThanOrEqual(0);
            expect(m.edgesMm[1], `${piece.member} ${m.member}`).toBeLessThanOrEqual(piece.longMm);
            expect(m.edgesMm[1]).toBeGreaterThan(m.edgesMm[0]);
          }
    }
  });
  it("leaves to every member that lands there its own place: a brace in a corner ends where the other begins", () => {
    const leaves = fc
      .record({
        height: fc.integer({ min: 900, max: 2400 }),
        width: fc.integer({ min: 700, max: 1800 }),
        rail: fc.double({ min: 0.35, max: 0.65, noNaN: true }),
      })
      .map(({ height, width, rail }) =>
        started("gate leaf", { length: String(width), width: String(height), rail: String(Math.round(rail * height)) }),
      );
    fc.assert(
      fc.property(leaves, (frame) => {
        for (const piece of markingOut(resolveStructure(frame).structure, [])) {
          const feet = piece.marks.filter((m) => m.kind === "lands");
          feet.forEach((p, i) => {
            for (const q of feet.slice(i + 1))
              if (p.face === q.face) {
                const shared = Math.min(p.edgesMm[1], q.edgesMm[1]) - Math.max(p.edgesMm[0], q.edgesMm[0]);
                expect(shared, `${piece.member}: ${p.member}, ${q.member}`).toBeLessThan(0.05);
              }
          });
        }
      }),
      { numRuns: 40 },
    );
  });
  it("is the slanted foot of a brace, by plane geometry", () => {
    fc.assert(
      fc.property(fc.integer({ min: 25, max: 90 }), fc.integer({ min: 20, max: 50 }), (deg, w) => {
        const a = (deg * Math.PI) / 180;
        const frame = {
          ...emptyFrame(tube("S1", 50)),
          sections: [tube("S1", 50), tube("S2", w)],
          members: [
            member("R", [0, 0, 25], [3000, 0, 25], "S1", "mm"),
            member("B", [1500, 0, 25], [1500 + 900 * Math.cos(a), 900 * Math.sin(a), 25], "S2", "mm"),
          ],
        };
        const mark = markingOut(resolveStructure(frame).structure, [])[0]?.marks[0];
        if (mark?.kind !== "lands") throw new Error("no mark");
        // On the face, half the rail from its middle line, the brace's middle is off by cot, and its foot is as wide as it is over sin.
        expect(mark.centreMm).toBeCloseTo(1500 + 25 / Math.tan(a), 1);
        expect(mark.edgesMm[1] - mark.edgesMm[0]).toBeCloseTo(w / Math.sin(a), 1);
        expect(mark.face).toBe("back");
      }),
      { numRuns: 40 },
    );
  });
  it("of two that lie along each other is where each piece of their seam lies, within both of them, as long as it is welded", () => {
    const { structure } = resolveStructure(started("two frames stacked"));
    const pieces = markingOut(structure, []);
    const seams = pieces.flatMap((p) => p.marks.flatMap((m) => (m.kind === "seam" ? [{ ...m, on: p }] : [])));
    const along = structure.joints.filter((j) => j.along);
    expect(along.length).toBeGreaterThan(8);
    // Each piece is marked on both.
    expect(seams).toHaveLength(2 * along.length);
    for (const { edgesMm, centreMm, nth, member: other, on } of seams) {
      const joint = along.find(
        (j) => [j.a, j.b].includes(on.member) && [j.a, j.b].includes(other) && j.along?.nth === nth,
      );
      expect(edgesMm[1] - edgesMm[0]).toBeCloseTo(joint?.along?.seamMm ?? Number.NaN, 9);
      expect((edgesMm[0] + edgesMm[1]) / 2).toBeCloseTo(centreMm, 9);
      expect(edgesMm[0]).toBeGreaterThanOrEqual(0);
      expect(edgesMm[1]).toBeLessThanOrEqual(on.longMm);
    }
  });
  it("begins at the long point of a mitre, and moves as the frame is set up", () => {
    const { structure } = resolveStructure(started("ladder"));
    const plain = markingOut(structure, []);
    const rail = plain.find((p) => p.marks.length > 1);
    if (!rail) throw new Error("no rail");
    expect(rail.isSlanted).toBe(true);
    const moved = markingOut(structure, [], (_, along) => 0.001 * along).find((p) => p.member === rail.member);
    rail.marks.forEach((m, i) => {
      expect((moved?.marks[i]?.centreMm ?? 0) / m.centreMm).toBeCloseTo(1.001, 6);
    });
    expect((moved?.longMm ?? 0) / rail.longMm).toBeCloseTo(1.001, 6);
  });
  it("has a hole where the drill list has it", () => {
    const { structure } = resolveStructure(started("rectangle"));
    const m = structure.members[0];
    if (!m) throw new Error("no member");
    const drill = {
      ...{ id: "H1", member: m.id, at: length("100"), diameter: length("8") },
      ...{ face: "top" as const, for: "mounting" as const, through: true },
    };
    const [marked] = markingOut(structure, [drill]);
    // From the middle of the slanted end the long point lies half a tube further out.
    expect(marked?.marks).toEqual([
      {
        kind: "hole",
        drill: "H1",
        diameterMm: 8,
        face: "top",
        centreMm: expect.closeTo(100 + m.properties.widthMm / 2, 6),
      },
    ]);
  });
  it("lies on the piece, for every starter", () => {
    for (const { name } of STARTERS)
      for (const piece of markingOut(resolveStructure(started(name)).structure, []))
        for (const mark of piece.marks) {
          expect(mark.centreMm, `${name} ${piece.member}`).toBeGreaterThan(-1);
          expect(mark.centreMm, `${name} ${piece.member}`).toBeLessThan(piece.longMm + 1);
        }
  });
});

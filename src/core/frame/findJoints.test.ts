import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { drawn, squareTube, started } from "../../../tests/support/drawnFrames";
import { resolveStructure } from "./resolveStructure";
import { STARTERS } from "./starters";
import type { StructureMember } from "./structure";
import { structureProblems } from "./structureProblems";

const of = (frame: Parameters<typeof resolveStructure>[0]) => resolveStructure(frame).structure;
const member = (frame: Parameters<typeof resolveStructure>[0], id: string): StructureMember => {
  const m = of(frame).members.find((x) => x.id === id);
  if (!m) throw new Error(`no member ${id}`);
  return m;
};
const kinds = (frame: Parameters<typeof resolveStructure>[0]): Record<string, string> =>
  Object.fromEntries(of(frame).joints.map((j) => [j.id, j.kind]));

describe("joints are found from geometry alone", () => {
  it("in a ladder of any size: four mitres and two tees a rung, each where it is", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1000, max: 6000 }),
        fc.integer({ min: 300, max: 3000 }),
        fc.integer({ min: 1, max: 6 }),
        fc.constantFrom(20, 40, 60),
        (lengthMm, widthMm, rungs, tube) => {
          const frame = started("ladder", { length: lengthMm, width: widthMm, rungs }, squareTube(tube, 2));
          const { structure, clashes } = resolveStructure(frame);
          expect(clashes).toEqual([]);
          expect(
            structure.joints
              .filter((j) => j.kind === "mitre")
              .map((j) => j.id)
              .sort(),
          ).toEqual(["A", "B", "C", "D"]);
          expect(structure.joints.filter((j) => j.kind === "tee")).toHaveLength(2 * rungs);
          for (const j of structure.joints) expect(j.faces).toHaveLength(4);
        },
      ),
      { numRuns: 60 },
    );
  });
  it("in every starter, whole and without a problem", () => {
    // Joints counted on the drawing.
    const counts: Record<string, number> = {
      rectangle: 4,
      ladder: 12,
      "gate leaf": 10,
      "rails with a kink": 8,
      "A-shaped drawbar": 6,
      "table base": 18,
      stand: 24,
      rack: 12,
      "two frames stacked": 16,
    };
    for (const s of STARTERS) {
      const frame = started(s.name);
      const resolved = resolveStructure(frame);
      expect(structureProblems(frame, resolved), s.name).toEqual([]);
      expect(resolved.structure.joints, s.name).toHaveLength(counts[s.name] ?? -1);
    }
    // Other words of their choices: supports add four joints, a stretcher all round four more than an H.
    const more = (name: string, change: Record<string, string>): number => {
      const frame = started(name, change);
      const resolved = resolveStructure(frame);
      expect(structureProblems(frame, resolved), name).toEqual([]);
      return resolved.structure.joints.length;
    };
    expect(more("A-shaped drawbar", { supports: "from the back member to the stay" })).toBe(10);
    expect(more("table base", { stretchers: "all round" })).toBe(20);
    expect(more("table base", { stretchers: "none" })).toBe(12);
    expect(more("gate leaf", { hinge: "BC", brace: "above the rail" })).toBe(10);
    expect(more("rectangle", { corners: "butted" })).toBe(4);
    expect(more("rails with a kink", { how: "angle" })).toBe(8);
    expect(more("rack", { top: "no" })).toBe(6);
  });
  it("does not matter in which order members were drawn, nor which end came first", () => {
    const frame = started("table base");
    const names = (f: typeof frame) =>
      of(f)
        .joints.map((j) => [j.a, j.b].sort().join())
        .sort();
    const turned = {
      ...frame,
      members: [...frame.members].reverse().map((m) => ({ ...m, from: m.to, to: m.from })),
    };
    expect(names(turned)).toEqual(names(frame));
  });
  it("an end may be drawn to the middle of the tube, to its face, or a little past it: it is cut to the same length", () => {
    for (const end of [400, 380, 395, 410]) {
      const frame = drawn({
        R1: [
          [0, 400, 20],
          [1000, 400, 20],
        ],
        M1: [
          [500, 0, 20],
          [500, end, 20],
        ],
      });
      expect(member(frame, "M1").longMm, String(end)).toBeCloseTo(380, 9);
    }
    expect(
      kinds(
        drawn({
          R1: [
            [0, 400, 20],
            [1000, 400, 20],
          ],
          M1: [
            [500, 0, 20],
            [500, 370, 20],
          ],
        }),
      ),
    ).toEqual({});
  });
  it("two that land on a third have no joint of their own, unless one would lie in the other", () => {
    const stand = kinds(started("stand"));
    expect(Object.keys(stand).every((id) => id.includes("/L"))).toBe(true);
    // A brace into the corner of a rail and a post lands on both.
    const gate = of(started("gate leaf")).joints.filter((j) => j.b === "X1");
    expect(gate.map((j) => j.a).sort()).toEqual(["AB", "BC", "DA", "M1"]);
  });
  it("crossing and overlapping members are told apart from what lies on each other", () => {
    const cross = resolveStructure(
      drawn({
        A1: [
          [0, 0, 20],
          [1000, 0, 20],
        ],
        A2: [
          [500, -500, 20],
          [500, 500, 20],
        ],
      }),
    );
    expect(cross.clashes).toMatchObject([{ kind: "cross", a: "A1", b: "A2" }]);
    const over = resolveStructure(
      drawn({
        A1: [
          [0, 0, 20],
          [1000, 0, 20],
        ],
        A2: [
          [500, -500, 60],
          [500, 500, 60],
        ],
      }),
    );
    expect(over.clashes).toEqual([]);
    expect(over.structure.joints).toMatchObject([{ kind: "lap", a: "A1", b: "A2" }]);
    const beside = resolveStructure(
      drawn({
        A1: [
          [0, 0, 20],
          [1000, 0, 20],
        ],
        A2: [
          [200, 25, 20],
          [900, 25, 20],
        ],
      }),
    );
    expect(beside.clashes).toMatchObject([{ kind: "overlap" }]);
  });
});

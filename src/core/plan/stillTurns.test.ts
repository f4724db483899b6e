import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { aroundMiddle, comb, drawn, FREE_FRAMES, inexactly, ring, started } from "../../../tests/support/drawnFrames";
import { type DrawnFrame, resolveStructure, STARTERS, type Structure } from "../frame";
import { seeded, type Vec3 } from "../numeric";
import { chosenOrder, orderOfWork, ownChoice } from "./schools";
import { schoolWords } from "./schoolWords";
import { stepWords } from "./stepWords";
import { hangingTogether, stillTurns } from "./stillTurns";

const built = (frame: DrawnFrame): Structure => resolveStructure(frame).structure;
const turns = (structure: Structure): boolean => stillTurns(structure, structure.joints);

/** A frame of four sides with a tube from one long side to the other, its ends so far along them. */
const divided = (left: number, right: number): Structure =>
  built(
    drawn({
      BOTTOM: [
        [0, 0, 0],
        [1200, 0, 0],
      ],
      RIGHT: [
        [1200, 0, 0],
        [1200, 700, 0],
      ],
      TOP: [
        [1200, 700, 0],
        [0, 700, 0],
      ],
      LEFT: [
        [0, 700, 0],
        [0, 0, 0],
      ],
      M1: [
        [left, 0, 0],
        [right, 700, 0],
      ],
    }),
  );

// Statics of pinned bars (common practice, no source): a triangle is stiff, a ring of four or more is not, a diagonal makes it so.
describe("whether a frame still turns on one tack at each joint", () => {
  it("a ring does from four sides on, and a triangle does not", () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 450, max: 600 }), { minLength: 3, maxLength: 9 }), (radii) => {
        const structure = built(ring(aroundMiddle(radii)));
        fc.pre(structure.joints.length === radii.length);
        expect(turns(structure)).toBe(radii.length > 3);
        // With one corner open it always does.
        expect(stillTurns(structure, structure.joints.slice(1))).toBe(true);
      }),
      { numRuns: 40 },
    );
  });

  it("a tube across leaves a ring its turn where it lies along the ends, and takes it where it lies aslant", () => {
    fc.assert(
      fc.property(fc.integer({ min: 200, max: 1000 }), fc.integer({ min: -600, max: 600 }), (at, aslant) => {
        const to = Math.min(1000, Math.max(200, at + aslant));
        fc.pre(to === at || Math.abs(to - at) > 60);
        expect(turns(divided(at, to))).toBe(to === at);
      }),
      { numRuns: 40 },
    );
  });

  it("whether it does hangs on no hundredth of a millimetre: tubes across as straight as one draws or tapes them leave a ring its turn", () => {
    const random = seeded(3);
    for (const [name, frame] of [
      ...STARTERS.map((s) => [s.name, started(s.name)] as const),
      ...Object.entries(FREE_FRAMES),
    ])
      for (const outMm of [0.02, 1])
        expect(turns(built(inexactly(frame, outMm, random))), name).toBe(turns(built(frame)));
  });

  it("two tubes that are welded along each other do on one piece of seam, and on two no more", () => {
    for (const beside of [
      [0, 40, 0],
      [0, 0, 40],
    ] as const) {
      const tube = (by: readonly [number, number, number]): [Vec3, Vec3] => [[...by], [1000, by[1], by[2]]];
      const structure = built(drawn({ A: tube([0, 0, 0]), B: tube(beside) }));
      expect(structure.joints.length).toBeGreaterThan(1);
      expect(stillTurns(structure, structure.joints.slice(0, 1))).toBe(true);
      expect(turns(structure)).toBe(false);
    }
  });

  it("what hangs by one tack turns, and so do two triangles in one pin; what stands is taken to", () => {
    expect(turns(built(comb(4, 200, 300)))).toBe(true);
    for (const [name, frame] of Object.entries(FREE_FRAMES))
      expect(turns(built(frame)), name).toBe(name !== "three sides");
    expect(turns(built(started("table base")))).toBe(true);
    expect(turns(built(started("gate leaf")))).toBe(false);
  });
});

describe("an order of a frame that is stiff on one tack at each joint", () => {
  const structure = built(ring(aroundMiddle([500, 500, 500])));
  const said = (steps: ReturnType<typeof orderOfWork>["steps"]): string =>
    steps.map((s) => Object.values(stepWords(structure, s, "mm")).join(" ")).join("\n");
  it("closes nothing by turning and promises it nowhere, by whichever school and laid step by step", () => {
    for (const tack of ["hinge first", "outside first", "all held"] as const) {
      const order = orderOfWork(structure, "surface", tack, "across and around");
      const ids = order.steps.map((s) => s.id);
      const own = chosenOrder(structure, "surface", ownChoice(order, ids));
      for (const { steps } of [order, own]) {
        expect(steps.some((s) => s.closes)).toBe(false);
        expect(said(steps)).not.toMatch(/still turn|hinge|squared/);
        const { says, why } = schoolWords(tack, steps);
        expect(`${says} ${why}`).not.toMatch(/close the error|cheap correction/);
      }
    }
    const { steps } = orderOfWork(structure, "surface", "hinge first", "across and around");
    expect(said(steps)).toMatch(/nothing turns any more in this frame/);
    expect(schoolWords("hinge first", steps).why).toMatch(/stiff on one tack at each joint/);
  });

  it("closes it in a ring of four, as ever", () => {
    const { steps } = orderOfWork(built(started("rectangle")), "surface", "hinge first", "across and around");
    expect(steps.filter((s) => s.closes)).toHaveLength(1);
  });
  it("a ring of which some corners are welded already turns about the others where those are four or more, as a linkage of so many bars does", () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 380, max: 460 }), { minLength: 4, maxLength: 8 }),
        fc.array(fc.boolean(), { minLength: 8, maxLength: 8 }),
        (radii, isWelded) => {
          const structure = built(ring(aroundMiddle(radii)));
          const welded = structure.joints.filter((_, i) => isWelded[i]);
          const hinges = structure.joints.filter((_, i) => !isWelded[i]);
          fc.pre(hinges.length > 0);
          const rigid = hangingTogether(
            structure.members.map((m) => m.id),
            welded,
          );
          expect(stillTurns(structure, hinges, rigid)).toBe(hinges.length >= 4);
        },
      ),
      { numRuns: 100 },
    );
  });
  it("two halves that are joined at two corners turn no more, and the order does not say that they do", () => {
    const frame = started("rectangle");
    const [ab, bc, cd, da] = frame.members.map((m) => m.id) as [string, string, string, string];
    const structure = built({
      ...frame,
      groups: [
        { id: "U1", name: "near half", members: [ab, bc] },
        { id: "U2", name: "far half", members: [cd, da] },
      ],
    });
    const said = orderOfWork(structure).steps.flatMap((s) => (s.gate === "tacked" ? [stepWords(structure, s)] : []));
    expect(said.map((w) => w.say)).toEqual([
      "Measure across and close the error while the joints still turn",
      "Measure again, all tacked",
      "Measure across and close the error while the joints still turn",
      "Measure again, all tacked",
      "Measure across, each joint on one tack",
      "Measure again, all tacked",
    ]);
  });
});

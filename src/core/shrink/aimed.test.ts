import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { aroundMiddle, ring, started } from "../../../tests/support/drawnFrames";
import { resolveStructure } from "../frame";
import { CORNERS, ends, SIDES, SPANS } from "../geometry";
import { add3, norm3, sub3, type Vec3 } from "../numeric";
import { aimedSetUp, growing, memberGrowth } from "./aimed";
import type { SetUpShape } from "./settingUp";

const still: Omit<SetUpShape, "targets" | "offsetsMm"> = { rounds: 0, leftMm: 0, beyondMm: null };

describe("a frame made longer and wider than drawn", () => {
  it("grows its sides by just that, its rungs by the width, its diagonals as Pythagoras has it", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 800, max: 4000 }),
        fc.integer({ min: 400, max: 2000 }),
        fc.integer({ min: -30, max: 30 }),
        fc.integer({ min: -30, max: 30 }),
        (lengthMm, widthMm, l, w) => {
          const growth = { lengthMm: l / 10, widthMm: w / 10 };
          const { structure } = resolveStructure(started("ladder", { length: lengthMm, width: widthMm, rungs: 2 }));
          const { quad } = structure;
          if (!quad) throw new Error("corners expected");
          const longer = memberGrowth(structure, growth);
          const sides = new Map(Object.entries(quad.sides).map(([side, id]) => [id, side]));
          for (const m of structure.members) {
            const side = sides.get(m.id);
            expect(longer(m), m.id).toBeCloseTo(side === "AB" || side === "CD" ? growth.lengthMm : growth.widthMm, 6);
          }
          const nominal = (p: Vec3, q: Vec3): number => norm3(sub3(q, p));
          const targets = SPANS.map((span) => {
            const [p, q] = ends(span).map((c) => quad.at[c]) as [Vec3, Vec3];
            const value = nominal(p, q);
            return {
              id: { kind: "span" as const, span },
              unit: "mm" as const,
              nominal: value,
              target: { value, low: value - 1, high: value + 1 },
            };
          });
          const aimed = aimedSetUp(structure, { outcomes: [], setUp: { ...still, targets, offsetsMm: {} } }, growth);
          const of = (span: string) => aimed.targets.find((t) => t.id.kind === "span" && t.id.span === span)?.target;
          const [x, y] = [quad.lengthMm + growth.lengthMm, quad.widthMm + growth.widthMm];
          expect(of("AB")?.value).toBeCloseTo(x, 6);
          expect(of("DA")?.value).toBeCloseTo(y, 6);
          expect(of("AC")?.value).toBeCloseTo(Math.hypot(x, y), 6);
          expect((of("BD")?.high ?? 0) - (of("BD")?.low ?? 0)).toBeCloseTo(2, 9);
        },
      ),
      { numRuns: 40 },
    );
  });
  it("gives each side of any ring what its own piece is longer by, and neither turns nor leans it by that", () => {
    const more = fc.double({ min: -2, max: 2, noNaN: true });
    fc.assert(
      fc.property(
        fc.tuple(...[0, 1, 2, 3].map(() => fc.double({ min: 0.8, max: 1.25, noNaN: true }))),
        fc.record({ AB: more, BC: more, CD: more, DA: more }),
        (radii, sidesMm) => {
          const { structure } = resolveStructure(ring(aroundMiddle(radii.map((r) => 700 * r))));
          const { quad, joints } = structure;
          if (!quad) throw new Error("corners expected");
          const move = growing(structure, { lengthMm: 0, widthMm: 0, sidesMm });
          const at = (c: "A" | "B" | "C" | "D"): Vec3 => joints.find((j) => j.id === quad.joints[c])?.at as Vec3;
          const to = (c: "A" | "B" | "C" | "D"): Vec3 => add3(at(c), move(at(c)));
          for (const side of SIDES) {
            const [p, q] = ends(side);
            const longer = norm3(sub3(to(q), to(p))) - norm3(sub3(at(q), at(p)));
            expect(longer, side).toBeCloseTo(sidesMm[side], 1);
          }
          // No rigid movement: neither along nor round (moments about the middle, mm2 over the frame's own mm2).
          const middle = CORNERS.reduce<Vec3>((sum, c) => add3(sum, at(c)), [0, 0, 0]).map((v) => v / 4);
          const shift = CORNERS.reduce<Vec3>((sum, c) => add3(sum, move(at(c))), [0, 0, 0]);
          expect(norm3(shift)).toBeLessThan(1e-6);
          const turn = CORNERS.reduce((sum, c) => {
            const [x, y] = [at(c)[0] - (middle[0] ?? 0), at(c)[1] - (middle[1] ?? 0)];
            const [dx, dy] = move(at(c));
            return sum + x * dy - y * dx;
          }, 0);
          expect(Math.abs(turn) / 700 ** 2).toBeLessThan(1e-6);
        },
      ),
      { numRuns: 60 },
    );
    // A rectangle whose two long sides differ: a trapeze, with equal diagonals.
    const { structure } = resolveStructure(started("rectangle", { length: 1500, width: 900 }));
    const move = growing(structure, { lengthMm: 0, widthMm: 0, sidesMm: { AB: 1, BC: 0, CD: -1, DA: 0 } });
    const at = (c: "A" | "B" | "C" | "D"): Vec3 =>
      structure.joints.find((j) => j.id === structure.quad?.joints[c])?.at as Vec3;
    const diagonal = (p: "A" | "B", q: "C" | "D"): number =>
      norm3(sub3(add3(at(q), move(at(q))), add3(at(p), move(at(p)))));
    expect(diagonal("A", "C") - diagonal("B", "D")).toBeCloseTo(0, 6);
    expect(move(at("A"))[0]).toBeCloseTo(-0.5, 6);
    expect(move(at("C"))[0]).toBeCloseTo(-0.5, 6);
  });
  it("moves nothing where there are no corners, or nothing is wanted", () => {
    const open = resolveStructure(started("A-shaped drawbar")).structure;
    expect(growing(open, { lengthMm: 3, widthMm: 3 })([100, 5, 0])).toEqual([0, 0, 0]);
    const shape: SetUpShape = { ...still, targets: [], offsetsMm: { A: [1, 0, 0] } };
    expect(aimedSetUp(open, { outcomes: [], setUp: shape }, { lengthMm: 3, widthMm: 0 })).toBe(shape);
  });
  it("leaves out a lean that is smaller than its scatter, and only that", () => {
    const { structure } = resolveStructure(started("ladder", { length: 1500, width: 900, rungs: 2 }));
    const { quad } = structure;
    if (!quad) throw new Error("corners expected");
    const offsetsMm = Object.fromEntries(
      CORNERS.map((c) => [
        quad.joints[c],
        [c === "C" || c === "D" ? 0.4 : -0.4, c === "C" || c === "D" ? 0.3 : 0.1, 0] as Vec3,
      ]),
    );
    const square = (value: number, half: number) => ({
      outcomes: [
        {
          id: { kind: "square" as const },
          unit: "mm" as const,
          unsigned: false,
          nominal: value,
          wide: null,
          from: {},
          estimate: { value, low: value - half, high: value + half },
        },
      ],
      setUp: { ...still, targets: [], offsetsMm },
    });
    const none = { lengthMm: 0, widthMm: 0 };
    const off = (value: number, half: number, c: "A" | "C") =>
      aimedSetUp(structure, square(value, half), none).offsetsMm[quad.joints[c]];
    expect(off(-0.4, 2, "C")?.map((v) => Math.round(1e6 * v) / 1e6)).toEqual([0, 0.3, 0]);
    expect(off(-0.4, 2, "A")?.map((v) => Math.round(1e6 * v) / 1e6)).toEqual([0, 0.1, 0]);
    expect(off(-3, 1, "C")).toEqual([0.4, 0.3, 0]);
    // Turned by its other pair of sides it is the same lean: the diagonals are set up alike.
    const risen = Object.fromEntries(
      CORNERS.map((c) => [quad.joints[c], [0, c === "B" || c === "C" ? 0.5 : 0, 0] as Vec3]),
    );
    const kept = aimedSetUp(
      structure,
      { ...square(-0.4, 2), setUp: { ...still, targets: [], offsetsMm: risen } },
      none,
    );
    const at = (c: "A" | "B" | "C" | "D"): Vec3 => add3(quad.at[c], kept.offsetsMm[quad.joints[c]] ?? [0, 0, 0]);
    const diagonal = (p: "A" | "B", q: "C" | "D"): number => norm3(sub3(at(q), at(p)));
    // By 0.5 mm over 1500 on 900 they would be 0.51 apart; corners lie half a tube outside the joints that move.
    expect(Math.abs(diagonal("A", "C") - diagonal("B", "D"))).toBeLessThan(0.02);
  });
});

import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { drawn, ring, squareTube, started } from "../../../tests/support/drawnFrames";
import { drawnPlan } from "../../../tests/support/plans";
import { whyNoPrediction } from "../job";
import { builtOf, orderProblems } from "../job/built";
import { norm3, sub3, type Vec3 } from "../numeric";
import { type OrderChoice, type StepId, USUAL_ORDER } from "../plan";
import { length } from "../units";
import type { DrawnFrame } from "./drawnSchema";
import { member } from "./drawnStart";
import { setJoint } from "./editing";
import { bodyPoints, resolveStructure } from "./resolveStructure";
import type { Structure, StructureFace, StructureMember } from "./structure";

const structureOf = (frame: DrawnFrame): Structure => resolveStructure(frame).structure;
const faceOf = (s: Structure, joint: string, line: StructureFace["line"]): StructureFace | undefined =>
  s.joints.find((j) => j.id === joint)?.faces.find((f) => f.line === line);
const wordsOf = (s: Structure, joint: string): string[] =>
  (s.joints.find((j) => j.id === joint)?.faces ?? []).map((f) => f.words).sort();

/** Length of the line along which an end is cut, all round, mm. */
function roundEndMm(m: StructureMember, end: "from" | "to"): number {
  const points = bodyPoints(m);
  const n = points.length / 2;
  const ring = end === "from" ? points.slice(0, n) : points.slice(n);
  return ring.reduce((sum, p, i) => sum + norm3(sub3(p, ring[(i + 1) % n] ?? p)), 0);
}

/** Ends that fit into a corner of others, with the seams of all their joints together. */
const cornered = ({ members, joints }: Structure) =>
  members.flatMap((m) =>
    (["from", "to"] as const).flatMap((end) => {
      const own = joints.filter((j) => j.b === m.id && j.endB === end && j.kind !== "lap" && j.kind !== "mitre");
      return own.length > 1 ? [{ end: `${m.id} ${end}`, m, at: end, faces: own.flatMap((j) => j.faces) }] : [];
    }),
  );

const tubes = fc.record({ mm: fc.integer({ min: 20, max: 60 }), wall: fc.constantFrom(1.6, 2, 3) });
const gates = fc
  .record({
    tube: tubes,
    length: fc.integer({ min: 700, max: 1600 }),
    width: fc.integer({ min: 900, max: 2200 }),
    rail: fc.integer({ min: 350, max: 550 }),
    brace: fc.constantFrom("below the rail", "above the rail"),
    hinge: fc.constantFrom("DA", "BC"),
  })
  .map(({ tube, ...change }) => started("gate leaf", change, squareTube(tube.mm, tube.wall)));
const tables = tubes.map(({ mm, wall }) => started("table base", {}, squareTube(mm, wall)));

describe("an end that fits into a corner of others", () => {
  it("is welded once all round, whatever stands in the corner with it", () => {
    fc.assert(
      fc.property(fc.oneof(gates, tables), (frame) => {
        const ends = cornered(structureOf(frame));
        expect(ends.length).toBeGreaterThan(0);
        for (const { end, m, at, faces } of ends) {
          const seams = faces.reduce((sum, f) => sum + f.lengthMm, 0);
          expect(seams / roundEndMm(m, at), end).toBeCloseTo(1, 1);
        }
      }),
      { numRuns: 40 },
    );
  });
  it("stands on either member of a corner from the point to its edge, as plane geometry gives it", () => {
    fc.assert(
      fc.property(
        fc.record({
          mm: fc.integer({ min: 20, max: 60 }),
          long: fc.integer({ min: 600, max: 1800 }),
          wide: fc.integer({ min: 600, max: 1800 }),
        }),
        ({ mm, long, wide }) => {
          const [inner, far]: [Vec3, Vec3] = [
            [mm / 2, mm / 2, 0],
            [long - mm / 2, wide - mm / 2, 0],
          ];
          const frame = ring(
            [
              [0, 0, 0],
              [long, 0, 0],
              [long, wide, 0],
              [0, wide, 0],
            ],
            squareTube(mm, 3),
          );
          const brace = member("X", inner, far, "S1", "mm");
          const { joints } = structureOf({ ...frame, members: [...frame.members, brace] });
          const along = (rail: string): number[] =>
            (joints.find((j) => j.a === rail && j.b === "X")?.landedMm ?? []).map(Math.abs).sort((p, q) => p - q);
          const slope = Math.atan2(far[1] - inner[1], far[0] - inner[0]);
          // The two cuts meet in the corner, on the brace's middle line: half of its width stands on either, aslant.
          for (const [rail, sine] of [
            ["S1", Math.sin(slope)],
            ["S4", Math.cos(slope)],
          ] as const) {
            const [point, edge] = along(rail);
            expect(point).toBeCloseTo(0, 6);
            expect(edge).toBeCloseTo(mm / 2 / sine, 6);
          }
        },
      ),
      { numRuns: 30 },
    );
  });
  it("of a brace stands on either with the wall that looks away from the corner; a leg with two walls on each side of a mitre", () => {
    const gate = structureOf(started("gate leaf"));
    // Up from the hinge side's foot: its lower wall on the foot rail, its upper on the stile.
    expect(wordsOf(gate, "X1/AB")).toEqual(["right side", "top", "underside"]);
    expect(wordsOf(gate, "X1/DA")).toEqual(["back", "top", "underside"]);
    const table = structureOf(started("table base"));
    for (const leg of ["L1", "L2", "L3", "L4"]) {
      const walls = table.joints.flatMap((j) => (j.b === leg ? j.faces.map((f) => f.words) : []));
      expect(walls.sort(), leg).toEqual(["back", "front", "left side", "right side"]);
    }
  });
  it("shares a wall where the corner runs through it, by length", () => {
    // Rails of 60 and 40: the mitre runs from (-20, -30) to (20, 30), and cuts 4 mm off the leg's walls at y = 12 and y = -12.
    const legged = drawn(
      {
        P: [
          [0, 0, 0],
          [800, 0, 0],
        ],
        Q: [[0, 0, 0], [0, 600, 0], "S3"],
        LEG: [[0, 0, 0], [0, 0, -300], "S2"],
      },
      [squareTube(60, 3), squareTube(24, 2, "S2"), { ...squareTube(40, 3, "S3"), height: length("60") }],
    );
    const mitred = setJoint(legged, "P", "Q", { kind: "mitre" });
    const frame = ["P", "Q"].reduce((f, rail) => setJoint(f, rail, "LEG", { kind: "butt", through: rail }), mitred);
    const lengths = (rail: string): number[] =>
      structureOf(frame)
        .joints.flatMap((j) => (j.a === rail && j.b === "LEG" ? j.faces.map((f) => Math.round(f.lengthMm)) : []))
        .sort((a, b) => a - b);
    expect(lengths("P")).toEqual([4, 20, 24]);
    expect(lengths("Q")).toEqual([4, 20, 24]);
  });
});

describe("a brace whose middle line misses the corner", () => {
  it("is cut to both members there and stands in neither, wherever on one of them its middle line lands", () => {
    fc.assert(
      fc.property(
        fc.record({
          mm: fc.constantFrom(30, 40, 50),
          long: fc.integer({ min: 900, max: 1800 }),
          wide: fc.integer({ min: 900, max: 1800 }),
          up: fc.double({ min: 0, max: 1.5, noNaN: true }),
        }),
        ({ mm, long, wide, up }) => {
          const at: Vec3[] = [
            [0, 0, 0],
            [long, 0, 0],
            [long, wide, 0],
            [0, wide, 0],
          ];
          const foot: Vec3 = [0, up * mm, 0];
          const head: Vec3 = [long, wide - up * mm, 0];
          const frame = ring(at, squareTube(mm, 3));
          const built = { ...frame, members: [...frame.members, member("X", foot, head, "S1", "mm")] };
          const { members, joints } = structureOf(built);
          const x = members.find((m) => m.id === "X");
          if (!x) throw new Error("no brace");
          // No corner of its body lies deeper than a millimetre inside the opening's edges.
          for (const [px, py] of bodyPoints(x)) {
            expect(px).toBeGreaterThan(mm / 2 - 1.01);
            expect(py).toBeGreaterThan(mm / 2 - 1.01);
            expect(px).toBeLessThan(long - mm / 2 + 1.01);
            expect(py).toBeLessThan(wide - mm / 2 + 1.01);
          }
          expect(whyNoPrediction(drawnPlan(built))).toBeNull();
          // Where half of its width, aslant, reaches past the corner it stands on both.
          const slope = Math.atan2(head[1] - foot[1], head[0] - foot[0]);
          const reachesMm = mm / 2 / Math.cos(slope) - (foot[1] + (mm / 2) * Math.tan(slope) - mm / 2);
          const on = joints.filter((j) => j.b === "X" && j.endB === "from").map((j) => j.a);
          if (reachesMm > 1.5) expect(on.sort()).toEqual(["S1", "S4"]);
          if (reachesMm < 0.5) expect(on).toEqual(["S4"]);
        },
      ),
      { numRuns: 60 },
    );
  });
});

describe("a seam that another member covers", () => {
  it("gets no bead, unless somebody says so", () => {
    const frame = started("gate leaf");
    const gate = structureOf(frame);
    expect(faceOf(gate, "A", "inside")).toMatchObject({ under: "X1", bead: false });
    expect(faceOf(gate, "C", "inside")).not.toHaveProperty("under");
    expect(faceOf(gate, "C", "inside")).toMatchObject({ bead: true });
    // The brace's head lies under the rail.
    expect(gate.joints.find((j) => j.id === "M1/BC")?.faces.filter((f) => f.under === "X1")).toHaveLength(1);
    const said = setJoint(frame, "AB", "DA", { faces: [{ line: "inside", bead: true, leg: null, care: "none" }] });
    expect(faceOf(structureOf(said), "A", "inside")).toMatchObject({ under: "X1", bead: true });
    const cleared = setJoint(said, "AB", "DA", { faces: [] });
    expect(cleared.joints).toEqual(frame.joints);
  });
  it("is one under a leg, and none under a frame that comes on when this one is done", () => {
    const table = structureOf(started("table base"));
    for (const c of ["A", "B", "C", "D"]) expect(faceOf(table, c, "top")?.under, c).toMatch(/^L\d$/);
    const stack = started("two frames stacked");
    expect(stack.groups.length).toBe(2);
    expect(
      structureOf(stack)
        .joints.flatMap((j) => j.faces)
        .filter((f) => f.under),
    ).toEqual([]);
    const together = structureOf({ ...stack, groups: [] });
    for (const c of ["A", "B", "C", "D"]) expect(faceOf(together, c, "top")?.under, c).toBeDefined();
  });
  it("that is to have a bead all the same is named where it comes when it is covered already", () => {
    const frame = started("gate leaf");
    const said = setJoint(frame, "AB", "DA", { faces: [{ line: "inside", bead: true, leg: null, care: "none" }] });
    const plan = drawnPlan(said);
    expect(orderProblems(drawnPlan(frame))).toEqual([]);
    expect(orderProblems(plan).map((p) => p.message)).toEqual([
      "No torch comes there any more by then: A, inside corner, under X1. Lay them before what covers them is tacked, or give them no bead.",
    ]);
    // Laid before the brace comes, nothing is wrong with it.
    const ids = builtOf(plan).order?.steps.map((s) => s.id) ?? [];
    const isInside = (id: StepId): boolean => id.do === "bead" && id.joint === "A" && id.line === "inside";
    const brace = ids.findIndex((id) => id.do === "tack" && id.joint.startsWith("X1/"));
    const steps = [...ids.slice(0, brace), ...ids.filter(isInside), ...ids.slice(brace).filter((id) => !isInside(id))];
    const own: OrderChoice = { ...USUAL_ORDER, by: "own", steps };
    expect(orderProblems({ ...plan, order: own }).filter((p) => /No torch/.test(p.message))).toEqual([]);
  });
  it("is in no order of work, and every seam that can be seen is in it once", () => {
    fc.assert(
      fc.property(fc.oneof(gates, tables), (frame) => {
        const { structure, order } = builtOf(drawnPlan(frame));
        const beads = (order?.steps ?? []).flatMap(({ id }) => (id.do === "bead" ? [`${id.joint} ${id.line}`] : []));
        const seen = (structure?.joints ?? []).flatMap((j) =>
          j.faces.flatMap((f) => (f.under ? [] : [`${j.id} ${f.line}`])),
        );
        expect([...beads].sort()).toEqual(seen.sort());
      }),
      { numRuns: 10 },
    );
  });
});

import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { drawn, squareTube, started } from "../../../tests/support/drawnFrames";
import { length } from "../units";
import { boxCorners, clearances, gapBetween, squareBox } from "./clearance";
import type { DrawnFrame } from "./drawnSchema";
import {
  addMember,
  copyMembers,
  deleteMembers,
  moveCorner,
  moveMembers,
  nextName,
  renameMember,
  setJoint,
  setLength,
  setMember,
  spaceEqually,
  splitMember,
} from "./editing";
import { handedness } from "./handed";
import { joiningOrder } from "./joining";
import { measuredShape, readSurvey, sidesOf } from "./measuredShape";
import { flipMembers, mirrorMembers } from "./mirroring";
import { place, placeMembers } from "./placing";
import { resolveStructure } from "./resolveStructure";
import { fits, splitForSize } from "./sizeLimit";
import { snap } from "./snapping";
import { STARTERS } from "./starters";

const at = (frame: DrawnFrame, id: string) => {
  const m = frame.members.find((x) => x.id === id);
  if (!m) throw new Error(`no member ${id}`);
  return m;
};
const ends = (frame: DrawnFrame) => frame.members.map((m) => [m.id, place(m.from), place(m.to)]);
const near = (a: unknown, b: unknown) => {
  const flat = (v: unknown): number[] => (Array.isArray(v) ? v.flatMap(flat) : typeof v === "number" ? [v] : []);
  const [p, q] = [flat(a), flat(b)];
  expect(p).toHaveLength(q.length);
  for (const [i, x] of p.entries()) expect(x).toBeCloseTo(q[i] ?? Number.NaN, 6);
};

describe("editing", () => {
  it("mirrored twice is as it was, whatever the frame and wherever the mirror", () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...STARTERS.map((s) => s.name)),
        fc.constantFrom("x" as const, "y" as const),
        fc.integer({ min: -2000, max: 2000 }),
        (name, axis, mm) => {
          const frame = started(name);
          const ids = frame.members.map((m) => m.id);
          const twice = flipMembers(flipMembers(frame, ids, axis, mm, "mm"), ids, axis, mm, "mm");
          near(ends(twice), ends(frame));
          expect(twice.members.map((m) => ({ ...m, from: 0, to: 0 }))).toEqual(
            frame.members.map((m) => ({ ...m, from: 0, to: 0 })),
          );
          // A mirrored frame has the same joints, pieces and weight.
          const once = resolveStructure(flipMembers(frame, ids, axis, mm, "mm")).structure;
          const own = resolveStructure(frame).structure;
          expect(once.massKg).toBeCloseTo(own.massKg, 6);
          expect(once.joints.map((j) => `${j.kind} ${[j.a, j.b].sort().join()}`).sort()).toEqual(
            own.joints.map((j) => `${j.kind} ${[j.a, j.b].sort().join()}`).sort(),
          );
        },
      ),
      { numRuns: 60 },
    );
  });
  it("a mirror image follows its original, and both count as left and right", () => {
    const arm = drawn({
      R1: [
        [0, 100, 20],
        [800, 300, 20],
      ],
    });
    const { frame, ids } = mirrorMembers(arm, ["R1"], "y", 500, true, "mm");
    expect(ids).toEqual(["R2"]);
    expect(frame.pairs).toEqual([{ left: ["R1"], right: ["R2"] }]);
    const moved = setMember(frame, "R1", { to: { ...at(frame, "R1").to, y: length("350") } }, "mm");
    expect(at(moved, "R2").to.y.mm).toBe(650);
    expect(deleteMembers(moved, ["R1"]).members).toMatchObject([{ id: "R2", mirror: null }]);
  });
  it("moves corners with all that meets there, and leaves what is locked", () => {
    const frame = started("rectangle");
    const moved = moveCorner(frame, place(at(frame, "BC").from), [1280, 20, 20], "mm");
    expect(at(moved, "AB").to.x.mm).toBe(1280);
    expect(at(moved, "BC").from.x.mm).toBe(1280);
    expect(at(moved, "CD")).toEqual(at(frame, "CD"));
    const locked = setMember(frame, "AB", { locked: true }, "mm");
    expect(moveMembers(locked, ["AB"], [0, -50, 0], "mm")).toEqual(locked);
    const along = moveMembers(frame, ["AB"], [0, -50, 0], "mm", true);
    expect(at(along, "BC").from.y.mm).toBe(-30);
    expect(resolveStructure(along).structure.joints.map((j) => j.kind)).toEqual(["mitre", "mitre", "mitre", "mitre"]);
  });
  it("what is not moved keeps the text that was typed", () => {
    const frame = drawn({
      A1: [
        [0, 0, 0],
        [1000, 0, 0],
      ],
    });
    const typed = { ...frame, members: frame.members.map((m) => ({ ...m, from: { ...m.from, y: length("12.5+3") } })) };
    expect(at(moveMembers(typed, ["A1"], [10, 0, 0], "mm"), "A1").from.y.text).toBe("12.5+3");
  });
  it("splits, copies, spaces, sets lengths, renames", () => {
    const frame = started("ladder", { rungs: 3 });
    const split = splitMember(frame, "AB", 400, "mm");
    if (!split.ok) throw new Error(split.message);
    expect(split.value.id).toBe("A1");
    const s = resolveStructure(split.value.frame).structure;
    expect(s.joints.find((j) => [j.a, j.b].sort().join() === "A1,AB")).toMatchObject({ kind: "butt", angleDeg: 180 });
    expect(s.massKg).toBeCloseTo(resolveStructure(frame).structure.massKg, 9);
    expect(splitMember(frame, "AB", 2, "mm").ok).toBe(false);
    // What was said of the far corner holds for the piece that is there now.
    const said = {
      ...setJoint(frame, "AB", "BC", { kind: "butt", through: "AB" }),
      pairs: [{ left: ["AB"], right: ["CD"] }],
    };
    const parted = splitMember(said, "AB", 400, "mm");
    if (!parted.ok) throw new Error(parted.message);
    expect(resolveStructure(parted.value.frame).structure.joints.find((j) => j.a === "A1" && j.b === "BC")?.kind).toBe(
      "butt",
    );
    expect(parted.value.frame.pairs[0]?.left).toEqual(["AB", "A1"]);
    const copied = copyMembers(frame, ["M1", "M2"], [0, 0, 100], 2, "mm");
    expect(copied.ids).toEqual(["M4", "M5", "M6", "M7"]);
    const uneven = moveMembers(frame, ["M2"], [77, 0, 0], "mm");
    const even = spaceEqually(uneven, ["M1", "M2", "M3"], "x", "mm");
    if (!even.ok) throw new Error(even.message);
    near(ends(even.value), ends(frame));
    expect(spaceEqually(frame, ["M1", "M2"], "x", "mm").ok).toBe(false);
    const longer = setLength(frame, "M1", 900, "middle", "mm");
    if (!longer.ok) throw new Error(longer.message);
    expect(at(longer.value, "M1").to.y.mm - at(longer.value, "M1").from.y.mm).toBeCloseTo(900, 6);
    const renamed = renameMember({ ...frame, pairs: [{ left: ["M1"], right: ["M2"] }] }, "M1", "X9");
    expect(renamed.ok && renamed.value.pairs[0]?.left).toEqual(["X9"]);
    expect(renameMember(frame, "M1", "M2").ok).toBe(false);
    expect(renameMember(frame, "M1", "m 1").ok).toBe(false);
  });
  it("no member is lost: any row of edits keeps names unique, and leaves frames as they were handed in", () => {
    const edit = fc.record({
      what: fc.constantFrom("add", "copy", "split", "mirror", "delete", "move"),
      pick: fc.nat(50),
      mm: fc.integer({ min: -400, max: 400 }),
    });
    fc.assert(
      fc.property(fc.constantFrom(...STARTERS.map((s) => s.name)), fc.array(edit, { maxLength: 12 }), (name, edits) => {
        let frame = started(name);
        for (const { what, pick, mm } of edits) {
          const before = structuredClone(frame);
          const id = frame.members[pick % Math.max(1, frame.members.length)]?.id ?? "";
          const count = frame.members.length;
          let next = frame;
          let expected = count;
          if (what === "add") {
            const done = addMember(frame, [mm, 0, 0], [mm + 300, 50, 0], "S1", "mm");
            if (done.ok) next = done.value.frame;
            expected += 1;
          } else if (count === 0) continue;
          else if (what === "copy") {
            next = copyMembers(frame, [id], [mm, 3, 0], 2, "mm").frame;
            expected += 2;
          } else if (what === "split") {
            const done = splitMember(frame, id, 60, "mm");
            if (done.ok) {
              next = done.value.frame;
              expected += 1;
            }
          } else if (what === "mirror") {
            next = mirrorMembers(frame, [id], "x", mm, pick % 2 === 0, "mm").frame;
            expected += 1;
          } else if (what === "delete") {
            next = deleteMembers(frame, [id]);
            expected -= 1;
          } else next = moveMembers(frame, [id], [mm, 0, 10], "mm", true);
          expect(frame).toEqual(before);
          expect(next.members).toHaveLength(expected);
          expect(new Set(next.members.map((m) => m.id)).size).toBe(expected);
          expect(nextName(next, "M")).not.toBe("");
          frame = next;
          // Whatever it is by now, it can be worked out.
          expect(Number.isFinite(resolveStructure(frame).structure.massKg)).toBe(true);
        }
      }),
      { numRuns: 60 },
    );
  });
});

describe("snapping", () => {
  const placed = placeMembers(
    drawn({
      A1: [
        [0, 0, 20],
        [1000, 0, 20],
      ],
      A2: [
        [0, 400, 20],
        [1000, 400, 20],
      ],
    }),
  );
  const plan = { right: 0, up: 1, depth: 2 } as const;
  const near = (p: [number, number, number]) => snap(placed.values(), p, plan, 12, 5);
  it("goes to ends, middles, faces and lines before the grid, and takes the depth of what it finds", () => {
    expect(near([4, 6, 0])).toEqual({ at: [0, 0, 20], what: "end", of: "A1" });
    expect(near([506, -5, 0])).toMatchObject({ at: [500, 0, 20], what: "middle" });
    expect(near([300, 3, 0])).toMatchObject({ at: [300, 0, 20], what: "on the line" });
    expect(near([300, 22, 0])).toMatchObject({ at: [300, 20, 20], what: "face" });
    expect(near([303, 205, 7]).what).toBe("equal gap");
    expect(near([303, 205, 7]).at[1]).toBe(200);
    expect(near([303, 102, 7])).toEqual({ at: [305, 100, 7], what: "grid", of: null });
  });
});

describe("gaps", () => {
  it("between two boxes are what they were set apart by, however they are turned", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 500 }),
        fc.double({ min: 0, max: 1.5, noNaN: true }),
        fc.integer({ min: 0, max: 2 }),
        (gap, turn, way) => {
          const [c, s] = [Math.cos(turn), Math.sin(turn)];
          // Turned about z, a box of half sizes 50, 30, 20 reaches this far along x, y, z.
          const far = [50 * c + 30 * s, 50 * s + 30 * c, 20][way] as number;
          const middle: [number, number, number] = [0, 0, 0];
          middle[way] = 70 + gap + far;
          const turned = {
            middle,
            axes: [
              [c, s, 0],
              [-s, c, 0],
              [0, 0, 1],
            ] as const,
            half: [50, 30, 20] as const,
          };
          const still = squareBox([-70, -70, -70], [70, 70, 70]);
          const found = gapBetween(still, turned as never);
          // Along z the faces lie over each other; sideways a corner comes nearest, inside the other's face.
          expect(found.mm).toBeCloseTo(gap, 5);
          expect(gapBetween(turned as never, still).mm).toBeCloseTo(gap, 5);
          expect(boxCorners(still)).toHaveLength(8);
        },
      ),
    );
    expect(gapBetween(squareBox([0, 0, 0], [10, 10, 10]), squareBox([13, 14, 0], [20, 20, 10])).mm).toBeCloseTo(5, 9);
    expect(gapBetween(squareBox([0, 0, 0], [10, 10, 10]), squareBox([8, 0, 0], [20, 20, 10])).mm).toBeCloseTo(-2, 9);
  });
  it("feet may stand on the floor, members may not", () => {
    const table = { ...started("table base"), floor: { at: length("-6"), least: length("1") } };
    expect(clearances(table, resolveStructure(table).structure)).toMatchObject([{ of: "floor", ok: true, gapMm: 6 }]);
  });
});

describe("left and right", () => {
  const arm = drawn({
    R1: [
      [0, 0, 20],
      [600, 200, 20],
    ],
    R2: [
      [600, 200, 20],
      [600, 200, 300],
    ],
  });
  const of = (frame: DrawnFrame, left: string[], right: string[]) =>
    handedness(resolveStructure(frame).structure, left, right);
  it("a mirror image is right, a copy is two of one hand", () => {
    const { frame, ids } = mirrorMembers(arm, ["R1", "R2"], "y", 500, false, "mm");
    expect(of(frame, ["R1", "R2"], ids)).toMatchObject({ verdict: "mirrored" });
    const twin = copyMembers(arm, ["R1", "R2"], [0, 900, 0], 1, "mm");
    expect(of(twin.frame, ["R1", "R2"], twin.ids)).toMatchObject({
      verdict: "two of one hand",
      why: expect.stringMatching(/Mirror one/),
    });
  });
  it("an angle or a channel is laid end for end on the other side, so that its legs lie mirrored", () => {
    for (const shape of ["angle", "channel"] as const) {
      const arm = drawn(
        {
          R1: [
            [0, 0, 20],
            [600, 200, 20],
          ],
        },
        [{ ...squareTube(40, 4), shape }],
      );
      const { frame, ids } = mirrorMembers(arm, ["R1"], "y", 500, false, "mm");
      expect(of(frame, ["R1"], ids).verdict, shape).toBe("mirrored");
      const kink = resolveStructure(started("rails with a kink", {}, { ...squareTube(40, 4), shape })).structure;
      expect(handedness(kink, ["L1", "L2"], ["R1", "R2"]).verdict, shape).toBe("mirrored");
    }
  });
  it("what is its own mirror image fits either side; what differs is said", () => {
    const straight = drawn({
      R1: [
        [0, 0, 20],
        [600, 0, 20],
      ],
    });
    const twin = copyMembers(straight, ["R1"], [0, 900, 0], 1, "mm");
    expect(of(twin.frame, ["R1"], twin.ids).verdict).toBe("mirrored");
    const other = copyMembers(arm, ["R1"], [0, 900, 0], 1, "mm");
    expect(of(other.frame, ["R1", "R2"], other.ids).verdict).toBe("different");
  });
});

describe("sub-assemblies and room", () => {
  it("joins in order, tells which joints are each one's own, and warns of one that hangs in the air", () => {
    const frame = started("two frames stacked");
    const order = joiningOrder(frame, resolveStructure(frame).structure);
    expect(order.map((g) => g.name)).toEqual(["lower frame", "upper frame"]);
    expect(order[0]?.own).toHaveLength(6);
    expect(order[1]?.own).toHaveLength(4);
    expect(order[1]?.toRest).toHaveLength(6);
    const total = resolveStructure(frame).structure.joints.length;
    expect(order.reduce((s, g) => s + g.own.length + g.toRest.length, 0)).toBe(total);
    const table = {
      ...started("table base"),
      groups: [
        { id: "U1", name: "rails", members: ["AB"] },
        { id: "U2", name: "stretcher", members: ["T3"] },
      ],
    };
    expect(joiningOrder(table, resolveStructure(table).structure)[1]?.warning).toMatch(/touches nothing/);
  });
  it("fits in any turn, and parts what does not between joints, cutting least", () => {
    expect(fits([10, 20, 30], [30, 10, 20])).toBe(true);
    expect(fits([10, 20, 31], [30, 10, 20])).toBe(false);
    const s = resolveStructure(started("ladder", { length: 4000, width: 900, rungs: 7 })).structure;
    expect(splitForSize(s, [5000, 1000, 500])).toBeNull();
    const plan = splitForSize(s, [2500, 1000, 500]);
    expect(plan).toMatchObject({ axis: "x", cuts: [["AB", "CD"]] });
    const cut = plan?.at[0] ?? 0;
    expect(cut).toBeGreaterThanOrEqual(1500);
    expect(cut).toBeLessThanOrEqual(2500);
    for (const j of s.joints) expect(Math.abs(j.at[0] - cut)).toBeGreaterThanOrEqual(60 - 1);
    expect(splitForSize(s, [1500, 1000, 500])?.at).toHaveLength(2);
    // Stood across, the pieces may be as short as the room is narrow; in a cube of 800 nothing helps.
    expect(splitForSize(s, [2500, 500, 500])?.at.length).toBeGreaterThanOrEqual(7);
    expect(splitForSize(s, [800, 800, 800])?.at).toEqual([]);
  });
});

describe("sizes taken from an object", () => {
  const fitted = (text: string) => {
    const read = readSurvey(text, "mm");
    if (!read.ok) throw new Error(read.message);
    return measuredShape(read.value);
  };
  const quad = { P1: [0, 0], P2: [1200, 0], P3: [1210, 805], P4: [-6, 798] } as const;
  const d = (a: keyof typeof quad, b: keyof typeof quad): number =>
    Math.hypot(quad[a][0] - quad[b][0], quad[a][1] - quad[b][1]);
  const pairs = [
    ["P1", "P2"],
    ["P2", "P3"],
    ["P3", "P4"],
    ["P4", "P1"],
    ["P1", "P3"],
    ["P2", "P4"],
  ] as const;
  it("give the shape back from sides and diagonals, whatever the shape", () => {
    const shape = fitted(pairs.map(([a, b]) => `${a} ${b} ${d(a, b).toFixed(4)}`).join("\n"));
    if (!shape.ok) throw new Error(shape.message);
    expect(shape.value.spare).toBe(1);
    for (const p of shape.value.points) {
      const want = quad[p.name as keyof typeof quad];
      expect(p.at.x).toBeCloseTo(want[0], 3);
      expect(p.at.y).toBeCloseTo(want[1], 3);
    }
    expect(shape.value.doubtful).toEqual([]);
    // The diagonals cross each other: what is left are the four sides.
    expect(sidesOf(shape.value)).toHaveLength(4);
  });
  it("find the lines that do not agree, and say when one more is needed", () => {
    const wrong = fitted(
      pairs.map(([a, b]) => `${a} ${b} ${(d(a, b) + (a === "P1" && b === "P3" ? 12 : 0)).toFixed(3)}`).join("\n"),
    );
    expect(wrong.ok && wrong.value.doubtful.length).toBeGreaterThan(0);
    const four = fitted(
      pairs
        .slice(0, 4)
        .map(([a, b]) => `${a} ${b} ${d(a, b)}`)
        .join("\n"),
    );
    expect(four).toMatchObject({ ok: false, message: expect.stringMatching(/fewer than two|either side/) });
    expect(fitted("P1 P2 1000\nP2 P3 100\nP1 P3 300")).toMatchObject({
      ok: false,
      message: expect.stringMatching(/do not meet/),
    });
  });
  it("weigh a reading by its uncertainty", () => {
    const shape = fitted("P1 P2 1000 ± 0.1\nP1 P2 1010 ± 10");
    const [a, b] = shape.ok ? shape.value.points : [];
    // Weighted mean of two readings: closed form.
    expect(Math.hypot((a?.at.x ?? 0) - (b?.at.x ?? 0), (a?.at.y ?? 0) - (b?.at.y ?? 0))).toBeCloseTo(
      (1000 / 0.01 + 1010 / 100) / (1 / 0.01 + 1 / 100),
      6,
    );
    expect(b?.uMm).toBeCloseTo(1 / Math.sqrt(1 / 0.01 + 1 / 100), 6);
  });
  it("are read as people write them, and the first line that is not is named", () => {
    expect(readSurvey("p1 p2 47 1/4 in ± 1/16 in # tape\n\nP3 = 0, 2'", "mm")).toMatchObject({
      ok: true,
      value: [
        { kind: "distance", from: "P1", to: "P2", mm: expect.closeTo(1200.15, 9) },
        { kind: "point", name: "P3" },
      ],
    });
    for (const [text, words] of [
      ["P1 P2", /Line 1: write two points/],
      ["P1 P1 20", /no distance/],
      ["P1 P2 -20", /more than zero/],
      ["P1 P2 20 ± 0", /uncertainty is more than zero/],
      ["ok = 1, 2\n9x = 3, 4", /Line 2: "9x" is no name/],
      ["P1 P2 20 kg", /not a unit/],
    ] as const)
      expect(readSurvey(text, "mm"), text).toMatchObject({ ok: false, message: expect.stringMatching(words) });
  });
});

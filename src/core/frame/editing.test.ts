import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { drawn, squareTube, started } from "../../../tests/support/drawnFrames";
import { length } from "../units";
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
import { flipMembers, mirrorMembers } from "./mirroring";
import { place } from "./placing";
import { resolveStructure } from "./resolveStructure";
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
    expect(deleteMembers(moved, ["R1"], "mm").members).toMatchObject([{ id: "R2", mirror: null }]);
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
            next = deleteMembers(frame, [id], "mm");
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
  it("cutting a side away leaves its neighbours as long over all as they were", () => {
    for (const tube of [20, 40, 60]) {
      const frame = started("rectangle", { length: 1200, width: 800 }, squareTube(tube, 2));
      const side = resolveStructure(frame).structure.quad?.sides.DA ?? "";
      const long = (f: typeof frame) =>
        Object.fromEntries(resolveStructure(f).structure.members.map((m) => [m.id, Math.round(100 * m.longMm) / 100]));
      const { [side]: _, ...others } = long(frame);
      expect(long(deleteMembers(frame, [side], "mm"))).toEqual(others);
    }
  });
});

import { describe, expect, it } from "vitest";
import { flatTube, squareTube, started } from "../../../tests/support/drawnFrames";
import { ladder } from "../../../tests/support/ladder";
import { type DrawnFrame, resolveStructure, STARTERS } from "../frame";
import { seeded } from "../numeric";
import { allJoints, workpiece } from "./workpiece";

describe("what there is to weld", () => {
  it("of a ring are its corners, each across from the last, then its branches from the ends inward", () => {
    const work = workpiece(ladder(4));
    expect(work.ring).toBe(true);
    expect(work.corners.map((w) => w.joint.id)).toEqual(["A", "C", "B", "D"]);
    expect([...new Set(work.branches.map((w) => w.joint.b))]).toEqual(["M1", "M4", "M2", "M3"]);
  });
  it("of any frame holds every joint once, and every face that gets a bead in one place", () => {
    for (const { name } of STARTERS) {
      const { structure } = resolveStructure(started(name));
      const all = allJoints(workpiece(structure));
      expect(all.map((w) => w.joint.id).sort(), name).toEqual(structure.joints.map((j) => j.id).sort());
      for (const w of all) {
        const faces = [w.first, w.second, w.up, w.down, ...w.more].filter((f) => f !== null).map((f) => f.line);
        expect(faces.sort(), `${name} ${w.joint.id}`).toEqual(
          w.joint.faces
            .filter((f) => f.bead)
            .map((f) => f.line)
            .sort(),
        );
      }
    }
  });
  it("is taken face by face in the same turn, whichever end of a member it was drawn from", () => {
    /** Joints in their turn, and which way their faces look, in theirs. */
    const told = (frame: DrawnFrame): string[] =>
      allJoints(workpiece(resolveStructure(frame).structure)).map(({ joint, first, second, more, up, down }) =>
        [[joint.a, joint.b].sort().join("/"), first, second, ...more, up, down]
          .map((f) => (f && typeof f !== "string" ? f.toward.map((v) => Math.round(10 * v) + 0).join() : f))
          .join(" "),
      );
    const random = seeded(7);
    for (const { name } of STARTERS)
      for (const section of [squareTube(40, 3), flatTube(60, 30), flatTube(30, 60)]) {
        const frame = started(name, {}, section);
        for (let i = 0; i < 4; i++) {
          const members = frame.members.map((m) => (random() < 0.5 ? { ...m, from: m.to, to: m.from } : m));
          expect(told({ ...frame, members }), name).toEqual(told(frame));
        }
      }
  });
  it("goes outward from what lies on the bed: the legs of a table before its stretchers, whatever those are", () => {
    for (const stretchers of ["H", "all round", "none"]) {
      const { structure } = resolveStructure(started("table base", { stretchers }));
      const names = workpiece(structure).branches.map((w) => w.joint.b);
      const [legs, others] = ["L", "T"].map((letter) =>
        names.flatMap((name, i) => (name.startsWith(letter) ? [i] : [])),
      ) as [number[], number[]];
      expect(legs.length).toBe(8);
      expect(Math.max(...legs)).toBeLessThan(Math.min(...others, names.length));
      // The bar of an H comes when both that it goes between hang on their legs by both ends.
      const bar = names.indexOf("T3");
      if (stretchers === "H") expect(bar).toBeGreaterThan(Math.max(names.lastIndexOf("T1"), names.lastIndexOf("T2")));
    }
  });
  it("does not depend on the order that members were drawn in", () => {
    const frame = started("ladder", { rungs: 3 });
    const turned = { ...frame, members: [...frame.members].reverse() };
    const ids = (f: typeof frame) => allJoints(workpiece(resolveStructure(f).structure)).map((w) => w.joint.id);
    expect(ids(turned)).toEqual(ids(frame));
  });
});

import fc from "fast-check";
import { describe, expect, it } from "vitest";
import {
  aroundMiddle,
  drawn,
  drawnAnyhow,
  FREE_FRAMES,
  flatTube,
  ring,
  squareTube,
  started,
} from "../../../tests/support/drawnFrames";
import { ladder } from "../../../tests/support/ladder";
import { type DrawnFrame, resolveStructure, STARTERS } from "../frame";
import { seeded, type Vec3 } from "../numeric";
import { allJoints, workpiece } from "./workpiece";

const xyz = (p?: DrawnFrame["members"][number]["from"]): Vec3 => (p ? [p.x.mm, p.y.mm, p.z.mm] : [0, 0, 0]);

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
  /** Joints in their turn, and which way their faces look, in theirs. */
  const told = (frame: DrawnFrame): string[] =>
    allJoints(workpiece(resolveStructure(frame).structure)).map(({ joint, first, second, more, up, down }) =>
      [[joint.a, joint.b].sort().join("/"), first, second, ...more, up, down]
        .map((f) => (f && typeof f !== "string" ? f.toward.map((v) => Math.round(10 * v) + 0).join() : f))
        .join(" "),
    );
  it("has its joints in the same turn whichever member was drawn first, mitred rings with and without a bar across among them", () => {
    const random = seeded(9);
    const rings = [5, 6, 8].map((n) => ring(aroundMiddle(Array.from({ length: n }, () => 500))));
    const across = drawn({
      ...Object.fromEntries((rings[1] as DrawnFrame).members.map((m) => [m.id, [xyz(m.from), xyz(m.to)]])),
      X1: [xyz((rings[1] as DrawnFrame).members[0]?.from), xyz((rings[1] as DrawnFrame).members[3]?.from)],
    });
    const free = (["rails with a kink", "three sides", "an L", "hoop", "drawbar"] as const).map((n) => FREE_FRAMES[n]);
    for (const [i, frame] of [...rings, across, ...free].entries())
      for (let k = 0; k < 4; k++) {
        const joints = (f: DrawnFrame) => told(f).map((line) => line.split(" ")[0]);
        expect(joints(drawnAnyhow(frame, random)), `frame ${i}`).toEqual(joints(frame));
      }
  });
  it("is taken face by face in the same turn, whichever end of a member it was drawn from", () => {
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
  it("puts in what others land on before them: rungs before the braces between them, whichever was drawn first", () => {
    const section = squareTube(30, 2);
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 4 }),
        fc.integer({ min: 300, max: 700 }),
        fc.integer({ min: 300, max: 900 }),
        fc.boolean(),
        fc.integer({ min: 1, max: 1e6 }),
        (rungs, pitch, wide, ring, seed) => {
          const long = pitch * (rungs + 1);
          const at = (x: number, y: number): Vec3 => [x, y, 15];
          const lines: Record<string, [Vec3, Vec3]> = {
            P: [at(0, 0), at(long, 0)],
            Q: [at(0, wide), at(long, wide)],
            ...(ring ? { E1: [at(0, 0), at(0, wide)], E2: [at(long, 0), at(long, wide)] } : {}),
          };
          for (let i = 1; i <= rungs; i++) lines[`R${i}`] = [at(pitch * i, 0), at(pitch * i, wide)];
          for (let i = ring ? 0 : 1; i < rungs + (ring ? 1 : 0); i++)
            lines[`B${i}`] = [at(pitch * i, 0), at(pitch * (i + 1), wide)];
          const frame = drawn(lines, [section]);
          const { structure } = resolveStructure(drawnAnyhow(frame, seeded(seed)));
          const branches = workpiece(structure).branches.map((w) => w.joint);
          const braced = branches.flatMap((j, i) =>
            j.b.startsWith("B") && j.a.startsWith("R") ? [{ on: j.a, i }] : [],
          );
          for (const { on, i } of braced)
            for (const [k, j] of branches.entries())
              if (j.b === on) expect(k, `${on} before a brace on it`).toBeLessThan(i);
        },
      ),
      { numRuns: 60 },
    );
    // Held fast by what lies on it: a rack's uprights stand before the bar along their tops, though they are cut to it.
    const rack = workpiece(resolveStructure(started("rack")).structure).branches.map((w) => w.joint.a);
    const [rail, top] = ["RAIL", "TOP"].map((name) => rack.flatMap((a, i) => (a === name ? [i] : []))) as [
      number[],
      number[],
    ];
    expect(top.length).toBe(rail.length);
    expect(Math.max(...rail)).toBeLessThan(Math.min(...top));
  });
  it("does not depend on the order that members were drawn in, not even where two joints of one end are at one place", () => {
    const deck = started("ladder", { rungs: 3 });
    const braced = drawn({
      DB: [
        [0, 0, 20],
        [500, 600, 20],
      ],
    });
    const frames = [
      deck,
      ...["table base", "gate leaf", "rectangle"].map((name) => started(name)),
      { ...deck, members: [...deck.members, ...braced.members] },
    ];
    const ids = (f: DrawnFrame): string[] =>
      allJoints(workpiece(resolveStructure(f).structure)).map((w) => [w.joint.a, w.joint.b].sort().join());
    for (const frame of frames) {
      const drawnSo = ids(frame);
      fc.assert(
        fc.property(fc.shuffledSubarray(frame.members, { minLength: frame.members.length }), (members) => {
          expect(ids({ ...frame, members })).toEqual(drawnSo);
        }),
        { numRuns: 20 },
      );
    }
  });
});

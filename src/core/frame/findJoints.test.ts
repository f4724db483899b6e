import fc from "fast-check";
import { describe, expect, it } from "vitest";
import {
  drawn,
  drawnAnyhow,
  FREE_FRAMES,
  flatTube,
  inexactly,
  squareTube,
  started,
} from "../../../tests/support/drawnFrames";
import { norm3, seeded, sub3, type Vec3 } from "../numeric";
import { length } from "../units";
import { setJoint } from "./editing";
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

/** Two chords of 40 with webs up and down between them, drawn on centre lines. */
function truss(bays: number, half: number, high: number, web: number) {
  const node = (i: number): Vec3 => [half * i, i % 2 === 0 ? 0 : high, 20];
  const lines: Record<string, [Vec3, Vec3, string]> = {
    LOW: [node(0), node(2 * bays), "S1"],
    TOP: [node(1), node(2 * bays - 1), "S1"],
  };
  for (let i = 0; i < 2 * bays; i++) lines[`W${i + 1}`] = [node(i), node(i + 1), "S2"];
  return drawn(lines, [squareTube(40, 3), squareTube(web, 2, "S2")]);
}

describe("joints are found from geometry alone", () => {
  it("in whichever order it was drawn: what lies between two others is fitted into their corner, and not they to it", () => {
    const frame = drawn({
      S1: [
        [0, 0, 0],
        [1400, 0, 0],
      ],
      S2: [
        [1400, 0, 0],
        [1400, 900, 0],
      ],
      S3: [
        [1400, 900, 0],
        [0, 900, 0],
      ],
      S4: [
        [0, 900, 0],
        [0, 0, 0],
      ],
      X1: [
        [700, 0, 0],
        [700, 900, 0],
      ],
      D: [
        [0, 0, 0],
        [700, 900, 0],
      ],
    });
    /** Of what is mitred or lies on each other neither is cut to the other. */
    const told = (f: typeof frame): string[] =>
      of(f)
        .joints.map((j) => `${[j.a, j.b].sort().join()} ${j.kind} ${["mitre", "lap"].includes(j.kind) ? "" : j.a}`)
        .sort();
    expect(told(frame)).toContain("S1,S4 mitre ");
    const frames = [
      frame,
      truss(3, 375, 600, 30),
      truss(3, 375, 600, 40),
      ...STARTERS.flatMap(({ name }) => [started(name), started(name, {}, flatTube(30, 60))]),
      ...Object.values(FREE_FRAMES),
    ];
    for (const one of frames) {
      const drawnSo = told(one);
      fc.assert(
        fc.property(fc.shuffledSubarray(one.members, { minLength: one.members.length }), (members) => {
          expect(told({ ...one, members })).toEqual(drawnSo);
        }),
        { numRuns: 15 },
      );
    }
  });
  it("fits the webs of a truss to its chords, at their ends as along them, whichever was drawn first", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 5 }),
        fc.integer({ min: 250, max: 700 }),
        fc.integer({ min: 300, max: 800 }),
        fc.constantFrom(20, 30, 38),
        fc.integer({ min: 1, max: 1e6 }),
        (bays, half, high, web, seed) => {
          const frame = truss(bays, half, high, web);
          const { structure, clashes } = resolveStructure(drawnAnyhow(frame, seeded(seed)));
          expect(clashes).toEqual([]);
          const isChord = (id: string): boolean => !id.startsWith("W");
          for (const j of structure.joints) expect(isChord(j.b), j.id).toBe(false);
          // Every web on both chords.
          expect(structure.joints.filter((j) => isChord(j.a))).toHaveLength(4 * bays);
          // The chord covers what lands on its end: as far as the web's outer wall reaches along it.
          const alpha = Math.atan2(high, half);
          const top = structure.members.find((m) => m.id === "TOP");
          const beyond = web / 2 / Math.sin(alpha) + 20 / Math.tan(alpha);
          expect(top?.longMm).toBeCloseTo(half * (2 * bays - 2) + 2 * beyond, 6);
        },
      ),
      { numRuns: 60 },
    );
  });
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
      "two frames stacked": 24,
    };
    for (const s of STARTERS) {
      const frame = started(s.name);
      const resolved = resolveStructure(frame);
      // The arms of a drawbar land on its nose at 23°.
      const sharp = s.name === "A-shaped drawbar" ? [/RH meets N1 at 23°/, /LH meets N1 at 23°/] : [];
      const said = structureProblems(frame, resolved).map((p) => p.message);
      expect(said, s.name).toEqual(sharp.map((words) => expect.stringMatching(words)));
      expect(resolved.structure.joints, s.name).toHaveLength(counts[s.name] ?? -1);
    }
    // Other words of their choices: supports add four joints, a stretcher all round four more than an H.
    const more = (name: string, change: Record<string, string>): number => {
      const frame = started(name, change);
      const resolved = resolveStructure(frame);
      expect(
        structureProblems(frame, resolved).filter((p) => p.severity === "error"),
        name,
      ).toEqual([]);
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
  it("a rail that only touches the one beside it at a leg reaches the leg, however exactly it was drawn", () => {
    const size = fc.constantFrom(20, 30, 50, 80);
    const random = seeded(2);
    fc.assert(
      fc.property(size, size, (wide, high) => {
        const frame = started("stand", {}, flatTube(wide, high, 2));
        for (const f of [frame, inexactly(frame, 0.02, random), inexactly(frame, 0.02, random)]) {
          const { joints, members } = of(f);
          expect(joints.map((j) => j.id).filter((id) => !id.includes("/L"))).toEqual([]);
          // From leg to leg, between their middles, less what the legs are deep.
          const rail = members.find((m) => m.id === "DA") as StructureMember;
          expect(Math.abs(rail.longMm - (norm3(sub3(rail.to, rail.from)) - high))).toBeLessThan(0.5);
        }
      }),
      { numRuns: 16 },
    );
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
  it("lays pieces of seam along two that lie along each other: named from left to right, whichever was drawn first and from either end", () => {
    const pieces = (members: Parameters<typeof drawn>[0]) =>
      of(drawn(members)).joints.map((j) => ({
        id: j.id.replace(/^\w+\/\w+/, "both"),
        x: j.at[0],
        faces: j.faces.map((f) => f.line),
      }));
    const rail: [Vec3, Vec3] = [
      [0, 0, 20],
      [2000, 0, 20],
    ];
    const bar: [Vec3, Vec3] = [
      [300, 0, 60],
      [1500, 0, 60],
    ];
    const plain = pieces({ RAIL: rail, BAR: bar });
    // Two widths from the ends of the 1200 that they share, and no more than 400 apart.
    expect(plain.map((p) => p.x)).toEqual([380, 726.667, 1073.333, 1420].map((x) => expect.closeTo(x, 2)));
    expect(plain.map((p) => p.id)).toEqual(["both", "both/2", "both/3", "both/4"]);
    for (const p of plain) expect(p.faces).toEqual(["top", "bottom"]);
    const turned = pieces({ BAR: [bar[1], bar[0]], RAIL: [rail[1], rail[0]] });
    expect(turned.map(({ id, x }) => ({ id, x: Math.round(x) }))).toEqual(
      plain.map(({ id, x }) => ({ id, x: Math.round(x) })),
    );
  });
  it("takes as many pieces along two members as somebody says, and says when they have no room", () => {
    const frame = drawn({
      RAIL: [
        [0, 0, 20],
        [1000, 0, 20],
      ],
      BAR: [
        [0, 0, 60],
        [1000, 0, 60],
      ],
    });
    const said = (count: number, mm: string) =>
      setJoint(frame, "RAIL", "BAR", { stitches: { count, length: length(mm) } });
    const problems = (f: typeof frame) => structureProblems(f, resolveStructure(f)).map((p) => p.message);
    expect(of(said(7, "60")).joints.map((j) => j.faces[0]?.lengthMm)).toEqual(Array(7).fill(60));
    expect(problems(said(7, "60"))).toEqual([]);
    expect(of(said(1, "900")).joints).toHaveLength(1);
    expect(problems(said(20, "60"))).toEqual([expect.stringMatching(/lie along each other for 1000 mm: 20 of 60 mm/)]);
    expect(problems(said(2.5, "60"))).toEqual([expect.stringMatching(/whole number/)]);
    expect(problems(said(3, "0"))).toEqual([expect.stringMatching(/under 10 mm is a tack/)]);
    expect(setJoint(said(7, "60"), "BAR", "RAIL", { stitches: undefined }).joints).toEqual([]);
  });
  it("finds nothing to lap where a rung ends on a rail under the frame that lies on it", () => {
    const { structure } = resolveStructure(started("two frames stacked"));
    const pairs = structure.joints.filter((j) => j.kind === "lap").map((j) => [j.a, j.b].sort().join(" "));
    expect([...new Set(pairs)].sort()).toEqual(["AB EF", "BC FG", "CD GH", "DA HE"]);
  });
});

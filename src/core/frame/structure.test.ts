import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { drawn, roundTube, squareTube, started } from "../../../tests/support/drawnFrames";

import { length } from "../units";
import { setJoint } from "./editing";
import { MATERIALS } from "./materials";

import { resolveStructure } from "./resolveStructure";
import { STARTERS } from "./starters";
import type { StructureMember } from "./structure";
import { structureProblems } from "./structureProblems";

const STEEL = MATERIALS["mild steel"].densityKgPerMm3;
const of = (frame: Parameters<typeof resolveStructure>[0]) => resolveStructure(frame).structure;
const member = (frame: Parameters<typeof resolveStructure>[0], id: string): StructureMember => {
  const m = of(frame).members.find((x) => x.id === id);
  if (!m) throw new Error(`no member ${id}`);
  return m;
};
const kinds = (frame: Parameters<typeof resolveStructure>[0]): Record<string, string> =>
  Object.fromEntries(of(frame).joints.map((j) => [j.id, j.kind]));

/**
 * A mitre of two widths at an included angle: its line runs from the inner to the outer corner.
 * Source: closed form; w1 / sin f1 = w2 / sin f2, f1 + f2 = the included angle.
 */
function mitreByHand(includedDeg: number, w1: number, w2: number): { fromSquareRad: number; faceMm: number } {
  const t = (includedDeg * Math.PI) / 180;
  const f1 = Math.atan2(w1 * Math.sin(t), w2 + w1 * Math.cos(t));
  return { fromSquareRad: Math.PI / 2 - f1, faceMm: w1 / Math.sin(f1) };
}

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

describe("ends are cut to what they meet", () => {
  it("a mitre of any angle and any two widths, as the closed form has it", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 40, max: 140, noNaN: true }),
        fc.integer({ min: 20, max: 100 }),
        fc.integer({ min: 20, max: 100 }),
        (deg, w1, w2) => {
          const th = (deg * Math.PI) / 180;
          const sections = [squareTube(40, 2, "S1"), squareTube(40, 2, "S2")];
          (sections[0] as { width: unknown }).width = length(String(w1));
          (sections[1] as { width: unknown }).width = length(String(w2));
          const frame = drawn(
            {
              P: [[0, 0, 20], [900, 0, 20], "S1"],
              Q: [[0, 0, 20], [900 * Math.cos(th), 900 * Math.sin(th), 20], "S2"],
            },
            sections,
          );
          // Ends are typed to a hundredth of a millimetre, so the angle is the one that was drawn.
          const q = frame.members[1];
          if (!q) throw new Error("no Q");
          const drawnDeg = (Math.atan2(q.to.y.mm, q.to.x.mm) * 180) / Math.PI;
          const exact = mitreByHand(drawnDeg, w1, w2);
          const joint = of(frame).joints[0];
          expect(joint?.kind).toBe("mitre");
          const p = member(frame, "P");
          expect(p.longMm - p.shortMm).toBeCloseTo(w1 * Math.abs(Math.tan(exact.fromSquareRad)), 6);
          expect(joint?.faces.find((f) => f.line === "top")?.lengthMm).toBeCloseTo(exact.faceMm, 6);
        },
      ),
      { numRuns: 80 },
    );
  });
  it("a butt is cut to the near face, and the one that runs through to the far one", () => {
    const corner = drawn({
      AB: [
        [20, 20, 20],
        [980, 20, 20],
      ],
      BC: [
        [980, 20, 20],
        [980, 580, 20],
      ],
    });
    const butt = setJoint(corner, "AB", "BC", { kind: "butt", through: "AB" });
    expect(member(butt, "AB").longMm).toBeCloseTo(980, 9);
    expect(member(butt, "BC").longMm).toBeCloseTo(540, 9);
    const other = setJoint(corner, "AB", "BC", { kind: "butt", through: "BC" });
    expect(member(other, "AB").longMm).toBeCloseTo(940, 9);
    expect(member(other, "BC").longMm).toBeCloseTo(580, 9);
  });
  it("a brace into a corner has two cuts, and its tip is its long point", () => {
    const x = member(started("gate leaf"), "X1");
    expect(x.ends.from.cutters).toHaveLength(2);
    expect(x.longMm).toBeGreaterThanOrEqual(x.centreMm - 1e-9);
    expect(x.shortMm).toBeLessThan(x.longMm);
  });
  it("a root gap shortens every branch by it, and a mitred end by half of it square to the cut", () => {
    const ladder = started("ladder", { rungs: 1 });
    const gapped = { ...ladder, gap: length("2") };
    expect(member(ladder, "M1").longMm - member(gapped, "M1").longMm).toBeCloseTo(4, 9);
    expect(member(ladder, "AB").centreMm - member(gapped, "AB").centreMm).toBeCloseTo(2 * Math.SQRT2, 9);
  });
  it("flush: the face lies in one plane with the neighbour's, whatever the two sizes are", () => {
    const frame = drawn({ R1: [[0, 0, 30], [1000, 0, 30], "S1"], M1: [[500, 0, 30], [500, 600, 30], "S2"] }, [
      squareTube(60, 3, "S1"),
      squareTube(30, 3, "S2"),
    ]);
    const [r, m] = frame.members;
    if (!r || !m) throw new Error("two members expected");
    for (const [side, z] of [
      ["up", 45],
      ["down", 15],
    ] as const) {
      const flush = { ...frame, members: [r, { ...m, flush: { to: "R1", side } }] };
      expect(member(flush, "M1").from[2]).toBeCloseTo(z, 9);
      expect(kinds(flush)).toEqual({ "M1/R1": "tee" });
    }
  });
});

describe("weight, centre of mass, surface", () => {
  it("of a mitred rectangle, by hand", () => {
    const s = of(started("rectangle", { length: 1200, width: 800 }, squareTube(40, 3)));
    const area = 4 * 37 * 3 - (4 - Math.PI) * (36 - 9) + 0 * 3;
    expect(s.massKg).toBeCloseTo(3840 * area * STEEL, 1);
    expect(s.centreOfMass[0]).toBeCloseTo(600, 9);
    expect(s.centreOfMass[1]).toBeCloseTo(400, 9);
    // Centre lines 2 (1160 + 760) = 3840; the outside of the tube is 160 less its rounded corners of 6.
    expect(s.surfaceMm2).toBeCloseTo(3840 * (160 - (8 - 2 * Math.PI) * 6), 6);
  });
  it("of solid sections and plates, by hand", () => {
    const bar = drawn(
      {
        A1: [
          [0, 0, 0],
          [1000, 0, 0],
        ],
      },
      [{ ...squareTube(20), shape: "bar" }],
    );
    expect(of(bar).massKg).toBeCloseTo(Math.PI * 100 * 1000 * STEEL, 9);
    expect(of(bar).surfaceMm2).toBeCloseTo(Math.PI * 20 * 1000, 6);
    const flat = drawn(
      {
        A1: [
          [0, 0, 0],
          [500, 0, 0],
        ],
      },
      [{ ...squareTube(50), shape: "flat", height: length("8") }],
    );
    expect(of(flat).massKg).toBeCloseTo(50 * 8 * 500 * STEEL, 9);
    const at = { x: length("0"), y: length("0"), z: length("0") };
    const plate = {
      ...flat,
      members: [],
      parts: [
        {
          id: "P1",
          kind: "plate" as const,
          at,
          size: { x: length("100"), y: length("80"), z: length("6") },
          triangular: false,
          on: null,
          material: "mild steel" as const,
          holes: [{ x: length("0"), y: length("0"), diameter: length("20") }],
        },
      ],
    };
    expect(of(plate).massKg).toBeCloseTo((8000 - 100 * Math.PI) * 6 * STEEL, 9);
    expect(of(plate).surfaceMm2).toBeCloseTo(2 * (8000 - 100 * Math.PI) + 360 * 6 + Math.PI * 20 * 6, 6);
    const gusset = {
      ...plate,
      parts: plate.parts.map((p) => ({ ...p, kind: "gusset" as const, triangular: true, holes: [] })),
    };
    expect(of(gusset).massKg).toBeCloseTo(4000 * 6 * STEEL, 9);
    expect(of(gusset).centreOfMass[0]).toBeCloseTo(-50 + 100 / 3, 9);
  });
  it("turning a frame in the drawing changes neither weight nor surface", () => {
    const frame = started("gate leaf");
    const turned = {
      ...frame,
      members: frame.members.map((m) => ({
        ...m,
        from: { x: m.from.y, y: m.from.x, z: m.from.z },
        to: { x: m.to.y, y: m.to.x, z: m.to.z },
      })),
    };
    expect(of(turned).massKg).toBeCloseTo(of(frame).massKg, 9);
    expect(of(turned).surfaceMm2).toBeCloseTo(of(frame).surfaceMm2, 4);
  });
});

describe("what is wrong is said at its place, with what would put it right", () => {
  const problems = (frame: Parameters<typeof resolveStructure>[0]) => structureProblems(frame, resolveStructure(frame));
  const says = (frame: Parameters<typeof resolveStructure>[0], path: string, words: RegExp) => {
    const found = problems(frame).find((p) => p.path === path);
    expect(found?.message, `${path}: ${JSON.stringify(problems(frame))}`).toMatch(words);
  };
  it("members that cross, lie in each other, have no length, or touch nothing", () => {
    says(
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
      "frame.drawn.members.A2",
      /run through each other at x 500.*Split one/,
    );
    says(
      drawn({
        A1: [
          [0, 0, 20],
          [1000, 0, 20],
        ],
        A2: [
          [0, 10, 20],
          [900, 10, 20],
        ],
      }),
      "frame.drawn.members.A2",
      /lie in each other.*Move one aside/,
    );
    says(
      drawn({
        A1: [
          [0, 0, 20],
          [0, 0, 20],
        ],
      }),
      "frame.drawn.members.A1",
      /no length/,
    );
    says(
      drawn({
        A1: [
          [0, 0, 20],
          [1000, 0, 20],
        ],
        A2: [
          [0, 300, 20],
          [900, 300, 20],
        ],
      }),
      "frame.drawn.members.A2",
      /touches nothing/,
    );
    says(drawn({}), "frame.drawn.members", /no member yet/);
  });
  it("a mitre that cannot exist", () => {
    const sharp = drawn({
      P: [
        [0, 0, 20],
        [900, 0, 20],
      ],
      Q: [
        [0, 0, 20],
        [900, 200, 20],
      ],
    });
    const made = setJoint(sharp, "P", "Q", { kind: "mitre" });
    says(made, `frame.drawn.joints.${of(made).joints[0]?.id}`, /no mitre can be cut at 13°.*Make it a butt/);
  });
  it("a branch wider than what it lands on", () => {
    const round = drawn({ R1: [[0, 0, 20], [1000, 0, 20], "S1"], M1: [[500, 0, 20], [500, 600, 20], "S2"] }, [
      roundTube(40, 3, "S1"),
      roundTube(60, 3, "S2"),
    ]);
    says(round, "frame.drawn.joints.M1/R1", /wider than the round tube R1.*smaller branch/);
    const flat = drawn({ R1: [[0, 0, 20], [1000, 0, 20], "S1"], M1: [[500, 0, 20], [500, 600, 20], "S2"] }, [
      squareTube(40, 3, "S1"),
      squareTube(60, 3, "S2"),
    ]);
    says(flat, "frame.drawn.joints.M1/R1", /stands out beside R1 by 10 mm/);
    expect(problems(flat).every((p) => p.severity === "warning")).toBe(true);
  });
  it("a section that is none, a joint without a bead, names that are gone", () => {
    says(
      drawn(
        {
          A1: [
            [0, 0, 0],
            [500, 0, 0],
          ],
        },
        [squareTube(40, 20)],
      ),
      "frame.drawn.sections.S1.wall",
      /fills the section/,
    );
    says(
      drawn(
        {
          A1: [
            [0, 0, 0],
            [500, 0, 0],
          ],
        },
        [squareTube(900)],
      ),
      "frame.drawn.sections.S1.width",
      /outside 5 to 400/,
    );
    const ladder = started("ladder", { rungs: 1 });
    const none = ["plus", "minus", "top", "bottom"] as const;
    const bare = setJoint(ladder, "M1", "AB", {
      faces: none.map((line) => ({ line, bead: false, leg: null, care: "none" })),
    });
    says(bare, "frame.drawn.joints.M1/AB", /no bead on any face/);
    const huge = setJoint(ladder, "M1", "AB", {
      faces: [{ line: "top", bead: true, leg: length("90"), care: "none" }],
    });
    says(huge, "frame.drawn.joints.M1/AB", /bead of 90 mm is outside 1 to 25 mm/);
    const [first] = ladder.members;
    if (!first) throw new Error("no member");
    says(
      { ...ladder, members: [{ ...first, flush: { to: "ZZ", side: "up" } }, ...ladder.members.slice(1)] },
      "frame.drawn.members.AB",
      /flush with ZZ, which is gone/,
    );
  });
  it("an object that is in the way, a floor that is too near, a room that is too small", () => {
    const table = started("table base");
    const box = (x: string) => ({
      ...table,
      obstacles: [
        {
          id: "G1",
          name: "drum",
          at: { x: length(x), y: length("100"), z: length("140") },
          size: { x: length("200"), y: length("200"), z: length("300") },
          least: length("10"),
        },
      ],
    });
    says(box("-100"), "frame.drawn.obstacles.G1", /runs through drum|stands .* too near/);
    expect(problems(box("400"))).toEqual([]);
    says({ ...table, floor: { at: length("0"), least: length("5") } }, "frame.drawn.floor", /hangs 5\.0 mm too low/);
    const room = { x: length("900"), y: length("900"), z: length("900") };
    says({ ...table, largest: { what: "the tank", size: room } }, "frame.drawn.largest", /does not go into the tank/);
  });
});

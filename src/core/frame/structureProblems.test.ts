import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { drawn, roundTube, squareTube, started } from "../../../tests/support/drawnFrames";
import { length } from "../units";
import type { DrawnFrame } from "./drawnSchema";
import { setJoint } from "./editing";
import { resolveStructure } from "./resolveStructure";
import { STARTERS } from "./starters";
import { structureProblems } from "./structureProblems";

const of = (frame: Parameters<typeof resolveStructure>[0]) => resolveStructure(frame).structure;

describe("what is wrong is said at its place, with what would put it right", () => {
  const problems = (frame: Parameters<typeof resolveStructure>[0]) => structureProblems(frame, resolveStructure(frame));
  const says = (frame: Parameters<typeof resolveStructure>[0], path: string, words: RegExp) => {
    const found = problems(frame).find((p) => p.path === path);
    expect(found?.message, `${path}: ${JSON.stringify(problems(frame))}`).toMatch(words);
  };
  it("two that land on a third in each other's place; none where they stand beside each other, or one ends at the other", () => {
    const side = (braceMm: number) =>
      drawn(
        {
          LEG: [
            [0, 0, 25],
            [0, 900, 25],
          ],
          LOW: [
            [20, 150, 25],
            [715, 150, 25],
          ],
          FAR: [
            [735, 0, 25],
            [735, 900, 25],
          ],
          BR: [
            [20, braceMm, 25],
            [20 + 370, braceMm + 370, 25],
          ],
        },
        [squareTube(40, 3)],
      );
    const ofFeet = (frame: DrawnFrame) => problems(frame).filter((p) => p.message.includes("each other's place"));
    fc.assert(
      fc.property(fc.double({ min: 155, max: 400, noNaN: true }), (at) => {
        const found = ofFeet(side(at));
        // A brace at 45 degrees stands on sqrt(2) of its width, the rail on its own 40 about 150 (plane geometry).
        const shares = 150 + 20 - (at - 20 * Math.SQRT2);
        if (of(side(at)).joints.some((j) => [j.a, j.b].sort().join() === "BR,LOW")) expect(found).toEqual([]);
        else if (shares > 1.5) expect(found.map((p) => p.path)).toEqual(["frame.drawn.members.BR"]);
        else if (shares < 0.5) expect(found).toEqual([]);
      }),
      { numRuns: 80 },
    );
    for (const { name } of STARTERS) expect(ofFeet(started(name)), name).toEqual([]);
    // Another warning, here of a name, hides it no more than it hides another.
    const both = side(180);
    const named = both.members.map((m) => (m.id === "FAR" ? { ...m, id: "R1" } : m));
    expect(problems({ ...both, members: named }).map((p) => p.path)).toEqual([
      "frame.drawn.members.R1",
      "frame.drawn.members.BR",
    ]);
  });
  it("a member that is called like a corner, whichever corner that is; a ring of other names says nothing", () => {
    const named = (id: string): DrawnFrame => {
      const frame = started("rectangle");
      return { ...frame, members: frame.members.map((m, i) => (i === 0 ? { ...m, id } : m)) };
    };
    const corners = Object.values(of(started("rectangle")).quad?.joints ?? {});
    expect(corners).toHaveLength(4);
    for (const corner of corners)
      says(
        named(corner),
        `frame.drawn.members.${corner}`,
        /^A corner of the frame is called .*, too\. Give the member/,
      );
    expect(problems(named("T1"))).toEqual([]);
  });
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
  it("a branch so sharp that no torch reaches the root on one side, by that side, and none that gets no bead there", () => {
    for (const deg of [14, 22, 29, 31, 45, 90]) {
      const along = 400 / Math.tan((deg * Math.PI) / 180);
      const sharp = drawn({
        RAIL: [
          [0, 0, 20],
          [2600, 0, 20],
        ],
        ARM: [
          [300, 0, 20],
          [300 + along, 400, 20],
        ],
      });
      const said = (frame: DrawnFrame): string[] =>
        problems(frame).flatMap((p) => (/sharp side/.test(p.message) ? [p.message] : []));
      // It leans to the right, so the corner that is too narrow lies there.
      const words = `ARM meets RAIL at ${deg}°: on its sharp side (right side)`;
      expect(said(sharp), String(deg)).toEqual(deg < 30 ? [expect.stringContaining(words)] : []);
      const line = of(sharp).joints[0]?.faces.find((f) => f.words === "right side")?.line ?? "plus";
      const bare = setJoint(sharp, "ARM", "RAIL", { faces: [{ line, bead: false, leg: null, care: "none" }] });
      expect(said(bare), String(deg)).toEqual([]);
    }
  });
  it("a member that is called as rests are", () => {
    const of = (id: string) =>
      drawn({
        [id]: [
          [0, 0, 20],
          [1000, 0, 20],
        ],
        M1: [
          [500, 0, 20],
          [500, 600, 20],
        ],
      });
    says(of("R1"), "frame.drawn.members.R1", /rest on the bed is called R1, too/);
    says(of("R42"), "frame.drawn.members.R42", /rest on the bed/);
    for (const id of ["RAIL", "R", "R100", "RH1"])
      expect(
        structureProblems(of(id), resolveStructure(of(id))).map((p) => p.message),
        id,
      ).toEqual([]);
  });
  it("a branch wider than what it lands on", () => {
    const round = drawn({ C1: [[0, 0, 20], [1000, 0, 20], "S1"], M1: [[500, 0, 20], [500, 600, 20], "S2"] }, [
      roundTube(40, 3, "S1"),
      roundTube(60, 3, "S2"),
    ]);
    says(round, "frame.drawn.joints.M1/C1", /wider than C1, which is round.*smaller branch/);
    const flat = drawn({ C1: [[0, 0, 20], [1000, 0, 20], "S1"], M1: [[500, 0, 20], [500, 600, 20], "S2"] }, [
      squareTube(40, 3, "S1"),
      squareTube(60, 3, "S2"),
    ]);
    says(flat, "frame.drawn.joints.M1/C1", /stands out beside C1 by 10 mm/);
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
    const table = started("table base", { way: "on its feet" });
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

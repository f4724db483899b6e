import { describe, expect, it } from "vitest";
import { drawn, onPosts, railsOnRing, roundTube, squareTube, started } from "../../../tests/support/drawnFrames";
import { ladder } from "../../../tests/support/ladder";
import { fixtureElements } from "../fixture";
import { type DrawnFrame, resolveStructure, STARTERS } from "../frame";
import { orderOfWork } from "./schools";
import { seamCaution } from "./seamCaution";
import type { Step } from "./step";
import { faceAlone, stepIdWords, stepsInWords, stepWords } from "./stepWords";

describe("steps in words", () => {
  it("name corners and sides of a frame that has them", () => {
    const structure = ladder(1);
    const { steps } = orderOfWork(structure);
    const say = (key: string) => {
      const step = steps.find((s) => s.key === key);
      if (!step) throw new Error(key);
      return stepWords(structure, step).say;
    };
    expect(say("tack/A/inside")).toBe("Tack A, inside corner");
    expect(say("bead/C/top")).toBe("Weld C, top face");
    expect(say("bead/M1/AB/plus")).toMatch(/^Weld M1 on AB, side toward (BC|DA)$/);
    expect(say("measure/cold")).toBe("Measure cold: four sides and both diagonals, four corner heights");
  });
  it("name no side of a joint by a member that meets there: beyond a side of the ring it is its outer side", () => {
    for (const frame of [railsOnRing(2, 3), railsOnRing(1, 2, 60), ...STARTERS.map((s) => started(s.name))]) {
      const { structure } = resolveStructure(frame);
      for (const j of structure.joints) {
        const said = j.faces.map((f) => faceAlone(structure, j, f));
        for (const words of said) expect([`side toward ${j.a}`, `side toward ${j.b}`]).not.toContain(words);
        expect(new Set(said).size, j.id).toBe(said.length);
      }
    }
  });
  it("name a joint on a post by its members, and by no corner: there each side has its own", () => {
    const { structure } = resolveStructure(onPosts(1200, 700, [200, 780]));
    const { steps } = orderOfWork(structure);
    const said = steps.map((s) => stepWords(structure, s).say);
    expect(said.join("\n")).not.toMatch(/corner(?! heights)/);
    for (const joint of structure.joints) expect(said).toContain(`Weld ${joint.b} on ${joint.a}, top face`);
    // Outward there is nothing, on the upper level or below it.
    for (const j of structure.joints) {
      const words = j.faces.map((f) => faceAlone(structure, j, f));
      expect(words.filter((w) => w === "outer side")).toHaveLength(1);
    }
    expect(said.at(-1)).toBe("Measure cold: four sides and both diagonals, four corner heights");
  });
  it("begin with what the lay-out holds it by: clamps across from stops, or V-blocks where every tube rolls", () => {
    for (const { name } of STARTERS)
      for (const section of [squareTube(), roundTube(42)]) {
        const { structure } = resolveStructure(started(name, {}, section));
        const none = { alongMm: new Map<string, number>(), without: new Set<string>(), bearers: [], stepMm: 5 };
        const kinds = new Set(fixtureElements(structure, { ...none, side: "outside" }).map((e) => e.kind));
        const [first] = orderOfWork(structure).steps;
        const { say, why } = first ? stepWords(structure, first) : { say: "", why: "" };
        expect(say.startsWith("Clamp what lies on the bed"), name).toBe(kinds.has("clamp"));
        expect(say.startsWith("Strap what lies on the bed into its V-blocks"), name).toBe(!kinds.has("clamp"));
        if (!kinds.has("clamp")) expect(why, name).not.toContain("opposite each stop");
        expect(kinds.has("V-block"), name).toBe(!kinds.has("clamp"));
      }
  });
  it("are there for every step of every frame, no two steps of one order said alike but for what is done twice", () => {
    for (const { name } of STARTERS) {
      const { structure } = resolveStructure(started(name));
      const { steps } = orderOfWork(structure);
      const said = steps.filter((s) => s.id.do === "tack" || s.id.do === "bead").map((s) => stepWords(structure, s));
      for (const w of said) {
        expect(w.say, name).not.toMatch(/undefined|null|NaN|\[object/);
        expect(w.why.length, name).toBeGreaterThan(10);
      }
      expect(new Set(said.map((w) => w.say)).size, name).toBe(said.length);
    }
  });
  it("speak of vents where a tube is shut all round, and of none where all breathe", () => {
    const first = (frame: DrawnFrame): string | null => {
      const { structure } = resolveStructure(frame);
      const hold = orderOfWork(structure).steps.find((s) => s.id.do === "hold");
      if (!hold) throw new Error("nothing holds it");
      return stepWords(structure, hold).caution;
    };
    expect(first(started("rectangle"))).toMatch(/^Vent any closed tube/);
    const tee = drawn({
      BEAM: [
        [0, 0, 0],
        [900, 0, 0],
      ],
      POST: [
        [450, 0, 0],
        [450, 600, 0],
      ],
    });
    expect(first(tee)).toBeNull();
  });
  it("tack a leg on all its walls, and a branch that is covered on one side on its top too", () => {
    const tacked = (name: string, change = {}): string[] => {
      const { structure } = resolveStructure(started(name, change));
      return orderOfWork(structure).steps.flatMap(({ id }) => (id.do === "tack" ? [`${id.joint} ${id.line}`] : []));
    };
    const table = tacked("table base");
    for (const leg of ["L1", "L2", "L3", "L4"])
      expect(
        table.filter((t) => t.startsWith(`${leg}/`)),
        leg,
      ).toHaveLength(4);
    const gate = tacked("gate leaf");
    // The rail: two sides at the hinge stile, and where the brace comes up under it, its upper side and its top.
    expect(gate.filter((t) => t.startsWith("M1/DA"))).toHaveLength(2);
    expect(gate.filter((t) => t.startsWith("M1/BC"))).toEqual(["M1/BC plus", "M1/BC top"]);
    // The brace's ends: a wall on each of the two that they stand on.
    expect(gate.filter((t) => t.startsWith("X1/"))).toHaveLength(4);
    // The corner that the brace stands in turns about its outside.
    expect(gate.slice(0, 4)).toEqual(["A outside", "C inside", "B inside", "D inside"]);
  });
  it("count the outside of a corner whose inside is covered among the outsides, and say nothing of insides there", () => {
    for (const brace of ["below the rail", "above the rail"] as const)
      for (const weld of ["across and around", "strength first"] as const) {
        const { structure } = resolveStructure(started("gate leaf", { brace }));
        const { steps } = orderOfWork(structure, "surface", "hinge first", weld);
        const at = (line: string): number[] =>
          steps.flatMap(({ id }, i) => (id.do === "bead" && /^[ABCD]$/.test(id.joint) && id.line === line ? [i] : []));
        const [outside, inside] = [at("outside"), at("inside")];
        expect(outside).toHaveLength(4);
        expect(inside).toHaveLength(3);
        // All outsides in a row, whichever side of the insides the school puts them.
        expect(Math.max(...outside) - Math.min(...outside), `${brace} ${weld}`).toBeLessThan(6);
        for (const { id, why } of steps) {
          if (why.kind === "inside last") expect(id).toMatchObject({ line: "inside" });
          expect(["pulls alike", "pulls against"]).not.toContain(why.kind);
        }
      }
  });
  it("ask for more hands where the frame is heavy, and say how heavy", () => {
    const structure = ladder(12, { size: "80", wall: "5", depth: "" });
    const flip = orderOfWork(structure).steps.findLast((s) => s.id.do === "flip");
    if (!flip) throw new Error("no flip");
    expect(stepWords(structure, flip).caution).toMatch(/^\d+ kg: plan the lift/);
  });
  it("say of sub-assemblies which is turned over and how heavy it is: by itself while it is not joined, the whole when it is", () => {
    const { structure } = resolveStructure(started("two frames stacked", { length: 1400, width: 900 }));
    const flips = (steps: readonly Step[]): string[] => {
      const words = stepsInWords(structure, steps);
      return steps.filter((s) => s.id.do === "flip").map((s) => words.get(s.key)?.say ?? "");
    };
    const kg = (members: readonly string[]): number =>
      Math.round(structure.members.filter((m) => members.includes(m.id)).reduce((sum, m) => sum + m.massKg, 0));
    const [lower, upper] = structure.groups.map((g) => kg(g.members));
    const said = flips(orderOfWork(structure).steps);
    expect(said.length).toBeGreaterThanOrEqual(4);
    for (const say of said)
      expect(say).toMatch(
        new RegExp(`turn (lower frame over.* \\(${lower}\\s|upper frame over.* \\(${upper}\\s)`, "i"),
      );
    expect(said.some((s) => s.includes("upper"))).toBe(true);
    const together = flips(orderOfWork({ ...structure, groups: [] }).steps);
    for (const say of together)
      expect(say).toMatch(new RegExp(`turn the frame over.* \\(${Math.round(structure.massKg)}\\s`, "i"));
    expect(together.length).toBeGreaterThan(0);
  });
  it("say of what is set on a ring that it is read as it stands, and where that sits; of the cold frame that it is measured whole", () => {
    const deck = started("rectangle", { length: 1700, width: 900 }, squareTube(50, 3));
    const bar = drawn(
      {
        T1: [
          [1675, 450, 25],
          [2500, 450, 25],
        ],
        T2: [
          [2300, 250, 25],
          [2300, 650, 25],
        ],
      },
      deck.sections,
    );
    const { structure } = resolveStructure({
      ...deck,
      members: [...deck.members, ...bar.members],
      groups: [
        { id: "U1", name: "deck", members: deck.members.map((m) => m.id) },
        { id: "U2", name: "bar", members: ["T1", "T2"] },
      ],
    });
    const { steps } = orderOfWork(structure);
    const words = stepsInWords(structure, steps);
    const cold = steps.findIndex((s) => s.why.kind === "sub-assembly cold");
    expect(cold).toBeGreaterThan(10);
    const say = (from: number, to?: number): string[] =>
      steps.slice(from, to).flatMap((s) => (s.joint === null ? [words.get(s.key)?.say ?? ""] : []));
    expect(say(0, cold).join("; ")).toMatch(
      /four sides and both diagonals, dry.*close the error.*all four corners can be touched/,
    );
    const later = say(cold + 1);
    expect(later[0]).toBe("Measure four sides, both diagonals and the ways to T1E, dry, and where bar sits");
    // What is welded is not closed any more.
    expect(later.slice(1, -1).join("; ")).not.toMatch(/close the error|sits/);
    expect(later.at(-1)).toMatch(/^Measure cold: four sides, both diagonals and the ways to T1E/);
  });
  it("never say of what hangs free that it sets no shape: a leg leans, a rung between two rails does not", () => {
    const kinds = new Set<string>();
    for (const { name } of STARTERS) {
      const { structure } = resolveStructure(started(name));
      for (const { why, joint, id } of orderOfWork(structure).steps) {
        if (id.do !== "tack" || (why.kind !== "corners are locked" && why.kind !== "far end is free")) continue;
        const branch = structure.members.find((m) => m.id === structure.joints.find((j) => j.id === joint)?.b);
        const free = branch && [branch.ends.from, branch.ends.to].some((e) => e.joints.length === 0);
        expect(why.kind, `${name} ${joint}`).toBe(free ? "far end is free" : "corners are locked");
        kinds.add(why.kind);
      }
    }
    expect([...kinds].sort()).toEqual(["corners are locked", "far end is free"]);
  });
  it("on three rests clamp nothing between them, in any step", () => {
    for (const { name } of STARTERS) {
      const { structure } = resolveStructure(started(name));
      const steps = orderOfWork(structure, "three rests").steps;
      expect(
        steps.map((s) => s.key),
        name,
      ).toEqual(orderOfWork(structure).steps.map((s) => s.key));
      const said = steps.map((s) => stepWords(structure, s).say).join(". ");
      expect(said, name).not.toMatch(/clamp again|Leave it clamped|Clamp what lies/);
      expect(said, name).toMatch(/Lay it on its three rests; clamp it only straight over them/);
    }
  });
  it("warn of a thin wall, of an open edge on it, and of a thick wall on a thin one, each with the wall", () => {
    const cautions = (wall: number, chord?: number): Set<string> => {
      const drawn = started("ladder", {}, squareTube(40, wall));
      const thick = squareTube(40, chord ?? wall, "S2");
      const sections = chord ? [...drawn.sections, thick] : drawn.sections;
      const members = drawn.members.map((m) => (chord && /^(AB|CD)$/.test(m.id) ? { ...m, section: "S2" } : m));
      const { structure } = resolveStructure({ ...drawn, sections, members });
      return new Set(orderOfWork(structure).steps.flatMap((s) => seamCaution(structure, s, "mm") ?? []));
    };
    expect(cautions(3)).toEqual(new Set());
    const thin = [...cautions(1.5)];
    expect(thin).toHaveLength(2);
    for (const c of thin) expect(c).toContain("wall of 1.5 mm");
    const mixed = [...cautions(3, 5)];
    expect(mixed.length).toBeGreaterThan(0);
    for (const c of mixed)
      expect(c).toMatch(/^(AB|CD) has a wall of 5 mm, \w+ of 3 mm: the arc stays on the thick one/);
  });
  it("call a step that is gone by what it was", () => {
    expect(stepIdWords({ do: "tack", joint: "Z", line: "inside" })).toBe("tack Z, inside (no longer in the order)");
  });
});

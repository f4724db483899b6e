import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { FREE_FRAMES, started } from "../../../tests/support/drawnFrames";
import { ladder } from "../../../tests/support/ladder";
import { resolveStructure, STARTERS, type Structure } from "../frame";
import { putBackIn } from "./loadSteps";
import { facesLeft, ownOrderProblems } from "./ownOrder";
import { TACK_SCHOOLS, WELD_SCHOOLS } from "./schoolIds";
import { chosenOrder, notForFrame, type Order, orderOfWork } from "./schools";
import { schoolWords } from "./schoolWords";
import type { Step } from "./step";

/** Any frame that one can start with, or a ladder of so many rungs, by any two schools that have something to say of it. */
const anyOrder = fc.tuple(
  fc.oneof(
    fc.constantFrom(...STARTERS.map((s) => s.name)),
    fc.integer({ min: 0, max: 5 }),
    fc.constantFrom(...(Object.keys(FREE_FRAMES) as (keyof typeof FREE_FRAMES)[])),
  ),
  fc.constantFrom(...TACK_SCHOOLS),
  fc.constantFrom(...WELD_SCHOOLS),
);
type Any = [string | number, (typeof TACK_SCHOOLS)[number], (typeof WELD_SCHOOLS)[number]];
function built([frame, tack, weld]: Any, bottomUp = false): { structure: Structure; order: Order } {
  const free = frame in FREE_FRAMES ? FREE_FRAMES[frame as keyof typeof FREE_FRAMES] : null;
  const structure = typeof frame === "number" ? ladder(frame) : resolveStructure(free ?? started(frame)).structure;
  fc.pre([tack, weld].every((id) => notForFrame(id, structure) === null));
  fc.pre(!bottomUp || structure.groups.length === 0);
  return { structure, order: orderOfWork(structure, "surface", tack, weld, bottomUp) };
}

const beadsOf = (steps: readonly Step[]): Step[] => steps.filter((x) => x.id.do === "bead");

function checkOrder(structure: Structure, { steps, tack, weld, bottomUp }: Order): void {
  const name = `${tack}, ${weld}`;
  const keys = steps.map((x) => x.key);
  expect(new Set(keys).size, name).toBe(keys.length);
  const beads = beadsOf(steps);
  for (const b of beads)
    expect(
      steps.findIndex((x) => x.id.do === "tack" && x.joint === b.joint),
      `${name} ${b.key}`,
    ).toBeLessThan(steps.indexOf(b));
  expect(beads.map((b) => b.key).sort(), name).toEqual(
    structure.joints.flatMap((j) => j.faces.filter((f) => f.bead).map((f) => `bead/${j.id}/${f.line}`)).sort(),
  );
  let up = bottomUp ? "bottom" : "top";
  for (const x of steps) {
    if (x.id.do === "flip") up = up === "top" ? "bottom" : "top";
    expect(x.up, `${name} ${x.key}`).toBe(up);
    const face = structure.joints.find((j) => j.id === x.joint)?.faces.find((f) => f.line === x.line);
    // Nothing is tacked or welded overhead.
    expect((face?.toward[2] ?? 0) * (up === "top" ? 1 : -1), `${name} ${x.key}`).toBeGreaterThan(-0.71);
  }
  // What was tacked alone is cool soon: nobody waits for it.
  const first = keys.indexOf(beads[0]?.key ?? "");
  for (const [i, x] of steps.entries()) if (x.waitsFor) expect(i, `${name} ${x.key}`).toBeGreaterThan(first);
  expect(keys.indexOf("release"), name).toBeGreaterThan(keys.lastIndexOf(beads.at(-1)?.key ?? ""));
  expect(keys.at(-1), name).toBe("measure/cold");
}

describe("the order of any frame, by every school", () => {
  it("tacks before it welds, beads every face that gets one just once, never overhead, and ends cold", () => {
    fc.assert(
      fc.property(anyOrder, (any) => {
        const { structure, order } = built(any);
        checkOrder(structure, order);
      }),
      { numRuns: 150 },
    );
  });
  it("lies on its other side to begin with when it was chosen so: nothing is laid overhead, and as much is done", () => {
    fc.assert(
      fc.property(anyOrder, (any) => {
        const [usual, over] = [built(any), built(any, true)];
        expect(over.order.bottomUp).toBe(true);
        checkOrder(over.structure, over.order);
        const own = chosenOrder(over.structure, "surface", {
          ...over.order,
          by: "own",
          steps: over.order.steps.map((s) => s.id),
        });
        expect(own.steps.map((s) => s.up)).toEqual(over.order.steps.map((s) => s.up));
        const tacks = ({ steps }: Order): number => steps.filter((s) => s.id.do === "tack").length;
        expect(beadsOf(over.order.steps).length).toBe(beadsOf(usual.order.steps).length);
        expect(tacks(over.order)).toBeGreaterThan(0);
      }),
      { numRuns: 80 },
    );
  });
  it("of the usual schools turns the frame no more often than its faces need", () => {
    for (const s of STARTERS) {
      const { structure } = resolveStructure(started(s.name));
      // Sub-assemblies are turned each by itself.
      if (structure.groups.length > 0) continue;
      const { steps } = orderOfWork(structure);
      const welded = steps.filter((x) => x.id.do === "tack" || x.id.do === "bead");
      const lines = (part: string): Set<string> => new Set(welded.filter((x) => x.part === part).map((x) => x.up));
      const needed = [...lines("tack")].length - 1 + (lines("weld").has("top") && lines("weld").has("bottom") ? 1 : 0);
      expect(steps.filter((x) => x.id.do === "flip").length, s.name).toBeLessThanOrEqual(needed);
    }
  });
  it("welds every sub-assembly, and lets it cool, before anything is set on it; what joins them comes when both are done", () => {
    const drawn = started("two frames stacked");
    const { structure } = resolveStructure(drawn);
    const own = drawn.groups.map((g) =>
      structure.joints.filter((j) => g.members.includes(j.a) && g.members.includes(j.b)).map((j) => j.id),
    );
    const joining = structure.joints.filter((j) => !own.flat().includes(j.id)).map((j) => j.id);
    expect(own.every((ids) => ids.length > 0)).toBe(true);
    expect(joining.length).toBeGreaterThan(0);
    for (const tack of TACK_SCHOOLS)
      for (const weld of WELD_SCHOOLS) {
        const { steps } = orderOfWork(structure, "surface", tack, weld);
        const name = `${tack}, ${weld}`;
        const places = (ids: readonly string[]): number[] =>
          steps.flatMap((s, i) => (s.joint && ids.includes(s.joint) ? [i] : []));
        const stages = [...own, joining].map(places);
        stages.slice(1).forEach((stage, k) => {
          const [before, next] = [Math.max(...(stages[k] ?? [])), Math.min(...stage)];
          expect(before, name).toBeLessThan(next);
          const between = steps.slice(before, next);
          expect(
            between.some((s) => s.id.do === "wait" && s.id.until === "cold"),
            name,
          ).toBe(true);
        });
        for (const once of ["hold", "release"])
          expect(
            steps.filter((s) => s.id.do === once),
            name,
          ).toHaveLength(1);
        // Of each what turns is put back, before its first bead; nothing of what is welded already, and nothing where they are joined.
        const closed = steps.flatMap((s, i) => (s.closes ? [i] : []));
        const back = putBackIn(structure, steps);
        stages.forEach((stage, k) => {
          const within = closed.filter((i) => i > Math.min(...stage) && i < Math.max(...stage));
          expect(within, name).toHaveLength(k < own.length && tack !== "all held" ? 1 : 0);
          for (const i of within) {
            expect(stage.some((at) => at < i && steps[at]?.id.do === "bead")).toBe(false);
            const members = back.get(steps[i]?.key ?? "");
            const later = drawn.groups.slice(k).flatMap((g) => g.members);
            if (k === 0) expect(members).toBeUndefined();
            else expect(members?.slice().sort(), name).toEqual(later.slice().sort());
          }
        });
        expect(closed, name).toHaveLength(tack === "all held" ? 0 : own.length);
      }
  });
  it("puts back all of a frame of one piece where it closes an error, cut and set once more, too; of sub-assemblies always something", () => {
    let closed = 0;
    fc.assert(
      fc.property(anyOrder, fc.boolean(), (any, cut) => {
        const { structure, order } = built(any);
        const choice = {
          by: "schools",
          tack: any[1],
          weld: any[2],
          ...(cut ? { cutAndSet: true as const } : {}),
        } as const;
        for (const { steps } of [order, chosenOrder(structure, "surface", choice)]) {
          const back = [...putBackIn(structure, steps).values()];
          closed += steps.filter((s) => s.closes).length;
          if (structure.groups.length === 0) expect(back).toEqual([]);
          for (const members of back) expect(members.length).toBeGreaterThan(0);
        }
      }),
      { numRuns: 150 },
    );
    expect(closed).toBeGreaterThan(50);
  });
  it("cuts and sets it once more at the last tacked gate when that was chosen, and nothing else is moved by it", () => {
    const frames = [...STARTERS.map((s) => s.name), 0, 3].map(
      (f) => [`${f}`, typeof f === "number" ? ladder(f) : resolveStructure(started(f)).structure] as const,
    );
    for (const [name, structure] of frames)
      for (const tack of TACK_SCHOOLS) {
        if (notForFrame(tack, structure) !== null) continue;
        const plain = { by: "schools", tack, weld: "strength first" } as const;
        const [without, cut] = [plain, { ...plain, cutAndSet: true } as const].map(
          (c) => chosenOrder(structure, "surface", c).steps,
        ) as [Step[], Step[]];
        expect(
          cut.map((s) => s.key),
          name,
        ).toEqual(without.map((s) => s.key));
        const changed = cut.filter((s, i) => s.closes !== without[i]?.closes || s.why.kind !== without[i]?.why.kind);
        if (structure.groups.length > 0) {
          expect(changed, name).toEqual([]);
          continue;
        }
        expect(changed, name).toHaveLength(1);
        const [at] = changed as [Step];
        expect(at.closes && at.gate === "tacked", name).toBe(true);
        // Every tack is in, no bead is.
        const before = cut.slice(0, cut.indexOf(at));
        expect(
          before.some((s) => s.id.do === "bead"),
          name,
        ).toBe(false);
        expect(
          cut.slice(cut.indexOf(at)).some((s) => s.id.do === "tack"),
          name,
        ).toBe(false);
        // Laid step by step, it is the same.
        const own = chosenOrder(structure, "surface", { ...plain, by: "own", steps: cut.map((s) => s.id) }).steps;
        expect(
          own.map((s) => [s.key, s.closes]),
          name,
        ).toEqual(cut.map((s) => [s.key, s.closes]));
      }
  });
  it("works sub-assemblies as one frame when that was chosen", () => {
    const { structure } = resolveStructure(started("two frames stacked"));
    const keys = (together: true | undefined): string[] =>
      chosenOrder(structure, "surface", {
        by: "schools",
        tack: "hinge first",
        weld: "strength first",
        ...(together ? { together } : {}),
      }).steps.map((s) => s.key);
    expect(keys(true)).toEqual(
      orderOfWork({ ...structure, groups: [] }, "surface", "hinge first", "strength first").steps.map((s) => s.key),
    );
    expect(
      keys(true)
        .filter((k) => k.startsWith("bead"))
        .sort(),
    ).toEqual(
      keys(undefined)
        .filter((k) => k.startsWith("bead"))
        .sort(),
    );
    expect(keys(true)).not.toEqual(keys(undefined));
  });
  it("differs by school, and each says what it does of steps that stand in it", () => {
    const structure = ladder(2);
    const tacks = TACK_SCHOOLS.map((tack) => {
      const { steps } = orderOfWork(structure, "surface", tack);
      expect(schoolWords(tack, steps).says, tack).toMatch(/^[A-Z].*\.$/);
      expect(schoolWords(tack, steps).why, tack).not.toBe("");
      return steps
        .filter((s) => s.part === "tack")
        .map((s) => s.key)
        .join();
    });
    expect(new Set(tacks).size).toBe(TACK_SCHOOLS.length);
    const welds = WELD_SCHOOLS.map((weld) => {
      const { steps } = orderOfWork(structure, "surface", "hinge first", weld);
      expect(schoolWords(weld, steps).says, weld).toMatch(/^[A-Z].*\.$/);
      return beadsOf(steps)
        .map((s) => s.key)
        .join();
    });
    // Skip lays the same seams in the same order, in short lengths.
    expect(new Set(welds).size).toBe(WELD_SCHOOLS.length - 1);
  });
  it("keeps to its rule", () => {
    const keys = (tack: (typeof TACK_SCHOOLS)[number], weld: (typeof WELD_SCHOOLS)[number]) =>
      orderOfWork(ladder(2), "surface", tack, weld).steps.map((s) => s.key);
    // Outside first: outsides before anything else, insides after the turn.
    const outside = keys("outside first", "strength first");
    expect(outside.slice(2, 6)).toEqual(["tack/A/outside", "tack/C/outside", "tack/B/outside", "tack/D/outside"]);
    expect(outside.indexOf("tack/A/inside")).toBeGreaterThan(outside.indexOf("tack/D/bottom"));
    // Strength first: insides before any other bead, outsides after all.
    const beads = outside.filter((k) => k.startsWith("bead"));
    expect(beads.slice(0, 4).every((k) => k.endsWith("inside"))).toBe(true);
    expect(beads.slice(-4).every((k) => k.endsWith("outside"))).toBe(true);
    // Two halves: A and C are tacked round before B and D are touched.
    const halves = keys("two halves", "corners then field");
    expect(halves.indexOf("tack/B/inside")).toBeGreaterThan(halves.indexOf("tack/C/top"));
    // Corners then field: no branch before the last corner.
    const field = halves.filter((k) => k.startsWith("bead"));
    expect(field.findIndex((k) => k.includes("/AB/") || k.includes("/CD/"))).toBe(16);
    // Joint by joint: the faces above of a joint follow each other.
    const row = keys("all held", "joint by joint").filter((k) => k.startsWith("bead"));
    const joints = row.slice(0, 3 * 8).map((k) => k.slice(0, k.lastIndexOf("/")));
    expect(new Set(joints).size).toBe(8);
    joints.forEach((j, i) => {
      expect(j).toBe(joints[3 * Math.floor(i / 3)]);
    });
  });
  it("leaves out the faces that stay clear", () => {
    const free = started("ladder", { rungs: 1 });
    const clear = {
      ...free,
      joints: [
        {
          between: ["AB", "M1"] as [string, string],
          kind: null,
          through: null,
          faces: [{ line: "top" as const, bead: false, leg: null, care: "keep clear" as const }],
        },
      ],
    };
    const keys = (f: typeof free) => orderOfWork(resolveStructure(f).structure).steps.map((x) => x.key);
    expect(keys(free)).toContain("bead/M1/AB/top");
    expect(keys(clear)).not.toContain("bead/M1/AB/top");
  });
  it("is the usual one, and called that, where a school that was chosen has nothing to say of the frame any more", () => {
    const { structure } = resolveStructure(started("A-shaped drawbar"));
    const usual = orderOfWork(structure);
    expect(orderOfWork(structure, "surface", "two halves", "across and around")).toEqual(usual);
    const plain = orderOfWork(ladder(0), "surface", "hinge first", "corners then field");
    expect(plain).toEqual(orderOfWork(ladder(0)));
    expect(plain.weld).toBe("across and around");
  });
  it("says why a school has nothing to say of a frame", () => {
    expect(notForFrame("two halves", resolveStructure(started("A-shaped drawbar")).structure)).toMatch(/ring of four/);
    expect(notForFrame("corners then field", ladder(0))).toMatch(/between/);
    expect(notForFrame("hinge first", ladder(0))).toBeNull();
  });
});

describe("an order laid step by step", () => {
  it("of the steps of any school is that school's: it lies, closes and ends alike, and nothing is wrong with it", () => {
    fc.assert(
      fc.property(anyOrder, (any) => {
        const { structure, order } = built(any);
        const own = chosenOrder(structure, "surface", { ...order, by: "own", steps: order.steps.map((s) => s.id) });
        const bare = (s: Step) => [s.key, s.part, s.up, s.closes, s.gate, s.waitsFor];
        expect(own.steps.map(bare)).toEqual(order.steps.map(bare));
        expect(
          ownOrderProblems(
            structure,
            order.steps.map((s) => s.id),
          ),
        ).toEqual([]);
      }),
      { numRuns: 100 },
    );
  });
  it("says what is wrong with it: missing, twice, gone, loose, overhead, and too early", () => {
    const structure = ladder(1);
    const { steps } = orderOfWork(structure);
    const ids = steps.map((s) => s.id);
    const at = (key: string): number => steps.findIndex((s) => s.key === key);
    const without = (key: string) => ids.filter((_, i) => i !== at(key));
    const said = (list: typeof ids): string =>
      ownOrderProblems(structure, list)
        .map((p) => p.message)
        .join(" ");
    expect(said(without("bead/A/top"))).toBe("Not welded in this order: A, top face.");
    expect(facesLeft(structure, without("bead/A/top"))).toEqual([
      { do: "bead", joint: expect.any(String), line: "top" },
    ]);
    expect(said([...ids, ids[at("bead/A/top")] as (typeof ids)[number]])).toMatch(/Twice in the order, .*bead\/A\/top/);
    expect(said([...ids, { do: "bead", joint: "Z", line: "top" }])).toMatch(/No longer in the frame, .*bead\/Z\/top/);
    expect(said(ids.filter((id) => !(id.do === "tack" && id.joint === "A")))).toMatch(
      /Welded before a tack holds it: A\./,
    );
    expect(said(ids.filter((id) => id.do !== "flip"))).toMatch(/Overhead as the frame lies then: .*bottom face/);
    const [release] = ids.splice(at("release"), 1);
    expect(said([...ids.slice(0, at("bead/A/top")), release as never, ...ids.slice(at("bead/A/top"))])).toMatch(
      /clamps come off before the last bead/,
    );
  });
});

import { describe, expect, it } from "vitest";
import { comb, drawn, onPosts, started } from "../../../tests/support/drawnFrames";
import { job as jobOf } from "../../../tests/support/jobs";
import { drawnPlan } from "../../../tests/support/plans";
import { STARTERS, TURN_NAMES } from "../frame";
import { ALONG_WORDS } from "../plan";
import { length } from "../units";
import { barProposals } from "./barProposals";
import { bearersUnder } from "./bearersOf";
import { builtOf } from "./built";
import { evaluate } from "./evaluate";
import { layOut } from "./layOut";
import { fixtureChecks, laidWords, pickedWords, thingWords } from "./layOutWords";
import { markingOutOf } from "./markingOutOf";
import { planProblems } from "./plan";
import { type Plan, planSchema } from "./planSchema";
import { predict } from "./predict";
import { fixtureSheet } from "./sheets/fixtureSheet";
import { turnedPlan } from "./turnedPlan";

const laidBy = (plan: Plan) => {
  const { structure } = builtOf(plan);
  if (!structure) throw new Error("no frame");
  const { prediction } = evaluate(
    jobOf([], () => plan),
    predict(plan)?.prediction ?? null,
  );
  return { structure, laid: layOut(plan, structure, prediction), prediction };
};
const say = (plan: Plan): Record<string, string> => {
  const { structure, laid } = laidBy(plan);
  return Object.fromEntries(fixtureChecks(structure, laid, plan.units, null).map((c) => [c.id, c.say]));
};

describe("what does not lie on the bed itself", () => {
  it("lies on what does where it runs along it or across two, and hangs where it crosses one alone", () => {
    const stack = say(drawnPlan(started("two frames stacked", { length: 1310, width: 720 })));
    expect(stack["laid on"]).toMatch(/clamped until tacked: EF, FG, GH, HE\./);
    expect(stack.propped).toBeUndefined();
    const rails = {
      R1: [
        [0, 0, 20],
        [1000, 0, 20],
      ],
      R2: [
        [0, 500, 20],
        [1000, 500, 20],
      ],
      TIE: [
        [20, 0, 20],
        [20, 500, 20],
      ],
    } satisfies Parameters<typeof drawn>[0];
    const over = say(
      drawnPlan(
        drawn({
          ...rails,
          X1: [
            [400, -50, 60],
            [400, 550, 60],
          ],
          X2: [
            [700, -50, 60],
            [700, 200, 60],
          ],
        }),
      ),
    );
    expect(over["laid on"]).toMatch(/tacked: X1\./);
    // Its underside lies on the rails' upper faces.
    expect(over.propped).toMatch(/on risers so high over the bed: X2 on one of 40 mm\./);
  });
});

describe("a flat frame that is drawn standing", () => {
  const standing = drawnPlan(
    drawn({
      P: [
        [0, 0, 0],
        [0, 0, 900],
      ],
      Q: [
        [700, 0, 0],
        [700, 0, 900],
      ],
      T: [
        [0, 0, 850],
        [700, 0, 850],
      ],
      U: [
        [0, 0, 200],
        [700, 0, 200],
      ],
    }),
  );
  it("is to be tipped down, and once it is nothing of it hangs in the air", () => {
    expect(say(standing).propped).toMatch(
      /P, Q, T\. All of it lies in one upright plane: tip it down on the stage Frame/,
    );
    const down = TURN_NAMES.map((turn) => say(turnedPlan(standing, turn)));
    expect(down.some((d) => d.propped === undefined)).toBe(true);
    for (const d of down) expect(d.propped ?? "tip it down").toMatch(/tip it down/);
    // A stand with depth is built from flat frames instead.
    expect(say(drawnPlan(started("stand"))).propped).toMatch(/easier built as flat frames/);
  });
});

describe("a frame laid out", () => {
  const plan = jobOf([]).plan;
  it("stands its stops where the frame is set up: outside corners off nominal by what is predicted", () => {
    const { laid, prediction } = laidBy(plan);
    const drawn = laidBy({ ...plan, aim: "drawing" }).laid;
    expect(laid.placed).toBe("set up");
    expect(drawn.placed).toBe("drawn");
    const at = (l: typeof laid, id: string) => l.elements.find((e) => e.element.id === id)?.from ?? { x: 0, y: 0 };
    // The sides are set apart by about what the weld draws them together.
    const apart = (l: typeof laid): number => at(l, "BC stop 1").x - at(l, "DA stop 1").x;
    const target = prediction?.setUp.targets.find((t) => t.id.kind === "span" && t.id.span === "AB");
    expect(apart(drawn)).toBeCloseTo(1000, 6);
    expect(apart(laid) - apart(drawn)).toBeCloseTo((target?.target.value ?? 0) - (target?.nominal ?? 0), 1);
    expect(apart(laid)).toBeGreaterThan(1000.1);
  });
  it("says what its places are taken from, and where that is the drawing, why", () => {
    const { structure, prediction } = laidBy(plan);
    if (!prediction) throw new Error("not predicted");
    const cold = { ...plan, weld: { ...plan.weld, amps: 0, from: "machine" as const } };
    const cases = [
      { plan, prediction, placed: "set up", free: /^When it has shrunk it comes free/ },
      { plan: { ...plan, aim: "drawing" as const }, prediction, placed: "drawn", free: /is not counted in/ },
      { plan: { ...plan, aim: "drawing" as const }, prediction: null, placed: "drawn", free: /is not counted in/ },
      { plan, prediction: null, placed: "not yet predicted", free: /not worked out yet/ },
      { plan: cold, prediction: null, placed: "not predicted", free: /is not predicted/ },
      {
        plan,
        prediction: { ...prediction, setUp: { ...prediction.setUp, beyondMm: 40 } },
        placed: "beyond prediction",
        free: /more than this model can say/,
      },
    ];
    for (const c of cases) {
      const laid = layOut(c.plan, structure, c.prediction);
      expect(laid.placed).toBe(c.placed);
      const free = fixtureChecks(structure, laid, c.plan.units, null).find((x) => x.id === "free");
      expect(free?.say).toMatch(c.free);
      expect(markingOutOf(c.plan, { structure, prediction: c.prediction, cut: [] }).placed).toBe(c.placed);
      // Only the set-up moves a place.
      const moved = laid.elements.some((e, i) => {
        const drawn = layOut({ ...c.plan, aim: "drawing" }, structure, null).elements[i]?.from;
        return drawn && Math.hypot(e.from.x - drawn.x, e.from.y - drawn.y) > 0.01;
      });
      expect(moved).toBe(c.placed === "set up");
    }
  });
  it("says that it holds and lets go; what is left out, inside, or short is named", () => {
    const whole = say(plan);
    expect(whole.located).toBe(
      "Nothing moves any more: all 12 motions of 4 members are stopped, joints pushed together.",
    );
    expect(whole.free).toBe("When it has shrunk it comes free of every stop.");
    // The play across takes a little shrinkage; three times the current is more.
    const hot = { ...plan.weld, volts: 18, amps: 360, from: "machine" as const };
    expect(say({ ...plan, fixture: { side: "inside" } }).free).toMatch(/comes free/);
    expect(say({ ...plan, weld: hot, fixture: { side: "inside" } }).free).toMatch(
      /locks onto .* by 0\.\d\d mm: stand them outside/,
    );
    const without = say({
      ...plan,
      fixture: { without: ["AB stop 1", "AB end stop", "CD end stop", "BC end stop", "DA end stop"] },
    });
    expect(without.located).toMatch(/^1\d of 12 motions are stopped: .* can still/);
    const short = laidBy({ ...plan, fixture: { have: { stops: 4, clamps: 9 } } }).laid.problems;
    expect(short.map((p) => p.path)).toEqual(["fixture.have.stops"]);
  });
  it("tells a place by tape or by hole, in the job's units", () => {
    const one = (p: Plan, id = "AB stop 1"): string => {
      const found = laidBy(p).laid.elements.find((e) => e.element.id === id);
      return found ? laidWords(found, p.units) : "";
    };
    expect(one(plan)).toMatch(/^from A \d+\.\d mm along, −?\d\.\d mm across$/);
    const edges = { at: { x: length("300"), y: length("200") } };
    expect(one({ ...plan, fixture: edges })).toMatch(/^from the edges [45]\d\d\.\d mm along, (199|200)\.\d mm across$/);
    const holes = { holes: { pitch: length("50"), x: length("0"), y: length("0") } };
    expect(one({ ...plan, fixture: holes })).toMatch(/^hole -?\d+, -?\d+ with \d+\.\d mm of packing$/);
    expect(one(plan, "CD stop 1")).toMatch(/, 0\.5 mm off$/);
    // By a tape in fractions; what is under an inch off the edge as every small size.
    expect(one({ ...plan, units: "inch-fraction" })).toMatch(/^from A \d+ \d+\/\d+ in along, −?0\.\d+ in across$/);
    expect(one({ ...plan, units: "inch-decimal" })).toMatch(/^from A \d+\.\d{3} in along, −?0\.\d+ in across$/);
    // What is off a mark by less than a rule shows is on it, and no figure of noughts.
    for (const { name } of STARTERS)
      for (const units of ["mm", "inch-fraction", "inch-decimal"] as const) {
        const own = { ...drawnPlan(started(name)), units };
        for (const found of laidBy(own).laid.elements)
          expect(laidWords(found, units), `${name} ${found.element.id}`).not.toMatch(/[^\d.]0\.00?\s(in|mm)/);
      }
    const drawbar = drawnPlan(started("A-shaped drawbar"));
    expect(one(drawbar, `${laidBy(drawbar).laid.fixture.lying[0]} stop 1`)).toMatch(/^from the lower left /);
  });
  it("keeps places along the line of a member, which begins half a tube from its long point, mitred and butted square", () => {
    const ladder = { ...drawnPlan(started("ladder")), aim: "drawing" as const };
    const { laid, structure } = laidBy(ladder);
    expect(laid.elements.length).toBeGreaterThan(10);
    for (const { element, from } of laid.elements) {
      const m = structure.members.find((x) => x.id === element.member);
      if (!m) throw new Error("no such member");
      expect(Math.abs(Math.min(...m.begins))).toBeCloseTo(20, 6);
      // AB begins at A, from where the bed is measured.
      if (m.id === "AB") expect(from.x).toBeCloseTo(element.alongMm - Math.min(...m.begins), 6);
    }
    // On paper it is said where a bar is put by it.
    const onPaper = (p: Plan): string => {
      const job = jobOf([], () => p);
      return JSON.stringify(fixtureSheet(job, evaluate(job, null)));
    };
    expect(onPaper(ladder)).not.toContain(ALONG_WORDS);
    expect(onPaper({ ...ladder, held: { bars: barProposals(structure, "mm").crossed } })).toContain(ALONG_WORDS);
  });
  it("raises what hangs over the bed on risers of that height, off the shelf, and says where one is left out", () => {
    const base = { ...drawnPlan(started("table base", { way: "on its feet" })), fixture: { have: { risers: 4 } } };
    const { laid } = laidBy(base);
    const risers = laid.elements.filter((e) => e.element.kind === "riser");
    expect(risers.map((e) => laidWords(e, "mm")).every((w) => w.startsWith("130.0 mm high, from A "))).toBe(true);
    expect(pickedWords(laid)).toContainEqual({ count: 4, what: "risers" });
    expect(laid.problems.map(({ path, message }) => [path, message])).toEqual([
      ["fixture.have.risers", "6 risers are wanted here, 4 are there: cut some of scrap tube, in pairs of one height."],
    ]);
    expect(say(base).raised).toMatch(
      /on two risers each: T1 by 130 mm, T2 by 130 mm, T3 by 130 mm\. Turned upside down on the stage Frame, AB, BC, CD, DA would lie on the bed/,
    );
    expect(say({ ...base, units: "inch-fraction" }).raised).toMatch(/T1 by 5 1\/8 in/);
    const without = say({ ...base, fixture: { without: ["T2 riser 1"] } });
    expect(without.raised).toMatch(
      /^Hangs over the bed with less than two risers under it: T2 by 130 mm\. Turned upside down on the stage Frame, /,
    );
    expect(say(plan).raised).toBeUndefined();
  });
  it("says that what stands on legs would lie on the bed turned over, though its shelf is as much tube as its top", () => {
    for (const levelsMm of [[780], [200, 780]])
      expect(say(drawnPlan(onPosts(1200, 700, levelsMm))).raised).toMatch(
        /Turned upside down on the stage Frame, R\d, R\d, R\d, R\d would lie on the bed, and the rest be stood on them\./,
      );
  });
  it("lays a table upside down on its top frame, with a square to each leg", () => {
    const { laid } = laidBy(drawnPlan(started("table base")));
    expect(laid.fixture.lying).toEqual(["AB", "BC", "CD", "DA"]);
    expect(laid.fixture.raised).toEqual([]);
    const squares = laid.elements.filter((e) => e.element.kind === "square");
    expect(squares.map((e) => e.element.member)).toEqual(["L1", "L2", "L3", "L4"]);
    expect(say(drawnPlan(started("table base"))).raised).toBeUndefined();
  });
  it("names what does not fit on the bed", () => {
    const fixture = {
      at: { x: length("100"), y: length("100") },
      bed: { length: length("600"), width: length("900") },
    };
    expect(
      laidBy({ ...plan, fixture })
        .laid.problems.map((p) => p.message)
        .join(),
    ).toMatch(/^Off the bed .*BC/);
  });
  it("says what each thing stands on and what it is, on every kind of bed", () => {
    const { structure } = laidBy(plan);
    const of = (fixture: Plan["fixture"], id: string) => {
      const found = laidBy({ ...plan, fixture }).laid.elements.find((e) => e.element.id === id);
      return found ? [laidWords(found, plan.units), thingWords(found)] : [];
    };
    const slots = { run: "across" as const, pitch: length("60"), first: length("10") };
    expect(of({ slots }, "AB stop 1")[0]).toMatch(/^slot -?\d+, −?\d+\.\d mm along it$/);
    expect(of({ slots }, "DA stop 1")[0]).toMatch(/^slot -?\d+, \d+\.\d mm along it with \d+\.\d mm of packing$/);
    const bearers = bearersUnder(structure, "mm", { trestles: 3 });
    expect(of({ bearers }, "AB stop 1")[0]).toMatch(/^on T1, from A \d/);
    expect(of({ bearers }, "BC stop 1")[0]).toMatch(/^on a bar laid across, from A \d/);
    expect(of({ floor: true }, "AB stop 1")[1]).toMatch(/block with a weight/);
    expect(of({ floor: true }, "AB clamp")[1]).toMatch(/^A bar clamp over the frame/);
    expect(of({ have: { stops: 1, angles: 9 } }, "AB stop 2")[1]).toMatch(/^In its place an angle plate/);
    expect(of({ have: { stops: 1 } }, "AB stop 2")[1]).toBe("Nothing is left on the shelf for it.");
    expect(of({ have: { clamps: 1, toggles: 9 } }, "BC clamp")[1]).toMatch(/^In its place a toggle clamp/);
    expect(of({}, "AB stop 2")[1]).toBeNull();
  });
  it("counts what is taken from the shelf, to the last piece", () => {
    for (const fixture of [{}, { have: { stops: 3, angles: 2, clamps: 2, toggles: 1 } }, { floor: true as const }]) {
      const { laid } = laidBy({ ...plan, fixture });
      const picked = pickedWords(laid).filter((p) => !p.what.startsWith("packers"));
      expect(picked.reduce((n, p) => n + p.count, 0)).toBe(laid.elements.length + laid.beside.length);
    }
  });
  it("takes what is somebody's own first, by its name; blocks between members and a string for a floor come off the shelf, too", () => {
    const own = [
      { id: "E1", name: "cast corner", does: "stop" as const, count: 3 },
      { id: "E2", name: " ", does: "clamp" as const, count: 9 },
      { id: "E3", name: "jack screw", does: "spreader" as const, count: 1 },
    ];
    const { laid } = laidBy({ ...plan, fixture: { own, have: { stops: 2 } } });
    const fixture = { own };
    expect(planSchema.safeParse({ ...plan, fixture }).success).toBe(true);
    expect(planSchema.safeParse({ ...plan, fixture: { own: [own[0], own[0]] } }).error?.issues[0]?.message).toMatch(
      /^Two things of your own have one name/,
    );
    const words = (id: string) => laid.elements.filter((e) => e.element.id === id).map(thingWords)[0];
    expect([1, 2].map((i) => words(`AB stop ${i}`))).toEqual(["Here cast corner.", "Here cast corner."]);
    expect(words("AB clamp")).toBe("Here E2, of your own.");
    expect(pickedWords(laid)).toContainEqual({ count: 3, what: "cast corner, as a stop" });
    expect(laid.problems.map((p) => p.message)).toEqual([
      expect.stringMatching(/^9 stops are wanted here, 5 are there: /),
    ]);
    const open = drawnPlan(comb(4, 300, 250, 40));
    const { structure } = laidBy(open);
    const held = { bars: barProposals(structure, "mm").blocks };
    expect(held.bars).toHaveLength(3);
    const picked = (p: Plan) => pickedWords(laidBy(p).laid).filter((w) => /spreader|string|blocks/.test(w.what));
    expect(picked({ ...open, held })).toEqual([{ count: 3, what: "spreaders" }]);
    const shelf = { own, have: { spreaders: 1, blocks: 1, strings: 0 } };
    expect(picked({ ...open, held, fixture: shelf })).toEqual([
      { count: 1, what: "jack screw, as a spreader" },
      { count: 1, what: "blocks" },
      { count: 1, what: "spreaders" },
    ]);
    expect(picked({ ...open, fixture: { floor: true } })).toContainEqual({ count: 1, what: "strings" });
    expect(
      laidBy({
        ...open,
        held,
        fixture: { have: { spreaders: 1, blocks: 0, strings: 0 }, floor: true },
      }).laid.problems.map((p) => p.message),
    ).toEqual(
      expect.arrayContaining([
        "3 spreaders are wanted here, 1 is there: cut some of scrap tube, square and to the length between.",
        "1 string is wanted here, 0 are there: draw the outline with chalk along a straight tube.",
      ]),
    );
  });
  it("names what trestles do not carry; a floor is read before it is trusted", () => {
    const { structure } = laidBy(plan);
    const bearers = bearersUnder(structure, "mm", { trestles: 3 });
    expect(say({ ...plan, fixture: { bearers } }).carried).toMatch(/^Not carried .*: BC, DA\./);
    const under = [
      { id: "T8", from: { x: length("-50"), y: length("20") }, to: { x: length("1050"), y: length("20") } },
      { id: "T9", from: { x: length("-50"), y: length("580") }, to: { x: length("1050"), y: length("580") } },
    ];
    expect(say({ ...plan, fixture: { bearers: [...bearers, ...under] } }).carried).toMatch(/^Trestles or bars carry/);
    // In whole steps of the job's own unit.
    for (const b of bearersUnder(structure, "inch-fraction", { trestles: 4 }))
      for (const v of [b.from.x, b.from.y, b.to.x, b.to.y]) {
        expect(v.unit).toBe("in");
        expect((8 * v.mm) / 25.4).toBeCloseTo(Math.round((8 * v.mm) / 25.4), 9);
      }
    expect(say({ ...plan, fixture: { floor: true } }).carried).toMatch(/read it under every rest/);
    expect(say(plan).carried).toBeUndefined();
  });
  it("refuses a trestle that is a slip of the unit, none, or twice there, each at its field", () => {
    const at = (x: string, y: string) => ({ x: length(x), y: length(y) });
    const bearers = [
      { id: "T1", from: at("0", "0"), to: at("0", "10") },
      { id: "T2", from: at("0", "0"), to: at("0", "40000") },
      { id: "T2", from: at("0", "0"), to: at("0", "400") },
    ];
    expect(planProblems({ ...plan, fixture: { bearers } }).map((p) => p.path)).toEqual([
      "fixture.bearers.0.to.x",
      "fixture.bearers.1.to.y",
      "fixture.bearers.2.from.x",
    ]);
    const slots = { run: "along" as const, pitch: length("2"), first: length("0") };
    expect(planProblems({ ...plan, fixture: { slots } }).map((p) => p.path)).toEqual(["fixture.slots.pitch"]);
  });
});

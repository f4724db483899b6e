import { describe, expect, it } from "vitest";
import { started } from "../../../tests/support/drawnFrames";
import { job as jobOf } from "../../../tests/support/jobs";
import { drawnPlan } from "../../../tests/support/plans";
import { length } from "../units";
import { builtOf } from "./built";
import { evaluate } from "./evaluate";
import { layOut } from "./layOut";
import { fixtureChecks, laidWords } from "./layOutWords";
import type { Plan } from "./planSchema";
import { predict } from "./predict";

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
  return Object.fromEntries(fixtureChecks(structure, laid, plan.units).map((c) => [c.id, c.say]));
};

describe("a frame laid out", () => {
  const plan = jobOf([]).plan;
  it("stands its stops where the frame is set up: outside corners off nominal by what is predicted", () => {
    const { laid, prediction } = laidBy(plan);
    const drawn = laidBy({ ...plan, aim: "drawing" }).laid;
    expect(laid.isSetOff).toBe(true);
    expect(drawn.isSetOff).toBe(false);
    const at = (l: typeof laid, id: string) => l.elements.find((e) => e.element.id === id)?.from ?? { x: 0, y: 0 };
    // The sides are set apart by about what the weld draws them together.
    const apart = (l: typeof laid): number => at(l, "BC stop 1").x - at(l, "DA stop 1").x;
    const target = prediction?.setUp.targets.find((t) => t.id.kind === "span" && t.id.span === "AB");
    expect(apart(drawn)).toBeCloseTo(1000, 6);
    expect(apart(laid) - apart(drawn)).toBeCloseTo((target?.target.value ?? 0) - (target?.nominal ?? 0), 1);
    expect(apart(laid)).toBeGreaterThan(1000.1);
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
    expect(one({ ...plan, units: "inch-fraction" })).toMatch(/ in along/);
    const drawbar = drawnPlan(started("A-shaped drawbar"));
    expect(one(drawbar, `${laidBy(drawbar).laid.fixture.lying[0]} stop 1`)).toMatch(/^from the lower left /);
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
});

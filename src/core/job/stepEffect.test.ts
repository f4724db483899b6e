import { describe, expect, it } from "vitest";
import { drawn, started } from "../../../tests/support/drawnFrames";
import { drawnPlan, sizesPlan } from "../../../tests/support/plans";
import { CORNERS } from "../geometry";
import { length } from "../units";
import { builtOf } from "./built";
import type { Plan } from "./planSchema";
import { predict } from "./predict";
import { weldOf } from "./settings";
import { effectWords, namedPoints, seamFacts, stepEffect, TOLD_MM } from "./stepEffect";

/** Butted and mitred, teed, free, open, thick and thin, metric and inch. */
const plans: [string, Plan][] = [
  ["mitred", sizesPlan()],
  ["thick, long", sizesPlan({ length: length("3600"), width: length("700") })],
  ["inch", sizesPlan({}, "inch-fraction")],
  ...["gate leaf", "rails with a kink", "A-shaped drawbar", "stand", "table base"].map((name): [string, Plan] => [
    name,
    drawnPlan(started(name)),
  ]),
];

/** A ring with a bar before it, whose cross piece has two free ends. */
const ring = started("rectangle", { length: 1500, width: 800 });
const bar = drawn(
  {
    T1: [
      [1480, 400, 20],
      [2300, 400, 20],
    ],
    T2: [
      [2280, 150, 20],
      [2280, 700, 20],
    ],
  },
  ring.sections,
);
plans.push(["a bar before a ring", drawnPlan({ ...ring, members: [...ring.members, ...bar.members] })]);

describe("what a step does to the frame", () => {
  it.each(plans)("is the place that moves most, how far, and truly that way: %s", (_, plan) => {
    const found = predict(plan);
    const { order, structure } = builtOf(plan);
    if (!found || !order || !structure) throw new Error("no prediction");
    const { replay } = found;
    const points = namedPoints(structure, replay.points);
    const placesOf = (name: string) => points.filter((p) => p.name === name);
    const names = [...CORNERS, ...structure.joints.map((j) => j.id), ...structure.members.map((m) => m.id)];
    const free = new Set(
      structure.members.flatMap((m) => (m.ends.from.joints.length * m.ends.to.joints.length === 0 ? [m.id] : [])),
    );
    const held = new Set<string>();
    let told = 0;
    for (const step of order.steps.filter((s) => s.joint !== null)) {
      const joint = structure.joints.find((j) => j.id === step.joint);
      for (const id of joint ? [joint.a, joint.b] : []) held.add(id);
      const effect = stepEffect(structure, replay, order.steps, step);
      const row = replay.ids.indexOf(step.key);
      const change = (first: number, i: number): number =>
        (replay.history[replay.ids.lastIndexOf(step.key)]?.[first + i] ?? 0) -
        (row > 0 ? (replay.history[row - 1]?.[first + i] ?? 0) : 0);
      const along = (p: { first: number }): number => Math.hypot(change(p.first, 0), change(p.first, 1));
      const off = (p: { first: number }): number => Math.abs(change(p.first, 2));
      // Whatever is held and named; of a frame with corners these and what hangs free come first.
      const there = points.filter((p) => p.member === null || held.has(p.member));
      const first = there.filter((p) => !structure.quad || p.member === null || p.isFree);
      if (!effect?.slides && !effect?.lifts)
        for (const p of there) expect(Math.max(along(p), off(p)), `${step.key} ${p.name}`).toBeLessThanOrEqual(TOLD_MM);
      if (effect?.slides) {
        told++;
        const { at, mm, other, away } = effect.slides;
        const p = placesOf(at).find((x) => Math.abs(along(x) - mm) < 1e-9);
        if (!p) throw new Error(`nothing at ${at} moves by ${mm}`);
        expect(other).not.toBe(at);
        for (const f of first) expect(along(f), f.name).toBeLessThanOrEqual(mm + 1e-9);
        const nearer = placesOf(other).map(
          (q) => (q.at[0] - p.at[0]) * change(p.first, 0) + (q.at[1] - p.at[1]) * change(p.first, 1),
        );
        expect(nearer.some((v) => v < 0 === away)).toBe(true);
      }
      if (effect?.lifts) {
        const mm = effect.lifts.mm * (step.up === "top" ? 1 : -1);
        expect(placesOf(effect.lifts.at).some((p) => Math.abs(change(p.first, 2) - mm) < 1e-9)).toBe(true);
        for (const f of first) expect(off(f), f.name).toBeLessThanOrEqual(Math.abs(mm) + 1e-9);
      }
      const said = effect ? effectWords(effect, plan.units) : "";
      expect(said).toMatch(
        effect?.slides || effect?.lifts ? /^It (moves|lifts|lowers) .* if nothing/ : /^It should move no/,
      );
      // Places by the names that the drawing has: corners, joints, members; no node of the mechanics.
      for (const name of [effect?.slides?.at, effect?.slides?.other, effect?.lifts?.at])
        if (name?.startsWith("the free end of ")) expect(free, said).toContain(name.replace("the free end of ", ""));
      for (const name of [effect?.slides?.at, effect?.slides?.other, effect?.lifts?.at])
        for (const part of name?.replace("the free end of ", "").split(/ at | near /) ?? [])
          expect(names).toContain(part);
      expect(said).toMatch(plan.units === "mm" ? /\d mm/ : /\d (in|thou)/);
      const facts = seamFacts(structure, weldOf(plan), step, plan.units) ?? "";
      expect(facts).toMatch(/ long.*(flat|horizontal|vertical)(, from .* to .*)?: .* V, \d+ A, /);
    }
    expect(told).toBeGreaterThan(0);
  });

  it("says how a leg leans on a frame with corners, and of no leg that nothing holds yet", () => {
    const plan = drawnPlan(started("table base"));
    const { order, structure } = builtOf(plan);
    const found = predict(plan);
    if (!found || !order || !structure) throw new Error("no prediction");
    const legs = ["L1", "L2", "L3", "L4"];
    const seen = new Set<string>();
    const leaning = new Set<string>();
    for (const step of order.steps.filter((s) => s.id.do === "tack")) {
      const joint = structure.joints.find((j) => j.id === step.joint);
      seen.add(joint?.b ?? "");
      const effect = stepEffect(structure, found.replay, order.steps, step);
      const said = effect ? effectWords(effect, "mm") : "";
      for (const leg of legs)
        if (said.includes(`free end of ${leg}`)) {
          expect(seen, `${step.key}: ${said}`).toContain(leg);
          leaning.add(leg);
        }
    }
    expect([...leaning].sort()).toEqual(legs);
  });

  it("is nothing for a step that is not in the replay", () => {
    const plan = sizesPlan();
    const found = predict(plan);
    if (!found) throw new Error("no prediction");
    expect(
      stepEffect(builtOf(plan).structure as never, found.replay, [], { key: "bead/none/top", up: "top" }),
    ).toBeNull();
  });
});

import { describe, expect, it } from "vitest";
import { comb, drawn, started } from "../../../tests/support/drawnFrames";
import { job as jobOf } from "../../../tests/support/jobs";
import { drawnPlan } from "../../../tests/support/plans";
import type { DrawnFrame } from "../frame";
import { add, add3, distance, dot3, scale3, sub3, type Vec2, type Vec3 } from "../numeric";
import { predicted } from "../shrink";
import { mouthsOf, placesOf } from "../square";
import { builtOf } from "./built";
import { evaluate } from "./evaluate";
import { layOut } from "./layOut";
import type { Plan } from "./planSchema";
import { predict } from "./predict";

/** Frames with free ends: three sides, combs of few teeth and many, a drawbar's nose. */
const FRAMES: readonly (readonly [string, DrawnFrame])[] = [
  [
    "three sides",
    drawn({
      AB: [
        [20, 20, 20],
        [1480, 20, 20],
      ],
      BC: [
        [1480, 20, 20],
        [1480, 780, 20],
      ],
      CD: [
        [1480, 780, 20],
        [20, 780, 20],
      ],
    }),
  ],
  ["a comb of two", comb(2, 300, 250, 25)],
  ["a comb of five", comb(5, 180, 220, 50)],
  ["a drawbar", started("A-shaped drawbar")],
];

describe("a frame without corners that is set up off nominal", () => {
  it.each([
    ...FRAMES,
    ["rails with a kink", started("rails with a kink")] as const,
    ["a comb of eight", comb(8, 150, 300, 30)] as const,
  ])("is laid of straight tubes, and each is cut to what it is laid between: %s", (_, frame) => {
    const plan: Plan = { ...drawnPlan(frame), aim: "set-up" };
    const { structure } = builtOf(plan);
    const found = predict(plan)?.prediction ?? null;
    if (!structure || !found) throw new Error("no prediction");
    const { offsetsMm, targets } = found.setUp;
    for (const m of structure.members) {
      const on = structure.joints
        .filter((j) => j.a === m.id || j.b === m.id)
        .map((j) => {
          const at = j.a === m.id ? j.at : j.atB;
          return { along: dot3(sub3(at, m.from), m.axes[0]), off: offsetsMm[j.id] as Vec3, carries: j.a === m.id };
        })
        .sort((a, b) => a.along - b.along);
      const [first, last] = [on[0], on.at(-1)];
      if (!first || !last || last.along - first.along < 1) continue;
      for (const { along, off } of on.filter((p) => p.carries)) {
        const share = (along - first.along) / (last.along - first.along);
        const line = add3(scale3(first.off, 1 - share), scale3(last.off, share));
        const beside = sub3(off, line);
        for (const axis of [m.axes[1], m.axes[2]]) expect(Math.abs(dot3(beside, axis))).toBeLessThan(0.02);
      }
      if (m.ends.from.joints.length === 0 || m.ends.to.joints.length === 0) continue;
      const longer = targets.find((t) => t.id.kind === "length" && t.id.member === m.id);
      const apart = dot3(sub3(last.off, first.off), m.axes[0]);
      expect((longer?.target.value ?? 0) - (longer?.nominal ?? 0)).toBeCloseTo(apart, 1);
      expect(found.allowancesMm[m.id]?.value).toBeCloseTo((longer?.target.value ?? 0) - (longer?.nominal ?? 0), 9);
    }
  });
});

describe("the mouth of a frame that is set up off nominal", () => {
  it.each(FRAMES)("is opened by what it closes, on every screen by as much: %s", (_, frame) => {
    const plan: Plan = { ...drawnPlan(frame), aim: "set-up" };
    const { structure } = builtOf(plan);
    const found = predict(plan)?.prediction ?? null;
    if (!structure || !found) throw new Error("no prediction");
    const asSetUp = evaluate(
      jobOf([], () => plan),
      found,
    );
    const asDrawn = evaluate(
      jobOf([], () => ({ ...plan, aim: "drawing" })),
      found,
    );
    const places = placesOf(structure);
    const { offsetsMm, targets } = found.setUp;
    const off = (name: string): Vec2 => {
      const [x, y] = offsetsMm[places.joints[name] ?? name] as Vec3;
      return add(places.nodes[name] as Vec2, { x, y });
    };
    const mouths = mouthsOf(places);
    for (const [from, to] of mouths) {
      const nominal = distance(places.nodes[from] as Vec2, places.nodes[to] as Vec2);
      const target =
        targets.find((t) => t.id.kind === "mouth" && t.id.from === from && t.id.to === to)?.target.value ?? 0;
      // Where its ends are pushed to is as far apart as it is told to be set: seen from above, but for what they are lifted by.
      expect(distance(off(from), off(to))).toBeCloseTo(target, 1);
      const cold = ({ forecasts }: typeof asSetUp) =>
        forecasts.find((f) => f.limit.mouth?.[0] === from && f.limit.mouth[1] === to)?.cold ?? null;
      const change = predicted(found, { kind: "mouth", from, to })?.value ?? 0;
      // It lands on nominal: its ends are as far apart as they close, though the tubes that hold them are laid straight.
      expect(target + change).toBeCloseTo(nominal, 1);
      const [set, left] = [cold(asSetUp), cold(asDrawn)];
      // Between the ends of a row nothing is judged, and so nothing forecast, until it is read.
      expect(left === null).toBe(mouths.length > 1);
      expect(set === null).toBe(mouths.length > 1);
      if (!set || !left) continue;
      expect(left.value).toBeCloseTo(nominal + change, 9);
      expect(set.value).toBeCloseTo(target + change, 9);
      expect((set?.high ?? 0) - (set?.low ?? 0)).toBeCloseTo((left?.high ?? 1) - (left?.low ?? 0), 9);
    }
    // Stops stand where the ends do: a tooth's lean is in them, not its joint's shift alone.
    const laid = layOut(plan, structure, found);
    const straight = layOut({ ...plan, aim: "drawing" }, structure, found);
    for (const [name, { member, end }] of Object.entries(places.freeEnds)) {
      const m = structure.members.find((x) => x.id === member);
      const stops = (l: typeof laid) =>
        l.elements.filter((e) => e.element.member === member && e.element.kind === "stop");
      const nearest = end === "from" ? 0 : stops(laid).length - 1;
      const [here, there] = [stops(laid)[nearest], stops(straight)[nearest]];
      if (!m || !here || !there) continue;
      const way = here.element.push;
      const moved = (here.from.x - there.from.x) * way.x + (here.from.y - there.from.y) * way.y;
      const [x, y] = offsetsMm[name] as Vec3;
      const whole = x * way.x + y * way.y;
      const joint = structure.joints.find((j) => j.b === member || j.a === member);
      const [jx, jy] = offsetsMm[joint?.id ?? ""] ?? [0, 0];
      const atJoint = jx * way.x + jy * way.y;
      const [low, high] = [Math.min(whole, atJoint), Math.max(whole, atJoint)];
      // Zero is taken where the frame's lower left is as drawn.
      if (structure.joints.filter((j) => j.a === member || j.b === member).length === 1) {
        expect(moved).toBeGreaterThan(low - 1e-6);
        expect(moved).toBeLessThan(high + 1e-6);
      }
    }
  });
});

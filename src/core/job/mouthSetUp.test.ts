import { describe, expect, it } from "vitest";
import { comb, drawn, started } from "../../../tests/support/drawnFrames";
import { job as jobOf } from "../../../tests/support/jobs";
import { drawnPlan } from "../../../tests/support/plans";
import type { DrawnFrame } from "../frame";
import { add, distance, type Vec2, type Vec3 } from "../numeric";
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
    for (const [from, to] of mouthsOf(places)) {
      const nominal = distance(places.nodes[from] as Vec2, places.nodes[to] as Vec2);
      const target =
        targets.find((t) => t.id.kind === "mouth" && t.id.from === from && t.id.to === to)?.target.value ?? 0;
      // Where its ends are pushed to is as far apart as it is told to be set.
      expect(distance(off(from), off(to)) - nominal).toBeCloseTo(target - nominal, 0);
      const cold = ({ forecasts }: typeof asSetUp) =>
        forecasts.find((f) => f.limit.mouth?.[0] === from && f.limit.mouth[1] === to)?.cold ?? null;
      expect(cold(asSetUp)?.value).toBeCloseTo(nominal, 9);
      expect(cold(asDrawn)?.value).toBeCloseTo(2 * nominal - target, 9);
      const [set, left] = [cold(asSetUp), cold(asDrawn)];
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

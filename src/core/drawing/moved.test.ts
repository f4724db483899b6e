import { describe, expect, it } from "vitest";
import { started } from "../../../tests/support/drawnFrames";
import { drawnPlan } from "../../../tests/support/plans";
import { STARTERS } from "../frame";
import { builtOf, newPlan, type Plan, predict } from "../job";
import { exaggeration, movedLines } from "./moved";
import { sceneOf } from "./scene";

function of(plan: Plan) {
  const { structure } = builtOf(plan);
  const replay = predict(plan)?.replay;
  if (!structure || !replay) throw new Error("no replay");
  const rows = replay.ids.map((_, i) => i);
  return { structure, replay, scene: sceneOf(structure), rows, last: replay.ids.length - 1 };
}
const spread = (list: readonly { x: number }[]) =>
  Math.max(...list.map((p) => p.x)) - Math.min(...list.map((p) => p.x));

describe("how a frame is drawn as it moves", () => {
  it("draws nothing moved as the members lie, corners included", () => {
    const { structure, replay, scene, last } = of(newPlan("x", "mm"));
    const still = movedLines(structure, scene, replay, last, 0);
    expect(still).toHaveLength(structure.members.length);
    const outlines = scene.items.flatMap((i) => (i.kind === "outline" ? [i] : []));
    for (const [i, m] of structure.members.entries()) {
      const own = outlines.find((o) => o.member === m.id)?.points ?? [];
      // The replay starts from the set-up shape, some tenths larger than nominal.
      for (const pick of [Math.min, Math.max])
        for (const axis of ["x", "y"] as const)
          expect(pick(...(still[i]?.points ?? []).map((p) => p[axis]))).toBeCloseTo(
            pick(...own.map((p) => p[axis])),
            0,
          );
    }
  });
  it("draws the cold frame smaller by the factor times what it loses", () => {
    const { structure, replay, scene, last } = of(newPlan("x", "mm"));
    const factor = 100;
    const width = spread(movedLines(structure, scene, replay, last, factor)[0]?.points ?? []);
    const loss = replay.outcomes.find((o) => o.id.kind === "span" && o.id.span === "AB")?.after.at(-1) ?? 0;
    expect((width - 1000) / factor).toBeCloseTo(loss, 0);
    expect(loss).toBeLessThan(-0.1);
  });
  it("takes a round factor that makes the largest movement a few hundredths of the frame", () => {
    const { structure, replay, scene, rows } = of(newPlan("x", "mm"));
    const factor = exaggeration(structure, scene.view, replay, rows);
    expect(String(factor)).toMatch(/^[125]0*$/);
    const largest = Math.max(
      ...rows.flatMap((r) =>
        replay.points.map((p) => Math.hypot(replay.history[r]?.[p.first] ?? 0, replay.history[r]?.[p.first + 1] ?? 0)),
      ),
    );
    expect(factor * largest).toBeLessThanOrEqual(0.035 * 600);
    expect(factor * largest).toBeGreaterThan(0.01 * 600);
    expect(exaggeration(structure, scene.view, replay, [])).toBe(1);
    expect(movedLines(structure, scene, replay, -1, 10)).toEqual([]);
  });
  it("moves every member of any frame that is not seen end on, and none of them to nowhere", () => {
    for (const { name } of STARTERS) {
      const { structure, replay, scene, last } = of(drawnPlan(started(name)));
      const lines = movedLines(structure, scene, replay, last, 10);
      expect(lines.length, name).toBeGreaterThan(0);
      expect(lines.length, name).toBeLessThanOrEqual(structure.members.length);
      for (const l of lines) for (const p of l.points) expect(Number.isFinite(p.x + p.y), name).toBe(true);
    }
  });
});

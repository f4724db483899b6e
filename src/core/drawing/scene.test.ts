import { describe, expect, it } from "vitest";
import { started } from "../../../tests/support/drawnFrames";
import { built } from "../../../tests/support/ladder";
import { rectangle } from "../../../tests/support/plans";
import { resolveStructure, STARTERS } from "../frame";
import { length } from "../units";
import { sceneOf } from "./scene";

const of = (name: string) => sceneOf(resolveStructure(started(name)).structure);

describe("a scene", () => {
  it("of a rectangle has its corners where they are, sizes outside, and names of what is no side", () => {
    const scene = sceneOf(built(rectangle({ cross: [{ id: "M1", at: length("400") }] })));
    expect(scene.corners?.C).toEqual({ x: 1000, y: 600 });
    expect([scene.low, scene.high]).toEqual([
      { x: 0, y: 0 },
      { x: 1000, y: 600 },
    ]);
    const texts = scene.items.flatMap((i) => (i.kind === "text" ? [i.text] : []));
    expect(texts).toEqual(["M1", "A", "B", "C", "D"]);
    const sizes = scene.items.flatMap((i) => (i.kind === "dimension" ? [i] : []));
    expect(sizes.map((d) => d.lengthMm)).toEqual([1000, 600]);
    expect(sizes.map((d) => d.away)).toEqual([
      { x: 0, y: -1 },
      { x: 1, y: -0 },
    ]);
  });
  it("of any starter shows every member, within its own box, in the view that shows most", () => {
    for (const { name } of STARTERS) {
      const { structure } = resolveStructure(started(name));
      const scene = sceneOf(structure);
      const shown = scene.items.flatMap((i) => (i.kind === "outline" ? [i.member] : []));
      expect(shown.sort(), name).toEqual(structure.members.map((m) => m.id).sort());
      for (const item of scene.items)
        if (item.kind === "outline")
          for (const p of item.points) {
            expect(p.x, name).toBeGreaterThanOrEqual(scene.low.x);
            expect(p.y, name).toBeLessThanOrEqual(scene.high.y);
          }
    }
    expect(of("rack").view.depth).not.toBe(2);
    expect(of("table base").corners).not.toBeNull();
  });
});

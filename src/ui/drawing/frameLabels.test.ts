import { describe, expect, it } from "vitest";
import { sceneOf } from "@/core/drawing";
import { FROM_ABOVE } from "@/core/frame";
import { builtOf } from "@/core/job";
import { started } from "../../../tests/support/drawnFrames";
import { drawnPlan } from "../../../tests/support/plans";
import { frameLabels } from "./frameLabels";
import { boxOf } from "./placeLabels";
import { projection } from "./projection";

describe("what is said on a drawing", () => {
  // Somebody calls the rails as rests are called.
  const frame = JSON.parse(JSON.stringify(started("rails with a kink")).replace(/"([RL])H(\d)"/g, '"$1$2"'));
  const { structure } = builtOf(drawnPlan(frame));
  if (!structure) throw new Error("no structure");
  const scene = sceneOf(structure, { view: FROM_ABOVE });
  const { low, high } = scene;
  const p = projection([low, high], 600, 400, 40, 0);
  // Rests in the middle of every member, two of them called as members are.
  const points = structure.members.map((m, i) => ({
    id: `R${i + 1}`,
    at: { x: (m.from[0] + m.to[0]) / 2, y: (m.from[1] + m.to[1]) / 2 },
    text: `R${i + 1}`,
    tone: "plain" as const,
  }));
  const { words, placed } = frameLabels({ scene, units: "mm", points, bare: true }, p);
  it("has one name once: a rest that is called as a member is keeps it", () => {
    expect(structure.members.map((m) => m.id)).toEqual(expect.arrayContaining(["R1", "R2", "L1"]));
    const keys = words.map((w) => w.key);
    expect(keys).toEqual(expect.arrayContaining(["point R1", "point R2", "name L1"]));
    expect(keys).not.toContain("name R1");
    expect(keys).not.toContain("name R2");
  });
  it("covers no rest with a member's name", () => {
    const names = words.filter((w) => w.key.startsWith("name ") && placed.has(w.key));
    expect(names.length).toBeGreaterThan(2);
    for (const word of names) {
      const box = boxOf(word, placed.get(word.key) ?? { x: 0, y: 0 });
      for (const { at } of points) {
        const { x, y } = p.to(at);
        const apart = box.left > x + 8 || box.right < x - 8 || box.top > y + 6 || box.bottom < y - 9;
        expect(apart, word.text).toBe(true);
      }
    }
  });
});

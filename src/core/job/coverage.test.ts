import { describe, expect, it } from "vitest";
import { squareTube, started } from "../../../tests/support/drawnFrames";
import { simulationOf } from "../../../tests/support/ladder";
import { drawnPlan } from "../../../tests/support/plans";
import { resolveStructure, setJoint } from "../frame";
import { drain, seeded } from "../numeric";
import { heldMechanics, laterGates, loadSteps } from "../plan";
import { DRAWS, simulate } from "../shrink";
import { builtOf } from "./built";
import { weldOf } from "./settings";

const spread = (v: Float64Array): number => {
  const mean = v.reduce((a, b) => a + b, 0) / v.length;
  return Math.sqrt(v.reduce((a, b) => a + (b - mean) ** 2, 0) / v.length);
};

const FRAMES = 10;
/** Fresh draws of each frame. */
const FRESH = 400;

/** Frames of any kind: ladders, mitred or butted, open ones, thin and thick. */
function anyFrame(random: () => number) {
  const between = (low: number, high: number): number => low + random() * (high - low);
  const section = squareTube(Math.round(between(25, 60)), between(2, 4));
  const name = ["rectangle", "ladder", "gate leaf", "A-shaped drawbar"][Math.floor(4 * random())] as string;
  let frame = started(name, {}, section);
  if (name === "ladder" && random() < 0.5)
    for (const j of resolveStructure(frame).structure.joints.filter((x) => x.kind === "mitre"))
      frame = setJoint(frame, j.a, j.b, { kind: "butt", through: /^(AB|CD)/.test(j.a) ? j.a : j.b });
  return { name, plan: drawnPlan(frame) };
}

function simulated({ plan }: ReturnType<typeof anyFrame>, draws: number, seed: number, gates: readonly string[] = []) {
  const { structure, order, on } = builtOf(plan);
  if (!structure || !order) throw new Error("no frame");
  const { mechanics, by } = heldMechanics(structure, on);
  const steps = loadSteps(structure, weldOf(plan), order.steps, by);
  return drain(simulate({ ...simulationOf(structure, steps), frame: mechanics.frame, draws, seed, gates })).outcomes;
}

describe("the bands of a prediction", () => {
  it("hold nine in ten of other draws of the same frame, quantity by quantity", () => {
    const random = seeded(2024);
    const held = new Map<string, { in: number; of: number }>();
    for (let f = 0; f < FRAMES; f++) {
      const frame = anyFrame(random);
      const [ours, others] = [simulated(frame, DRAWS, 20_406 + f), simulated(frame, FRESH, 1 + f)];
      ours.forEach(({ id, estimate: { low, high } }, i) => {
        const fresh = others[i]?.draws.slice(1) ?? new Float64Array(0);
        const kind = held.get(id.kind) ?? { in: 0, of: 0 };
        kind.in += fresh.filter((v) => v >= low && v <= high).length;
        kind.of += fresh.length;
        held.set(id.kind, kind);
      });
    }
    for (const [kind, { in: inside, of }] of held) {
      expect(inside / of, kind).toBeGreaterThan(0.88);
      expect(inside / of, kind).toBeLessThan(0.92);
    }
    expect(held.size).toBeGreaterThan(6);
  }, 120_000);

  it("from the last gate before welding hold nine in ten too, and are narrower for what the tacks moved", () => {
    const random = seeded(77);
    const held = new Map<string, { in: number; of: number; narrower: number[] }>();
    for (let f = 0; f < FRAMES; f++) {
      const frame = anyFrame(random);
      const gate = laterGates(builtOf(frame.plan).order?.steps ?? []).at(-1);
      if (!gate) continue;
      const [ours, others] = [DRAWS, FRESH].map((n, i) => simulated(frame, n, i === 0 ? 20_406 + f : 1 + f, [gate]));
      ours?.forEach(({ id, from }, i) => {
        const band = from[gate]?.estimate;
        const [still, whole] = [others?.[i]?.from[gate]?.draws.slice(1), others?.[i]?.draws.slice(1)];
        if (!band || !still || !whole) return;
        // Whoever reads the frame exactly there has what the tacks did behind him: only the rest is uncertain.
        const kind = held.get(id.kind) ?? { in: 0, of: 0, narrower: [] };
        kind.in += still.filter((v) => v >= band.low && v <= band.high).length;
        kind.of += still.length;
        kind.narrower.push(spread(still) / spread(whole));
        held.set(id.kind, kind);
      });
    }
    for (const [kind, { in: inside, of }] of held) {
      expect(inside / of, kind).toBeGreaterThan(0.87);
      expect(inside / of, kind).toBeLessThan(0.93);
    }
    // Over these frames sides keep nine tenths of their spread and squareness, closed while it turned, hardly less than all.
    const narrower = (kind: string): number => {
      const all = held.get(kind)?.narrower ?? [];
      expect(all.length).toBeGreaterThan(3);
      return all.reduce((a, b) => a + b, 0) / all.length;
    };
    expect(narrower("span")).toBeLessThan(0.93);
    expect(narrower("length")).toBeLessThan(0.93);
    expect(narrower("square")).toBeLessThan(0.99);
  }, 120_000);
});

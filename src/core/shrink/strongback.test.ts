import { describe, expect, it } from "vitest";
import { drawn, squareTube } from "../../../tests/support/drawnFrames";
import { resolveStructure } from "../frame";
import { condense, fromStructure, LowRankRun } from "../mechanics";
import { FACTORS, weldedModel } from "../weld";
import { CompileCache } from "./compileCache";
import { compileLoads } from "./compileSteps";
import type { SimulationStep } from "./simulationSteps";
import { strongbackSpring } from "./strongback";

/** Three sides, open to the left: what its mouth does is one movement. */
const { structure } = resolveStructure(
  drawn(
    {
      AB: [
        [20, 20, 20],
        [780, 20, 20],
      ],
      BC: [
        [780, 20, 20],
        [780, 480, 20],
      ],
      CD: [
        [780, 480, 20],
        [20, 480, 20],
      ],
    },
    [squareTube(40, 3)],
  ),
);
const { frame, stations } = fromStructure(structure, [
  { member: "AB", at: [20, 20, 20] },
  { member: "CD", at: [20, 480, 20] },
]);
const [a, d] = stations as [string, string];
const model = weldedModel(frame);
const section = { widthMm: 40, heightMm: 40, wallMm: 3 };
type On = Extract<SimulationStep, { do: "strongback on" }>;
const on = (tacks?: On["tacks"]): On => ({
  id: "on",
  do: "strongback on",
  strongback: "T1",
  from: ["AB", a],
  to: ["CD", d],
  section,
  ...(tacks ? { tacks } : {}),
});
const off: SimulationStep = { id: "off", do: "strongback off", strongback: "T1" };
const beads = (closingMm: number, lines: readonly ("inside" | "outside" | "top" | "bottom")[]): SimulationStep[] =>
  ["B", "C"].flatMap((name) => {
    const joint = structure.joints.find(
      (j) => j.a === (name === "B" ? "AB" : "BC") || j.b === (name === "B" ? "AB" : "CD"),
    );
    return lines.map(
      (line): SimulationStep => ({
        id: `${name} ${line}`,
        do: "bead",
        joint: joint?.id ?? "",
        line,
        closingMm,
      }),
    );
  });

/** How far the mouth opens. */
function mouth(steps: readonly SimulationStep[]): { mm: number; run: LowRankRun; actions: number } {
  const plan = compileLoads(new CompileCache(model, FACTORS, steps), steps);
  const row = {
    at: [6 * model.nodeOf("CD", d) + 1, 6 * model.nodeOf("AB", a) + 1],
    value: [1, -1],
  };
  const run = new LowRankRun(condense(plan, [row]), undefined, false);
  run.forward(plan, 0, plan.actions.length);
  return { mm: run.gather()[0] ?? Number.NaN, run, actions: plan.actions.length };
}

const joined = beads(0, ["inside", "outside", "top", "bottom"]);
const pulls = beads(0.1, ["inside"]).map((s) => ({ ...s, id: `${s.id} pulls` }));
const COLD = { lengthMm: 12, heatJPerMm: 0 } as const;

describe("a bar that is tacked on", () => {
  it("holds the mouth against what pulls it, as two springs: moved = free / (1 + k S)", () => {
    // Closed form: a force that a bar of stiffness k carries against a mouth that gives S per N.
    const free = mouth([...joined, ...pulls]).mm;
    const push = (steps: readonly SimulationStep[]) =>
      mouth([
        ...steps,
        { id: "f", do: "load", member: "CD", point: d, wrench: [0, 100, 0, 0, 0, 0] },
        { id: "g", do: "load", member: "AB", point: a, wrench: [0, -100, 0, 0, 0, 0] },
      ]).mm - mouth(steps).mm;
    const [gives, givesHeld] = [push(joined), push([...joined, on()])];
    const held = mouth([...joined, on(), ...pulls]).mm;
    expect(Math.abs(free)).toBeGreaterThan(0.05);
    // The share that is left of a pull is the share that is left of a push at the same place.
    expect(held / free).toBeCloseTo(givesHeld / gives, 1);
  });
  it("gives all of it back when it is cut, where nothing yielded: with tacks that pull on nothing", () => {
    const free = mouth([...joined, ...pulls]).mm;
    for (const tacks of [undefined, { lies: "over", ...COLD }, { lies: "between", ...COLD }] as const) {
      const held = mouth([...joined, on(tacks), ...pulls]).mm;
      const cut = mouth([...joined, on(tacks), ...pulls, off]).mm;
      expect(Math.abs(held)).toBeLessThan(0.6 * Math.abs(free));
      expect(cut).toBeCloseTo(free, 6);
    }
  });
  it("holds less by its tacks than as fast as the members, least over them", () => {
    const held = (tacks?: On["tacks"]) => Math.abs(mouth([...joined, on(tacks), ...pulls]).mm);
    expect(held({ lies: "between", ...COLD })).toBeGreaterThanOrEqual(held());
    expect(held({ lies: "over", ...COLD })).toBeGreaterThan(held());
    expect(held({ lies: "over", lengthMm: 30, heatJPerMm: 0 })).toBeLessThanOrEqual(held({ lies: "over", ...COLD }));
  });
  it("has a stiffness that takes no energy from nothing, and pulls on its members by its tacks' heat", () => {
    const cold = strongbackSpring(model, FACTORS, on({ lies: "over", ...COLD }));
    for (let seed = 1; seed <= 20; seed++) {
      const v = Array.from({ length: 6 }, (_, i) => Math.sin(seed * (i + 1)) * (i < 3 ? 1 : 1e-3));
      const energy = v.reduce(
        (sum, x, i) => sum + x * v.reduce((s, y, j) => s + (cold.matrix[6 * i + j] ?? 0) * y, 0),
        0,
      );
      expect(energy).toBeGreaterThan(0);
    }
    expect(cold.kinks).toEqual([]);
    const hot = strongbackSpring(model, FACTORS, on({ lies: "over", lengthMm: 12, heatJPerMm: 400 }));
    expect(hot.kinks.length).toBeGreaterThan(0);
  });
  it("tells what it held and how far the frame goes: half force times way is the energy", () => {
    const { run } = mouth([...joined, on({ lies: "over", ...COLD }), ...pulls, off]);
    const { letGo } = run;
    expect(letGo?.forcesN[0]).toBeGreaterThan(5);
    expect(letGo?.energyNmm).toBeGreaterThan(0);
    // Moments do some of it besides.
    expect(letGo?.energyNmm).toBeGreaterThan((0.3 * ((letGo?.forcesN[0] ?? 0) * (letGo?.movedMm ?? 0))) / 2);
  });
});

import { describe, expect, it } from "vitest";
import { ladder, simulationOf, tacksThenBeads } from "../../../tests/support/ladder";
import { fromStructure } from "../mechanics";
import { drain } from "../numeric";
import { FACTORS, weldedModel } from "../weld";
import { CompileCache } from "./compileCache";
import { compileLoads } from "./compileSteps";
import { type SimulationInput, simulate } from "./simulate";
import type { SimulationStep } from "./simulationSteps";
import { stepProblems } from "./stepProblems";

const frame = ladder(1);
const { steps } = tacksThenBeads(frame, { mitreTacks: 2, teeTacks: 2, teeBeads: 4 });
const input = (more: Partial<SimulationInput> = {}) => simulationOf(frame, steps, more);

describe("steps", () => {
  const beams = fromStructure(frame);
  const model = weldedModel(beams.frame);
  const bead = (joint: string, line: string): SimulationStep =>
    ({ id: "b", do: "bead", joint, line, heatJPerMm: 400 }) as SimulationStep;
  const messages = (list: SimulationStep[]) => stepProblems(model, list).map((p) => `${p.severity}: ${p.message}`);
  it("that name what is not there are refused with what there is", () => {
    expect(messages([bead("Z", "top")])[0]).toMatch(/error: Step 1: there is no joint Z/);
    expect(messages([bead("A", "plus")])[0]).toMatch(/A has no face plus. A mitre has inside, outside, top, bottom/);
    expect(messages([{ id: "x", do: "unclamp", clamp: "c" }])[0]).toMatch(/clamp c is not on/);
    expect(messages([{ id: "x", do: "strongback off", strongback: "s" }])[0]).toMatch(/strongback s is not on/);
    const clamp = (name: string): SimulationStep => ({
      id: name,
      do: "clamp",
      clamp: name,
      member: "AB",
      point: beams.joints.get("A")?.a ?? "",
      direction: [0, 0, 1],
      stiffnessNPerMm: 1e4,
    });
    expect(messages([clamp("c"), clamp("c")])[0]).toMatch(/clamp c is already on/);
    expect(messages([clamp("c"), clamp("d")])[0]).toMatch(/clamp d would sit where c already is/);
    expect(messages([{ id: "x", do: "square up", residualShare: 2 }])[0]).toMatch(/between 0 and 1/);
    expect(messages([{ id: "x", do: "load", member: "AB", point: "Q", wrench: [0, 0, 0, 0, 0, 0] }])[0]).toMatch(
      /AB has no point Q/,
    );
    expect(
      messages([{ id: "x", do: "tack", joint: "A", line: "top", lengthMm: 0, heatJPerMm: Number.NaN }]).join(),
    ).toMatch(/heat of A top must be zero or more.*a tack needs a length/);
    expect(messages([{ id: "x", do: "chord", joint: "A", line: "top", volumeMm3: 5 }])[0]).toMatch(
      /no member that runs/,
    );
    expect(messages([{ ...bead("A", "top"), share: 1.2 } as SimulationStep])[0]).toMatch(
      /error: Step 1: a bead lies along some of A top, at most along all of it/,
    );
    expect(() => compileLoads(new CompileCache(model, FACTORS), [bead("Z", "top")])).toThrow(/no joint Z/);
  });
  it("a bead before any tack is allowed and said, and so are joints without a weld line", () => {
    const said = messages([bead("A", "top")]);
    expect(said[0]).toMatch(/warning: Step 1: A is beaded before any tack/);
    expect(said[1]).toMatch(/warning: B, M1\/AB, C, D, M1\/CD have no weld line/);
    expect(drain(simulate(input({ steps: [bead("A", "top")], draws: 0 }))).notes.join()).toMatch(/before any tack/);
  });
});

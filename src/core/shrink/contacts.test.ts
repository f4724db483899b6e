import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { ladder, tacksThenBeads } from "../../../tests/support/ladder";
import type { Structure } from "../frame";
import { condense, fromStructure, LowRankRun, plainRun } from "../mechanics";
import { seeded, type Vec3 } from "../numeric";
import { FACTORS, weldedModel } from "../weld";
import { CompileCache } from "./compileCache";
import { compileLoads } from "./compileSteps";
import type { SimulationStep } from "./simulationSteps";

type StopOn = Extract<SimulationStep, { do: "stop on" }>;

const stop = (stopId: string, member: string, point: string, push: Vec3, more: Partial<StopOn> = {}): StopOn => ({
  id: `on ${stopId}`,
  do: "stop on",
  stop: stopId,
  member,
  point,
  push,
  ...more,
});
const off = ({ stop: name }: StopOn): SimulationStep => ({ id: `off ${name}`, do: "stop off", stop: name });

/** A ladder that contacts carry, with the points of its corners by name. */
function lying(structure: Structure) {
  const { frame, joints } = fromStructure(structure);
  const model = weldedModel({ ...frame, carried: true });
  const corner = (name: string): string => joints.get(name)?.a as string;
  return { model, corner };
}

/** Every freedom after the steps, condensed and plain, and what presses. */
function worked(model: ReturnType<typeof lying>["model"], steps: readonly SimulationStep[]) {
  const cache = new CompileCache(model, FACTORS, steps);
  const plan = compileLoads(cache, steps);
  const rows = Array.from({ length: model.freedoms }, (_, i) => ({ at: [i], value: [1] }));
  const run = new LowRankRun(condense(plan, rows));
  run.forward(plan, 0, plan.actions.length);
  const u = run.gather().slice();
  const forces = new Map(run.contactForces().map((c) => [`${c.post}/${c.at}`, c.forceN]));
  const forceOf = (s: StopOn): number => {
    const { spring, at } = cache.contact(s);
    return forces.get(`${spring - model.joints.length}/${at}`) ?? 0;
  };
  const opens = ({ member, point, push, gapMm = 0 }: StopOn): number =>
    push.reduce((sum, v, i) => sum + v * (u[6 * model.nodeOf(member, point) + i] as number), gapMm);
  return { plan, u, forceOf, opens };
}

/** What is left of a movement without the frame's sliding and turning as a whole, which nothing may hinder. */
function shapeOf({ hold }: ReturnType<typeof lying>["model"], u: Float64Array): Float64Array {
  const left = u.slice();
  for (const q of hold) {
    const share = q.reduce((sum, v, i) => sum + v * (u[i] as number), 0);
    q.forEach((v, i) => {
      left[i] = (left[i] as number) - share * v;
    });
  }
  return left;
}

const structure = ladder(1);
const { steps: welds } = tacksThenBeads(structure, { mitreTacks: 2, teeTacks: 2, teeBeads: 4 });
const ring = (corner: (name: string) => string) => {
  const place = (name: string, member: string, push: Vec3, gapMm = 0): StopOn =>
    stop(`${name} ${push.join("")}`, member, corner(name), push, { gapMm });
  return [
    place("A", "AB", [0, 1, 0]),
    place("B", "AB", [0, 1, 0]),
    place("A", "DA", [1, 0, 0]),
    place("D", "DA", [1, 0, 0]),
    place("C", "CD", [0, -1, 0], 0.5),
    place("D", "CD", [0, -1, 0], 0.5),
    place("B", "BC", [-1, 0, 0], 0.5),
    place("C", "BC", [-1, 0, 0], 0.5),
  ];
};

describe("a frame between stops that only push", () => {
  it("is the same by the condensed path and by the whole matrix, whatever is put on and taken off", () => {
    const { model, corner } = lying(structure);
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), fc.double({ min: -0.1, max: 0.1, noNaN: true }), (seed, gap) => {
        const random = seeded(seed);
        const stops = ring(corner)
          .filter(() => random() < 0.7)
          .map((s) => ({ ...s, gapMm: gap }));
        const order = [...welds].sort(() => random() - 0.5);
        const half = Math.floor(order.length / 2);
        const steps = [...stops, ...order.slice(0, half), ...stops.slice(1).map(off), ...order.slice(half)];
        const { plan, u } = worked(model, steps);
        const full = shapeOf(model, plainRun(plan).movements.at(-1) as Float64Array);
        const largest = Math.max(...full.map(Math.abs));
        shapeOf(model, u).forEach((v, i) => {
          expect(Math.abs(v - (full[i] as number)) / largest).toBeLessThan(1e-7);
        });
      }),
      { numRuns: 4, seed: 5 },
    );
  }, 60_000);

  it("presses where it touches and nowhere else, and never pulls", () => {
    const { model, corner } = lying(structure);
    // Inside, a frame shrinks onto its stops.
    const inside = ring(corner).map((s) => ({ ...s, push: s.push.map((v) => -v) as never, gapMm: 0, givesMmPerN: 0 }));
    const { forceOf, opens } = worked(model, [...inside, ...welds]);
    const forces = inside.map(forceOf);
    expect(Math.max(...forces)).toBeGreaterThan(100);
    for (const [i, s] of inside.entries()) {
      const forceN = forces[i] as number;
      expect(forceN).toBeGreaterThanOrEqual(0);
      if (forceN > 0) expect(Math.abs(opens(s))).toBeLessThan(0.02);
      else expect(opens(s)).toBeGreaterThan(-0.02);
    }
  });

  it("is nothing to a frame that never comes near: stops far off change nothing, and taking them away neither", () => {
    const { model, corner } = lying(structure);
    const far = ring(corner).map((s) => ({ ...s, gapMm: 50 }));
    const free = worked(model, welds).u;
    const among = worked(model, [...far, ...welds, ...far.map(off)]).u;
    const largest = Math.max(...free.map(Math.abs));
    among.forEach((v, i) => {
      expect(Math.abs(v - (free[i] as number)) / largest).toBeLessThan(1e-7);
    });
  });

  it("gives back in all what driving stops in took, where nothing gives way: elastic, whatever goes first", () => {
    const { model, corner } = lying(structure);
    const beads = tacksThenBeads(structure, { mitreTacks: 2, teeTacks: 2, teeBeads: 4 }, 0).steps;
    const against = ring(corner)
      .slice(4, 6)
      .map((s) => ({ ...s, push: [0, 1, 0] as Vec3, gapMm: 0 }));
    const driven = ring(corner)
      .slice(0, 2)
      .map((s) => ({ ...s, push: [0, -1, 0] as Vec3, gapMm: -0.05 }));
    const all = [...against, ...driven];
    const on = worked(model, [...beads, ...all]);
    expect(Math.max(...all.map(on.forceOf))).toBeGreaterThan(50);
    for (const order of [all, [...all].reverse()]) {
      const left = shapeOf(model, worked(model, [...beads, ...all, ...order.map(off)]).u);
      expect(Math.max(...left.map(Math.abs))).toBeLessThan(1e-3 * Math.max(...shapeOf(model, on.u).map(Math.abs)));
    }
  });

  it("carries its weight on its rests: all of it, by symmetry a quarter each", () => {
    // Closed form by symmetry: W/4, W of the lines of the members.
    const square = ladder(0);
    const { model, corner } = lying(square);
    const nPerMm = Object.fromEntries(square.members.map((m) => [m.id, 0.034]));
    const rests = [
      stop("A", "DA", corner("A"), [0, 0, 1]),
      stop("B", "BC", corner("B"), [0, 0, 1]),
      stop("C", "BC", corner("C"), [0, 0, 1]),
      stop("D", "DA", corner("D"), [0, 0, 1]),
    ];
    const beads = welds.length > 0 ? tacksThenBeads(square, { mitreTacks: 2, teeTacks: 0, teeBeads: 0 }, 0).steps : [];
    const long = model.elements.reduce((sum, e) => sum + e.lengthMm, 0);
    const { forceOf } = worked(model, [...rests, ...beads, { id: "weight", do: "weight on", nPerMm }]);
    for (const r of rests) expect(forceOf(r)).toBeCloseTo((0.034 * long) / 4, 3);
    const lifted = worked(model, [
      ...rests,
      ...beads,
      { id: "weight", do: "weight on", nPerMm },
      { id: "up", do: "weight off" },
    ]);
    for (const r of rests) expect(lifted.forceOf(r)).toBeLessThan(1e-3);
  });
});

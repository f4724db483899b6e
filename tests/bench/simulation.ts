// Measures the simulation on one thread, all in one run, as ratios where that says more: part of npm run bench
import { performance } from "node:perf_hooks";
import { newPlan, type Plan, predict, predicting } from "@/core/job";
import { condense, fromStructure, PackedSymmetric, plainRun } from "@/core/mechanics";
import { drain, seeded } from "@/core/numeric";
import { CompileCache, compileLoads, frameOutputs, OrderSearch, type SimulationStep } from "@/core/shrink";
import { length } from "@/core/units";
import { FACTORS, type WeldedModel, weldedModel } from "@/core/weld";
import { ladder, tacksThenBeads } from "../support/ladder";
import { sized } from "../support/plans";

/** Outputs followed: as many as a search over orders asks about. */
const OUTPUTS = 40;
const row = (name: string, value: string, target = ""): void =>
  console.log(`${name.padEnd(58)} ${value.padStart(12)}  ${target}`);
const rate = (perSecond: number): string => `${perSecond >= 10 ? perSecond.toFixed(0) : perSecond.toFixed(1)} /s`;

/** Runs per second: the best of several short spells, since the machine is shared. */
function perSecond(work: () => void, spellMs = 700, spells = 4): number {
  work();
  let best = 0;
  for (let s = 0; s < spells; s++) {
    const start = performance.now();
    let n = 0;
    while (performance.now() - start < spellMs) {
      work();
      n++;
    }
    best = Math.max(best, (1000 * n) / (performance.now() - start));
  }
  return best;
}

const random = seeded(7);
/** Beads in another order; tacks stay. `from` is where the change may begin. */
function shuffled(steps: readonly SimulationStep[], from: number): SimulationStep[] {
  const out = [...steps];
  for (let i = out.length - 1; i > from; i--) {
    const j = from + Math.floor(random() * (i - from + 1));
    [out[i], out[j]] = [out[j] as SimulationStep, out[i] as SimulationStep];
  }
  return out;
}

function bench(
  name: string,
  rungs: number,
  counts: Parameters<typeof tacksThenBeads>[1],
  targets: Record<"setUp" | "exact" | "prefix", string>,
): void {
  const frame = ladder(rungs, rungs === 0 ? { size: "50.8", wall: "4.8", depth: "" } : undefined);
  const { steps, tacks } = tacksThenBeads(frame, counts);
  const mechanics = fromStructure(frame);
  const model = weldedModel(mechanics.frame);
  const outputs = frameOutputs(frame, mechanics.joints)(model);
  outputs.rows.length = OUTPUTS;
  console.log(
    `\n${name}: ${model.joints.length} joints, ${steps.length} steps, ${model.freedoms} freedoms, ${OUTPUTS} outputs`,
  );
  const searchOf = (of: WeldedModel): OrderSearch => {
    const cache = new CompileCache(of, FACTORS, steps);
    return new OrderSearch(cache, condense(compileLoads(cache, steps), outputs.rows));
  };
  row(
    "setting up (model, condensing)",
    `${(1000 / perSecond(() => void searchOf(weldedModel(mechanics.frame)))).toFixed(1)} ms`,
    targets.setUp,
  );
  const search = searchOf(model);
  const exact = perSecond(() => void search.exact(shuffled(steps, tacks), false));
  row("exact", rate(exact), targets.exact);
  const half = Math.floor(steps.length / 2);
  const prefix = perSecond(() => void search.exact(shuffled(steps, Math.max(half, tacks))));
  row("exact, common start kept (change after half)", rate(prefix), targets.prefix);
  row("  common start / exact", (prefix / exact).toFixed(2));
  const plan = compileLoads(new CompileCache(model, FACTORS), steps);
  const start = performance.now();
  const full = plainRun(plan);
  const plainMs = performance.now() - start;
  const out = search.exact(steps, false);
  const last = full.movements.at(-1) as Float64Array;
  const worst = Math.max(
    ...outputs.rows.map((r, o) =>
      Math.abs(r.at.reduce((s, f, i) => s + (r.value[i] as number) * (last[f] as number), 0) - (out[o] as number)),
    ),
  );
  row("  exact / full-matrix reference", ((exact * plainMs) / 1000).toFixed(0));
  row("  largest difference from the full matrix, mm", worst.toExponential(1));
}

/** The low-rank update with the kernel against without, in one run. */
function updates(joints: number): void {
  const n = 6 * joints;
  const start = Float64Array.from({ length: n * n }, (_, i) => (i % (n + 1) === 0 ? n : 0.1));
  const d = Float64Array.from({ length: 36 }, (_, i) => (i % 7 === 0 ? 1e-6 : 0));
  const [wide, plain] = [new PackedSymmetric(n, start), new PackedSymmetric(n, start, null)].map((s) =>
    perSecond(() => s.update(6, 6, d), 300),
  ) as [number, number];
  row(`update of ${joints} joints, kernel / plain`, (wide / plain).toFixed(2));
}

console.log("simulation, one thread");
for (const joints of [10, 24, 86]) updates(joints);
bench(
  "ladder",
  10,
  { mitreTacks: 1, teeTacks: 2, teeBeads: 2 },
  {
    setUp: "target under 50 ms",
    exact: "targets 20 and 50 /s",
    prefix: "target 136 /s",
  },
);
bench("square", 0, { mitreTacks: 4, teeTacks: 0, teeBeads: 0 }, { setUp: "", exact: "target 1700 /s", prefix: "" });

console.log("\na whole prediction: set-up shape, draws, bands, attribution");
const plan = newPlan("bench", "mm");
const deck = sized(plan, {
  length: length("2400"),
  width: length("1200"),
  cross: Array.from({ length: 9 }, (_, i) => ({ id: `M${i + 1}`, at: length(String(240 * (i + 1))) })),
});
for (const [name, p] of [
  ["4 mitres", plan],
  ["4 mitres, 18 tees", deck],
] as const) {
  let longest = 0;
  const start = performance.now();
  const work = predicting(p);
  let turn = performance.now();
  while (!work.next().done) {
    const now = performance.now();
    longest = Math.max(longest, now - turn);
    turn = now;
  }
  row(name, `${(performance.now() - start).toFixed(0)} ms`);
  row("  longest stretch that cannot be stopped", `${longest.toFixed(0)} ms`, "target under 50 ms");
}
/** Edits that a warm worker answers one after the other: each makes the frame a millimetre longer. */
const EDITS = 15;
const [likely, whole]: [number[], number[]] = [[], []];
for (let i = 1; i <= EDITS; i++) {
  const edited = sized(deck, { length: length(String(2400 + i)) });
  const start = performance.now();
  let at = 0;
  drain(
    predicting(edited, {
      early: () => {
        at ||= performance.now() - start;
      },
    }),
  );
  likely.push(at);
  whole.push(performance.now() - start);
}
const spread = (all: readonly number[]): string => {
  const sorted = [...all].sort((a, b) => a - b);
  return [0, EDITS >> 1].map((i) => (sorted[i] ?? Number.NaN).toFixed(0)).join(" / ");
};
console.log(`the same after ${EDITS} edits, best / median`);
row("4 mitres, 18 tees: likely values", `${spread(likely)} ms`, "target under 150 ms");
row("4 mitres, 18 tees: bands", `${spread(whole)} ms`, "target under 400 ms");
console.log("\nheld in other ways, against clamped flat: medians of a warm process");
const HELD: readonly (readonly [string, Plan["held"]])[] = [
  ["clamped flat", {}],
  ["by its weight on its rests", { lies: "weight" }],
  ["clamped, in its stops", { stops: true }],
  ["by its weight, in its stops", { lies: "weight", stops: true }],
];
const HELD_EDITS = 5;
let clampedMs = 0;
for (const [name, held] of HELD) {
  const all: number[] = [];
  for (let i = 1; i <= HELD_EDITS; i++) {
    const edited = { ...sized(deck, { length: length(String(2400 + i)) }), held };
    const start = performance.now();
    drain(predicting(edited));
    all.push(performance.now() - start);
  }
  const ms = all.sort((a, b) => a - b)[HELD_EDITS >> 1] ?? Number.NaN;
  clampedMs ||= ms;
  row(`4 mitres, 18 tees: ${name}`, `${ms.toFixed(0)} ms, ${(ms / clampedMs).toFixed(1)}`, "target at most 3 times");
}
predict(plan);
globalThis.gc?.();
row(
  "memory of the process after all this",
  `${(process.memoryUsage().rss / 1e6).toFixed(0)} MB`,
  "target under 200 MB",
);

// The search among orders of beads against every order there is, with four to eight beads: node --import tsx tests/bench/exhaustive.ts [frames [least beads]]
import { performance } from "node:perf_hooks";
import { weldSpace } from "@/core/job/orderChoices";
import { searching } from "@/core/job/orderSearching";
import { worthBy } from "@/core/job/orderWorth";
import { drain, seeded } from "@/core/numeric";
import { USUAL_ORDER } from "@/core/plan";
import { length } from "@/core/units";
import { drawn, squareTube } from "../support/drawnFrames";
import { job as jobOf } from "../support/jobs";
import { drawnPlan } from "../support/plans";

const FRAMES = Number(process.argv[2] ?? 20);
const TRIALS = 500;
const LEAST = 4;
const MOST = 8;
/** Frames with fewer beads are passed over. */
const LEAST_SHOWN = Number(process.argv[3] ?? 4);

/** Every order of some things, those that share their beginning one after the other. */
function* orders<T>(list: readonly T[]): Generator<T[]> {
  if (list.length < 2) return yield [...list];
  for (const [i, x] of list.entries())
    for (const rest of orders([...list.slice(0, i), ...list.slice(i + 1)])) yield [x, ...rest];
}

/** Two legs that meet, or three in a row, of any tube and angle: few joints, so that every order can be tried. */
function frame(i: number) {
  const random = seeded(4_211 + i);
  const any = (from: number, to: number): number => Math.round(from + (to - from) * random());
  const section = squareTube(any(25, 60), [1.6, 2, 3, 4][any(0, 3)] ?? 3);
  const [long, wide, slant] = [any(500, 1500), any(300, 900), any(-150, 150)];
  return drawn(
    {
      P: [
        [0, 0, 0],
        [long, 0, 0],
      ],
      Q: [
        [long, 0, 0],
        [long + slant, wide, 0],
      ],
      R: [
        [long + slant, wide, 0],
        [0, wide, 0],
      ],
    },
    [section],
  );
}

const gaps: number[] = [];
for (let i = 0; i < FRAMES; i++) {
  const start = performance.now();
  if (LEAST + (i % (MOST - LEAST + 1)) < LEAST_SHOWN) continue;
  const plan = drawnPlan(frame(i));
  const limits = plan.limits.kind === "own" ? { ...plan.limits, flat: length("0.5") } : plan.limits;
  const job = jobOf([], () => ({ ...plan, limits }) as typeof plan);
  const worth = worthBy(job);
  const random = seeded(77 + i);
  const { beads } = weldSpace(job, USUAL_ORDER, 20).start;
  const count = Math.min(beads.length, LEAST + (i % (MOST - LEAST + 1)));
  const left = new Set([...beads].sort(() => random() - 0.5).slice(0, count));
  const done = beads.filter((b) => !left.has(b));
  const first = { kind: "tick", at: "2026-11-24T08:00:00.000Z", origin: "bench", done: true } as const;
  // One tack is ticked: from there on all tacks stay.
  const tack = { do: "tack", joint: beads[0]?.joint ?? "", line: beads[0]?.line ?? "top" } as const;
  const ticked = jobOf(
    [tack, ...done].map((step, k) => ({
      ...first,
      id: `00000000-0000-4000-9000-8${String(i).padStart(5, "0")}${String(k).padStart(6, "0")}`,
      step,
    })),
    () => job.plan,
  );
  const few = weldSpace(ticked, USUAL_ORDER, 20);
  let top = Number.NEGATIVE_INFINITY;
  let worst = Number.POSITIVE_INFINITY;
  let tried = 0;
  for (const b of orders(few.start.beads)) {
    const value = worth(few.choiceOf({ ...few.start, beads: b }));
    top = Math.max(top, value);
    worst = Math.min(worst, value);
    tried++;
  }
  const [best] = drain(searching(ticked, USUAL_ORDER, { trials: TRIALS, mostTurns: 20, seed: i }, worth));
  const gap = Math.exp(top) - Math.exp(best?.worth ?? Number.NEGATIVE_INFINITY);
  gaps.push(gap);
  console.log(
    `frame ${String(i + 1).padStart(2)}: ${few.start.beads.length} beads, ${String(tried).padStart(5)} orders, worst ${Math.exp(worst).toFixed(4)}, best ${Math.exp(top).toFixed(4)}, found ${(Math.exp(top) - gap).toFixed(4)}, ${((performance.now() - start) / 1000).toFixed(0)} s`,
  );
}
console.log(
  `largest gap ${(100 * Math.max(...gaps)).toFixed(2)} in 100, mean ${(100 * (gaps.reduce((a, b) => a + b, 0) / gaps.length)).toFixed(2)}`,
);

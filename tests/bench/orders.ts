// Measures the comparison of orders and the search among them on one thread: part of npm run bench
import { performance } from "node:perf_hooks";
import { type Job, newPlan, orderOutlook } from "@/core/job";
import { schoolChoices } from "@/core/job/orderChoices";
import { inOrder, turnsOf } from "@/core/job/orderOutlook";
import { likeliestRoughly } from "@/core/job/orderPlanning";
import { searching } from "@/core/job/orderSearching";
import { worthsOf } from "@/core/job/orderWorth";
import { drain, seeded } from "@/core/numeric";
import { type OrderChoice, orderWords, USUAL_ORDER } from "@/core/plan";
import { length } from "@/core/units";
import { sized } from "../support/plans";

const ROUGH_DRAWS = 16;
/** A search goes on for so long. */
const SECONDS = 40;
/** How often a frame may be turned over in it; schools that turn it more often are no measure of it. */
const MOST_TURNS = 2;
const FRAMES = 6;
const row = (name: string, value: string): void => console.log(`${name.padEnd(58)} ${value}`);
const since = (start: number): string => `${(performance.now() - start).toFixed(0)} ms`;

/** A job on a ladder of so many rungs. */
const ladderJob = (rungs: number, length_: number, width: number, face = 40, wall = 3): Job => {
  const plan = sized(newPlan("bench", "mm"), {
    length: length(String(length_)),
    width: length(String(width)),
    section: {
      profile: `${face}×${face}×${wall}`,
      face: length(String(face)),
      depth: length(String(face)),
      wall: length(String(wall)),
    },
    cross: Array.from({ length: rungs }, (_, i) => ({
      id: `M${i + 1}`,
      at: length(String(Math.round((length_ * (i + 1)) / (rungs + 1)))),
    })),
  });
  return { id: "bench", createdAt: "", version: 1, plan, instruments: [], entries: [] };
};

/** A search from nothing, as the page makes it: when it had what, and what the schools are worth by the same draws. */
function searched(job: Job, trials: number, seconds: number) {
  let start = performance.now();
  const at = (): number => (performance.now() - start) / 1000;
  const by = worthsOf(job);
  const [rough, worth] = [by(ROUGH_DRAWS), by()];
  let firstS = 0;
  const first = (choice: OrderChoice): number => {
    const value = rough(choice);
    firstS ||= at();
    return value;
  };
  const begin = drain(likeliestRoughly(job, first, worth, MOST_TURNS)) ?? USUAL_ORDER;
  const schoolsS = at();
  const all = schoolChoices(job).filter((c) => turnsOf(inOrder(job, c)) <= MOST_TURNS);
  const curve: { s: number; worth: number }[] = [];
  let tried = 0;
  let earlyS = 0;
  const [found] = drain(
    searching(
      job,
      begin,
      { trials, mostTurns: MOST_TURNS, enough: () => at() > seconds },
      (choice) => {
        const value = worth(choice);
        if (value > (curve.at(-1)?.worth ?? Number.NEGATIVE_INFINITY)) curve.push({ s: at(), worth: value });
        return value;
      },
      {
        rough,
        after: () => tried++,
        early: () => {
          earlyS = at();
        },
      },
    ),
  );
  const took = at();
  // What the best school is worth by the same draws: worked out afterwards, it costs the search nothing.
  start = performance.now();
  const schools = all.map((choice) => ({ choice, worth: worth(choice) })).sort((a, b) => b.worth - a.worth);
  const best = schools[0] ?? { choice: begin, worth: Number.NEGATIVE_INFINITY };
  return { firstS, schoolsS, earlyS, tried, took, curve, found, best, exactS: at(), count: all.length };
}

const told = (worth: number | undefined): string => Math.exp(worth ?? Number.NEGATIVE_INFINITY).toFixed(3);

for (const rungs of [0, 2, 10]) {
  const job = ladderJob(rungs, 2400, 1200);
  console.log(`\norders of a frame of 2400 by 1200 with ${rungs} rungs`);
  const { firstS, schoolsS, earlyS, tried, took, curve, found, best, exactS, count } = searched(job, 4000, SECONDS);
  row("first answer, by few draws", `${(1000 * firstS).toFixed(0)} ms`);
  row(`${count} pairs of schools, by few draws, the first few exactly`, `${(1000 * schoolsS).toFixed(0)} ms`);
  row(`${count} pairs of schools, by the search's draws`, `${(1000 * exactS).toFixed(0)} ms`);
  row("rows of classes sorted, the best worked out", `${(1000 * earlyS).toFixed(0)} ms`);
  row(`trials a second, of ${tried}`, (tried / took).toFixed(1));
  const better = curve.find((c) => c.worth > best.worth);
  row("better than every school", better ? `after ${better.s.toFixed(1)} s` : "never");
  const end = curve.at(-1)?.worth ?? 0;
  for (const s of [1, 2, 5, 10, 20, 40]) {
    const then = curve.filter((c) => c.s <= s).at(-1);
    if (s < took) row(`  worth after ${s} s`, told(then?.worth));
  }
  row(`  worth in the end, ${took.toFixed(0)} s; best school`, `${told(end)}; ${told(best.worth)}`);
  for (const [name, choice, claimed] of [
    ["best school", best.choice, best.worth],
    ["found", found?.choice ?? best.choice, found?.worth],
  ] as const) {
    const start = performance.now();
    const { chance } = drain(orderOutlook(job, choice));
    row(
      `${name}: ${orderWords(choice)}`,
      `claimed ${told(claimed)}, fresh ${(chance ?? 0).toFixed(3)}, ${since(start)}`,
    );
  }
}

console.log("\ngenerated frames of 24 joints: best school, found after 5 s, by the search's draws");
const random = seeded(24);
const any = (from: number, to: number): number => Math.round(from + (to - from) * random());
for (let i = 0; i < FRAMES; i++) {
  const [long, wide, face, wall] = [any(1500, 4000), any(600, 1600), any(25, 60), [1.6, 2, 3, 4][any(0, 3)] ?? 3];
  const { best, found, curve } = searched(ladderJob(10, long, wide, face, wall), 4000, 5);
  const better = curve.find((c) => c.worth > best.worth);
  row(
    `${long} by ${wide}, ${face}×${wall}`,
    `${told(best.worth)} -> ${told(found?.worth)}, better ${better ? `after ${better.s.toFixed(1)} s` : "never"}`,
  );
}
console.log(`\nmemory of the process after all this ${(process.memoryUsage().rss / 1e6).toFixed(0)} MB`);

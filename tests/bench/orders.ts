// Measures the comparison of orders and the search among them on one thread: part of npm run bench
import { performance } from "node:perf_hooks";
import { type Job, newPlan, orderOutlook } from "@/core/job";
import { schoolChoices } from "@/core/job/orderChoices";
import { searching } from "@/core/job/orderSearching";
import { worthBy } from "@/core/job/orderWorth";
import { drain } from "@/core/numeric";
import { orderWords, USUAL_ORDER } from "@/core/plan";
import { length } from "@/core/units";
import { sized } from "../support/plans";

const TRIALS = 100;
const row = (name: string, value: string): void => console.log(`${name.padEnd(58)} ${value}`);
const since = (start: number): string => `${(performance.now() - start).toFixed(0)} ms`;

for (const rungs of [0, 2, 9]) {
  const job: Job = {
    id: "bench",
    createdAt: "",
    version: 1,
    plan: sized(newPlan("bench", "mm"), {
      length: length("2400"),
      width: length("1200"),
      cross: Array.from({ length: rungs }, (_, i) => ({
        id: `M${i + 1}`,
        at: length(String(Math.round((2400 * (i + 1)) / (rungs + 1)))),
      })),
    }),
    instruments: [],
    entries: [],
  };
  console.log(`\norders of a frame of 2400 by 1200 with ${rungs} rungs`);
  let start = performance.now();
  const worth = worthBy(job);
  row("set-up", since(start));
  start = performance.now();
  const schools = schoolChoices(job).map((choice, i) => {
    const tried = { choice, worth: worth(choice) };
    if (i === 0) row("first answer", since(start));
    return tried;
  });
  row(`${schools.length} pairs of schools`, since(start));
  schools.sort((a, b) => b.worth - a.worth);
  const [best] = schools;
  if (!best) throw new Error("no school");
  start = performance.now();
  const curve: string[] = [];
  let top = Number.NEGATIVE_INFINITY;
  const [found] = drain(
    searching(job, best.choice, { trials: TRIALS, mostTurns: 2 }, (choice) => {
      const value = worth(choice);
      if (value > top) {
        top = value;
        curve.push(`${((performance.now() - start) / 1000).toFixed(1)} s ${Math.exp(value).toFixed(3)}`);
      }
      return value;
    }),
  );
  row(`trials a second, of ${TRIALS}`, ((1000 * TRIALS) / (performance.now() - start)).toFixed(1));
  row("  worth against seconds", curve.join(", "));
  for (const [name, choice] of [
    ["usual", USUAL_ORDER],
    ["best school", best.choice],
    ["found", found?.choice ?? best.choice],
  ] as const) {
    start = performance.now();
    const { chance } = drain(orderOutlook(job, choice));
    row(
      `${name}: ${orderWords(choice)}`,
      `claimed ${Math.exp(worth(choice)).toFixed(3)}, fresh ${(chance ?? 0).toFixed(3)}, ${since(start)}`,
    );
  }
}
console.log(`\nmemory of the process after all this ${(process.memoryUsage().rss / 1e6).toFixed(0)} MB`);

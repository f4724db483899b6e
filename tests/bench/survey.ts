// A survey of forty points: heights, flatness and bands, in Node, median of many: part of npm run bench
import { performance } from "node:perf_hooks";
import { type SurveyFit, type SurveyReading, survey } from "../../src/core/bed";
import { flatness, flatnessScatter, MinimumZone } from "../../src/core/geometry";
import { normalDraw, seeded, type Vec2 } from "../../src/core/numeric";

const row = (name: string, value: string, target = ""): void =>
  console.log(`${name.padEnd(56)} ${value.padStart(12)}  ${target}`);
const ms = (x: number): string => `${x.toFixed(1)} ms`;
function timed(times: number, work: () => void): number {
  work();
  const list = Array.from({ length: times }, () => {
    const start = performance.now();
    work();
    return performance.now() - start;
  }).sort((a, b) => a - b);
  return list[Math.floor(times / 2)] as number;
}

const random = seeded(7);
const names = Array.from({ length: 40 }, (_, i) => `R${i + 1}`);
const places = new Map<string, Vec2>(names.map((n, i) => [n, { x: (i % 8) * 300, y: Math.floor(i / 8) * 300 }]));
const z = names.map(() => 0.4 * normalDraw(random));
const readings: SurveyReading[] = names.flatMap((at, i): SurveyReading[] => {
  const out: SurveyReading[] = [
    { id: at, by: "height", at, mm: (z[i] as number) + 0.05 * normalDraw(random), uMm: 0.05, datum: "1" },
  ];
  for (const j of [i + 1, i + 8])
    if (j < 40 && (j !== i + 1 || i % 8 < 7))
      out.push({
        id: `${at}-${j}`,
        by: "slope",
        from: at,
        at: names[j] as string,
        mmPerM: ((z[j] as number) - (z[i] as number)) / 0.3 + 0.2 * normalDraw(random),
        uMm: 0.06,
        level: "L",
        direction: 1,
      });
  return out;
});

console.log(`\na bed of 40 points, ${readings.length} readings by two methods`);
const solve = (): SurveyFit => {
  const found = survey(places, readings, { L: 0.3 });
  if (found.status !== "ok") throw new Error(found.status);
  return found;
};
const fit = solve();
const xy = fit.points.map((p) => places.get(p) as Vec2);
const heights = fit.points.map((p) => fit.zMm[p] as number);
const solving = timed(15, solve);
row("heights, every reading tested", ms(solving));
const flat = timed(15, () => flatness(xy, heights, fit.cov));
row("flatness with its linear uncertainty", ms(flat));
const scatter = timed(9, () => flatnessScatter(xy, heights, fit.cov, 2000));
row("band by 2000 draws", ms(scatter));
row("all of it", ms(solving + flat + scatter), "target under 300 ms in the worker");
const slab = new MinimumZone(xy);
const one = timed(400, () => slab.of(heights.map((h) => h + 0.05 * normalDraw(random))));
/** Every four of forty, as the closed form says it. */
const enumerated = timed(5, () => {
  let best = 0;
  for (let a = 0; a < 37; a++)
    for (let b = a + 1; b < 38; b++)
      for (let c = b + 1; c < 39; c++)
        for (let d = c + 1; d < 40; d++) {
          const [p, q, r, s] = [xy[a], xy[b], xy[c], xy[d]] as [Vec2, Vec2, Vec2, Vec2];
          const det = (u: Vec2, v: Vec2, w: Vec2): number => (v.x - u.x) * (w.y - u.y) - (w.x - u.x) * (v.y - u.y);
          const lam = [det(q, r, s), -det(p, r, s), det(p, q, s), -det(p, q, r)] as const;
          const total = Math.abs(lam[0]) + Math.abs(lam[1]) + Math.abs(lam[2]) + Math.abs(lam[3]);
          if (total === 0) continue;
          const sum =
            lam[0] * (heights[a] as number) +
            lam[1] * (heights[b] as number) +
            lam[2] * (heights[c] as number) +
            lam[3] * (heights[d] as number);
          best = Math.max(best, (2 * Math.abs(sum)) / total);
        }
  if (best < 0) throw new Error("never");
});
row(
  "  minimum zone: every four / exchange",
  (enumerated / one).toFixed(0),
  `${ms(enumerated)} against ${one.toFixed(3)} ms`,
);

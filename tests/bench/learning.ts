// What a shop of two hundred frames takes to learn, and a correction of a frame of 24 joints, in Node: part of npm run bench
import { performance } from "node:perf_hooks";
import { correcting, frameTeachingOf } from "../../src/core/job";
import { type FrameLesson, learnShop } from "../../src/core/learn";
import { drain, normalDraw, seeded } from "../../src/core/numeric";
import { length } from "../../src/core/units";
import { job, round } from "../support/jobs";
import { sized } from "../support/plans";

const row = (name: string, value: string, target = ""): void =>
  console.log(`${name.padEnd(56)} ${value.padStart(12)}  ${target}`);
const ms = (x: number): string => `${x.toFixed(0)} ms`;
function once<T>(work: () => T): { took: number; value: T } {
  const start = performance.now();
  const value = work();
  return { took: performance.now() - start, value };
}

const WIDE = 1200;
const LONG = 3000;
const diagonal = Math.hypot(LONG, WIDE);
const cross = Array.from({ length: 10 }, (_, i) => ({ id: `M${i + 1}`, at: length(String(270 * (i + 1))) }));
const readings = (apart: number, less: number): Record<string, string> => ({
  ...{ AB: (LONG - less).toFixed(1), BC: (WIDE - less).toFixed(1), CD: (LONG - less).toFixed(1) },
  ...{ DA: (WIDE - less).toFixed(1), AC: (diagonal + apart / 2).toFixed(1), BD: (diagonal - apart / 2).toFixed(1) },
});
const frame = (apart: number) =>
  job([...round("tacked", readings(0, 0)), ...round("cold", readings(apart, 0.5))], (p) =>
    sized(p, { length: length(String(LONG)), width: length(String(WIDE)), cross }),
  );

const correction = once(() => drain(correcting(frame(9))));
row("correction plan, 24 joints, by a worker just started", ms(correction.took), "target < 2 s");
row("  by one that has worked before", ms(once(() => drain(correcting(frame(7)))).took), "target < 2 s");
const taught = once(() => frameTeachingOf(frame(0.2)));
row("what a frame of 24 joints teaches", ms(taught.took));
if (taught.value.ok) {
  const { lesson } = taught.value.taught;
  const random = seeded(3);
  const lessons = Array.from({ length: 200 }, (_, i): FrameLesson => {
    const day = new Date(Date.UTC(2025, 0, 1) + i * 86_400_000).toISOString();
    const change = lesson.told.mean.map((m) => m * (1 + 0.2 * normalDraw(random)));
    const process = (["MAG", "TIG"] as const)[i % 2] ?? "MAG";
    return {
      ...lesson,
      ...{ kind: "frame", id: `00000000-0000-4000-9400-${String(i).padStart(12, "0")}`, at: day, origin: "bench" },
      jobId: `00000000-0000-4000-9500-${String(i).padStart(12, "0")}`,
      cell: { ...lesson.cell, process },
      teaching: { ...lesson.teaching, change },
    };
  });
  const learned = once(() => learnShop(lessons, "2026-11-29T08:00:00.000Z"));
  row("learning from 200 frames", ms(learned.took), "target < 5 s");
}

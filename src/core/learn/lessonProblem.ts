import { cholesky } from "../numeric";
import type { Lesson } from "./lessonSchema";

/** No change, effect or uncertainty of a frame is larger, mm or mm2. */
const LARGEST = 1e4;

/**
 * What keeps a lesson of a frame from being worked out, whatever its fields say one by one: lists of different lengths, uncertainties
 * that are none, figures beyond any frame. Such a one would stop all that is learned after it.
 * @returns null where nothing does.
 */
export function lessonProblem(lesson: Lesson): string | null {
  if (lesson.kind !== "frame") return null;
  const { sources, beads, linear, change, cov } = lesson.teaching;
  const n = lesson.readings.length;
  const rows = [...sources.map((s) => s.effect), ...beads, ...Object.values(linear).flatMap((l) => (l ? [l] : []))];
  const square = [cov, lesson.told.cov];
  const lists = [change, lesson.told.mean, ...rows, ...square.flat()];
  if (square.some((m) => m.length !== n) || lists.some((l) => l.length !== n))
    return `The lesson of ${lesson.name} has lists of different lengths.`;
  if (lists.flat().some((v) => Math.abs(v) > LARGEST))
    return `The lesson of ${lesson.name} has figures beyond any frame.`;
  // Readings that share all of their error leave nothing for the last: a hair keeps them whole.
  const isCovariance = (m: readonly (readonly number[])[]): boolean =>
    cholesky(m.map((row, i) => row.map((v, j) => (i === j ? v + 1e-9 : v)))) !== null &&
    m.every((row, i) => row.every((v, j) => Math.abs(v - (m[j]?.[i] ?? Number.NaN)) <= 1e-6 * LARGEST));
  return square.every(isCovariance) ? null : `The lesson of ${lesson.name} has uncertainties that are none.`;
}

import * as z from "zod";
import { type Lesson, lessonProblem, lessonSchema } from "@/core/learn";
import type { Problem } from "@/core/units";
import { problemsOf } from "./jobFile";
import { parseJson } from "./json";

const LESSONS_FILE_FORMAT = "mellow-plumb-lessons";
const LESSONS_FILE_VERSION = 1;
/** Largest file of lessons that is read, bytes. */
export const LESSONS_FILE_LIMIT_BYTES = 16 * 1024 * 1024;
const MOST_LESSONS = 5000;

/** The open file of what a shop learned: every lesson, whole, as JSON; whose shop it was is said, for whoever reads it in. */
const lessonsFileSchema = z.strictObject({
  format: z.literal(LESSONS_FILE_FORMAT, "Not a file of lessons of this program."),
  formatVersion: z.literal(LESSONS_FILE_VERSION, "A file of another version of this program."),
  shop: z.strictObject({ id: z.uuid(), name: z.string().max(80) }),
  lessons: z.array(lessonSchema).max(MOST_LESSONS, `At most ${MOST_LESSONS} lessons.`),
});
export type LessonsFile = z.infer<typeof lessonsFileSchema>;

export const writeLessonsFile = (shop: LessonsFile["shop"], lessons: readonly Lesson[]): string =>
  `${JSON.stringify({ format: LESSONS_FILE_FORMAT, formatVersion: LESSONS_FILE_VERSION, shop, lessons }, null, 1)}\n`;

export function readLessonsFile(text: string): { ok: true; file: LessonsFile } | { ok: false; problems: Problem[] } {
  const parsed = parseJson(text);
  if (!parsed.ok) return { ok: false, problems: [{ path: "file", message: parsed.message, severity: "error" }] };
  const read = lessonsFileSchema.safeParse(parsed.value);
  if (!read.success) return { ok: false, problems: problemsOf(read.error) };
  const wrong = read.data.lessons.flatMap((l, i): Problem[] => {
    const message = lessonProblem(l);
    return message === null ? [] : [{ path: `lessons.${i}`, message, severity: "error" }];
  });
  return wrong.length > 0 ? { ok: false, problems: wrong } : { ok: true, file: read.data };
}

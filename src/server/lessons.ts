import "server-only";
import { v4 as uuid } from "uuid";
import * as z from "zod";
import {
  addedLessonSchema,
  type Book,
  bookOf,
  couponTeaching,
  type Lesson,
  learnShop,
  type ShopState,
} from "@/core/learn";
import { writeLessonsFile } from "@/formats/lessonsFile";
import * as store from "@/store";
import { inThread } from "@/workers/predictionThread";
import { BUSY, done, noSuchJob, type Outcome, parse, refuse } from "./outcome";
import { laneOf } from "./predictions";
import { type Caller, signed } from "./who";

/** Lessons that a shop may keep. */
export const LESSON_LIMIT = 20_000;
const now = (): string => new Date().toISOString();

/** What was learned is worked out anew when a lesson comes, and once a day: what is older counts less. */
const known = new Map<string, { count: number; day: string; state: ShopState }>();
const MOST_KNOWN = 50;

/** All that a shop has learned, and from what. */
export async function shopState(who: Caller): Promise<ShopState> {
  const at = now();
  const day = at.slice(0, 10);
  const count = await store.countLessons(store.pool(), who.shopId);
  const here = known.get(who.shopId);
  if (here && here.count === count && here.day === day) return here.state;
  const state = learnShop(await store.listLessons(store.pool(), who.shopId), at);
  const [oldest] = known.keys();
  if (known.size >= MOST_KNOWN && oldest !== undefined) known.delete(oldest);
  known.set(who.shopId, { count, day, state });
  return state;
}

/** What the page of a shop's lessons shows. */
export const shopBook = async (who: Caller): Promise<Book> => bookOf(await shopState(who));

const full = async (who: Caller): Promise<boolean> =>
  (await store.countLessons(store.pool(), who.shopId)) >= LESSON_LIMIT;

/** Adds a coupon, or leaves a lesson out, takes one back, begins anew. Sent twice it is one. */
export async function addLesson(who: Caller, input: unknown): Promise<Outcome<Book>> {
  const parsed = parse(addedLessonSchema, input);
  if (!parsed.ok) return parsed;
  const lesson: Lesson = { ...parsed.value, origin: signed(who, parsed.value.origin) };
  if (await full(who)) return refuse(422, `The shop's book is full: ${LESSON_LIMIT} lessons.`);
  if (lesson.kind === "coupon") {
    const [change] = couponTeaching(lesson).change;
    if (!(change !== undefined && change > 0))
      return refuse(422, "It did not shrink: a weld never makes it longer or straighter. Read both again.", [
        { path: "afterMm", message: "It did not shrink: read both again.", severity: "error" },
      ]);
  }
  if ("lesson" in lesson) {
    const all = await store.listLessons(store.pool(), who.shopId);
    if (!all.some((l) => l.id === lesson.lesson)) return refuse(404, "There is no such lesson in this shop.");
  }
  await store.addLessons(store.pool(), who.shopId, [lesson]);
  return done(await shopBook(who));
}

const teachSchema = z.strictObject({
  origin: z.string().trim().min(1, "Say who lets it teach.").max(60, "At most 60 characters."),
  /** Although it is not as predicted: whoever says so has looked for the reason. */
  anyway: z.boolean(),
});

/** Lets a job teach its shop, by its record as it stands here. One that does not fit is refused with what it looks like, until it is said anyway. */
export async function teach(who: Caller, id: string, input: unknown): Promise<Outcome<Book>> {
  const parsed = parse(teachSchema, input);
  if (!parsed.ok) return parsed;
  const found = z.uuid().safeParse(id).success ? await store.loadJob(store.pool(), who.shopId, id) : null;
  if (!found) return noSuchJob();
  if (await full(who)) return refuse(422, `The shop's book is full: ${LESSON_LIMIT} lessons.`);
  const told = await inThread("teach", found.job, laneOf(found.job.plan));
  if (!told.ok) return refuse(422, told.why);
  const { lesson, surprise } = told.taught;
  if (surprise.cause !== "fits" && !parsed.value.anyway)
    return refuse(409, "It is not as predicted: look for the reason before it teaches.");
  await store.addLessons(store.pool(), who.shopId, [
    { kind: "frame", id: uuid(), at: now(), origin: signed(who, parsed.value.origin), ...lesson },
  ]);
  return done(await shopBook(who));
}

/** All lessons of a shop as a file. */
export async function lessonsFile(who: Caller): Promise<Outcome<string>> {
  const name = await store.shopName(store.pool(), who.shopId);
  return done(writeLessonsFile({ id: who.shopId, name }, await store.listLessons(store.pool(), who.shopId)));
}

/**
 * Reads a file of lessons in. That of another shop is asked about first: other hands, machines and wire shrink otherwise.
 * @param anyway whether it was said that another shop's lessons shall count here.
 */
export async function importLessons(who: Caller, text: string, anyway: boolean): Promise<Outcome<Book>> {
  const read = await inThread("readLessons", text).catch(() => null);
  if (!read) return refuse(503, BUSY);
  if (!read.ok) return refuse(422, read.problems[0]?.message ?? "Not a file of lessons.", read.problems);
  const { shop, lessons } = read.file;
  if (shop.id !== who.shopId && !anyway)
    return refuse(
      409,
      `These are lessons of "${shop.name}": other hands and machines. Read them in only if it is the same shop.`,
    );
  if ((await store.countLessons(store.pool(), who.shopId)) + lessons.length > LESSON_LIMIT)
    return refuse(422, `That would be over ${LESSON_LIMIT} lessons.`);
  await store.addLessons(store.pool(), who.shopId, lessons);
  return done(await shopBook(who));
}

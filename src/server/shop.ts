import "server-only";
import * as z from "zod";
import { summaryOf } from "@/core/job";
import type { ShopArchive } from "@/formats/shopArchive";
import * as store from "@/store";
import { inThread } from "@/workers/predictionThread";
import { SHELF_LIMIT } from "./instruments";
import { asFiled } from "./jobs";
import { LESSON_LIMIT } from "./lessons";
import { BUSY, done, type Outcome, parse, refuse } from "./outcome";
import { withOwnInstruments } from "./ownInstruments";
import { BEAD_LIMIT } from "./testBeads";
import { type Caller, signed } from "./who";

/** A whole shop as one file: for a backup in one's own hand, and for moving house. */
export async function shopFile(who: Caller): Promise<Outcome<{ name: string; bytes: Uint8Array }>> {
  const db = store.pool();
  const { shopId } = who;
  const [name, ids, instruments, lessons, testBeads] = await Promise.all([
    store.shopName(db, shopId),
    store.listJobIds(db, shopId),
    store.listInstruments(db, shopId),
    store.listLessons(db, shopId),
    store.listTestBeads(db, shopId, BEAD_LIMIT),
  ]);
  const jobs: ShopArchive["jobs"] = [];
  for (const { id, away } of ids) {
    const found = await store.loadJob(db, shopId, id);
    if (found) jobs.push({ job: asFiled(found.job), away });
  }
  const archive = { shop: { id: shopId, name }, jobs, instruments, lessons, testBeads };
  const bytes = await inThread("packShop", archive).catch(() => null);
  return bytes ? done({ name, bytes }) : refuse(503, BUSY);
}

/** What came in with an archive. */
export interface ShopTaken {
  jobs: number;
  /** Jobs that are here already and stay as they are, by name. */
  here: string[];
  /** Jobs that could not be read, with why. */
  unread: string[];
  instruments: number;
  lessons: number;
  testBeads: number;
}

/** More instruments would be on the shelf than it holds: nothing of the archive is taken. */
class ShelfFull extends Error {
  constructor(count: number) {
    super(`The shelf would hold ${count} instruments; ${SHELF_LIMIT} is the most. Put away what is not used any more.`);
  }
}

const wishSchema = z.strictObject({
  origin: z.string().trim().min(1, "Say who reads it in.").max(60, "At most 60 characters."),
  /** Whether what it learned counts here: other hands and machines shrink otherwise. */
  lessons: z.boolean(),
});

/**
 * Reads the archive of a shop in, in one transaction. What is here already stays as it is; a job that cannot be read is named.
 * @param wish who reads it in, and whether what it learned counts here.
 */
export async function importShop(who: Caller, bytes: Uint8Array, wish: unknown): Promise<Outcome<ShopTaken>> {
  const parsed = parse(wishSchema, wish);
  if (!parsed.ok) return parsed;
  const read = await inThread("unpackShop", bytes).catch(() => null);
  if (!read) return refuse(503, BUSY);
  if (!read.ok) return refuse(422, read.message);
  const { jobs, instruments, testBeads, unread } = read.value;
  const lessons = parsed.value.lessons ? read.value.lessons : [];
  const { shopId } = who;
  const db = store.pool();
  const shelf = await store.listInstruments(db, shopId);
  const elsewhere = await store.instrumentsElsewhere(
    db,
    shopId,
    instruments.map((i) => i.id),
  );
  const fresh = instruments.filter((i) => !elsewhere.has(i.id) && !shelf.some((s) => s.id === i.id));
  const onShelf = [...shelf, ...fresh].filter((i) => !i.away).length;
  if (onShelf > SHELF_LIMIT)
    return refuse(422, `The shelf would hold ${onShelf} instruments; ${SHELF_LIMIT} is the most.`);
  if ((await store.countLessons(db, shopId)) + lessons.length > LESSON_LIMIT)
    return refuse(422, `That would be over ${LESSON_LIMIT} lessons.`);
  if ((await store.countTestBeads(db, shopId)) + testBeads.length > BEAD_LIMIT)
    return refuse(422, `That would be over ${BEAD_LIMIT} test beads.`);
  const by = signed(who, parsed.value.origin);
  const run = store.transaction(async (one): Promise<Outcome<ShopTaken>> => {
    const taken = await store.jobsTaken(
      one,
      jobs.map(({ job }) => job.id),
    );
    const added = { instruments: await store.addInstruments(one, shopId, fresh), jobs: 0, lessons: 0, testBeads: 0 };
    for (const i of fresh) if (i.away) await store.putInstrumentAway(one, shopId, i.id, true);
    const now = await store.listInstruments(one, shopId);
    const given = new Map<string, string>();
    for (const { job: filed, away } of jobs) {
      if (taken.has(filed.id)) continue;
      const job = withOwnInstruments(filed, now, elsewhere, given);
      added.instruments += await store.addInstruments(one, shopId, job.instruments);
      // It takes its place in the list by when it was last changed.
      const changedAt = job.entries.reduce((last, e) => (e.at > last ? e.at : last), job.createdAt);
      await store.insertJob(one, shopId, job, summaryOf(job), changedAt, by);
      if (away) await store.putJobAway(one, shopId, job.id, true);
      added.jobs++;
    }
    const onShelf = (await store.listInstruments(one, shopId)).filter((i) => !i.away).length;
    if (onShelf > SHELF_LIMIT) throw new ShelfFull(onShelf);
    added.lessons = await store.addLessons(one, shopId, lessons);
    for (const bead of testBeads) added.testBeads += (await store.addTestBead(one, shopId, bead)) ? 1 : 0;
    return done({ ...added, here: jobs.flatMap(({ job }) => (taken.has(job.id) ? [job.plan.name] : [])), unread });
  });
  return run.catch((e: unknown) => {
    if (e instanceof ShelfFull) return refuse(422, e.message);
    throw e;
  });
}

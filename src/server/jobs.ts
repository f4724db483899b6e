import "server-only";
import { v4 as uuid } from "uuid";
import * as z from "zod";
import { SAW_SCALES } from "@/core/cut";
import { drawnFrameSchema } from "@/core/frame";
import type { Instrument } from "@/core/instruments";
import {
  type Change,
  couponPlan,
  type Entry,
  entryProblem,
  evaluate,
  FRAME_COUPONS,
  following,
  isReadAt,
  type Job,
  type NewEntry,
  newEntrySchema,
  newPlan,
  type Plan,
  pieceSection,
  planChanges,
  planSchema,
  quantityWords,
  type RoundEntry,
  refusals,
  type Summary,
  summaryOf,
  upgradePlan,
} from "@/core/job";
import { UNIT_PREFERENCES, type UnitPreference } from "@/core/units";
import { cutCsv } from "@/formats/cutCsv";
import { entryTexts } from "@/formats/entryTexts";
import { orderCsv, recordCsv } from "@/formats/recordCsv";
import * as store from "@/store";
import { inThread } from "@/workers/predictionThread";
import { SHELF_LIMIT } from "./instruments";
import { shopState } from "./lessons";
import { BUSY, done, noSuchJob, type Outcome, parse, refuse } from "./outcome";
import { withOwnInstruments } from "./ownInstruments";
import { forecastOf, predictionInTime } from "./predictions";
import { type Caller, signed } from "./who";

/** Jobs on one page of the list. */
const LIST_PAGE = 50;
const originSchema = z.string().trim().min(1, "Say who saves.").max(60, "At most 60 characters.");
const isId = (id: string): boolean => z.uuid().safeParse(id).success;
const now = (): string => new Date().toISOString();

const listSchema = z.object({
  text: z.string().trim().max(120).catch(""),
  away: z.boolean().catch(false),
  page: z.coerce.number().int().min(1).max(1_000_000).catch(1),
});

/** A page of the list of jobs, last change first. What sums a job up is worked out where its record has gone on. */
export async function listJobs(
  who: Caller,
  query: unknown = {},
): Promise<store.JobPage & { page: number; pages: number }> {
  const { text, away, page } = listSchema.parse(query);
  const db = store.pool();
  const { shopId } = who;
  const found = await store.listJobs(db, { shopId, text, away, from: (page - 1) * LIST_PAGE, most: LIST_PAGE });
  const jobs: store.JobLine[] = [];
  for (const { isBehind, ...line } of found.jobs)
    jobs.push(isBehind ? { ...line, ...(await summaryNow(who, line)) } : line);
  return { jobs, total: found.total, page, pages: Math.max(1, Math.ceil(found.total / LIST_PAGE)) };
}

/** The summary of a job as its record stands, kept for the next list. */
async function summaryNow(who: Caller, line: store.JobLine): Promise<Partial<Summary>> {
  const stored = await store.loadJob(store.pool(), who.shopId, line.id);
  if (!stored) return {};
  const summary = summaryOf(stored.job);
  await store.updateSummary(store.pool(), line.id, summary, stored.seq);
  return summary;
}

/** Puts a job away, or back: it is hidden from the list, and kept. */
export async function putJobAway(who: Caller, id: string, input: unknown): Promise<Outcome<null>> {
  const parsed = parse(z.strictObject({ away: z.boolean() }), input);
  if (!parsed.ok) return parsed;
  const found = isId(id) && (await store.putJobAway(store.pool(), who.shopId, id, parsed.value.away));
  return found ? done(null) : noSuchJob();
}

/**
 * What a page of a job starts from: the job, its entries as texts, its prediction when that does not keep it waiting, and what its
 * shop has learned by now.
 */
export async function startOf(who: Caller, id: string) {
  const found = await getJob(who, id);
  if (!found.ok) return found;
  const [prediction, { learned, lessons }] = await Promise.all([
    predictionInTime(found.value.job.plan),
    shopState(who),
  ]);
  const own = lessons.findLast(({ lesson }) => lesson.kind === "frame" && lesson.jobId === id);
  const taught = own ? { at: own.lesson.at, leftOut: own.leftOut } : null;
  const { entries, ...job } = found.value.job;
  return done({ job, entries: entryTexts(entries), seq: found.value.seq, prediction, learned, taught });
}

/** A whole job with the shelf of instruments. */
export async function getJob(who: Caller, id: string): Promise<Outcome<store.StoredJob>> {
  const found = isId(id) ? await store.loadJob(store.pool(), who.shopId, id) : null;
  return found ? done(found) : noSuchJob();
}

const newJobSchema = z.strictObject({
  name: planSchema.shape.name,
  units: z.enum(UNIT_PREFERENCES as [UnitPreference, ...UnitPreference[]]),
  origin: originSchema,
  /** A small frame that is welded to learn from it. */
  coupon: z.enum(FRAME_COUPONS).optional(),
  /** A frame that was read from a drawing. */
  drawn: drawnFrameSchema.optional(),
  /** A plan that was made of another job's: its name and units are those of the new job. */
  plan: z.preprocess((plan) => (plan === undefined ? plan : upgradePlan(plan)), planSchema.optional()),
});

/** Starts a job. @param input name, units, origin. @returns its id. */
export async function createJob(who: Caller, input: unknown): Promise<Outcome<{ id: string }>> {
  const parsed = parse(newJobSchema, input);
  if (!parsed.ok) return parsed;
  const { name, units, origin, coupon, drawn, plan: made } = parsed.value;
  const at = now();
  const { learned } = await shopState(who);
  // What the shop has learned goes into every plan that begins: it is predicted by what was known then.
  const known = learned.frames + learned.coupons > 0 ? { learned } : {};
  return store.transaction(async (db) => {
    const lastScale = await store.lastSawScale(db, who.shopId);
    // A shop has one saw: the next job reads its scale as the last one did.
    const scale = SAW_SCALES.find((s) => s === lastScale);
    const begun = newPlan(name, units);
    const frame = made ? { ...made, name, units } : coupon ? { ...couponPlan(coupon, begun), name } : begun;
    const built = drawn ? { ...frame, frame: { by: "members" as const, sizes: frame.frame.sizes, drawn } } : frame;
    const plan: Plan = {
      // Rests lie under the frame that is built, not under the one that a plan begins with.
      ...(made ? built : following(begun, built, false)),
      ...(scale ? { sawScale: scale } : {}),
      ...known,
    };
    const wrong = refusals(plan);
    if (wrong[0]) return refuse(422, wrong[0].message, wrong);
    const job: Job = { id: uuid(), createdAt: at, version: 1, plan, instruments: [], entries: [] };
    await store.insertJob(db, who.shopId, job, summaryOf(job), at, signed(who, origin));
    return done({ id: job.id });
  });
}

const savePlanSchema = z.strictObject({
  baseVersion: z.int().positive(),
  plan: z.preprocess(upgradePlan, planSchema),
  origin: originSchema,
});

/** What a save gives back. */
interface Saved {
  version: number;
  seq: number;
  summary: Summary;
  changes: Change[];
}

/**
 * Saves a plan if nobody saved another meanwhile. A plan that cannot be built is refused with its fields, so what is
 * stored can always be shown. Saving the same plan twice is one save.
 * @returns 409 with the plan that got in first.
 */
export async function savePlan(who: Caller, id: string, input: unknown): Promise<Outcome<Saved>> {
  if (!isId(id)) return noSuchJob();
  const parsed = parse(savePlanSchema, input);
  if (!parsed.ok) return parsed;
  const { baseVersion, plan } = parsed.value;
  const origin = signed(who, parsed.value.origin);
  const wrong = refusals(plan);
  if (wrong[0]) return refuse(422, wrong[0].message, wrong);
  return store.transaction(async (db): Promise<Outcome<Saved>> => {
    const locked = await store.lockJob(db, who.shopId, id);
    const stored = locked && (await store.loadJob(db, who.shopId, id));
    if (!locked || !stored) return noSuchJob();
    const changes = planChanges(stored.job.plan, plan);
    if (changes.length === 0) {
      const summary = summaryOf(stored.job);
      return done({ version: locked.version, seq: locked.seq, summary, changes });
    }
    if (locked.version !== baseVersion)
      return {
        ...refuse(409, "Somebody else changed this job meanwhile."),
        current: { version: locked.version, plan: stored.job.plan, seq: locked.seq },
      };
    const at = now();
    const version = locked.version + 1;
    await store.updatePlan(db, id, version, plan, at, origin);
    const change: Entry = { kind: "change", id: uuid(), at, origin, version, changes };
    const seq = locked.seq + 1;
    await store.appendEntries(db, id, locked.seq, [change], at);
    const summary = summaryOf({ ...stored.job, version, plan, entries: [...stored.job.entries, change] });
    await store.updateSummary(db, id, summary, seq);
    return done({ version, seq, summary, changes });
  });
}

const addSchema = z.strictObject({
  entries: z.array(newEntrySchema).min(1).max(200, "At most 200 entries at a time."),
  /** Last entry number that the sender knows. */
  since: z.int().min(0),
  /** What the sender's clock shows as it sends. */
  sentAt: z.iso.datetime({ precision: 3, message: "A time in ISO 8601, UTC, with milliseconds." }).optional(),
});

/** Clocks that differ by less are taken as right: so long a request may be on its way, ms. */
const CLOCK_MS = 5000;

/** Entries in the time of this server: by as much as the sender's clock is off, and none from the future. */
function inOwnTime<E extends { at: string }>(entries: readonly E[], sentAt: string | undefined): E[] {
  if (sentAt === undefined) return [...entries];
  const here = Date.now();
  const off = here - Date.parse(sentAt);
  const by = Math.abs(off) > CLOCK_MS ? off : 0;
  return entries.map((e) => {
    const at = Math.min(here, Date.parse(e.at) + by);
    return at === Date.parse(e.at) ? e : { ...e, at: new Date(at).toISOString() };
  });
}

/** What adding entries gives back: everything after `since`, also what others added. */
interface Added {
  seq: number;
  version: number;
  entries: Entry[];
}

/** What is wrong with new entries beside those that are there. */
function misfit(
  entries: readonly NewEntry[],
  stored: { gates: ReadonlyMap<string, string>; instruments: ReadonlySet<string> },
): { path: string; message: string } | null {
  const gates = new Map(stored.gates);
  for (const [i, e] of entries.entries()) {
    if (e.kind === "round") gates.set(e.id, e.gate);
    const own = entryProblem(e);
    if (own) return { path: `entries.${i}.${own.path}`, message: own.message };
    if (e.kind !== "reading") continue;
    const gate = gates.get(e.roundId) as RoundEntry["gate"] | undefined;
    if (!gate) return { path: `entries.${i}.roundId`, message: "This reading belongs to a round that is not here." };
    if (!isReadAt(gate, e.what))
      return { path: `entries.${i}.what`, message: `${quantityWords(e.what)} is not read at the gate "${gate}".` };
    if (!stored.instruments.has(e.instrumentId))
      return { path: `entries.${i}.instrumentId`, message: `There is no instrument "${e.instrumentId}" on the shelf.` };
  }
  return null;
}

/**
 * Adds rounds, readings, ticks and notes. An entry that is there already is left as it is, so sending again is safe. What it
 * costs does not grow with the job: only what the new entries refer to is looked up.
 */
export async function addEntries(who: Caller, id: string, input: unknown): Promise<Outcome<Added>> {
  if (!isId(id)) return noSuchJob();
  const parsed = parse(addSchema, input);
  if (!parsed.ok) return parsed;
  const { entries, since } = parsed.value;
  if (new Set(entries.map((e) => e.id)).size !== entries.length) return refuse(422, "Two entries share one id.");
  const read = entries.flatMap((e) => (e.kind === "reading" ? [e] : []));
  const rounds = [...new Set(read.map((e) => e.roundId))];
  const instruments = [...new Set(read.map((e) => e.instrumentId))];
  const ids = entries.map((e) => e.id);
  return store.transaction(async (db): Promise<Outcome<Added>> => {
    const locked = await store.lockJob(db, who.shopId, id);
    if (!locked) return noSuchJob();
    const beside = await store.besideEntries(db, { shopId: who.shopId, jobId: id }, ids, rounds, instruments);
    if ([...beside.known.values()].some((job) => job !== id))
      return refuse(409, "An entry with this id belongs to another job.");
    const fresh = inOwnTime(
      entries.filter((e) => !beside.known.has(e.id)),
      parsed.value.sentAt,
    ).map((e) => ({ ...e, origin: signed(who, e.origin) }));
    const wrong = misfit(fresh, beside);
    if (wrong) return refuse(422, wrong.message, [{ ...wrong, severity: "error" }]);
    if (fresh.length > 0) await store.appendEntries(db, id, locked.seq, fresh, now());
    const before = since < locked.seq ? await store.entriesSince(db, id, since) : fresh;
    return done({ seq: locked.seq + fresh.length, version: locked.version, entries: before });
  });
}

/** What others did since a person last heard. */
export async function newsOf(who: Caller, id: string, since: number, version: number): Promise<Outcome<store.News>> {
  const news = isId(id) ? await store.newsOf(store.pool(), who.shopId, id, since, version) : null;
  return news ? done(news) : noSuchJob();
}

/** A job as its file holds it: only the instruments that it used. */
export function asFiled(job: Job): Job {
  const used = new Set(job.entries.flatMap((e) => (e.kind === "reading" ? [e.instrumentId] : [])));
  const plain = ({ away: _away, ...card }: Instrument): Instrument => card;
  return { ...job, instruments: job.instruments.filter((i) => used.has(i.id)).map(plain) };
}

/** A job of a shop as its file holds it. */
export async function jobForFile(who: Caller, id: string): Promise<Outcome<Job>> {
  const found = await getJob(who, id);
  return found.ok ? done(asFiled(found.value.job)) : found;
}

/** The cut list of a job as CSV, with what the prediction adds to each length. */
export async function cutListOf(who: Caller, id: string): Promise<Outcome<{ name: string; csv: string }>> {
  const found = await getJob(who, id);
  if (!found.ok) return found;
  const { job } = found.value;
  const forecast = await forecastOf(job.plan);
  if (!forecast.ok) return forecast;
  const { cut } = evaluate(job, forecast.value);
  return done({
    name: job.plan.name,
    csv: cutCsv(cut, job.plan.units, (p) => pieceSection(job.plan, p), job.plan.stock.also),
  });
}

/** The order of work or the record of a job as CSV. */
export async function tableOf(who: Caller, id: string, of: unknown): Promise<Outcome<{ name: string; csv: string }>> {
  const parsed = parse(z.enum(["order", "record"], "Give order or record."), of);
  if (!parsed.ok) return parsed;
  const found = await getJob(who, id);
  if (!found.ok) return found;
  const { job } = found.value;
  const forecast = await forecastOf(job.plan);
  if (!forecast.ok) return forecast;
  const evaluation = evaluate(job, forecast.value);
  const csv = parsed.value === "order" ? orderCsv(job, evaluation) : recordCsv(job, evaluation);
  return done({ name: `${job.plan.name}-${parsed.value}.csv`, csv });
}

/** The same job under new ids, so that it can stand beside the first. */
function copyOf(job: Job): Job {
  const ids = new Map(job.entries.map((e) => [e.id, uuid()]));
  const fresh = (id: string): string => ids.get(id) ?? id;
  return {
    ...job,
    id: uuid(),
    plan: { ...job.plan, name: `${job.plan.name.slice(0, 112)} (copy)` },
    entries: job.entries.map(
      (e) => ({ ...e, id: fresh(e.id), ...(e.kind === "reading" ? { roundId: fresh(e.roundId) } : {}) }) as Entry,
    ),
  };
}

/**
 * Reads a job file back in.
 * @param text the file. @param asCopy give it new ids. @param origin who reads it in.
 * @returns 409 when the job is here already.
 */
export async function importJob(
  who: Caller,
  text: string,
  asCopy: boolean,
  origin: string,
): Promise<Outcome<{ id: string; name: string }>> {
  const by = parse(originSchema, origin);
  if (!by.ok) return by;
  const read = await inThread("readJob", text).catch(() => null);
  if (!read) return refuse(503, BUSY);
  if (!read.ok) return refuse(422, read.problems[0]?.message ?? "Not a job file.", read.problems);
  const fromFile = asCopy ? copyOf(read.job) : read.job;
  const shelf = await store.listInstruments(store.pool(), who.shopId);
  const fileIds = fromFile.instruments.map((i) => i.id);
  const elsewhere = await store.instrumentsElsewhere(store.pool(), who.shopId, fileIds);
  const onShelf = shelf.filter((i) => !i.away).length;
  try {
    return await store.transaction(async (db) => {
      const job = withOwnInstruments(fromFile, shelf, elsewhere);
      const fresh = job.instruments.filter((i) => !shelf.some((s) => s.id === i.id));
      if (onShelf + fresh.length > SHELF_LIMIT)
        return refuse(
          422,
          `The shelf holds at most ${SHELF_LIMIT} instruments and has ${onShelf}; this file reads with ${fresh.length} that are not on it.`,
        );
      await store.addInstruments(db, who.shopId, job.instruments);
      await store.insertJob(db, who.shopId, job, summaryOf(job), now(), signed(who, by.value));
      return done({ id: job.id, name: job.plan.name });
    });
  } catch (e) {
    if (!store.isDuplicate(e)) throw e;
    return {
      ...refuse(409, "This job is here already. Open it, or read the file in as a copy."),
      current: { id: fromFile.id },
    };
  }
}

import "server-only";
import { v4 as uuid } from "uuid";
import * as z from "zod";
import { SAW_SCALES } from "@/core/cut";
import type { Instrument } from "@/core/instruments";
import {
  type Change,
  type Entry,
  entryProblem,
  evaluate,
  isReadAt,
  type Job,
  type NewEntry,
  newEntrySchema,
  newPlan,
  pieceSection,
  planChanges,
  planSchema,
  quantityWords,
  refusals,
  type Summary,
  summaryOf,
  upgradePlan,
} from "@/core/job";
import { UNIT_PREFERENCES, type UnitPreference } from "@/core/units";
import { cutCsv } from "@/formats/cutCsv";
import { readJobFile } from "@/formats/jobFile";
import * as store from "@/store";
import { SHELF_LIMIT } from "./instruments";
import { done, noSuchJob, type Outcome, parse, refuse } from "./outcome";
import { predictionInTime, predictionOf } from "./predictions";

const LIST_LIMIT = 500;
const originSchema = z.string().trim().min(1, "Say who saves.").max(60, "At most 60 characters.");
const isId = (id: string): boolean => z.uuid().safeParse(id).success;
const now = (): string => new Date().toISOString();

/** The list of jobs, last change first. */
export const listJobs = (): Promise<store.JobLine[]> => store.listJobs(store.pool(), LIST_LIMIT);

/** What a page of a job starts from: the job, and its prediction when that does not keep it waiting. */
export async function startOf(id: string) {
  const found = await getJob(id);
  return found.ok ? done({ ...found.value, prediction: await predictionInTime(found.value.job.plan) }) : found;
}

/** A whole job with the shelf of instruments. */
export async function getJob(id: string): Promise<Outcome<store.StoredJob>> {
  const found = isId(id) ? await store.loadJob(store.pool(), id) : null;
  return found ? done(found) : noSuchJob();
}

const newJobSchema = z.strictObject({
  name: planSchema.shape.name,
  units: z.enum(UNIT_PREFERENCES as [UnitPreference, ...UnitPreference[]]),
  origin: originSchema,
});

/** Starts a job. @param input name, units, origin. @returns its id. */
export async function createJob(input: unknown): Promise<Outcome<{ id: string }>> {
  const parsed = parse(newJobSchema, input);
  if (!parsed.ok) return parsed;
  const { name, units, origin } = parsed.value;
  const at = now();
  return store.transaction(async (db) => {
    const lastScale = await store.lastSawScale(db);
    // A shop has one saw: the next job reads its scale as the last one did.
    const scale = SAW_SCALES.find((s) => s === lastScale);
    const plan = { ...newPlan(name, units), ...(scale ? { sawScale: scale } : {}) };
    const job: Job = { id: uuid(), createdAt: at, version: 1, plan, instruments: [], entries: [] };
    await store.insertJob(db, job, summaryOf(job), at, origin);
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

async function summarise(db: store.Transaction, id: string): Promise<Summary> {
  const stored = await store.loadJob(db, id);
  if (!stored) throw new Error("A job that is locked cannot be gone.");
  const summary = summaryOf(stored.job);
  await store.updateSummary(db, id, summary);
  return summary;
}

/**
 * Saves a plan if nobody saved another meanwhile. A plan that cannot be built is refused with its fields, so what is
 * stored can always be shown. Saving the same plan twice is one save.
 * @returns 409 with the plan that got in first.
 */
export async function savePlan(id: string, input: unknown): Promise<Outcome<Saved>> {
  if (!isId(id)) return noSuchJob();
  const parsed = parse(savePlanSchema, input);
  if (!parsed.ok) return parsed;
  const { baseVersion, plan, origin } = parsed.value;
  const wrong = refusals(plan);
  if (wrong[0]) return refuse(422, wrong[0].message, wrong);
  return store.transaction(async (db): Promise<Outcome<Saved>> => {
    const locked = await store.lockJob(db, id);
    const stored = locked && (await store.loadJob(db, id));
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
    await store.appendEntries(db, id, locked.seq, [{ kind: "change", id: uuid(), at, origin, version, changes }], at);
    return done({ version, seq: locked.seq + 1, summary: await summarise(db, id), changes });
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
function misfit(entries: NewEntry[], job: Job): { path: string; message: string } | null {
  const gates = new Map(job.entries.flatMap((e) => (e.kind === "round" ? [[e.id, e.gate] as const] : [])));
  const instruments = new Set(job.instruments.map((i) => i.id));
  for (const [i, e] of entries.entries()) {
    if (e.kind === "round") gates.set(e.id, e.gate);
    const own = entryProblem(e);
    if (own) return { path: `entries.${i}.${own.path}`, message: own.message };
    if (e.kind !== "reading") continue;
    const gate = gates.get(e.roundId);
    if (!gate) return { path: `entries.${i}.roundId`, message: "This reading belongs to a round that is not here." };
    if (!isReadAt(gate, e.what))
      return { path: `entries.${i}.what`, message: `${quantityWords(e.what)} is not read at the gate "${gate}".` };
    if (!instruments.has(e.instrumentId))
      return { path: `entries.${i}.instrumentId`, message: `There is no instrument "${e.instrumentId}" on the shelf.` };
  }
  return null;
}

/**
 * Adds rounds, readings, ticks and notes. An entry that is there already is left as it is, so sending again is safe.
 */
export async function addEntries(id: string, input: unknown): Promise<Outcome<Added>> {
  if (!isId(id)) return noSuchJob();
  const parsed = parse(addSchema, input);
  if (!parsed.ok) return parsed;
  const { entries, since } = parsed.value;
  if (new Set(entries.map((e) => e.id)).size !== entries.length) return refuse(422, "Two entries share one id.");
  return store.transaction(async (db): Promise<Outcome<Added>> => {
    const locked = await store.lockJob(db, id);
    const stored = locked && (await store.loadJob(db, id));
    if (!locked || !stored) return noSuchJob();
    const known = await store.knownEntries(
      db,
      entries.map((e) => e.id),
    );
    if ([...known.values()].some((job) => job !== id))
      return refuse(409, "An entry with this id belongs to another job.");
    const fresh = inOwnTime(
      entries.filter((e) => !known.has(e.id)),
      parsed.value.sentAt,
    );
    const wrong = misfit(fresh, stored.job);
    if (wrong) return refuse(422, wrong.message, [{ ...wrong, severity: "error" }]);
    if (fresh.length > 0) {
      await store.appendEntries(db, id, locked.seq, fresh, now());
      const summary = summaryOf({ ...stored.job, entries: [...stored.job.entries, ...fresh] });
      await store.updateSummary(db, id, summary);
    }
    return done({
      seq: locked.seq + fresh.length,
      version: locked.version,
      entries: [...stored.job.entries.slice(since), ...fresh],
    });
  });
}

/** What others did since a person last heard. */
export async function newsOf(id: string, since: number, version: number): Promise<Outcome<store.News>> {
  const news = isId(id) ? await store.newsOf(store.pool(), id, since, version) : null;
  return news ? done(news) : noSuchJob();
}

/** The job as its file holds it: only the instruments that it used. */
export async function jobForFile(id: string): Promise<Outcome<Job>> {
  const found = await getJob(id);
  if (!found.ok) return found;
  const { job } = found.value;
  const used = new Set(job.entries.flatMap((e) => (e.kind === "reading" ? [e.instrumentId] : [])));
  return done({ ...job, instruments: job.instruments.filter((i) => used.has(i.id)) });
}

/** The cut list of a job as CSV, with what the prediction adds to each length. */
export async function cutListOf(id: string): Promise<Outcome<{ name: string; csv: string }>> {
  const found = await getJob(id);
  if (!found.ok) return found;
  const { job } = found.value;
  const { cut } = evaluate(job, await predictionOf(job.plan));
  return done({ name: job.plan.name, csv: cutCsv(cut, job.plan.units, (p) => pieceSection(job.plan, p)) });
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
 * A file's instrument that goes by an id of this shelf but is another one gets an id of its own: readings keep what was
 * known of the instrument that made them.
 */
function withOwnInstruments(job: Job, shelf: readonly Instrument[]): Job {
  // What a card replaced lies on another shelf: here it would take an instrument away that goes by the same id.
  const plain = ({ replaces: _old, ...card }: Instrument): Instrument => card;
  const told = (i: Instrument): string =>
    JSON.stringify(Object.entries(plain(i)).sort(([a], [b]) => a.localeCompare(b)));
  const here = (i: Instrument): Instrument | undefined => shelf.find((s) => s.id === i.id);
  const ids = new Map(
    job.instruments.map((i) => {
      const own = here(i);
      return [i.id, own && told(own) !== told(i) ? uuid() : i.id];
    }),
  );
  const own = (id: string): string => ids.get(id) ?? id;
  const used = new Set(job.entries.flatMap((e) => (e.kind === "reading" ? [e.instrumentId] : [])));
  return {
    ...job,
    // What nothing was read with is not put on this shelf.
    instruments: job.instruments.filter((i) => used.has(i.id)).map((i) => ({ ...plain(i), id: own(i.id) })),
    entries: job.entries.map((e) => (e.kind === "reading" ? { ...e, instrumentId: own(e.instrumentId) } : e)),
  };
}

/**
 * Reads a job file back in.
 * @param text the file. @param asCopy give it new ids. @param origin who reads it in.
 * @returns 409 when the job is here already.
 */
export async function importJob(
  text: string,
  asCopy: boolean,
  origin: string,
): Promise<Outcome<{ id: string; name: string }>> {
  const who = parse(originSchema, origin);
  if (!who.ok) return who;
  const read = readJobFile(text);
  if (!read.ok) return refuse(422, read.problems[0]?.message ?? "Not a job file.", read.problems);
  const fromFile = asCopy ? copyOf(read.job) : read.job;
  const shelf = await store.listInstruments(store.pool());
  try {
    return await store.transaction(async (db) => {
      const job = withOwnInstruments(fromFile, shelf);
      const fresh = job.instruments.filter((i) => !shelf.some((s) => s.id === i.id));
      if (shelf.length + fresh.length > SHELF_LIMIT)
        return refuse(
          422,
          `The shelf holds at most ${SHELF_LIMIT} instruments and has ${shelf.length}; this file reads with ${fresh.length} that are not on it.`,
        );
      await store.addInstruments(db, job.instruments);
      await store.insertJob(db, job, summaryOf(job), now(), who.value);
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

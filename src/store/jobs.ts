import type { Pool, PoolConnection, ResultSetHeader, RowDataPacket } from "mysql2/promise";
import { type Entry, type Job, overallSizeMm, type Plan, type Summary, storedPlan } from "@/core/job";
import { ENTRY_JSON, entriesOf, insertEntries, LONE_ENTRY_JSON } from "./entries";
import { listInstruments } from "./instruments";
import { isoTime, toSqlTime } from "./time";

type Db = Pool | PoolConnection;

/** A job as the list shows it. */
export interface JobLine extends Summary {
  id: string;
  name: string;
  lengthMm: number;
  widthMm: number;
  units: Plan["units"];
  changedAt: string;
}

/** A job with the number of its last entry. */
export interface StoredJob {
  job: Job;
  seq: number;
}

/** The newest jobs, last change first. One round trip, along the index. */
export async function listJobs(db: Db, limit: number): Promise<JobLine[]> {
  const [rows] = await db.execute<RowDataPacket[]>(
    `SELECT id, name, length_mm AS lengthMm, width_mm AS widthMm, JSON_VALUE(plan, '$.units') AS units, stage, verdict,
      verdict_about AS about, ${isoTime("changed_at")} AS changedAt
     FROM job ORDER BY changed_at DESC, id LIMIT ?`,
    [limit],
  );
  return rows as JobLine[];
}

/** What the saw's scale counts from in the job that was changed last; null where nobody said. */
export async function lastSawScale(db: Db): Promise<string | null> {
  const [rows] = await db.execute<RowDataPacket[]>(
    "SELECT JSON_VALUE(plan, '$.sawScale') AS scale FROM job ORDER BY changed_at DESC, id LIMIT 1",
  );
  return rows[0]?.scale ?? null;
}

/**
 * Questions that belong together, one after the other on one connection: each along its index. Joined into one they would be sorted with
 * their documents in a table on disk.
 */
async function together<T>(db: Db, ask: (one: PoolConnection) => Promise<T>): Promise<T> {
  if (!("getConnection" in db)) return ask(db);
  const one = await db.getConnection();
  try {
    return await ask(one);
  } finally {
    one.release();
  }
}

const docsOf = (rows: readonly RowDataPacket[]): string[] => rows.map((r) => r.doc as string);

/** Number of the last entry: of those that came between two questions, too. */
const lastOf = (head: RowDataPacket, rows: readonly RowDataPacket[]): number =>
  Math.max(Number(head.n), Number(rows.at(-1)?.seq ?? 0));

/**
 * A whole job with the shelf of instruments. JSON_OBJECT writes a DOUBLE so that it reads back exactly.
 * @returns null when there is no such job.
 */
export const loadJob = (db: Db, id: string): Promise<StoredJob | null> =>
  together(db, async (one) => {
    const [heads] = await one.execute<RowDataPacket[]>(
      `SELECT j.entry_seq AS n,
         JSON_OBJECT('id', j.id, 'createdAt', ${isoTime("j.created_at")}, 'version', j.version, 'plan', JSON_EXTRACT(j.plan, '$')) AS doc
       FROM job j WHERE j.id = ?`,
      [id],
    );
    const head = heads[0];
    if (!head) return null;
    const [entries] = await one.execute<RowDataPacket[]>(
      `SELECT e.seq AS seq, ${ENTRY_JSON} AS doc FROM entry e WHERE e.job_id = ? ORDER BY e.seq`,
      [id],
    );
    const base = JSON.parse(head.doc as string) as Omit<Job, "instruments" | "entries">;
    return {
      seq: lastOf(head, entries),
      job: {
        ...base,
        plan: storedPlan(base.plan),
        instruments: await listInstruments(one),
        entries: entriesOf(docsOf(entries)),
      },
    };
  });

/** What changed in a job since a person last heard of it. */
export interface News {
  seq: number;
  version: number;
  /** Entries after `since`, in order. */
  entries: Entry[];
  /** The plan, when its version is another than the one known. */
  plan: Plan | null;
}

/** @param since last entry number known. @param version plan version known. @returns null when there is no such job. */
export const newsOf = (db: Db, id: string, since: number, version: number): Promise<News | null> =>
  together(db, async (one) => {
    const [heads] = await one.execute<RowDataPacket[]>(
      "SELECT j.entry_seq AS n, j.version AS version, IF(j.version <> ?, j.plan, NULL) AS doc FROM job j WHERE j.id = ?",
      [version, id],
    );
    const head = heads[0];
    if (!head) return null;
    const [rows] = await one.execute<RowDataPacket[]>(
      `SELECT e.seq AS seq, ${LONE_ENTRY_JSON} AS doc FROM entry e WHERE e.job_id = ? AND e.seq > ? ORDER BY e.seq`,
      [id, since],
    );
    return {
      seq: lastOf(head, rows),
      version: Number(head.version),
      plan: head.doc === null ? null : storedPlan(JSON.parse(head.doc as string)),
      entries: entriesOf(docsOf(rows)),
    };
  });

/** Locks a job's row for the rest of the transaction. @returns its last entry number and version, or null. */
export async function lockJob(db: PoolConnection, id: string): Promise<{ seq: number; version: number } | null> {
  const [rows] = await db.execute<RowDataPacket[]>("SELECT entry_seq, version FROM job WHERE id = ? FOR UPDATE", [id]);
  const row = rows[0];
  return row ? { seq: Number(row.entry_seq), version: Number(row.version) } : null;
}

async function insertPlan(
  db: PoolConnection,
  id: string,
  version: number,
  plan: string,
  at: string,
  origin: string,
): Promise<void> {
  await db.execute("INSERT INTO job_plan (job_id, version, plan, saved_at, origin) VALUES (?, ?, ?, ?, ?)", [
    id,
    version,
    plan,
    toSqlTime(at),
    origin,
  ]);
}

/** Stores a new job with all its entries. @throws a duplicate-key error when the id is taken. */
export async function insertJob(
  db: PoolConnection,
  job: Job,
  summary: Summary,
  changedAt: string,
  origin: string,
): Promise<void> {
  const plan = JSON.stringify(job.plan);
  await db.execute(
    `INSERT INTO job (id, name, version, entry_seq, plan, length_mm, width_mm, stage, verdict, verdict_about, created_at, changed_at)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
    [
      job.id,
      job.plan.name,
      job.version,
      job.entries.length,
      plan,
      ...overallSizeMm(job.plan),
      summary.stage,
      summary.verdict,
      summary.about,
      toSqlTime(job.createdAt),
      toSqlTime(changedAt),
    ],
  );
  await insertPlan(db, job.id, job.version, plan, changedAt, origin);
  await insertEntries(db, job.id, 0, job.entries);
}

/** Saves a plan over the version that it was based on. The row must be locked and at that version. */
export async function updatePlan(
  db: PoolConnection,
  id: string,
  version: number,
  plan: Plan,
  at: string,
  origin: string,
): Promise<void> {
  const text = JSON.stringify(plan);
  const [result] = await db.execute<ResultSetHeader>(
    "UPDATE job SET plan = ?, name = ?, length_mm = ?, width_mm = ?, version = ?, changed_at = ? WHERE id = ? AND version = ?",
    [text, plan.name, ...overallSizeMm(plan), version, toSqlTime(at), id, version - 1],
  );
  if (result.affectedRows !== 1) throw new Error("The plan moved on although its row was locked.");
  await insertPlan(db, id, version, text, at, origin);
}

/** Adds entries after the last one. The row must be locked. */
export async function appendEntries(
  db: PoolConnection,
  id: string,
  lastSeq: number,
  entries: readonly Entry[],
  at: string,
): Promise<void> {
  await insertEntries(db, id, lastSeq, entries);
  await db.execute("UPDATE job SET entry_seq = ?, changed_at = ? WHERE id = ?", [
    lastSeq + entries.length,
    toSqlTime(at),
    id,
  ]);
}

/** Keeps what the list of jobs shows. */
export async function updateSummary(db: PoolConnection, id: string, summary: Summary): Promise<void> {
  await db.execute("UPDATE job SET stage = ?, verdict = ?, verdict_about = ? WHERE id = ?", [
    summary.stage,
    summary.verdict,
    summary.about,
    id,
  ]);
}

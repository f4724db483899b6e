import type { Pool, PoolConnection, ResultSetHeader, RowDataPacket } from "mysql2/promise";
import { type Entry, type Job, overallSizeMm, type Plan, type Summary, storedPlan } from "@/core/job";
import { ENTRY_JSON, entriesOf, insertEntries, LONE_ENTRY_JSON } from "./entries";
import { INSTRUMENT_JSON, instrumentOf } from "./instruments";
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

const ORDER = { job: 0, instrument: 1, entry: 2 } as const;

/**
 * A whole job with the shelf of instruments, in one round trip. JSON_OBJECT writes a DOUBLE so that it reads back exactly.
 * @returns null when there is no such job.
 */
export async function loadJob(db: Db, id: string): Promise<StoredJob | null> {
  const [rows] = await db.execute<RowDataPacket[]>(
    `SELECT ${ORDER.job} AS part, j.entry_seq AS n,
       JSON_OBJECT('id', j.id, 'createdAt', ${isoTime("j.created_at")}, 'version', j.version, 'plan', JSON_EXTRACT(j.plan, '$')) AS doc
       FROM job j WHERE j.id = ?
     UNION ALL SELECT ${ORDER.instrument}, ROW_NUMBER() OVER (ORDER BY i.added_at, i.id), ${INSTRUMENT_JSON} FROM instrument i
     UNION ALL SELECT ${ORDER.entry}, e.seq, ${ENTRY_JSON} FROM entry e WHERE e.job_id = ?
     ORDER BY part, n`,
    [id, id],
  );
  const head = rows[0];
  if (!head || Number(head.part) !== ORDER.job) return null;
  const part = (n: number) => rows.filter((r) => Number(r.part) === n).map((r) => r.doc as string);
  const base = JSON.parse(head.doc) as Omit<Job, "instruments" | "entries">;
  return {
    seq: Number(head.n),
    job: {
      ...base,
      plan: storedPlan(base.plan),
      instruments: part(ORDER.instrument).map((d) => instrumentOf(JSON.parse(d))),
      entries: entriesOf(part(ORDER.entry)),
    },
  };
}

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
export async function newsOf(db: Db, id: string, since: number, version: number): Promise<News | null> {
  const [rows] = await db.execute<RowDataPacket[]>(
    `SELECT 0 AS part, j.entry_seq AS n, j.version AS version, IF(j.version <> ?, j.plan, NULL) AS doc FROM job j WHERE j.id = ?
     UNION ALL SELECT 1, e.seq, 0, ${LONE_ENTRY_JSON} FROM entry e WHERE e.job_id = ? AND e.seq > ?
     ORDER BY part, n`,
    [version, id, id, since],
  );
  const head = rows[0];
  if (!head || Number(head.part) !== 0) return null;
  return {
    seq: Number(head.n),
    version: Number(head.version),
    plan: head.doc === null ? null : storedPlan(JSON.parse(head.doc)),
    entries: entriesOf(rows.slice(1).map((r) => r.doc as string)),
  };
}

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

import type { Pool, PoolConnection, ResultSetHeader, RowDataPacket } from "mysql2/promise";
import { type Entry, type Job, overallSizeMm, type Plan, type Summary, storedPlan } from "@/core/job";
import { entriesOf, insertEntries, LONE_ENTRY_JSON } from "./entries";
import { entriesOfJob } from "./heldEntries";
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

/** A line as it is kept: what it sums up may be behind the record. */
interface KeptLine extends JobLine {
  isBehind: boolean;
}

/** Jobs of a list: those asked for, and how many there are in all. */
export interface JobPage<L extends JobLine = JobLine> {
  jobs: L[];
  total: number;
}

/** Which jobs are asked for. */
interface JobQuery {
  shopId: string;
  /** What their names contain; all when empty. */
  text: string;
  /** Those that were put away, instead of those that were not. */
  away: boolean;
  from: number;
  most: number;
}

/** A job with the number of its last entry. */
export interface StoredJob {
  job: Job;
  seq: number;
}

/** A text to look for, with what LIKE would read otherwise taken at its word. */
const likeOf = (text: string): string => `%${text.replace(/[\\%_]/g, (c) => `\\${c}`)}%`;

/** Jobs of a shop, last change first, along the index. */
export async function listJobs(db: Db, { shopId, text, away, from, most }: JobQuery): Promise<JobPage<KeptLine>> {
  const wanted = `shop_id = ? AND is_away = ?${text === "" ? "" : " AND name LIKE ?"}`;
  const values = [shopId, away ? 1 : 0, ...(text === "" ? [] : [likeOf(text)])];
  const [rows] = await db.query<RowDataPacket[]>(
    `SELECT id, name, length_mm AS lengthMm, width_mm AS widthMm, JSON_VALUE(plan, '$.units') AS units, stage, verdict,
      verdict_about AS about, ${isoTime("changed_at")} AS changedAt, COALESCE(summary_seq < entry_seq, TRUE) AS isBehind
     FROM job WHERE ${wanted} ORDER BY changed_at DESC, id DESC LIMIT ? OFFSET ?`,
    [...values, most, from],
  );
  const [counts] = await db.execute<RowDataPacket[]>(`SELECT COUNT(*) AS n FROM job WHERE ${wanted}`, values);
  return {
    jobs: rows.map((r) => ({ ...(r as KeptLine), isBehind: Boolean(r.isBehind) })),
    total: Number(counts[0]?.n ?? 0),
  };
}

/** Every job of a shop, oldest first, and whether it was put away. */
export async function listJobIds(db: Db, shopId: string): Promise<{ id: string; away: boolean }[]> {
  const [rows] = await db.execute<RowDataPacket[]>(
    "SELECT id, is_away AS away FROM job WHERE shop_id = ? ORDER BY created_at, id",
    [shopId],
  );
  return rows.map((r) => ({ id: r.id as string, away: Boolean(r.away) }));
}

/** @returns which of these ids are taken by a job, of whatever shop. */
export async function jobsTaken(db: Db, ids: readonly string[]): Promise<Set<string>> {
  if (ids.length === 0) return new Set();
  const [rows] = await db.query<RowDataPacket[]>("SELECT id FROM job WHERE id IN (?)", [ids]);
  return new Set(rows.map((r) => r.id as string));
}

/** What the saw's scale counts from in the job of a shop that was changed last; null where nobody said. */
export async function lastSawScale(db: Db, shopId: string): Promise<string | null> {
  const [rows] = await db.execute<RowDataPacket[]>(
    `SELECT JSON_VALUE(plan, '$.sawScale') AS scale FROM job WHERE shop_id = ? AND is_away = 0
     ORDER BY changed_at DESC, id DESC LIMIT 1`,
    [shopId],
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

/** Number of the last entry: of those that came between two questions, too. @param last number of the last that was found. */
const lastOf = (head: RowDataPacket, last: unknown): number => Math.max(Number(head.n), Number(last ?? 0));

/**
 * A whole job of a shop with its shelf of instruments. JSON_OBJECT writes a DOUBLE so that it reads back exactly.
 * @returns null when the shop has no such job.
 */
export const loadJob = (db: Db, shopId: string, id: string): Promise<StoredJob | null> =>
  together(db, async (one) => {
    const [heads] = await one.execute<RowDataPacket[]>(
      `SELECT j.entry_seq AS n,
         JSON_OBJECT('id', j.id, 'createdAt', ${isoTime("j.created_at")}, 'version', j.version, 'plan', JSON_EXTRACT(j.plan, '$')) AS doc
       FROM job j WHERE j.id = ? AND j.shop_id = ?`,
      [id, shopId],
    );
    const head = heads[0];
    if (!head) return null;
    const { seq, entries } = await entriesOfJob(one, id);
    const base = JSON.parse(head.doc as string) as Omit<Job, "instruments" | "entries">;
    return {
      seq: lastOf(head, seq),
      job: {
        ...base,
        plan: storedPlan(base.plan),
        instruments: await listInstruments(one, shopId),
        entries,
      },
    };
  });

const SINCE = `SELECT e.seq AS seq, ${LONE_ENTRY_JSON} AS doc FROM entry e WHERE e.job_id = ? AND e.seq > ? ORDER BY e.seq`;

/** Entries of a job after one of them, in order. */
export async function entriesSince(db: PoolConnection, id: string, since: number): Promise<Entry[]> {
  const [rows] = await db.execute<RowDataPacket[]>(SINCE, [id, since]);
  return entriesOf(rows);
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

/** @param since last entry number known. @param version plan version known. @returns null when the shop has no such job. */
export const newsOf = (db: Db, shopId: string, id: string, since: number, version: number): Promise<News | null> =>
  together(db, async (one) => {
    const [heads] = await one.execute<RowDataPacket[]>(
      "SELECT j.entry_seq AS n, j.version AS version, IF(j.version <> ?, j.plan, NULL) AS doc FROM job j WHERE j.id = ? AND j.shop_id = ?",
      [version, id, shopId],
    );
    const head = heads[0];
    if (!head) return null;
    const [rows] = await one.execute<RowDataPacket[]>(SINCE, [id, since]);
    return {
      seq: lastOf(head, rows.at(-1)?.seq),
      version: Number(head.version),
      plan: head.doc === null ? null : storedPlan(JSON.parse(head.doc as string)),
      entries: entriesOf(rows),
    };
  });

/** Locks the row of a shop's job for the rest of the transaction. @returns its last entry number and version, or null. */
export async function lockJob(
  db: PoolConnection,
  shopId: string,
  id: string,
): Promise<{ seq: number; version: number } | null> {
  const [rows] = await db.execute<RowDataPacket[]>(
    "SELECT entry_seq, version FROM job WHERE id = ? AND shop_id = ? FOR UPDATE",
    [id, shopId],
  );
  const row = rows[0];
  return row ? { seq: Number(row.entry_seq), version: Number(row.version) } : null;
}

/** Puts a job of a shop away, or back. @returns false when the shop has no such job. */
export async function putJobAway(db: Db, shopId: string, id: string, away: boolean): Promise<boolean> {
  const [result] = await db.execute<ResultSetHeader>(
    `UPDATE job SET away_at = ${away ? "COALESCE(away_at, UTC_TIMESTAMP(3))" : "NULL"} WHERE id = ? AND shop_id = ?`,
    [id, shopId],
  );
  return result.affectedRows === 1;
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

/** Stores a new job of a shop with all its entries. @throws a duplicate-key error when the id is taken. */
export async function insertJob(
  db: PoolConnection,
  shopId: string,
  job: Job,
  summary: Summary,
  changedAt: string,
  origin: string,
): Promise<void> {
  const plan = JSON.stringify(job.plan);
  await db.execute(
    `INSERT INTO job (id, name, version, entry_seq, plan, length_mm, width_mm, stage, verdict, verdict_about, created_at, changed_at,
       shop_id, summary_seq)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
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
      shopId,
      job.entries.length,
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

/** Keeps what the list of jobs shows. @param seq the last entry that it counts. */
export async function updateSummary(db: Db, id: string, summary: Summary, seq: number): Promise<void> {
  await db.execute(
    "UPDATE job SET stage = ?, verdict = ?, verdict_about = ?, summary_seq = ? WHERE id = ? AND COALESCE(summary_seq, 0) <= ?",
    [summary.stage, summary.verdict, summary.about, seq, id, seq],
  );
}

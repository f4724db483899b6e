import type { Pool, RowDataPacket } from "mysql2/promise";

/** Somebody who has a job open. */
export interface Present {
  page: string;
  who: string;
  stage: string;
}

/** A page that was not heard of for so long is gone, s. */
const GONE_S = 25;

/** A page has a job open. Those that were not heard of for long are forgotten. */
export async function notePresence(db: Pool, jobId: string, { page, who, stage }: Present): Promise<void> {
  await db.execute(
    `INSERT INTO presence (page, job_id, who, stage, seen_at) VALUES (?, ?, ?, ?, UTC_TIMESTAMP(3))
     ON DUPLICATE KEY UPDATE job_id = VALUES(job_id), who = VALUES(who), stage = VALUES(stage), seen_at = VALUES(seen_at)`,
    [page, jobId, who, stage],
  );
  await db.execute("DELETE FROM presence WHERE seen_at < UTC_TIMESTAMP(3) - INTERVAL 1 HOUR LIMIT 100");
}

/** A page was closed, or left the job. */
export async function endPresence(db: Pool, page: string): Promise<void> {
  await db.execute("DELETE FROM presence WHERE page = ?", [page]);
}

/** Who has these jobs open, by job. */
export async function presentAt(db: Pool, jobIds: readonly string[]): Promise<Map<string, Present[]>> {
  const [rows] = await db.query<RowDataPacket[]>(
    `SELECT page, job_id AS jobId, who, stage FROM presence
     WHERE job_id IN (?) AND seen_at > UTC_TIMESTAMP(3) - INTERVAL ${GONE_S} SECOND ORDER BY page`,
    [jobIds],
  );
  const found = new Map<string, Present[]>();
  for (const { jobId, page, who, stage } of rows) found.set(jobId, [...(found.get(jobId) ?? []), { page, who, stage }]);
  return found;
}

/** Where these jobs stand: the number of the last entry and the version of the plan, by job. */
export async function standOf(
  db: Pool,
  jobIds: readonly string[],
): Promise<Map<string, { seq: number; version: number }>> {
  const [rows] = await db.query<RowDataPacket[]>("SELECT id, entry_seq AS seq, version FROM job WHERE id IN (?)", [
    jobIds,
  ]);
  return new Map(rows.map((r) => [r.id as string, { seq: Number(r.seq), version: Number(r.version) }]));
}

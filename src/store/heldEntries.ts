import type { Pool, PoolConnection, RowDataPacket } from "mysql2/promise";
import type { Entry } from "@/core/job";
import { ENTRY_JSON, entriesOf, LONE_ENTRY_JSON } from "./entries";

/** Entries of a job as they were read: never changed, only followed by more. */
export interface HeldEntries {
  /** Number of the last entry; 0 where there is none. */
  seq: number;
  entries: readonly Entry[];
}

/** So many entries are held in all, of the jobs that were asked for last: some 50 MB. */
const MOST_HELD = 60_000;
/** By job, the one that was asked for last at the end. */
const held = new Map<string, HeldEntries>();
let count = 0;

function forget(id: string): void {
  count -= held.get(id)?.entries.length ?? 0;
  held.delete(id);
}

function hold(id: string, found: HeldEntries): HeldEntries {
  forget(id);
  held.set(id, found);
  count += found.entries.length;
  for (const other of held.keys()) {
    if (count <= MOST_HELD) break;
    forget(other);
  }
  return found;
}

/** What follows on entries that are held; null where their last one is not in the record any more, or not yet. */
async function followed(db: Pool | PoolConnection, id: string, known: HeldEntries): Promise<HeldEntries | null> {
  const [rows] = await db.execute<RowDataPacket[]>(
    `SELECT e.seq AS seq, ${LONE_ENTRY_JSON} AS doc FROM entry e WHERE e.job_id = ? AND e.seq >= ? ORDER BY e.seq`,
    [id, known.seq],
  );
  const [last, ...more] = rows;
  if (!last || JSON.parse(last.doc as string).id !== known.entries.at(-1)?.id) return null;
  if (more.length === 0) return known;
  return { seq: Number(more.at(-1)?.seq), entries: Object.freeze([...known.entries, ...entriesOf(more)]) };
}

/**
 * All entries of a job, in order. Those that this process read before are asked for no more: entries are only ever added, so where the
 * last of them still has its number, all before it stand as they did. What was read within a transaction that was then undone fails
 * that, as does a record that was restored.
 * @param id the job's. @returns the same list as long as nothing was added.
 */
export async function entriesOfJob(db: Pool | PoolConnection, id: string): Promise<HeldEntries> {
  const known = held.get(id);
  const found = known && (await followed(db, id, known));
  if (found) return hold(id, found);
  const [rows] = await db.execute<RowDataPacket[]>(
    `SELECT e.seq AS seq, ${ENTRY_JSON} AS doc FROM entry e WHERE e.job_id = ? ORDER BY e.seq`,
    [id],
  );
  const read = { seq: Number(rows.at(-1)?.seq ?? 0), entries: Object.freeze(entriesOf(rows)) };
  if (rows.length > 0) return hold(id, read);
  forget(id);
  return read;
}

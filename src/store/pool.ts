import "server-only";
import { createPool, type Pool, type PoolConnection } from "mysql2/promise";

/** A connection inside a transaction. */
export type Transaction = PoolConnection;

const kept = globalThis as { plumbPool?: Pool };

/** No question of a screen takes longer, s; it then ends with this number. */
const PATIENCE_S = 10;
const TOO_LONG = 1969;
const DEADLOCK = 1213;
const DUPLICATE = 1062;

/** The one pool of this process; kept across development reloads. @throws Error without DATABASE_URL. */
export function pool(): Pool {
  if (!kept.plumbPool) {
    const uri = process.env.DATABASE_URL;
    if (!uri) throw new Error("DATABASE_URL is not set: start the application with script/demo.");
    const pool = createPool({
      uri,
      charset: "UTF8MB4_UNICODE_CI",
      timezone: "Z",
      dateStrings: true,
      jsonStrings: true,
      supportBigNumbers: true,
      connectionLimit: 10,
      connectTimeout: 4000,
      enableKeepAlive: true,
    });
    // A question that hangs, as on a full disk, must not keep everybody waiting behind it.
    pool.pool.on("connection", (c) => void c.query(`SET SESSION max_statement_time = ${PATIENCE_S}`));
    kept.plumbPool = pool;
  }
  return kept.plumbPool;
}

/** Closes the pool; for tests and scripts. */
export async function closePool(): Promise<void> {
  await kept.plumbPool?.end();
  delete kept.plumbPool;
}

/** So often is a transaction done anew that another one got in the way of, and after how long at most, ms. */
const MOST_TRIES = 6;
const LONGEST_PAUSE_MS = 60;

/** An entry's number that was given twice: the node of a cluster that another one's write reached a moment too late. */
const NUMBER_TAKEN = /'[0-9a-f-]{36}-\d+' for key 'PRIMARY'/;

/** Whether two transactions got in each other's way: this one left nothing behind, and may be done anew. */
const isCollision = (e: unknown): boolean =>
  e instanceof Error &&
  "errno" in e &&
  (e.errno === DEADLOCK || (e.errno === DUPLICATE && NUMBER_TAKEN.test(e.message)));

async function once<T>(work: (db: PoolConnection) => Promise<T>): Promise<T> {
  const db = await pool().getConnection();
  try {
    await db.beginTransaction();
    const result = await work(db);
    await db.commit();
    db.release();
    return result;
  } catch (e) {
    await db.rollback().then(
      () => db.release(),
      () => db.destroy(),
    );
    throw e;
  }
}

/**
 * Runs `work` in one transaction: all of it or nothing. A dead connection is thrown away. Where two collide (a deadlock here, a failed
 * certification between the nodes of a cluster) it is done anew: `work` does nothing but ask and write.
 */
export async function transaction<T>(work: (db: PoolConnection) => Promise<T>): Promise<T> {
  for (let tries = 1; ; tries++)
    try {
      return await once(work);
    } catch (e) {
      if (!isCollision(e) || tries >= MOST_TRIES) throw e;
      await new Promise((resolve) => setTimeout(resolve, Math.random() * LONGEST_PAUSE_MS));
    }
}

/** @returns true when the error means that the database cannot be reached, or takes nothing, just now. */
export function isUnreachable(e: unknown): boolean {
  // A node that is cut off from its cluster says so in words alone.
  if (e instanceof Error && /Not connected to Primary Component|WSREP has not yet prepared/i.test(e.message))
    return true;
  // One that took too long: its code has no name here.
  if (typeof e === "object" && e !== null && "errno" in e && e.errno === TOO_LONG) return true;
  const code = typeof e === "object" && e !== null && "code" in e ? String(e.code) : "";
  return [
    "ECONNREFUSED",
    "ECONNRESET",
    "ETIMEDOUT",
    "EPIPE",
    "PROTOCOL_CONNECTION_LOST",
    "ENOENT",
    "ER_SERVER_SHUTDOWN",
    "ER_CON_COUNT_ERROR",
    "ER_LOCK_WAIT_TIMEOUT",
    "ER_LOCK_DEADLOCK",
    // A node that lost its cluster takes nothing until it is back.
    "ER_UNKNOWN_COM_ERROR",
    "ER_CONNECTION_KILLED",
    "ER_QUERY_INTERRUPTED",
    "ER_ERROR_DURING_COMMIT",
  ].includes(code);
}

/** @returns true when the database has no space left to write to. */
export const isFull = (e: unknown): boolean =>
  typeof e === "object" &&
  e !== null &&
  (("errno" in e && [1021, 1114].includes(Number(e.errno))) ||
    ("message" in e && /No space left on device|errno: 28\b/.test(String(e.message))));

/** @returns true for a clash of keys: the row is there already. */
export const isDuplicate = (e: unknown): boolean =>
  typeof e === "object" && e !== null && "errno" in e && e.errno === DUPLICATE;

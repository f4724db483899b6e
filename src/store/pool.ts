import "server-only";
import { statfs } from "node:fs/promises";
import { createPool, type Pool, type PoolConnection } from "mysql2/promise";

/** A connection inside a transaction. */
export type Transaction = PoolConnection;

const kept = globalThis as { plumbPool?: Pool };

/** No question of a screen takes longer, s; it then ends with this number. */
const PATIENCE_S = 10;
const TOO_LONG = 1969;
const DEADLOCK = 1213;
const DUPLICATE = 1062;

/** Space that is left to the database's own work, bytes: where it finds none it may end itself instead of refusing a write (MariaDB 10.11). */
const RESERVE_BYTES = 32e6;
/** How old an answer about space may be, ms. */
const ASKED_MS = 250;
const WRITES = /^\s*(insert|update|replace)\b/i;

/** There is no space to write to. */
class FullError extends Error {}

let asked: { at: number; free: Promise<number> } = { at: Number.NEGATIVE_INFINITY, free: Promise.resolve(0) };

/**
 * Asks for space where the database lies on this machine (PLUMB_DISK, its folder).
 * @throws FullError where less is left than its own work may need.
 */
async function needSpace(): Promise<void> {
  const disk = process.env.PLUMB_DISK;
  if (!disk) return;
  const now = performance.now();
  if (now - asked.at > ASKED_MS)
    asked = {
      at: now,
      // One that cannot be asked is for the database to judge.
      free: statfs(disk).then(
        ({ bavail, bsize }) => bavail * bsize,
        () => Number.POSITIVE_INFINITY,
      ),
    };
  if ((await asked.free) < RESERVE_BYTES) throw new FullError("The disk of the database is full.");
}

/** The pool, which asks for space before it writes. */
function sparing(pool: Pool): Pool {
  for (const way of ["query", "execute"] as const) {
    const ask = pool[way].bind(pool) as (sql: unknown, ...values: unknown[]) => Promise<unknown>;
    Object.assign(pool, {
      [way]: async (sql: unknown, ...values: unknown[]) => {
        if (typeof sql === "string" && WRITES.test(sql)) await needSpace();
        return ask(sql, ...values);
      },
    });
  }
  return pool;
}

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
    kept.plumbPool = sparing(pool);
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
  await needSpace();
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
  (e instanceof FullError ||
    ("errno" in e && [1021, 1114].includes(Number(e.errno))) ||
    ("message" in e && /No space left on device|errno: 28\b/.test(String(e.message))));

/** @returns true for a clash of keys: the row is there already. */
export const isDuplicate = (e: unknown): boolean =>
  typeof e === "object" && e !== null && "errno" in e && e.errno === DUPLICATE;

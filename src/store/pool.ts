import "server-only";
import { createPool, type Pool, type PoolConnection } from "mysql2/promise";

/** A connection inside a transaction. */
export type Transaction = PoolConnection;

const kept = globalThis as { plumbPool?: Pool };

/** The one pool of this process; kept across development reloads. @throws Error without DATABASE_URL. */
export function pool(): Pool {
  if (!kept.plumbPool) {
    const uri = process.env.DATABASE_URL;
    if (!uri) throw new Error("DATABASE_URL is not set: start the application with script/demo.");
    kept.plumbPool = createPool({
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
  }
  return kept.plumbPool;
}

/** Closes the pool; for tests and scripts. */
export async function closePool(): Promise<void> {
  await kept.plumbPool?.end();
  delete kept.plumbPool;
}

/** Runs `work` in one transaction: all of it or nothing. A dead connection is thrown away. */
export async function transaction<T>(work: (db: PoolConnection) => Promise<T>): Promise<T> {
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

/** @returns true when the error means that the database cannot be reached just now. */
export function isUnreachable(e: unknown): boolean {
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
  ].includes(code);
}

/** @returns true for a clash of keys: the row is there already. */
export const isDuplicate = (e: unknown): boolean =>
  typeof e === "object" && e !== null && "errno" in e && e.errno === 1062;

import type { Pool, PoolConnection, RowDataPacket } from "mysql2/promise";
import { isoTime } from "./time";

/** When something was done for the whole installation; null when it never was. */
export async function upkeepAt(db: Pool | PoolConnection, what: "backup" | "begun"): Promise<string | null> {
  const [rows] = await db.execute<RowDataPacket[]>(`SELECT ${isoTime("done_at")} AS at FROM upkeep WHERE what = ?`, [
    what,
  ]);
  return rows[0]?.at ?? null;
}

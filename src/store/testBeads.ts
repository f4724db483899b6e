import type { Pool, PoolConnection, ResultSetHeader, RowDataPacket } from "mysql2/promise";
import type { TestBead } from "@/core/weld";
import { toSqlTime } from "./time";

/** Test beads of a shop, the newest first. @param most so many of them. */
export async function listTestBeads(db: Pool, shopId: string, most: number): Promise<TestBead[]> {
  const [rows] = await db.query<RowDataPacket[]>(
    "SELECT doc FROM test_bead WHERE shop_id = ? ORDER BY made_at DESC, id DESC LIMIT ?",
    [shopId, most],
  );
  return rows.map((r) => JSON.parse(r.doc) as TestBead);
}

export async function countTestBeads(db: Pool, shopId: string): Promise<number> {
  const [rows] = await db.execute<RowDataPacket[]>("SELECT COUNT(*) AS n FROM test_bead WHERE shop_id = ?", [shopId]);
  return Number(rows[0]?.n ?? 0);
}

/** Logs a test bead; one that is there already stays as it is. @returns whether it is new. */
export async function addTestBead(db: Pool | PoolConnection, shopId: string, bead: TestBead): Promise<boolean> {
  const [result] = await db.execute<ResultSetHeader>(
    "INSERT IGNORE INTO test_bead (id, made_at, doc, shop_id) VALUES (?, ?, ?, ?)",
    [bead.id, toSqlTime(bead.at), JSON.stringify(bead), shopId],
  );
  return result.affectedRows > 0;
}

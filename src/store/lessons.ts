import type { Pool, PoolConnection, ResultSetHeader, RowDataPacket } from "mysql2/promise";
import type { Lesson } from "@/core/learn";
import { toSqlTime } from "./time";

/** All lessons of a shop, in time. */
export async function listLessons(db: Pool, shopId: string): Promise<Lesson[]> {
  const [rows] = await db.query<RowDataPacket[]>("SELECT doc FROM lesson WHERE shop_id = ? ORDER BY made_at, id", [
    shopId,
  ]);
  return rows.map((r) => JSON.parse(r.doc) as Lesson);
}

/** How many lessons a shop has: what was learned of them stands as long as this does. */
export async function countLessons(db: Pool, shopId: string): Promise<number> {
  const [rows] = await db.execute<RowDataPacket[]>("SELECT COUNT(*) AS n FROM lesson WHERE shop_id = ?", [shopId]);
  return Number(rows[0]?.n ?? 0);
}

/** Adds lessons; those that are there already stay as they are. @returns how many are new. */
export async function addLessons(
  db: Pool | PoolConnection,
  shopId: string,
  lessons: readonly Lesson[],
): Promise<number> {
  let added = 0;
  for (const lesson of lessons) {
    const [result] = await db.execute<ResultSetHeader>(
      "INSERT IGNORE INTO lesson (id, shop_id, kind, made_at, doc) VALUES (?, ?, ?, ?, ?)",
      [lesson.id, shopId, lesson.kind, toSqlTime(lesson.at), JSON.stringify(lesson)],
    );
    added += result.affectedRows;
  }
  return added;
}

import { createHash } from "node:crypto";
import type { Pool, ResultSetHeader, RowDataPacket } from "mysql2/promise";
import type { Prediction } from "@/core/shrink";

const digest = (text: string): Buffer => createHash("sha256").update(text).digest();

/** A prediction that was kept; null when there is none of this model. @param key all that it depends on. */
export async function loadPrediction(db: Pool, key: string, model: string): Promise<Prediction | null> {
  const [rows] = await db.execute<RowDataPacket[]>("SELECT doc FROM prediction WHERE depends = ? AND model = ?", [
    digest(key),
    digest(model),
  ]);
  return rows[0] ? (JSON.parse(rows[0].doc) as Prediction) : null;
}

/** Keeps a prediction; of more than `most` the oldest go. */
export async function keepPrediction(
  db: Pool,
  key: string,
  model: string,
  prediction: Prediction,
  most: number,
): Promise<void> {
  await db.execute("INSERT IGNORE INTO prediction (depends, model, doc) VALUES (?, ?, ?)", [
    digest(key),
    digest(model),
    JSON.stringify(prediction),
  ]);
  const [rows] = await db.execute<RowDataPacket[]>("SELECT COUNT(*) AS n FROM prediction");
  const over = Number(rows[0]?.n ?? 0) - most;
  if (over > 0)
    await db.execute<ResultSetHeader>("DELETE FROM prediction ORDER BY made_at, depends LIMIT ?", [String(over)]);
}

import type { Pool, PoolConnection, ResultSetHeader, RowDataPacket } from "mysql2/promise";
import type { Instrument } from "@/core/units";

type Db = Pool | PoolConnection;

/** An instrument as JSON, by the names that the core uses. */
export const INSTRUMENT_JSON = `JSON_OBJECT('id', i.id, 'name', i.name, 'kind', i.kind, 'resolutionMm', i.resolution_mm,
  'handlingMm', i.handling_mm, 'zeroMm', i.zero_mm, 'scaleMmPerM', i.scale_mm_per_m)`;

/** Adds instruments that are not there yet; one that is there stays as it is. */
export async function addInstruments(db: Db, instruments: readonly Instrument[]): Promise<number> {
  let added = 0;
  for (const i of instruments) {
    const [result] = await db.execute<ResultSetHeader>(
      `INSERT IGNORE INTO instrument (id, name, kind, resolution_mm, handling_mm, zero_mm, scale_mm_per_m)
       VALUES (?, ?, ?, ?, ?, ?, ?)`,
      [i.id, i.name, i.kind, i.resolutionMm, i.handlingMm, i.zeroMm, i.scaleMmPerM],
    );
    added += result.affectedRows;
  }
  return added;
}

/** The whole shelf, oldest first. */
export async function listInstruments(db: Db): Promise<Instrument[]> {
  const [rows] = await db.execute<RowDataPacket[]>(
    `SELECT ${INSTRUMENT_JSON} AS doc FROM instrument i ORDER BY i.added_at, i.id`,
  );
  return rows.map((r) => JSON.parse(r.doc) as Instrument);
}

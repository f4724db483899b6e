import type { Pool, PoolConnection, ResultSetHeader, RowDataPacket } from "mysql2/promise";
import type { Instrument } from "@/core/instruments";
import { isoTime } from "./time";

type Db = Pool | PoolConnection;

/** An instrument as JSON, by the names that the core uses. */
const INSTRUMENT_JSON = `JSON_OBJECT('id', i.id, 'name', i.name, 'kind', i.kind, 'resolutionMm', i.resolution_mm,
  'handlingMm', i.handling_mm, 'zeroMm', i.zero_mm, 'scaleMmPerM', i.scale_mm_per_m, 'more', JSON_EXTRACT(i.more, '$'))`;

/** @param doc text or value of INSTRUMENT_JSON. @returns the instrument as the core knows it. */
export function instrumentOf(doc: Record<string, unknown>): Instrument {
  const { more, ...card } = doc;
  return { ...card, ...(more as object | null) } as Instrument;
}

/** Adds instruments that are not there yet; one that is there stays as it is. */
export async function addInstruments(db: Db, instruments: readonly Instrument[]): Promise<number> {
  let added = 0;
  for (const { id, name, kind, resolutionMm, handlingMm, zeroMm, scaleMmPerM, ...more } of instruments) {
    const [result] = await db.execute<ResultSetHeader>(
      `INSERT IGNORE INTO instrument (id, name, kind, resolution_mm, handling_mm, zero_mm, scale_mm_per_m, more)
       VALUES (?, ?, ?, ?, ?, ?, ?, ?)`,
      [
        id,
        name,
        kind,
        resolutionMm,
        handlingMm,
        zeroMm,
        scaleMmPerM,
        Object.keys(more).length > 0 ? JSON.stringify(more) : null,
      ],
    );
    added += result.affectedRows;
  }
  return added;
}

/** The whole shelf, oldest first. */
export async function listInstruments(db: Db): Promise<Instrument[]> {
  const [rows] = await db.execute<RowDataPacket[]>(
    `SELECT ${INSTRUMENT_JSON} AS doc, i.id AS id, ${isoTime("i.added_at")} AS added FROM instrument i`,
  );
  // Sorted here: there each would be sorted with its document, on disk.
  const place = (r: RowDataPacket): string => `${r.added} ${r.id}`;
  return [...rows].sort((a, b) => (place(a) < place(b) ? -1 : 1)).map((r) => instrumentOf(JSON.parse(r.doc as string)));
}

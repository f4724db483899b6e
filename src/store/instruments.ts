import type { Pool, PoolConnection, ResultSetHeader, RowDataPacket } from "mysql2/promise";
import { type Instrument, SHELF } from "@/core/instruments";
import { isoTime } from "./time";

type Db = Pool | PoolConnection;

/** An instrument as JSON, by the names that the core uses. */
const INSTRUMENT_JSON = `JSON_OBJECT('id', i.id, 'name', i.name, 'kind', i.kind, 'resolutionMm', i.resolution_mm,
  'handlingMm', i.handling_mm, 'zeroMm', i.zero_mm, 'scaleMmPerM', i.scale_mm_per_m, 'more', JSON_EXTRACT(i.more, '$'))`;

/** Instruments of a shop, and those that lie on every shelf. */
const ON_SHELF = "(i.shop_id IS NULL OR i.shop_id = ?)";

/** Those that lie on every shelf, in their order; what a shop put there comes after them. */
const NTH = new Map(SHELF.map(({ id }, nth) => [id, nth]));

/** @param doc text or value of INSTRUMENT_JSON. @returns the instrument as the core knows it. */
function instrumentOf(doc: Record<string, unknown>): Instrument {
  const { more, ...card } = doc;
  return { ...card, ...(more as object | null) } as Instrument;
}

/**
 * Adds instruments that are not there yet; one that is there stays as it is.
 * @param shopId whose they are; null for those that lie on every shelf.
 */
export async function addInstruments(
  db: Db,
  shopId: string | null,
  instruments: readonly Instrument[],
): Promise<number> {
  let added = 0;
  for (const { id, name, kind, resolutionMm, handlingMm, zeroMm, scaleMmPerM, away: _away, ...more } of instruments) {
    const [result] = await db.execute<ResultSetHeader>(
      `INSERT IGNORE INTO instrument (id, name, kind, resolution_mm, handling_mm, zero_mm, scale_mm_per_m, more, shop_id)
       VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)`,
      [
        id,
        name,
        kind,
        resolutionMm,
        handlingMm,
        zeroMm,
        scaleMmPerM,
        Object.keys(more).length > 0 ? JSON.stringify(more) : null,
        shopId,
      ],
    );
    added += result.affectedRows;
  }
  return added;
}

/** The whole shelf of a shop: what lies on every one, then its own, oldest first; what was put away is marked so. */
export async function listInstruments(db: Db, shopId: string): Promise<Instrument[]> {
  const [rows] = await db.execute<RowDataPacket[]>(
    `SELECT ${INSTRUMENT_JSON} AS doc, i.id AS id, ${isoTime("i.added_at")} AS added,
       EXISTS (SELECT 1 FROM instrument_away a WHERE a.shop_id = ? AND a.instrument_id = i.id) AS away
     FROM instrument i WHERE ${ON_SHELF}`,
    [shopId, shopId],
  );
  // Sorted here: there each would be sorted with its document, on disk.
  const nth = (r: RowDataPacket): number => NTH.get(r.id as string) ?? SHELF.length;
  const place = (r: RowDataPacket): string => `${r.added} ${r.id}`;
  return [...rows]
    .sort((a, b) => nth(a) - nth(b) || (place(a) < place(b) ? -1 : 1))
    .map((r) => ({ ...instrumentOf(JSON.parse(r.doc as string)), ...(r.away ? { away: true as const } : {}) }));
}

/** @returns which of these ids are taken by an instrument that is not on this shop's shelf. */
export async function instrumentsElsewhere(db: Db, shopId: string, ids: readonly string[]): Promise<Set<string>> {
  if (ids.length === 0) return new Set();
  const [rows] = await db.execute<RowDataPacket[]>(
    `SELECT i.id AS id FROM instrument i WHERE i.id IN (${ids.map(() => "?").join(", ")}) AND NOT ${ON_SHELF}`,
    [...ids, shopId],
  );
  return new Set(rows.map((r) => r.id as string));
}

/** Puts an instrument of a shop away, or back onto its shelf. Doing it twice is doing it once. */
export async function putInstrumentAway(db: Db, shopId: string, id: string, away: boolean): Promise<void> {
  await db.execute(
    away
      ? "INSERT IGNORE INTO instrument_away (shop_id, instrument_id) VALUES (?, ?)"
      : "DELETE FROM instrument_away WHERE shop_id = ? AND instrument_id = ?",
    [shopId, id],
  );
}

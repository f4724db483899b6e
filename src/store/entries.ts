import type { PoolConnection, ResultSetHeader, RowDataPacket } from "mysql2/promise";
import { type Entry, quantityKey, storedEntries, tickKey } from "@/core/job";
import { isoTime, toSqlTime } from "./time";

/** An entry as JSON with the fields of every kind; the ones of its own kind are picked out by `entriesOf`. */
const entryJson = (
  more: string,
): string => `JSON_OBJECT('kind', e.kind, 'id', e.id, 'at', ${isoTime("e.made_at")}, 'origin', e.origin,
  'gate', e.gate, 'method', e.method, 'roundId', e.round_id, 'instrumentId', e.instrument_id, 'what', e.what,
  'mm', e.value_mm, 'text', e.value_text, 'unit', e.value_unit, 'step', e.step, 'done', e.done, 'note', e.note,
  'version', e.version, 'changes', JSON_EXTRACT(e.changes, '$'), 'more', JSON_EXTRACT(e.more, '$')${more})`;

/** Entries that come with all of their job. */
export const ENTRY_JSON = entryJson("");
/** Entries by themselves: a reading that was kept in words says the gate of its round, which those words need. */
export const LONE_ENTRY_JSON = entryJson(`, 'ofGate', IF(e.kind = 'reading' AND JSON_EXTRACT(e.more, '$.what') IS NULL,
    (SELECT r.gate FROM entry r WHERE r.id = e.round_id), NULL)`);

/** @param read rows with a text of ENTRY_JSON as `doc`, in order. @returns entries as the core knows them, whatever format they were kept in. */
export function entriesOf(read: readonly RowDataPacket[]): Entry[] {
  const rows = read.map(({ doc }) => JSON.parse(doc as string));
  const gates = new Map(rows.flatMap((d) => (d.ofGate ? [[d.roundId, d.ofGate] as const] : [])));
  return storedEntries(rows.map(keptEntry), (roundId) => gates.get(roundId));
}

// biome-ignore lint/suspicious/noExplicitAny: a row as the database gives it
function keptEntry(d: any): unknown {
  const base = { id: d.id, at: d.at, origin: d.origin };
  switch (d.kind as Entry["kind"]) {
    case "round":
      return { kind: "round", ...base, gate: d.gate, method: d.method, ...d.more };
    case "reading":
      return {
        kind: "reading",
        ...base,
        roundId: d.roundId,
        instrumentId: d.instrumentId,
        what: d.more?.what ?? d.what,
        value: d.more?.slant ?? (d.mm === null ? null : { mm: d.mm, text: d.text, unit: d.unit }),
        ...(d.more?.how ? { how: d.more.how } : {}),
        ...(d.more?.taken ? { taken: d.more.taken } : {}),
        ...(d.more?.again ? { again: true } : {}),
      };
    case "tick":
      return { kind: "tick", ...base, step: d.more?.step ?? d.step, done: Boolean(d.done) };
    case "note":
      return { kind: "note", ...base, text: d.note };
    case "corrected":
      return { kind: "corrected", ...base, ...d.more };
    case "change":
      return { kind: "change", ...base, version: d.version, changes: d.changes };
  }
}

type Cell = string | number | boolean | null;

/** What only some entries have, as JSON; null when there is nothing. */
const json = (parts: Record<string, unknown>): string | null =>
  Object.values(parts).some((v) => v !== undefined) ? JSON.stringify(parts) : null;

/** The columns that differ by kind, in the order of the INSERT. */
function cells(e: Entry): Cell[] {
  const own: Record<string, Cell> = {};
  if (e.kind === "round")
    Object.assign(own, { gate: e.gate, method: e.method, more: json({ warmerK: e.warmerK, part: e.part }) });
  else if (e.kind === "reading") {
    const length = e.value !== null && "mm" in e.value ? e.value : null;
    const slant = e.value !== null && "slant" in e.value ? e.value : undefined;
    Object.assign(own, {
      round: e.roundId,
      instrument: e.instrumentId,
      what: quantityKey(e.what),
      mm: length?.mm ?? null,
      text: length?.text ?? null,
      unit: length?.unit ?? null,
      more: json({ what: e.what, slant, how: e.how, taken: e.taken, again: e.again }),
    });
  } else if (e.kind === "tick")
    Object.assign(own, { step: tickKey(e.step), done: e.done, more: json({ step: e.step }) });
  else if (e.kind === "note") own.note = e.text;
  else if (e.kind === "corrected") own.more = json({ remedy: e.remedy, amount: e.amount });
  else Object.assign(own, { version: e.version, changes: JSON.stringify(e.changes) });
  const order = [
    "gate",
    "method",
    "round",
    "instrument",
    "what",
    "mm",
    "text",
    "unit",
    "step",
    "done",
    "note",
    "version",
    "changes",
    "more",
  ];
  return order.map((k) => own[k] ?? null);
}

const ROW = `(${Array.from({ length: 20 }, () => "?").join(", ")})`;
/** Rows in one INSERT: keeps the number of placeholders far below the protocol's 65 535. */
const CHUNK = 500;

/** Inserts entries with consecutive numbers after `lastSeq`. The job's row must be locked. */
export async function insertEntries(
  db: PoolConnection,
  jobId: string,
  lastSeq: number,
  entries: readonly Entry[],
): Promise<void> {
  for (let from = 0; from < entries.length; from += CHUNK) {
    const part = entries.slice(from, from + CHUNK);
    await db.execute<ResultSetHeader>(
      `INSERT INTO entry (job_id, seq, id, kind, made_at, origin, gate, method, round_id, instrument_id, what,
        value_mm, value_text, value_unit, step, done, note, version, changes, more) VALUES ${part.map(() => ROW).join(", ")}`,
      part.flatMap((e, i) => [jobId, lastSeq + from + i + 1, e.id, e.kind, toSqlTime(e.at), e.origin, ...cells(e)]),
    );
  }
}

/** What new entries are held against. */
interface Beside {
  /** Job of those among the ids that are stored. */
  known: Map<string, string>;
  /** Gates of the rounds of this job, by id. */
  gates: Map<string, string>;
  /** Those of the instruments that are on the shop's shelf. */
  instruments: Set<string>;
}

/** Asks at once for all that new entries are held against. @param shop the shop and the job that they come to. */
export async function besideEntries(
  db: PoolConnection,
  shop: { shopId: string; jobId: string },
  ids: readonly string[],
  roundIds: readonly string[],
  instrumentIds: readonly string[],
): Promise<Beside> {
  const beside: Beside = { known: new Map(), gates: new Map(), instruments: new Set() };
  const entries = [...new Set([...ids, ...roundIds])];
  const marks = (list: readonly string[]): string => list.map(() => "?").join(", ");
  const parts = [
    ...(entries.length > 0 ? [`SELECT id, job_id, gate FROM entry WHERE id IN (${marks(entries)})`] : []),
    ...(instrumentIds.length > 0
      ? [
          `SELECT id, NULL AS job_id, NULL AS gate FROM instrument
           WHERE id IN (${marks(instrumentIds)}) AND (shop_id IS NULL OR shop_id = ?)`,
        ]
      : []),
  ];
  if (parts.length === 0) return beside;
  const [rows] = await db.execute<RowDataPacket[]>(parts.join(" UNION ALL "), [
    ...entries,
    ...(instrumentIds.length > 0 ? [...instrumentIds, shop.shopId] : []),
  ]);
  const wanted = new Set(ids);
  for (const r of rows)
    if (r.job_id === null) beside.instruments.add(r.id as string);
    else {
      if (wanted.has(r.id)) beside.known.set(r.id as string, r.job_id as string);
      if (r.gate !== null && r.job_id === shop.jobId) beside.gates.set(r.id as string, r.gate as string);
    }
  return beside;
}

import Papa from "papaparse";
import type { ListedPiece } from "@/core/cut";
import type { DrawingUnit, Measure } from "@/core/frame";
import { fail, ok, type Result } from "@/core/units";

/** A unit in a heading: "length, mm", "x (in)". */
const UNIT = /(?:[,([/]|\bin\b|\s)\s*(mm|cm|m|in|inch|inches|ft)\s*[)\]]?\s*$/i;
const MOST_ROWS = 5000;

/** What a table holds. */
export interface TableFile {
  rows: { kind: "measured"; of: Measure[] } | { kind: "pieces"; of: ListedPiece[] };
  /** As a heading says; null where none does. */
  unit: DrawingUnit | null;
  /** Rows that were not taken, and why. */
  unread: string[];
}

type Column = "from" | "to" | "distance" | "name" | "x" | "y" | "length" | "quantity" | "ends";

/** Words by which a column is known. */
const HEADINGS: readonly (readonly [Column, RegExp])[] = [
  ["from", /^(from|start|point 1|p1)\b/],
  ["to", /^(to|end|point 2|p2)\b/],
  ["distance", /^(distance|dist|measured|taped|reading|value)\b/],
  ["x", /^x\b/],
  ["y", /^y\b/],
  ["length", /^(cut to long point|length|long point|cut length|cut to|size)\b/],
  ["quantity", /^(pieces|quantity|qty|count|number|no\b|off\b|pcs)/],
  ["ends", /^(ends|end cuts|cuts|angles?|mitres?)\b/],
  ["name", /^(point|name|members?|part|mark|id|label|piece)\b/],
];

/** A cell is read so far: no heading, name or number is longer. */
const CELL_LETTERS = 200;
const plain = (cell: string | undefined): string => (cell ?? "").slice(0, CELL_LETTERS).trim();

/** A number as tables write it: with a comma for a point, and without the blanks between thousands. */
function numberIn(cell: string | undefined): number | null {
  const text = plain(cell).replace(/[\s\u00a0\u202f']/g, "");
  if (!/^[+-]?(\d+([.,]\d*)?|[.,]\d+)(mm|cm|m|in|ft|")?$/i.test(text)) return null;
  const n = Number.parseFloat(text.replace(",", "."));
  return Number.isFinite(n) && Math.abs(n) < 1e7 ? n : null;
}

/** A name of a point as one writes it down: P before a bare number. */
function pointName(cell: string | undefined): string | null {
  const text = plain(cell).toUpperCase();
  const name = /^\d/.test(text) ? `P${text}` : text;
  return /^[A-Z][A-Z0-9]{0,5}$/.test(name) ? name : null;
}

/** Columns by their headings; null where the first row is none. */
function columnsOf(first: readonly string[]): Partial<Record<Column, number>> | null {
  if (first.some((c) => numberIn(c) !== null)) return null;
  const found: Partial<Record<Column, number>> = {};
  for (const [column, words] of HEADINGS) {
    const taken = new Set(Object.values(found));
    const i = first.findIndex((c, k) => !taken.has(k) && words.test(plain(c).toLowerCase()));
    if (i >= 0) found[column] = i;
  }
  return found;
}

/** Columns of a table without headings, by what its rows are like. */
function guessed(row: readonly string[]): Partial<Record<Column, number>> {
  const isNumber = row.map((c) => numberIn(c) !== null);
  if (!isNumber[0] && !isNumber[1] && isNumber[2]) return { from: 0, to: 1, distance: 2 };
  if (!isNumber[0] && isNumber[1] && isNumber[2]) return { name: 0, x: 1, y: 2 };
  if (isNumber[0] && isNumber[1]) return { length: 0, quantity: 1, ends: 2 };
  return {};
}

function unitOf(first: readonly string[], columns: Partial<Record<Column, number>>): DrawingUnit | null {
  for (const c of [columns.distance, columns.x, columns.length]) {
    const word = c === undefined ? null : UNIT.exec(plain(first[c]));
    if (word) return (word[1] as string).toLowerCase().replace(/^inch(es)?$/, "in") as DrawingUnit;
  }
  return null;
}

/**
 * What a table of comma-separated values holds: distances between points, points, or pieces to cut. Source: RFC 4180; semicolons and
 * tabs are taken too.
 */
export function readTable(text: string): Result<TableFile> {
  const { data, errors } = Papa.parse<string[]>(text, { skipEmptyLines: "greedy" });
  const broken = errors.find((e) => e.type === "Quotes");
  if (broken) return fail(`Row ${(broken.row ?? 0) + 1}: quotes are open at its end.`);
  const first = data[0];
  if (!first) return fail("The table is empty.");
  if (data.length > MOST_ROWS) return fail(`${data.length} rows are more than any frame needs (${MOST_ROWS}).`);
  const headed = columnsOf(first);
  const columns = headed ?? guessed(first);
  const rows = headed ? data.slice(1) : data;
  const offset = headed ? 2 : 1;
  const unread: string[] = [];
  const skip = (i: number, why: string): void => {
    if (unread.length < 20) unread.push(`row ${i + offset}: ${why}`);
    else if (unread.length === 20) unread.push("and more rows");
  };
  const cell = (row: readonly string[], c: Column): string | undefined => {
    const i = columns[c];
    return i === undefined ? undefined : row[i];
  };
  const unit = headed ? unitOf(first, columns) : null;
  const has = (...of: Column[]): boolean => of.every((c) => columns[c] !== undefined);
  if (has("from", "to", "distance") || has("name", "x", "y")) {
    const isDistance = has("from", "to", "distance");
    const names: Column[] = isDistance ? ["from", "to"] : ["name"];
    const values: Column[] = isDistance ? ["distance"] : ["x", "y"];
    const of = rows.flatMap((row, i): Measure[] => {
      const own = names.map((c) => pointName(cell(row, c)));
      const read = values.map((c) => numberIn(cell(row, c)));
      if (own.some((n) => n === null)) skip(i, "a point is named by a letter and up to five more or digits");
      else if (read.some((v) => v === null)) skip(i, "there is no number where one should be");
      else
        return [
          { kind: isDistance ? "distance" : "point", names: own as string[], values: read.flatMap((v) => v ?? []) },
        ];
      return [];
    });
    return of.length > 0
      ? ok({ rows: { kind: "measured", of }, unit, unread })
      : fail(`No row could be read: ${unread[0]}.`);
  }
  if (has("length")) {
    const of = rows.flatMap((row, i): ListedPiece[] => {
      const length = numberIn(cell(row, "length"));
      const quantity = has("quantity") ? numberIn(cell(row, "quantity")) : 1;
      if (length === null || !(length > 0)) skip(i, "there is no length");
      else if (quantity === null || !Number.isInteger(quantity) || quantity < 1 || quantity > 500)
        skip(i, "how many is a whole number from 1 to 500");
      else
        return [
          {
            name: plain(cell(row, "name")).slice(0, 40),
            length,
            quantity,
            ends: plain(cell(row, "ends")).slice(0, 60),
          },
        ];
      return [];
    });
    return of.length > 0
      ? ok({ rows: { kind: "pieces", of }, unit, unread })
      : fail(`No row could be read: ${unread[0]}.`);
  }
  return fail(
    "The columns of this table are not known. Wanted: from, to, distance; or point, x, y; or length, quantity, ends.",
  );
}

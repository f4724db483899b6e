import type { LineWork } from "@/core/frame";
import type { Job } from "@/core/job";
import { fail, ok, type Result } from "@/core/units";
import { readDxf } from "./drawingDxf";
import { readSvg } from "./drawingSvg";
import { JOB_FILE_LIMIT_BYTES, readJobFile } from "./jobFile";
import { ARCHIVE_LIMIT_BYTES, type ReadShop, readArchive } from "./shopArchive";
import { readTable, type TableFile } from "./tableCsv";

/** Largest drawing and table that are read, bytes. */
const DRAWING_LIMIT_BYTES = 24 * 1024 * 1024;
const TABLE_LIMIT_BYTES = 2 * 1024 * 1024;
/** The largest of all: a file above it is not even looked into. */
export const FILE_LIMIT_BYTES = ARCHIVE_LIMIT_BYTES;
/** So much of a file tells what it is, bytes. */
const HEAD_BYTES = 4096;

/** A file by what is in it, whatever its name says. */
export type Opened =
  | { kind: "job"; job: Job }
  | { kind: "shop"; archive: ReadShop }
  | { kind: "drawing"; work: LineWork }
  | { kind: "table"; table: TableFile };

const startsWith = (bytes: Uint8Array, signature: string): boolean =>
  [...signature].every((c, i) => bytes[i] === c.charCodeAt(0));

/** Text of a file: UTF-8, or the older one-byte letters where it is none. */
function textOf(bytes: Uint8Array): string {
  try {
    return new TextDecoder("utf-8", { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder("windows-1252").decode(bytes);
  }
}

const mb = (bytes: number): string => `${(bytes / 1e6).toFixed(0)} MB`;

function tooLarge(bytes: Uint8Array, limit: number, what: string): string | null {
  return bytes.byteLength > limit
    ? `This ${what} has ${mb(bytes.byteLength)}; up to ${mb(limit)} is read. Save the frame alone, without what is around it.`
    : null;
}

/** What is known of a file that is none of ours before it is read as text. @returns words against it, or null. */
function foreign(bytes: Uint8Array): string | null {
  if (bytes.byteLength === 0) return "The file is empty.";
  if (startsWith(bytes, "%PDF")) return "This is a PDF: a picture of a drawing. Have the drawing saved as DXF or SVG.";
  if (startsWith(bytes, "AC10"))
    return "This is a drawing in a closed format. Have it saved as DXF (text) in the program that made it.";
  if (bytes.subarray(0, HEAD_BYTES).includes(0))
    return "This file is not text. A drawing is wanted as DXF saved as text, or SVG; a table as CSV.";
  return null;
}

/** A DXF begins with a section, after remarks where there are some. */
const DXF_HEAD = /^(?:\s*999\r?\n.*\r?\n)*\s*0\r?\n\s*SECTION\s*\r?\n/;

/**
 * Opens a file by what is in it: a job, a whole shop, a drawing (DXF, SVG), a table of sizes or pieces (CSV).
 * @returns what it holds, or why it cannot be taken, for a person to read.
 */
export function openFile(bytes: Uint8Array): Result<Opened> {
  if (bytes.byteLength > FILE_LIMIT_BYTES)
    return fail(`This file has ${mb(bytes.byteLength)}: none here is that large.`);
  if (startsWith(bytes, "PK\u0003\u0004")) {
    const archive = readArchive(bytes);
    return archive.ok ? ok({ kind: "shop", archive: archive.value }) : archive;
  }
  const against = foreign(bytes);
  if (against) return fail(against);
  const head = textOf(bytes.subarray(0, HEAD_BYTES)).replace(/^\ufeff/, "");
  if (/^\s*[{[]/.test(head)) {
    const large = tooLarge(bytes, JOB_FILE_LIMIT_BYTES, "job file");
    if (large) return fail(large);
    const read = readJobFile(textOf(bytes));
    const wrong = read.ok ? null : read.problems[0];
    return read.ok ? ok({ kind: "job", job: read.job }) : fail(`${wrong?.path}: ${wrong?.message}`);
  }
  const isDxf = DXF_HEAD.test(head);
  if (isDxf || /<svg[\s>:]|<svg:svg[\s>]/.test(head) || /^\s*<\?xml/.test(head)) {
    const large = tooLarge(bytes, DRAWING_LIMIT_BYTES, "drawing");
    if (large) return fail(large);
    const text = textOf(bytes);
    const work = isDxf ? readDxf(text) : readSvg(text);
    if (!work.ok) return work;
    if (work.value.lines.length === 0)
      return fail(
        `There are no lines in this drawing${work.value.unread.length > 0 ? `, only ${work.value.unread.slice(0, 6).join(", ")}` : ""}.`,
      );
    return ok({ kind: "drawing", work: work.value });
  }
  const large = tooLarge(bytes, TABLE_LIMIT_BYTES, "table");
  if (large) return fail(large);
  const table = readTable(textOf(bytes));
  return table.ok ? ok({ kind: "table", table: table.value }) : table;
}

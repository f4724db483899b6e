import Papa from "papaparse";

/** A cell that a spreadsheet would take for a formula is led by an apostrophe, whatever else is in it. */
const safe = (cell: string | number): string | number =>
  typeof cell === "string" && /^[=+\-@\t\r\n]/.test(cell) ? `'${cell}` : cell;

/** A header and rows as text. Source: RFC 4180, lines ended CR LF. */
export const csv = (fields: readonly string[], rows: readonly (readonly (string | number)[])[]): string =>
  `${Papa.unparse([[...fields], ...rows.map((row) => row.map(safe))], { newline: "\r\n" })}\r\n`;

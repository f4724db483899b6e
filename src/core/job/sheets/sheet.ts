import type { Picture } from "../../drawing";

/** One cell of a table: words, a box to tick, or room to write in. */
export type SheetCell = string | { tick: boolean } | { room: true };

/** A part of a sheet. */
export type SheetBlock =
  | { kind: "heading"; text: string }
  | { kind: "text"; text: string }
  /** Columns by their share of the width. */
  | { kind: "table"; columns: readonly { title: string; share: number }[]; rows: readonly (readonly SheetCell[])[] }
  /** A card to tape to the saw: what, one figure that is read from afar, and how. */
  | { kind: "card"; title: string; figure: string; lines: readonly string[] }
  /** A picture, fitted to the width of the page and so high, mm. */
  | { kind: "picture"; picture: Picture; highMm: number }
  /** Lines to write on, each with what it is for. */
  | { kind: "lines"; of: readonly string[] };

/** A sheet of paper about a job: what stands on it, in order. */
export interface Sheet {
  title: string;
  /** Job, version, units: a line under the title. */
  about: string;
  /** Stage that its code opens. */
  stage: "frame" | "cut" | "layout" | "square" | "weld" | "check";
  blocks: SheetBlock[];
}

export const SHEETS = ["sketch", "cut", "buying", "marking", "fixture", "order", "check", "certificate"] as const;
export type SheetName = (typeof SHEETS)[number];

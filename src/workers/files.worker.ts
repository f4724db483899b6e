import { expose } from "comlink";
import {
  type DrawnSection,
  fromLines,
  type LinesWish,
  type LineWork,
  layersOf,
  likelyUnit,
  usualWish,
} from "@/core/frame";
import { fail, type Result, type UnitPreference } from "@/core/units";
import { type Opened, openFile } from "@/formats/openFile";
import type { TableFile } from "@/formats/tableCsv";

/** What a drawing holds, before anything is made of it. */
export interface DrawingHeld {
  kind: "drawing";
  layers: { name: string; lines: number }[];
  unit: ReturnType<typeof likelyUnit>;
  usual: LinesWish;
  unread: readonly string[];
}

/** What a file holds, in few words: what is large stays here. */
export type FileHeld =
  | { kind: "job"; name: string; entries: number; createdAt: string }
  | {
      kind: "shop";
      name: string;
      shopId: string;
      jobs: readonly string[];
      instruments: number;
      lessons: number;
      testBeads: number;
      /** Jobs that cannot be read, with why. */
      unread: readonly string[];
    }
  | DrawingHeld
  | { kind: "table"; table: TableFile };

/** The drawing that was opened last. */
let work: LineWork | null = null;

function held(opened: Opened): FileHeld {
  switch (opened.kind) {
    case "job":
      return {
        kind: "job",
        name: opened.job.plan.name,
        entries: opened.job.entries.length,
        createdAt: opened.job.createdAt,
      };
    case "shop": {
      const { shop, jobs, instruments, lessons, testBeads, unread } = opened.archive;
      return {
        kind: "shop",
        name: shop.name,
        shopId: shop.id,
        jobs: jobs.map(({ job }) => job.plan.name),
        instruments: instruments.length,
        lessons: lessons.length,
        testBeads: testBeads.length,
        unread,
      };
    }
    case "drawing": {
      work = opened.work;
      const unit = likelyUnit(work);
      return {
        kind: "drawing",
        layers: layersOf(work.lines),
        unit,
        usual: usualWish(work, unit.unit),
        unread: work.unread,
      };
    }
    case "table":
      return opened;
  }
}

const api = {
  open(bytes: Uint8Array): Result<FileHeld> {
    const opened = openFile(bytes);
    return opened.ok ? { ok: true, value: held(opened.value) } : opened;
  },
  /** The frame of the drawing that was opened last. */
  frame(wish: LinesWish, section: DrawnSection, units: UnitPreference): ReturnType<typeof fromLines> {
    return work ? fromLines(work, wish, section, units) : fail("No drawing is open.");
  },
};
export type FilesApi = typeof api;

expose(api);

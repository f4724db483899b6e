"use client";

import { type ReactNode, useState } from "react";
import type { Job } from "@/core/job";
import type { EntryReader } from "@/formats/entryReader";
import { JobProvider, type Start } from "./JobProvider";

/** What a page starts from, as the server hands it over: entries as texts. */
export type PackedStart = Omit<Start, "job"> & { job: Omit<Job, "entries">; entries: string[] };

/** The server makes page after page of the same jobs; a browser starts from each once. */
export const REMEMBERED = typeof window === "undefined" ? 20e6 : 0;

/** Holds one job for all its stages. @param reader of its entries. */
export function StartedJob({
  packed,
  reader,
  children,
}: {
  packed: PackedStart;
  reader: EntryReader;
  children: ReactNode;
}) {
  const [start] = useState((): Start => {
    const { job, entries, ...rest } = packed;
    return { ...rest, job: { ...job, entries: reader.entriesOf(entries) } };
  });
  return <JobProvider start={start}>{children}</JobProvider>;
}

"use client";

import { type ReactNode, useState } from "react";
import type { Job } from "@/core/job";
import { EntryReader } from "@/formats/entryReader";
import { JobProvider, type Start } from "./JobProvider";

/** What a page starts from, as the server hands it over: entries as texts. */
export type PackedStart = Omit<Start, "job"> & { job: Omit<Job, "entries">; entries: string[] };

/** The server makes page after page of the same jobs; a browser starts from each once. */
const CHARACTERS_ON_SERVER = 20e6;
const reader = new EntryReader(typeof window === "undefined" ? CHARACTERS_ON_SERVER : 0);

/** Holds one job for all its stages, as the server hands it over. */
export function PackedJob({ packed, children }: { packed: PackedStart; children: ReactNode }) {
  const [start] = useState((): Start => {
    const { job, entries, ...rest } = packed;
    return { ...rest, job: { ...job, entries: reader.entriesOf(entries) } };
  });
  return <JobProvider start={start}>{children}</JobProvider>;
}

"use client";

import { type ReactNode, useState } from "react";
import type { Job } from "@/core/job";
import { JobProvider, type Start } from "./JobProvider";

/** What a page starts from, as the server hands it over: entries as one text, which costs a page far less than thousands of objects. */
export type PackedStart = Omit<Start, "job"> & { job: Omit<Job, "entries">; entries: string };

/** Holds one job for all its stages, as the server hands it over. */
export function PackedJob({ packed, children }: { packed: PackedStart; children: ReactNode }) {
  const [start] = useState((): Start => {
    const { job, entries, ...rest } = packed;
    return { ...rest, job: { ...job, entries: JSON.parse(entries) } };
  });
  return <JobProvider start={start}>{children}</JobProvider>;
}

"use client";

import dynamic from "next/dynamic";
import type { ReactNode } from "react";
import { EntryReader, isPacked } from "@/formats/entryReader";
import { type PackedStart, REMEMBERED, StartedJob } from "./StartedJob";

// What unpacks comes with long records alone.
const UnpackedJob = dynamic(() => import("./UnpackedJob"));
const reader = new EntryReader(REMEMBERED);

/** Holds one job for all its stages, as the server hands it over. */
export function PackedJob(props: { packed: PackedStart; children: ReactNode }) {
  return props.packed.entries.some(isPacked) ? <UnpackedJob {...props} /> : <StartedJob {...props} reader={reader} />;
}

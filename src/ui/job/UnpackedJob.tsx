"use client";

import type { ReactNode } from "react";
import { EntryReader } from "@/formats/entryReader";
import { unpacked } from "@/formats/unpacked";
import { type PackedStart, REMEMBERED, StartedJob } from "./StartedJob";

const reader = new EntryReader(REMEMBERED, unpacked);

/** Holds a job with a long record, of which full parts come packed. */
export default function UnpackedJob(props: { packed: PackedStart; children: ReactNode }) {
  return <StartedJob {...props} reader={reader} />;
}

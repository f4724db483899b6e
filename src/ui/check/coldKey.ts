import type { Job } from "@/core/job";

/**
 * What follows from a cold frame depends on: all of its plan but what it is called, and what was read and done. A change that is not saved yet
 * counts, too.
 */
export const coldKey = ({ plan, entries, version }: Job): string =>
  [
    version,
    JSON.stringify({ ...plan, name: "", purpose: "" }),
    entries.filter((e) => e.kind !== "change" && e.kind !== "note").length,
  ].join(" ");

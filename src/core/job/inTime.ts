import type { Entry } from "./entrySchema";

/**
 * Entries by when they were made, not by when they arrived: what was read an hour ago on a device without a connection replaces nothing that
 * was read since. Of one moment they stay as they came. Clocks of devices are put right where entries are taken (see the server).
 */
export function inTime<E extends Pick<Entry, "at">>(entries: readonly E[]): readonly E[] {
  const isSorted = entries.every((e, i) => i === 0 || (entries[i - 1] as E).at <= e.at);
  return isSorted ? entries : [...entries].sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0));
}

import "server-only";
import * as store from "@/store";
import type { Caller } from "./who";

/** Days after which a backup is called old. */
const OLD_DAYS = 7;
const DAY_MS = 86_400_000;

/** What is said where the last backup is old, or there is none; null where one is recent, or nobody here could make one. */
export async function backupWords(who: Caller): Promise<string | null> {
  if (who.role !== "owner") return null;
  const db = store.pool();
  const [last, begun] = [await store.upkeepAt(db, "backup"), await store.upkeepAt(db, "begun")];
  const days = (at: string): number => Math.floor((Date.now() - Date.parse(at)) / DAY_MS);
  if (last !== null)
    return days(last) < OLD_DAYS
      ? null
      : `The last backup is ${days(last)} days old. Run script/backup, and keep its file on another disk.`;
  return begun === null || days(begun) < OLD_DAYS
    ? null
    : "No backup was ever made. Run script/backup, and keep its file on another disk.";
}

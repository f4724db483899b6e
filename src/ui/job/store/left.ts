import type { NewEntry } from "@/core/job";
import type { DeviceStore } from "./device";
import type { PageLocks } from "./keeping";
import type { Transport } from "./sender";

const PREFIX = "plumb/outbox/";
const SEND_AT_ONCE = 100;
/** More than any job has: the answer needs to tell nothing of others. */
const NO_NEWS = 2 ** 31;

/** Entries of a job that wait on this device. */
export interface Waiting {
  jobId: string;
  count: number;
}

const boxOf = (key: string): { jobId: string; page: string } => {
  const [jobId = "", page = ""] = key.slice(PREFIX.length).split("/");
  return { jobId, page };
};

/** What waits on this device, job by job, whether its page is open or not. */
export async function waitingOn(device: DeviceStore): Promise<Waiting[]> {
  const counts = new Map<string, number>();
  for (const [key, box] of await device.left(PREFIX)) {
    const { jobId } = boxOf(key);
    if (Array.isArray(box) && box.length > 0) counts.set(jobId, (counts.get(jobId) ?? 0) + box.length);
  }
  return [...counts].map(([jobId, count]) => ({ jobId, count }));
}

/**
 * Sends what pages that are gone left, without opening their jobs. What the server will not take stays where it is, for the page of its job
 * to show; what cannot be sent just now stays too.
 * @returns whether something is left that may be sent later.
 */
export async function sendLeft(
  device: DeviceStore,
  locks: PageLocks,
  transport: Transport,
  now: () => string,
): Promise<boolean> {
  let later = false;
  for (const [key] of await device.left(PREFIX)) {
    const { jobId, page } = boxOf(key);
    await locks.whenFree(`plumb/page/${page}`, async () => {
      const [found] = await device.left(key);
      const entries = found && Array.isArray(found[1]) ? (found[1] as NewEntry[]) : [];
      for (let from = 0; from < entries.length; from += SEND_AT_ONCE) {
        const batch = entries.slice(from, from + SEND_AT_ONCE);
        const status = await transport("POST", `/api/jobs/${jobId}/entries`, {
          entries: batch,
          since: NO_NEWS,
          sentAt: now(),
        }).then(
          (answer) => answer.status,
          () => 0,
        );
        if (status !== 200) {
          if (status === 0 || status >= 500) later = true;
          return;
        }
        const rest = entries.slice(from + batch.length);
        device.put(key, rest.length > 0 ? rest : null);
      }
    });
  }
  return later;
}

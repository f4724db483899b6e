import type { Job } from "@/core/job";
import type { DeviceStore } from "./device";

/** A job as it stood in the record when this device last heard of it: what a page starts from without a network. */
export interface KeptJob {
  job: Job;
  seq: number;
  /** When it was kept. */
  at: string;
}

/** Jobs that were opened last and are kept; older ones go, what is unsent of them stays. */
const MOST = 20;
const PREFIX = "plumb/job/";

const isKept = (v: unknown): v is KeptJob => typeof v === "object" && v !== null && "job" in v && "seq" in v;

export const keepJob = (device: DeviceStore, kept: KeptJob): void => device.put(`${PREFIX}${kept.job.id}`, kept);

/** Jobs kept on this device, the last one first. */
export async function keptJobs(device: DeviceStore): Promise<KeptJob[]> {
  const found = (await device.left(PREFIX)).flatMap(([, value]) => (isKept(value) ? [value] : []));
  return found.sort((a, b) => (a.at < b.at ? 1 : -1));
}

export async function keptJob(device: DeviceStore, id: string): Promise<KeptJob | null> {
  const [found] = await device.left(`${PREFIX}${id}`);
  return found && isKept(found[1]) ? found[1] : null;
}

/** Forgets the jobs that were opened longest ago. @param most so many stay. */
export async function forgetOldJobs(device: DeviceStore, most = MOST): Promise<void> {
  for (const { job } of (await keptJobs(device)).slice(most)) device.put(`${PREFIX}${job.id}`, null);
}

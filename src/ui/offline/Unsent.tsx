"use client";

import { useEffect, useState } from "react";
import { stagePath } from "../job/stages";
import { deviceHere } from "../job/store/device";
import { browserLocks } from "../job/store/keeping";
import { type KeptJob, keptJobs } from "../job/store/keptJobs";
import { sendLeft, type Waiting, waitingOn } from "../job/store/left";
import { transport } from "../job/store/transport";

const AGAIN_MS = 15_000;

/** Readings and ticks that wait on this device, whichever job they belong to: said, and sent without opening it. */
export function Unsent() {
  const [waiting, setWaiting] = useState<Waiting[]>([]);
  const [kept, setKept] = useState<KeptJob[]>([]);
  useEffect(() => {
    const device = deviceHere();
    let isGone = false;
    const look = async () => {
      const [now, jobs] = await Promise.all([waitingOn(device), keptJobs(device)]);
      if (isGone) return;
      setWaiting(now);
      setKept(jobs);
    };
    const send = async () => {
      await sendLeft(device, browserLocks, transport, () => new Date().toISOString());
      await look();
    };
    void look().then(send);
    const timer = window.setInterval(() => void send(), AGAIN_MS);
    const online = () => void send();
    window.addEventListener("online", online);
    return () => {
      isGone = true;
      window.clearInterval(timer);
      window.removeEventListener("online", online);
    };
  }, []);
  if (waiting.length === 0) return null;
  return (
    <div role="status" className="max-w-prose border-2 border-close bg-well p-3" data-testid="unsent">
      <p>
        <strong>Kept on this device, not in the record yet:</strong>
      </p>
      <ul>
        {waiting.map(({ jobId, count }) => (
          <li key={jobId}>
            {count} {count === 1 ? "entry" : "entries"} of{" "}
            <a href={stagePath(jobId, "log")}>{kept.find((k) => k.job.id === jobId)?.job.plan.name ?? "a job"}</a>
          </li>
        ))}
      </ul>
      <p className="text-sm text-soft">They are sent by themselves once the server is reached.</p>
    </div>
  );
}

import { useEffect, useMemo, useState } from "react";
import { tickKey } from "@/core/job";
import { useJob } from "../job/JobProvider";

/** The clock is looked at this often, ms. */
const LOOK_MS = 5000;

/** When each step was ticked, s, and what time it is; null until the page is live: what the server's clock says is nothing of the bench. */
export function useTickTimes(): { nowS: number | null; times: ReadonlyMap<string, number> } {
  const { job, evaluation } = useJob("job", "evaluation");
  const { ticked } = evaluation;
  const [nowS, setNowS] = useState<number | null>(null);
  useEffect(() => {
    const look = () => setNowS(Date.now() / 1000);
    look();
    const timer = window.setInterval(look, LOOK_MS);
    return () => window.clearInterval(timer);
  }, []);
  const times = useMemo(
    () =>
      new Map(
        job.entries.flatMap((e) =>
          e.kind === "tick" && e.done && ticked.has(tickKey(e.step))
            ? [[tickKey(e.step), Date.parse(e.at) / 1000] as const]
            : [],
        ),
      ),
    [job.entries, ticked],
  );
  return { nowS, times };
}

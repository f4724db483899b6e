import { useRouter } from "next/navigation";
import { useState } from "react";
import type { DrawnFrame } from "@/core/frame";
import type { Plan, Stage } from "@/core/job";
import type { UnitPreference } from "@/core/units";
import { origin } from "../parts/device";
import { stagePath } from "./stages";
import { transport } from "./store/transport";

/** What a job is begun with. */
interface Beginning {
  name: string;
  units: UnitPreference;
  /** A frame that was read from a drawing. */
  drawn?: DrawnFrame;
  /** A plan that was made of another job's. */
  plan?: Plan;
}

/** Begins a job and opens it; what keeps it from that, in words. */
export function useBeginJob() {
  const router = useRouter();
  const [wrong, setWrong] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const begin = async (job: Beginning, stage: Stage): Promise<void> => {
    const name = job.name.trim();
    if (name === "") return setWrong("Give the job a name.");
    setBusy(true);
    setWrong(null);
    try {
      const { status, body } = await transport("POST", "/api/jobs", { ...job, name, origin: origin() });
      if (status === 200) return router.push(stagePath((body as { id: string }).id, stage));
      setWrong((body as { message?: string } | null)?.message ?? "The server did not take it.");
    } catch {
      setWrong("The server cannot be reached just now. Try again in a moment.");
    }
    setBusy(false);
  };
  return { begin, wrong, busy };
}

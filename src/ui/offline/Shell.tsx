"use client";

import dynamic from "next/dynamic";
import { type ComponentType, useEffect, useState } from "react";
import type { Stage } from "@/core/job";
import { JobProvider } from "../job/JobProvider";
import { JobShell } from "../job/JobShell";
import { stageOf, stagePath } from "../job/stages";
import { deviceHere } from "../job/store/device";
import { type KeptJob, keptJob, keptJobs } from "../job/store/keptJobs";
import { Button } from "../parts/Button";
import { Now } from "../parts/Sheet";
import { When } from "../parts/When";
import { Unsent } from "./Unsent";

/** Every stage, from what this device keeps of the program. */
const STAGE: Record<Stage, ComponentType> = {
  job: dynamic(() => import("../job/JobStage").then((m) => m.JobStage), { ssr: false }),
  frame: dynamic(() => import("../frame/FrameStage").then((m) => m.FrameStage), { ssr: false }),
  cut: dynamic(() => import("../cut/CutStage").then((m) => m.CutStage), { ssr: false }),
  bed: dynamic(() => import("../bed/BedStage").then((m) => m.BedStage), { ssr: false }),
  layout: dynamic(() => import("../layout/LayoutStage").then((m) => m.LayoutStage), { ssr: false }),
  square: dynamic(() => import("../square/SquareStage").then((m) => m.SquareStage), { ssr: false }),
  weld: dynamic(() => import("../weld/WeldStage").then((m) => m.WeldStage), { ssr: false }),
  check: dynamic(() => import("../check/CheckStage").then((m) => m.CheckStage), { ssr: false }),
  finish: dynamic(() => import("../finish/FinishStage").then((m) => m.FinishStage), { ssr: false }),
  log: dynamic(() => import("../log/LogStage").then((m) => m.LogStage), { ssr: false }),
};
const PRINT: { [S in Stage]?: ComponentType } = {
  cut: dynamic(() => import("../cut/CutPrint").then((m) => m.CutPrint), { ssr: false }),
  layout: dynamic(() => import("../layout/LayoutPrint").then((m) => m.LayoutPrint), { ssr: false }),
  weld: dynamic(() => import("../weld/OrderPrint").then((m) => m.OrderPrint), { ssr: false }),
};

const JOB_PATH = /^\/jobs\/([0-9a-f-]{36})(?:\/|$)/;

/** What was found on the device for an address. */
type Found =
  | { what: "asking" }
  | { what: "job"; kept: KeptJob; pathname: string }
  | { what: "no job"; jobs: KeptJob[] }
  | { what: "list"; jobs: KeptJob[] };

async function find(pathname: string): Promise<Found> {
  const device = deviceHere();
  const id = JOB_PATH.exec(pathname)?.[1];
  if (!id) return { what: "list", jobs: await keptJobs(device) };
  const kept = await keptJob(device, id);
  return kept ? { what: "job", kept, pathname } : { what: "no job", jobs: await keptJobs(device) };
}

function List({ jobs, say, why }: { jobs: readonly KeptJob[]; say: string; why: string }) {
  return (
    <div className="mx-auto max-w-[1040px] px-4 pb-16">
      <header className="py-4">
        <h1 className="text-xl">
          Mellow Plumb <span className="font-normal text-soft">without a network</span>
        </h1>
      </header>
      <main className="grid gap-6 border-t-2 border-ink bg-sheet p-4 sm:p-6">
        <Now say={say} why={why} />
        <Unsent />
        <section aria-label="Jobs on this device">
          {jobs.length === 0 ? (
            <p className="text-soft">
              No job was opened on this device yet: those that were can be opened without a network.
            </p>
          ) : null}
          <ul>
            {jobs.map(({ job, at }) => (
              <li key={job.id} className="border-t border-line">
                <a
                  href={stagePath(job.id, "job")}
                  className="flex tap flex-wrap items-baseline justify-between gap-x-6 py-3"
                >
                  <strong>{job.plan.name}</strong>
                  <span className="text-sm text-soft">
                    as heard of <When at={at} />
                  </span>
                </a>
              </li>
            ))}
          </ul>
        </section>
        <Button className="justify-self-start" onClick={() => window.location.reload()}>
          Try the server again
        </Button>
      </main>
    </div>
  );
}

/** Stands in for every page while the server is not reached: a job as this device heard of it last, with what is unsent laid over it. */
export function Shell() {
  const [found, setFound] = useState<Found>({ what: "asking" });
  useEffect(() => {
    void find(window.location.pathname).then(setFound);
  }, []);
  switch (found.what) {
    case "asking":
      return <p className="p-8">Opening what this device keeps…</p>;
    case "job": {
      const stage = stageOf(found.pathname);
      const Page = (found.pathname.endsWith("/print") ? PRINT[stage] : undefined) ?? STAGE[stage];
      return (
        <JobProvider start={{ ...found.kept, prediction: null }}>
          <JobShell>
            <Page />
          </JobShell>
        </JobProvider>
      );
    }
    case "no job":
      return (
        <List
          jobs={found.jobs}
          say="This job is not on this device."
          why="The server is not reached, and the job was never opened here. These were:"
        />
      );
    case "list":
      return (
        <List
          jobs={found.jobs}
          say="The server is not reached; go on with a job from this device."
          why="Readings, ticks and edits are kept here and sent once it is reached again. The list of all jobs, the shelf and the people need it."
        />
      );
  }
}

import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { cache, type ReactNode } from "react";
import { startOf } from "@/server/jobs";
import { visitor } from "@/server/page";
import { JobShell } from "@/ui/job/JobShell";
import { PackedJob } from "@/ui/job/PackedJob";

type Props = { children: ReactNode; params: Promise<{ id: string }> };

/** One round trip for the page and its title. */
const load = cache(async (id: string) => startOf(await visitor(), id));

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  const found = await load((await params).id);
  return { title: found.ok ? found.value.job.plan.name : "No such job" };
}

export default async function Layout({ children, params }: Props) {
  const found = await load((await params).id);
  if (!found.ok) notFound();
  return (
    <PackedJob key={found.value.job.id} packed={found.value}>
      <JobShell>{children}</JobShell>
    </PackedJob>
  );
}

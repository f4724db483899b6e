import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { connection } from "next/server";
import { cache, type ReactNode } from "react";
import { startOf } from "@/server/jobs";
import { JobProvider } from "@/ui/job/JobProvider";
import { JobShell } from "@/ui/job/JobShell";

type Props = { children: ReactNode; params: Promise<{ id: string }> };

/** One round trip for the page and its title. */
const load = cache(startOf);

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  await connection();
  const found = await load((await params).id);
  return { title: found.ok ? found.value.job.plan.name : "No such job" };
}

export default async function Layout({ children, params }: Props) {
  await connection();
  const found = await load((await params).id);
  if (!found.ok) notFound();
  return (
    <JobProvider key={found.value.job.id} start={found.value}>
      <JobShell>{children}</JobShell>
    </JobProvider>
  );
}

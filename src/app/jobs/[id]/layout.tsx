import { notFound } from "next/navigation";
import type { ReactNode } from "react";
import { startOf } from "@/server/jobs";
import { visitor } from "@/server/page";
import { JobShell } from "@/ui/job/JobShell";
import { PackedJob } from "@/ui/job/PackedJob";

type Props = { children: ReactNode; params: Promise<{ id: string }> };

export default async function Layout({ children, params }: Props) {
  const found = await startOf(await visitor(), (await params).id);
  if (!found.ok) notFound();
  return (
    <PackedJob key={found.value.job.id} packed={found.value}>
      <JobShell>{children}</JobShell>
    </PackedJob>
  );
}

import { connection } from "next/server";
import { listJobs } from "@/server/jobs";
import { JobList } from "@/ui/jobs/JobList";

export default async function Page() {
  await connection();
  return <JobList jobs={await listJobs()} />;
}

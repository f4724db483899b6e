import { backupWords } from "@/server/backup";
import { listJobs } from "@/server/jobs";
import { visitor } from "@/server/page";
import { JobList } from "@/ui/jobs/JobList";
import { Title } from "@/ui/parts/Title";

type Props = { searchParams: Promise<Record<string, string | string[] | undefined>> };

export default async function Page({ searchParams }: Props) {
  const who = await visitor();
  const { text = "", away, page = "1" } = await searchParams;
  const asked = { text: String(text).slice(0, 120).trim(), away: away === "1" };
  return (
    <>
      <Title />
      <JobList
        list={await listJobs(who, { ...asked, page: String(page) })}
        asked={asked}
        backup={await backupWords(who)}
      />
    </>
  );
}

import { readingsCsv } from "@/formats/readingsCsv";
import { download, respond } from "@/server/http";
import { jobForFile } from "@/server/jobs";

type Context = { params: Promise<{ id: string }> };

export const GET = (request: Request, { params }: Context) =>
  respond(
    request,
    "look",
    async (who) => jobForFile(who, (await params).id),
    (job) => download(readingsCsv(job), "text/csv", `${job.plan.name}-readings.csv`),
  );

import { writeJobFile } from "@/formats/jobFile";
import { download, respond } from "@/server/http";
import { jobForFile } from "@/server/jobs";

type Context = { params: Promise<{ id: string }> };

export const GET = (request: Request, { params }: Context) =>
  respond(
    request,
    "look",
    async (who) => jobForFile(who, (await params).id),
    (job) => download(writeJobFile(job), "application/json", `${job.plan.name}.plumb.json`),
  );

import { readJson, respond } from "@/server/http";
import { createJob, listJobs } from "@/server/jobs";
import { done } from "@/server/outcome";

export const GET = (request: Request) => respond(request, async () => done(await listJobs()));

export const POST = (request: Request) =>
  respond(request, async () => {
    const body = await readJson(request);
    return body.ok ? createJob(body.value) : body;
  });

import { readJson, respond } from "@/server/http";
import { createJob, listJobs } from "@/server/jobs";
import { done } from "@/server/outcome";

/** A page of the list: `?text=` in the name, `?away=1` those put away, `?page=`. */
export const GET = (request: Request) =>
  respond(request, "look", async (who) => {
    const query = new URL(request.url).searchParams;
    return done(
      await listJobs(who, {
        text: query.get("text") ?? "",
        away: query.get("away") === "1",
        page: query.get("page") ?? 1,
      }),
    );
  });

export const POST = (request: Request) =>
  respond(request, "work", async (who) => {
    const body = await readJson(request);
    return body.ok ? createJob(who, body.value) : body;
  });

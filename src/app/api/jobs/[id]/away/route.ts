import { readJson, respond } from "@/server/http";
import { putJobAway } from "@/server/jobs";

type Context = { params: Promise<{ id: string }> };

/** Puts a job away, or back: `{away: true}`. */
export const PUT = (request: Request, { params }: Context) =>
  respond(request, "work", async (who) => {
    const body = await readJson(request);
    return body.ok ? putJobAway(who, (await params).id, body.value) : body;
  });

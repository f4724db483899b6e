import { readJson, respond } from "@/server/http";
import { savePlan } from "@/server/jobs";

type Context = { params: Promise<{ id: string }> };

export const PUT = (request: Request, { params }: Context) =>
  respond(request, "work", async (who) => {
    const body = await readJson(request);
    return body.ok ? savePlan(who, (await params).id, body.value) : body;
  });

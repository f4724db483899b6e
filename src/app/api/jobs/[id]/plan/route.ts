import { readJson, respond } from "@/server/http";
import { savePlan } from "@/server/jobs";

type Context = { params: Promise<{ id: string }> };

export const PUT = (request: Request, { params }: Context) =>
  respond(request, async () => {
    const body = await readJson(request);
    return body.ok ? savePlan((await params).id, body.value) : body;
  });

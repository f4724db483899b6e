import { readJson, respond } from "@/server/http";
import { addEntries } from "@/server/jobs";

type Context = { params: Promise<{ id: string }> };

export const POST = (request: Request, { params }: Context) =>
  respond(request, "work", async (who) => {
    const body = await readJson(request);
    return body.ok ? addEntries(who, (await params).id, body.value) : body;
  });

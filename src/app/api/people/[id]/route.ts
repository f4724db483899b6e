import { readJson, respond } from "@/server/http";
import { changePerson } from "@/server/people";

type Context = { params: Promise<{ id: string }> };

export const PUT = (request: Request, { params }: Context) =>
  respond(request, "own", async (who) => {
    const body = await readJson(request);
    return body.ok ? changePerson(who, (await params).id, body.value) : body;
  });

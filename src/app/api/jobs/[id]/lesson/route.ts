import { readJson, respond } from "@/server/http";
import { teach } from "@/server/lessons";

type Context = { params: Promise<{ id: string }> };

export const POST = (request: Request, { params }: Context) =>
  respond(request, "work", async (who) => {
    const body = await readJson(request);
    return body.ok ? teach(who, (await params).id, body.value) : body;
  });

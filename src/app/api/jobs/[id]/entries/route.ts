import { readJson, respond } from "@/server/http";
import { addEntries } from "@/server/jobs";

type Context = { params: Promise<{ id: string }> };

export const POST = (request: Request, { params }: Context) =>
  respond(request, async () => {
    const body = await readJson(request);
    return body.ok ? addEntries((await params).id, body.value) : body;
  });

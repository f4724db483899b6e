import { readJson, respond } from "@/server/http";
import { done } from "@/server/outcome";
import { addTestBead, listTestBeads } from "@/server/testBeads";

export const GET = (request: Request) => respond(request, async () => done(await listTestBeads()));

export const POST = (request: Request) =>
  respond(request, async () => {
    const body = await readJson(request);
    return body.ok ? addTestBead(body.value) : body;
  });

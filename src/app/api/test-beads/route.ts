import { readJson, respond } from "@/server/http";
import { done } from "@/server/outcome";
import { addTestBead, listTestBeads } from "@/server/testBeads";

export const GET = (request: Request) => respond(request, "look", async (who) => done(await listTestBeads(who)));

export const POST = (request: Request) =>
  respond(request, "work", async (who) => {
    const body = await readJson(request);
    return body.ok ? addTestBead(who, body.value) : body;
  });

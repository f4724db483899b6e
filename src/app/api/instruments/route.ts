import { readJson, respond } from "@/server/http";
import { addInstrument, listInstruments } from "@/server/instruments";
import { done } from "@/server/outcome";

export const GET = (request: Request) => respond(request, "look", async (who) => done(await listInstruments(who)));

export const POST = (request: Request) =>
  respond(request, "work", async (who) => {
    const body = await readJson(request);
    return body.ok ? addInstrument(who, body.value) : body;
  });

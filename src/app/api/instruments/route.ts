import { readJson, respond } from "@/server/http";
import { addInstrument, listInstruments } from "@/server/instruments";
import { done } from "@/server/outcome";

export const GET = (request: Request) => respond(request, async () => done(await listInstruments()));

export const POST = (request: Request) =>
  respond(request, async () => {
    const body = await readJson(request);
    return body.ok ? addInstrument(body.value) : body;
  });

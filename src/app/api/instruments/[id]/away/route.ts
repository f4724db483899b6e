import { readJson, respond } from "@/server/http";
import { putInstrumentAway } from "@/server/instruments";

type Context = { params: Promise<{ id: string }> };

/** Puts an instrument away, or back onto the shelf: `{away: true}`. */
export const PUT = (request: Request, { params }: Context) =>
  respond(request, "work", async (who) => {
    const body = await readJson(request);
    return body.ok ? putInstrumentAway(who, (await params).id, body.value) : body;
  });

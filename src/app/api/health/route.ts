import { respond } from "@/server/http";
import { listInstruments } from "@/server/instruments";
import { done } from "@/server/outcome";

/** Tells the scripts that this is our server and that its database answers. */
export const GET = (request: Request) =>
  respond(request, async () => done({ name: "mellow-plumb", instruments: (await listInstruments()).length }));

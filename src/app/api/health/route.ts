import { respond } from "@/server/http";
import { listInstruments } from "@/server/instruments";
import { done } from "@/server/outcome";

/** Tells the scripts that this is our server, of which folder it is, and that its database answers. */
export const GET = (request: Request) =>
  respond(request, async () =>
    done({
      name: "mellow-plumb",
      folder: process.env.PLUMB_FOLDER ?? null,
      instruments: (await listInstruments()).length,
    }),
  );

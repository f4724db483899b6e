import { respond } from "@/server/http";
import { withdrawDevice } from "@/server/people";

type Context = { params: Promise<{ id: string }> };

/** Withdraws a device that is signed in. */
export const DELETE = (request: Request, { params }: Context) =>
  respond(request, "own", async (who) => withdrawDevice(who, (await params).id));

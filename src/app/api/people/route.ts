import { readJson, respond } from "@/server/http";
import { invite, peopleOf } from "@/server/people";

export const GET = (request: Request) => respond(request, "own", peopleOf);

/** Lets somebody in. */
export const POST = (request: Request) =>
  respond(request, "own", async (who) => {
    const body = await readJson(request);
    return body.ok ? invite(who, body.value) : body;
  });

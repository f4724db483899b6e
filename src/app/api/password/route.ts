import { readJson, respond } from "@/server/http";
import { changePassword } from "@/server/people";

/** Changes one's own password. */
export const PUT = (request: Request) =>
  respond(request, "look", async (who) => {
    const body = await readJson(request);
    return body.ok ? changePassword(who, body.value) : body;
  });

import { withCookie } from "@/server/cookie";
import { addressOf, answer, readJson } from "@/server/http";
import { join } from "@/server/people";

/** Uses an invitation up. */
export const POST = (request: Request) =>
  answer(
    request,
    async () => {
      const body = await readJson(request);
      return body.ok ? join(body.value, addressOf(request)) : body;
    },
    withCookie,
  );

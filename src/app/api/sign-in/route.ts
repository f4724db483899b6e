import { withCookie } from "@/server/cookie";
import { addressOf, answer, readJson } from "@/server/http";
import { signIn } from "@/server/people";

export const POST = (request: Request) =>
  answer(
    request,
    async () => {
      const body = await readJson(request);
      return body.ok ? signIn(body.value, addressOf(request)) : body;
    },
    withCookie,
  );

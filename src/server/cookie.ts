import "server-only";
import type { SignedIn } from "./people";
import { COOKIE, DEVICE_DAYS } from "./who";

const ATTRIBUTES = "Path=/; Secure; HttpOnly; SameSite=Lax";

/** The answer to who was let in: the token goes into a cookie that no script reads. */
export const withCookie = ({ token, name }: SignedIn): Response =>
  Response.json(
    { name },
    { headers: { "set-cookie": `${COOKIE}=${token}; ${ATTRIBUTES}; Max-Age=${DEVICE_DAYS * 86_400}` } },
  );

/** The answer to who went out; what the browser keeps of this site in its caches goes too. */
export const withoutCookie = (): Response =>
  Response.json(null, {
    headers: { "set-cookie": `${COOKIE}=; ${ATTRIBUTES}; Max-Age=0`, "clear-site-data": '"cache"' },
  });

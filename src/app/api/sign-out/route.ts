import { withoutCookie } from "@/server/cookie";
import { respond } from "@/server/http";
import { signOut } from "@/server/people";

export const POST = (request: Request) => respond(request, "look", signOut, withoutCookie);

import { respond } from "@/server/http";
import { ownCode } from "@/server/people";

/** A code by which another device of who is signed in comes in. */
export const POST = (request: Request) => respond(request, "look", ownCode);

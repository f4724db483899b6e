import { health } from "@/server/health";
import { answer } from "@/server/http";

/** Tells the scripts that this is our server, of which folder it is, and that its database answers. */
export const GET = (request: Request) => answer(request, health);

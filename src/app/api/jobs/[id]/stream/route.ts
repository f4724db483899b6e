import { respond } from "@/server/http";
import { watchJob } from "@/server/watch";

type Context = { params: Promise<{ id: string }> };

/** What happens in a job, as it happens: `?page=` id of the page, `?who=`, `?stage=`. */
export const GET = (request: Request, { params }: Context) =>
  respond(
    request,
    "look",
    async (who) => {
      const query = Object.fromEntries(new URL(request.url).searchParams);
      return watchJob(who, (await params).id, query, request.signal);
    },
    (stream) =>
      new Response(stream, {
        headers: { "content-type": "text/event-stream", "cache-control": "no-store", "x-accel-buffering": "no" },
      }),
  );

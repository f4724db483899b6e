import { respond } from "@/server/http";
import { newsOf } from "@/server/jobs";
import { refuse } from "@/server/outcome";

type Context = { params: Promise<{ id: string }> };

/** What others did: `?since=` last entry number known, `?version=` plan version known. */
export const GET = (request: Request, { params }: Context) =>
  respond(request, "look", async (who) => {
    const query = new URL(request.url).searchParams;
    const [since, version] = ["since", "version"].map((k) => Number(query.get(k) ?? Number.NaN)) as [number, number];
    if (![since, version].every((n) => Number.isSafeInteger(n) && n >= 0 && n < 2 ** 32))
      return refuse(400, "Give since and version as whole numbers.");
    return newsOf(who, (await params).id, since, version);
  });

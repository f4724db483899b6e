import { download, respond } from "@/server/http";
import { tableOf } from "@/server/jobs";

type Context = { params: Promise<{ id: string }> };

/** The order of work or the record of a job as a table. `?of=order|record`. */
export const GET = (request: Request, { params }: Context) =>
  respond(
    request,
    "look",
    async (who) => tableOf(who, (await params).id, new URL(request.url).searchParams.get("of")),
    ({ name, csv }) => download(csv, "text/csv", name),
  );

import { download, respond } from "@/server/http";
import { cutListOf } from "@/server/jobs";

type Context = { params: Promise<{ id: string }> };

export const GET = (request: Request, { params }: Context) =>
  respond(
    request,
    "look",
    async (who) => cutListOf(who, (await params).id),
    ({ name, csv }) => download(csv, "text/csv", `${name}-cut-list.csv`),
  );

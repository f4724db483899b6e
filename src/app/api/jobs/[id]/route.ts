import { respond } from "@/server/http";
import { getJob } from "@/server/jobs";

type Context = { params: Promise<{ id: string }> };

export const GET = (request: Request, { params }: Context) =>
  respond(request, "look", async (who) => getJob(who, (await params).id));

import { downloadBytes, respond } from "@/server/http";
import { bodyFile } from "@/server/layout";

type Context = { params: Promise<{ id: string }> };

/** The frame as bodies. `?as=stl|glb`. */
export const GET = (request: Request, { params }: Context) =>
  respond(
    request,
    "look",
    async (who) => bodyFile(who, (await params).id, new URL(request.url).searchParams.get("as")),
    ({ bytes, type, name }) => downloadBytes(bytes, type, name),
  );

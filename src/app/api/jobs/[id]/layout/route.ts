import { downloadBytes, respond } from "@/server/http";
import { layoutFile } from "@/server/layout";

type Context = { params: Promise<{ id: string }> };

/** The frame at full size. `?as=pdf|dxf|svg`, `paper`, `size`, `layers`, `bar`. */
export const GET = (request: Request, { params }: Context) =>
  respond(
    request,
    "look",
    async (who) => layoutFile(who, (await params).id, Object.fromEntries(new URL(request.url).searchParams)),
    ({ bytes, type, name }) => downloadBytes(bytes, type, name),
  );

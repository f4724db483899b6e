import { downloadBytes, respond } from "@/server/http";
import { sheetFile } from "@/server/layout";

type Context = { params: Promise<{ id: string }> };

/** A sheet of paper about a job as PDF. `?name=certificate|check|order|cut`, `paper=A4|Letter`. */
export const GET = (request: Request, { params }: Context) =>
  respond(
    request,
    "look",
    async (who) => {
      const { origin, searchParams } = new URL(request.url);
      return sheetFile(who, (await params).id, Object.fromEntries(searchParams), origin);
    },
    ({ bytes, type, name }) => downloadBytes(bytes, type, name),
  );

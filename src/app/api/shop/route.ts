import { ARCHIVE_LIMIT_BYTES } from "@/formats/shopArchive";
import { downloadBytes, readBytes, respond } from "@/server/http";
import { importShop, shopFile } from "@/server/shop";

/** The whole shop as one file: no more than who looks may see job by job. */
export const GET = (request: Request) =>
  respond(request, "look", shopFile, ({ name, bytes }) =>
    downloadBytes(bytes, "application/zip", `${name || "shop"}.zip`),
  );

/** Reads the archive of a shop in. `?lessons=1` with what it learned; `?origin=` says who. */
export const POST = (request: Request) =>
  respond(request, "own", async (who) => {
    const query = new URL(request.url).searchParams;
    const body = await readBytes(request, ARCHIVE_LIMIT_BYTES);
    return body.ok
      ? importShop(who, body.value, { lessons: query.get("lessons") === "1", origin: query.get("origin") ?? "" })
      : body;
  });

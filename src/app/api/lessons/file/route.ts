import { LESSONS_FILE_LIMIT_BYTES } from "@/formats/lessonsFile";
import { download, readBody, respond } from "@/server/http";
import { importLessons, lessonsFile } from "@/server/lessons";

export const GET = (request: Request) =>
  respond(request, "look", lessonsFile, (text) => download(text, "application/json", "lessons.json"));

/** Reads a file of lessons in. `?anyway=1` also one of another shop. */
export const POST = (request: Request) =>
  respond(request, "own", async (who) => {
    const body = await readBody(request, LESSONS_FILE_LIMIT_BYTES);
    return body.ok ? importLessons(who, body.value, new URL(request.url).searchParams.get("anyway") === "1") : body;
  });

import { readJson, respond } from "@/server/http";
import { addLesson, shopBook } from "@/server/lessons";
import { done } from "@/server/outcome";

export const GET = (request: Request) => respond(request, "look", async (who) => done(await shopBook(who)));

export const POST = (request: Request) =>
  respond(request, "work", async (who) => {
    const body = await readJson(request);
    return body.ok ? addLesson(who, body.value) : body;
  });

import "server-only";
import { parseJson } from "@/formats/json";
import { isFull, isUnreachable } from "@/store";
import { done, type Outcome, type Refusal, refuse } from "./outcome";
import { allowed, type Caller, COOKIE, callerOf, type Need } from "./who";

/** Largest JSON body that a screen sends, bytes. */
const BODY_LIMIT_BYTES = 2 * 1024 * 1024;

/** Reads a body up to a limit; a larger one is refused without being kept. */
export async function readBytes(request: Request, limitBytes: number): Promise<Outcome<Uint8Array>> {
  const tooLarge = () =>
    refuse(413, `Larger than ${Math.round(limitBytes / 1024 / 1024)} MB: this is not of this program.`);
  if (Number(request.headers.get("content-length") ?? 0) > limitBytes) return tooLarge();
  if (!request.body) return done(new Uint8Array());
  const reader = request.body.getReader();
  const parts: Uint8Array[] = [];
  let size = 0;
  for (;;) {
    const { done: end, value } = await reader.read();
    if (end) break;
    size += value.byteLength;
    if (size > limitBytes) {
      await reader.cancel();
      return tooLarge();
    }
    parts.push(value);
  }
  return done(Buffer.concat(parts));
}

/** The same as text. */
export async function readBody(request: Request, limitBytes = BODY_LIMIT_BYTES): Promise<Outcome<string>> {
  const bytes = await readBytes(request, limitBytes);
  return bytes.ok ? done(Buffer.from(bytes.value).toString("utf8")) : bytes;
}

/** Reads a JSON body. */
export async function readJson(request: Request): Promise<Outcome<unknown>> {
  if (!/^application\/json\b/.test(request.headers.get("content-type") ?? "")) return refuse(415, "Send JSON.");
  const body = await readBody(request);
  if (!body.ok) return body;
  const parsed = parseJson(body.value);
  return parsed.ok ? done(parsed.value) : refuse(400, `The request cannot be read. ${parsed.message}`);
}

/** Whether a page of another site asks: it may change nothing here, and look at nothing. */
function foreign(request: Request): boolean {
  const site = request.headers.get("sec-fetch-site");
  if (site !== null && site !== "same-origin" && site !== "none") return true;
  const origin = request.headers.get("origin");
  if (origin === null) return false;
  try {
    return new URL(origin).host !== request.headers.get("host");
  } catch {
    return true;
  }
}

/** Value of a cookie of a request. */
function cookieOf(request: Request, name: string): string | undefined {
  const parts = (request.headers.get("cookie") ?? "").split(/;\s*/);
  return parts.find((p) => p.startsWith(`${name}=`))?.slice(name.length + 1);
}

/** Where a request comes from: what stands before this server says so. */
export const addressOf = (request: Request): string =>
  request.headers.get("x-forwarded-for")?.split(",").at(-1)?.trim() ?? "unknown";

const refusal = ({ status, message, problems, current }: Refusal): Response =>
  Response.json({ message, problems, ...(current === undefined ? {} : { current }) }, { status });

/**
 * Runs a use case for anybody, also who is not signed in, and turns its outcome into a response. An outage of the database is 503
 * with words; only a bug is 500.
 * @param toResponse how to send the value; JSON when left out.
 */
export async function answer<T>(
  request: Request,
  run: () => Promise<Outcome<T>>,
  toResponse: (value: T) => Response = (value) => Response.json(value),
): Promise<Response> {
  if (foreign(request)) return refusal(refuse(403, "Only this program's own pages may ask here."));
  const away = (message: string) => Response.json({ message, problems: [] }, { status: 503 });
  try {
    const outcome = await run();
    return outcome.ok ? toResponse(outcome.value) : refusal(outcome);
  } catch (e) {
    if (isFull(e))
      return away(
        "The disk of the server is full: nothing is stored until there is space. It is kept here and sent again.",
      );
    if (isUnreachable(e)) return away("The database does not answer just now. Nothing is lost: this is sent again.");
    // biome-ignore lint/suspicious/noConsole: the server's log is where a bug must show
    console.error(e);
    return Response.json(
      { message: "Something broke in the program; it is in the server's log.", problems: [] },
      { status: 500 },
    );
  }
}

/**
 * Runs a use case for who is signed in and may do it.
 * @param need what it is: to look, to work, to let people in and out.
 */
export const respond = <T>(
  request: Request,
  need: Need,
  run: (who: Caller) => Promise<Outcome<T>>,
  toResponse?: (value: T) => Response,
): Promise<Response> =>
  answer(
    request,
    async () => {
      const who = allowed(await callerOf(cookieOf(request, COOKIE)), need);
      return who.ok ? run(who.value) : who;
    },
    toResponse,
  );

/** A file to download. */
export const download = (text: string, type: string, name: string): Response =>
  attached(text, `${type}; charset=utf-8`, name);

/** The same of bytes. */
export const downloadBytes = (bytes: Uint8Array, type: string, name: string): Response =>
  attached(new Uint8Array(bytes), type, name);

const attached = (body: string | Uint8Array<ArrayBuffer>, type: string, name: string): Response =>
  new Response(body, {
    headers: {
      "content-type": type,
      "content-disposition": `attachment; filename="${name.replace(/[^\w.-]+/g, "-").slice(0, 80) || "job"}"; filename*=UTF-8''${encodeURIComponent(name)}`,
      "cache-control": "no-store",
    },
  });

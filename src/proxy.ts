import { type NextRequest, NextResponse } from "next/server";
import { awayPage } from "@/server/awayPage";
import { health } from "@/server/health";

/** Names under which this server may be asked. Another one comes from a page that had its own name point here. */
const LOOPBACK = /^(?:127\.0\.0\.1|localhost|\[::1\])(?::\d+)?$/i;

function isOwnHost(host: string | null): boolean {
  if (host === null) return false;
  const named = process.env.PLUMB_HOSTS;
  return named ? named.toLowerCase().split(",").includes(host.toLowerCase()) : LOOPBACK.test(host);
}

/** What is being developed is put together anew in the page: from texts, and told over a socket. */
const isDeveloped = process.env.NODE_ENV === "development";

/** What a page may load and run: its own, marked with this answer's nonce; nothing inline but the places of drawings. */
const policyOf = (nonce: string): string =>
  [
    "default-src 'none'",
    `script-src 'self' 'nonce-${nonce}' 'wasm-unsafe-eval'${isDeveloped ? " 'unsafe-eval'" : ""}`,
    `style-src 'self' ${isDeveloped ? "'unsafe-inline'" : `'nonce-${nonce}'`}`,
    // Drawings place their parts by style attributes, which run nothing and load nothing that the rest forbids.
    "style-src-attr 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "font-src 'self'",
    `connect-src 'self'${isDeveloped ? " ws:" : ""}`,
    "worker-src 'self' blob:",
    "manifest-src 'self'",
    "form-action 'self'",
    "base-uri 'none'",
    "frame-ancestors 'none'",
  ].join("; ");

/** Pages that are made of nothing that is stored. */
const PLAIN = /^\/(?:shell|icon\.svg|favicon\.ico|manifest\.webmanifest|sw\.js)$/;

/**
 * Before anything else: a foreign name of host is refused (a page whose name was turned to this address reads nothing), and so is an
 * address that is not valid percent-encoding, which the router further in would answer with a 500. A page that cannot be made because the
 * database is away is said to be so, instead of being begun and broken off.
 */
export async function proxy(request: NextRequest): Promise<Response> {
  const refused = (status: number, message: string) => NextResponse.json({ message, problems: [] }, { status });
  if (!isOwnHost(request.headers.get("host"))) return refused(421, "This server does not go by that name.");
  try {
    decodeURIComponent(new URL(request.url).pathname);
  } catch {
    return refused(400, "This address cannot be read.");
  }
  if (request.nextUrl.pathname.startsWith("/api/")) return NextResponse.next();
  const nonce = Buffer.from(crypto.randomUUID()).toString("base64");
  const policy = policyOf(nonce);
  if (!PLAIN.test(request.nextUrl.pathname) && (await health()).database === "away") return awayPage(nonce, policy);
  const headers = new Headers(request.headers);
  headers.set("x-nonce", nonce);
  headers.set("x-path", `${request.nextUrl.pathname}${request.nextUrl.search}`);
  headers.set("content-security-policy", policy);
  const response = NextResponse.next({ request: { headers } });
  response.headers.set("content-security-policy", policy);
  return response;
}

export const config = { matcher: ["/((?!_next/static/).*)"] };

import { type NextRequest, NextResponse } from "next/server";

/** An address that is not valid percent-encoding is refused here: the router further in would answer it with a 500. */
export function proxy(request: NextRequest): NextResponse {
  try {
    decodeURIComponent(new URL(request.url).pathname);
    return NextResponse.next();
  } catch {
    return NextResponse.json({ message: "This address cannot be read.", problems: [] }, { status: 400 });
  }
}

export const config = { matcher: ["/jobs/:path*", "/api/:path*"] };

import { createHash } from "node:crypto";
import { readdirSync, readFileSync } from "node:fs";
import path from "node:path";
import type { NextConfig } from "next";

const securityHeaders = [
  { key: "X-Content-Type-Options", value: "nosniff" },
  { key: "Referrer-Policy", value: "same-origin" },
  { key: "Cross-Origin-Opener-Policy", value: "same-origin" },
  { key: "Cross-Origin-Resource-Policy", value: "same-origin" },
  // A bench keeps its screen awake, and hears a reading that is said; nothing else of the device is asked for.
  {
    key: "Permissions-Policy",
    value: "camera=(), microphone=(self), geolocation=(), payment=(), usb=(), serial=(), screen-wake-lock=(self)",
  },
  { key: "X-Frame-Options", value: "DENY" },
];

/** What the computation is made of: predictions that are kept belong to it. */
function modelHash(): string {
  const core = path.join(import.meta.dirname, "src/core");
  const hash = createHash("sha256");
  for (const file of readdirSync(core, { recursive: true, encoding: "utf8" }).sort())
    if (/\.(ts|json)$/.test(file) && !file.endsWith(".test.ts"))
      hash.update(file).update(readFileSync(path.join(core, file)));
  return hash.digest("hex");
}

const config: NextConfig = {
  env: { PLUMB_MODEL: modelHash() },
  output: "standalone",
  outputFileTracingRoot: import.meta.dirname,
  // Letters of our own go into every PDF.
  outputFileTracingIncludes: {
    "/api/jobs/**": [
      "./node_modules/@expo-google-fonts/atkinson-hyperlegible-next/400Regular/*.ttf",
      "./node_modules/@expo-google-fonts/atkinson-hyperlegible-next/700Bold/*.ttf",
      // The solver of cutting plans lies beside the server's thread.
      "./node_modules/highs/build/*",
      "./node_modules/highs/package.json",
    ],
  },
  turbopack: { root: import.meta.dirname },
  poweredByHeader: false,
  reactStrictMode: true,
  devIndicators: false,
  // Types are checked once, room by room, by script/check and script/test.
  typescript: { ignoreBuildErrors: true },
  // Browsers ask for this one by themselves, also beside a page that is no HTML.
  rewrites: () => Promise.resolve([{ source: "/favicon.ico", destination: "/icon.svg" }]),
  headers: () => Promise.resolve([{ source: "/:path*", headers: securityHeaders }]),
};

export default config;

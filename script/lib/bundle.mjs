// Bundles what runs beside the pages and the server: the service worker with the list of files of this build, and the thread that
// predicts. Run after the build, before its static files are copied.
import { readdirSync, readFileSync, statSync } from "node:fs";
import path from "node:path";
import { fileURLToPath } from "node:url";
import { build } from "esbuild";
import { bundleThread } from "./thread.mjs";

const root = fileURLToPath(new URL("../../", import.meta.url));
const built = path.join(root, ".next/static");
const id = readFileSync(path.join(root, ".next/BUILD_ID"), "utf8").trim();
const files = readdirSync(built, { recursive: true, encoding: "utf8" })
  .filter((f) => statSync(path.join(built, f)).isFile())
  .sort();
const entries = [
  // Their names change with what is in them.
  ...files.map((f) => ({
    url: `/_next/static/${f.split(path.sep).map(encodeURIComponent).join("/")}`,
    revision: null,
  })),
  ...["/shell", "/icon.svg", "/manifest.webmanifest"].map((url) => ({ url, revision: id })),
];
await build({
  entryPoints: [path.join(root, "src/ui/offline/serviceWorker.ts")],
  outfile: path.join(root, ".next/sw.js"),
  bundle: true,
  minify: true,
  format: "iife",
  target: "es2022",
  define: { BUILT: JSON.stringify(entries), "process.env.NODE_ENV": '"production"' },
  logLevel: "warning",
});
await bundleThread(path.join(root, ".next/standalone/prediction-thread.mjs"));

// Bundles the thread that predicts beside the server: thread.mjs OUTFILE.
import path from "node:path";
import { fileURLToPath } from "node:url";
import { build } from "esbuild";

const root = fileURLToPath(new URL("../../", import.meta.url));

/** @param outfile where the thread's program is put. */
export const bundleThread = (outfile) =>
  build({
    entryPoints: [path.join(root, "src/workers/prediction.thread.ts")],
    outfile,
    bundle: true,
    minify: true,
    platform: "node",
    format: "esm",
    target: "node20",
    logLevel: "warning",
  });

if (process.argv[1] === fileURLToPath(import.meta.url)) await bundleThread(process.argv[2]);

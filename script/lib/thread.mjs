// Bundles the thread that predicts beside the server: thread.mjs OUTFILE.
import path from "node:path";
import { fileURLToPath } from "node:url";
import { build } from "esbuild";

const root = fileURLToPath(new URL("../../", import.meta.url));

/** One file that runs by itself. @param entry its program. @param outfile where it is put. */
export const bundleForNode = (entry, outfile) =>
  build({
    entryPoints: [entry],
    outfile,
    bundle: true,
    minify: true,
    platform: "node",
    format: "esm",
    target: "node20",
    logLevel: "warning",
  });

/** @param outfile where the thread's program is put. */
export const bundleThread = (outfile) => bundleForNode(path.join(root, "src/workers/prediction.thread.ts"), outfile);

if (process.argv[1] === fileURLToPath(import.meta.url)) await bundleThread(process.argv[2]);

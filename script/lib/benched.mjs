// Runs a bench of the computation as the product ships it, in one file: benched.mjs NAME. Read from its sources, what reads them would
// count into the memory.
import { spawnSync } from "node:child_process";
import path from "node:path";
import { fileURLToPath } from "node:url";
import { bundleForNode } from "./thread.mjs";

const root = fileURLToPath(new URL("../../", import.meta.url));
const name = process.argv[2];
const outfile = path.join(root, "node_modules/.cache/bench", `${name}.mjs`);
await bundleForNode(path.join(root, "tests/bench", `${name}.ts`), outfile);
process.exit(spawnSync(process.execPath, ["--expose-gc", outfile], { stdio: "inherit" }).status ?? 1);

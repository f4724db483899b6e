// Assembles the kernels of the mechanics from their text: script/lib/kernel.ts writes the bytes that are shipped.
import { readFileSync, writeFileSync } from "node:fs";
import wabt from "wabt";

const FOLDER = new URL("../../src/core/mechanics/kernel/", import.meta.url);
export const KERNELS = ["flexibility", "held", "quasiDefinite", "sized"] as const;
type Kernel = (typeof KERNELS)[number];

/** The bytes of a kernel's text, in hexadecimal. */
export async function assembledHex(kernel: Kernel): Promise<string> {
  const { parseWat } = await wabt();
  const module = parseWat(`${kernel}.wat`, readFileSync(new URL(`${kernel}.wat`, FOLDER), "utf8"), { simd: true });
  const { buffer } = module.toBinary({});
  module.destroy();
  return Buffer.from(buffer).toString("hex");
}

if (process.argv[1] && import.meta.url.endsWith(process.argv[1].split("/").pop() ?? ""))
  for (const kernel of KERNELS) {
    const name = `${kernel.replace(/[A-Z]/g, (c) => `_${c}`).toUpperCase()}_HEX`;
    const text = `/** Assembled from ${kernel}.wat by script/lib/kernel.ts; a test holds one against the other. */\nexport const ${name} =\n  "${await assembledHex(kernel)}";\n`;
    writeFileSync(new URL(`${kernel}Bytes.ts`, FOLDER), text);
  }

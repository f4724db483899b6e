// Assembles the kernel of the low-rank update from its text: script/lib/kernel.ts writes the bytes that are shipped.
import { readFileSync, writeFileSync } from "node:fs";
import wabt from "wabt";

const FOLDER = new URL("../../src/core/mechanics/kernel/", import.meta.url);

/** The bytes of the kernel's text, in hexadecimal. */
export async function assembledHex(): Promise<string> {
  const { parseWat } = await wabt();
  const module = parseWat("lowerSix.wat", readFileSync(new URL("lowerSix.wat", FOLDER), "utf8"), { simd: true });
  const { buffer } = module.toBinary({});
  module.destroy();
  return Buffer.from(buffer).toString("hex");
}

if (process.argv[1] && import.meta.url.endsWith(process.argv[1].split("/").pop() ?? "")) {
  const hex = await assembledHex();
  const text = `/** Assembled from lowerSix.wat by script/lib/kernel.ts; a test holds one against the other. */\nexport const LOWER_SIX_HEX =\n  "${hex}";\n`;
  writeFileSync(new URL("lowerSixBytes.ts", FOLDER), text);
}

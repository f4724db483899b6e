// Says whose a loopback port is: free, ours, elsewhere (ours, of another folder), taken or forbidden.
import { createHash } from "node:crypto";
import { createServer } from "node:net";
import { fileURLToPath } from "node:url";

/** A folder by a short word that says nothing of where it lies. */
export const folderWord = (folder) => createHash("sha256").update(folder).digest("hex").slice(0, 16);
const own = folderWord(fileURLToPath(new URL("../../", import.meta.url)));
if (process.argv[2] === "folder") {
  console.log(own);
  process.exit();
}

const port = Number(process.argv[2]);
const probe = await new Promise((resolve) => {
  const server = createServer();
  server.once("error", (e) => resolve(e.code));
  server.listen(port, "127.0.0.1", () => server.close(() => resolve("free")));
});
const whose = async () => {
  try {
    const answer = await fetch(`http://127.0.0.1:${port}/api/health`, { signal: AbortSignal.timeout(3000) });
    const { name, folder } = await answer.json();
    return name !== "mellow-plumb" ? "taken" : folder === own ? "ours" : "elsewhere";
  } catch {
    return "taken";
  }
};
console.log(probe === "free" ? "free" : probe === "EACCES" ? "forbidden" : await whose());

// Says whose a loopback port is: free, ours, elsewhere (ours, of another folder), taken or forbidden.
import { createHash } from "node:crypto";
import { createServer } from "node:net";
import { fileURLToPath } from "node:url";

/** A folder by a short word that says nothing of where it lies. */
export const folderWord = (folder) => createHash("sha256").update(folder).digest("hex").slice(0, 16);
const own = folderWord(fileURLToPath(new URL("../../", import.meta.url)));

const probeOf = (port) =>
  new Promise((resolve) => {
    const server = createServer();
    server.once("error", (e) => resolve(e.code));
    server.listen(port, "127.0.0.1", () => server.close(() => resolve("free")));
  });
const whose = async (port) => {
  try {
    const answer = await fetch(`http://127.0.0.1:${port}/api/health`, { signal: AbortSignal.timeout(3000) });
    // Also while its database is away, it says whose it is.
    const { name, folder } = await answer.json();
    return name !== "mellow-plumb" ? "taken" : folder === own ? "ours" : "elsewhere";
  } catch {
    return "taken";
  }
};

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  const port = Number(process.argv[2]);
  const probe = await probeOf(port);
  console.log(probe === "free" ? "free" : probe === "EACCES" ? "forbidden" : await whose(port));
}

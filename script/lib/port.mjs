// Says whose a loopback port is: free, ours, taken or forbidden.
import { createServer } from "node:net";

const port = Number(process.argv[2]);
const probe = await new Promise((resolve) => {
  const server = createServer();
  server.once("error", (e) => resolve(e.code));
  server.listen(port, "127.0.0.1", () => server.close(() => resolve("free")));
});
const ours = async () => {
  try {
    const answer = await fetch(`http://127.0.0.1:${port}/api/health`, { signal: AbortSignal.timeout(3000) });
    return (await answer.json()).name === "mellow-plumb";
  } catch {
    return false;
  }
};
console.log(probe === "free" ? "free" : probe === "EACCES" ? "forbidden" : (await ours()) ? "ours" : "taken");

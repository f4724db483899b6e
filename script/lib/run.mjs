// Runs the application until it is told to end: run.mjs demo | serve. What is needed has been installed, built and prepared before.
import { mkdirSync } from "node:fs";
import path from "node:path";
import { setTimeout as sleep } from "node:timers/promises";
import { fileURLToPath } from "node:url";
import { front } from "./front.mjs";
import { keep } from "./keep.mjs";
import { freePort, Plain } from "./mariadb.mjs";
import { folderWord } from "./port.mjs";
import { certificates, givenCertificate, ownNames } from "./tls.mjs";

const root = fileURLToPath(new URL("../../", import.meta.url));
const folder = process.env.PLUMB_DATA ?? path.join(root, ".data/db");
const kept = path.dirname(folder);
const say = (words) => console.log(`· ${words}`);
const START_MS = 60_000;

/** Waits until the application answers with its database. */
async function ready(port) {
  for (const until = Date.now() + START_MS; Date.now() < until; await sleep(200)) {
    const ok = await fetch(`http://127.0.0.1:${port}/api/health`).then(
      (r) => r.ok,
      () => false,
    );
    if (ok) return;
  }
  throw new Plain(
    `The application does not answer; its log is ${path.relative(process.cwd(), path.join(kept, "app.log"))}`,
  );
}

async function run(mode) {
  mkdirSync(kept, { recursive: true });
  const outside = Number(process.env.PORT ?? (mode === "serve" ? 4443 : 4270));
  const inside = mode === "serve" ? await freePort() : outside;
  const names = ownNames((process.env.PLUMB_NAMES ?? "").split(","));
  const hosts = names.map((n) => (outside === 443 ? n : `${n}:${outside}`));
  const env = {
    DATABASE_URL: process.env.DATABASE_URL,
    PLUMB_FOLDER: folderWord(root),
    PLUMB_DISK: path.resolve(folder),
    ...(mode === "serve" ? { PLUMB_SIGN_IN: "1", PLUMB_HOSTS: [...hosts, `127.0.0.1:${inside}`].join(",") } : {}),
  };
  const running = await keep({
    folder,
    port: inside,
    env,
    byHand: process.env.PLUMB_DATABASE === "hand",
    log: path.join(kept, "app.log"),
    cwd: path.join(root, ".next/standalone"),
    say,
  });
  let server = null;
  let ending = null;
  const end = () => {
    ending ??= (async () => {
      server?.close();
      server?.closeAllConnections();
      await running.end();
      say(`Stopped. Your jobs are kept in ${path.relative(process.cwd(), kept) || "."}/`);
    })();
    return ending;
  };
  for (const signal of ["SIGINT", "SIGTERM"]) process.once(signal, () => void end().then(() => process.exit(0)));
  try {
    await ready(inside);
    if (mode === "serve") {
      const { PLUMB_CERT, PLUMB_KEY, PLUMB_LISTEN } = process.env;
      const tls =
        PLUMB_CERT && PLUMB_KEY ? givenCertificate(PLUMB_CERT, PLUMB_KEY) : certificates(path.join(kept, "tls"), names);
      server = front({ tls, target: `http://127.0.0.1:${inside}`, hosts });
      await new Promise((resolve, reject) => {
        server.once("error", (e) =>
          reject(new Plain(`Port ${outside} cannot be used (${e.code}). Choose another: PORT=4444 script/serve`)),
        );
        server.listen(outside, PLUMB_LISTEN ?? "0.0.0.0", resolve);
      });
      say(`Mellow Plumb is ready for the shop: ${hosts.map((h) => `https://${h}`).join("  ")}   (Ctrl-C stops it)`);
      if (tls.authority)
        say(`Phones trust it once they have ${`https://${hosts.at(-1)}/authority.crt`}: docs/serve.md says how`);
      if (process.env.PLUMB_INVITATION)
        say(`First owner, open within three days: https://${hosts.at(-1)}/join#code=${process.env.PLUMB_INVITATION}`);
    } else say(`Mellow Plumb is ready: http://127.0.0.1:${outside}   (Ctrl-C stops it)`);
  } catch (e) {
    await end();
    throw e;
  }
}

await run(process.argv[2]).catch((e) => {
  console.error(e instanceof Plain ? `✗ ${e.message}` : e);
  process.exit(1);
});

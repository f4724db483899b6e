import { type ChildProcess, execFileSync, spawn } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { freePort, layout, runningPid } from "../../script/lib/mariadb.mjs";

const root = path.join(import.meta.dirname, "../..");
const ts = ["--conditions=react-server", "--import", "tsx"];

/** The application as a shop's network reaches it, on loopback. */
export interface Served {
  address: string;
  /** Invitation of the first owner. */
  code: string;
  authority: string;
  end: () => Promise<void>;
}

/** Starts what script/serve starts, once everything is built, with a database of its own. */
export async function startServe(): Promise<Served> {
  const folder = mkdtempSync(path.join(tmpdir(), "plumb-serve-"));
  const port = await freePort();
  const base = { ...process.env, PLUMB_DATA: path.join(folder, "db"), PORT: String(port), PLUMB_LISTEN: "127.0.0.1" };
  const run = (args: string[], env: NodeJS.ProcessEnv): string =>
    execFileSync(process.execPath, [...ts, ...args], { cwd: root, env, encoding: "utf8" }).trim();
  const DATABASE_URL = run(["script/lib/prepare.ts", "--demo"], base);
  const code = run(["script/lib/owners.ts", "--first"], { ...base, DATABASE_URL });
  const child: ChildProcess = spawn(process.execPath, ["script/lib/run.mjs", "serve"], {
    cwd: root,
    env: { ...base, DATABASE_URL, PLUMB_INVITATION: code },
    stdio: ["ignore", "pipe", "inherit"],
  });
  await new Promise<void>((resolve, reject) => {
    let said = "";
    child.stdout?.on("data", (d) => {
      said += d;
      if (said.includes("is ready for the shop")) resolve();
    });
    child.once("exit", () => reject(new Error(`It ended while starting: ${said}`)));
  });
  return {
    address: `https://127.0.0.1:${port}`,
    code,
    authority: path.join(folder, "tls/authority.crt"),
    end: async () => {
      const gone = new Promise((resolve) => child.once("exit", resolve));
      child.kill("SIGTERM");
      await gone;
      if (runningPid(layout(base.PLUMB_DATA)) !== null) throw new Error("It left its database running.");
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

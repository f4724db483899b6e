import { type ChildProcess, execFileSync, spawn } from "node:child_process";
import { mkdtempSync, openSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { setTimeout as sleep } from "node:timers/promises";
import { appEnv } from "../../script/lib/appEnv.mjs";
import { freePort, reset } from "../../script/lib/mariadb.mjs";

/** Makes a database ready in a process of its own, as script/demo does. @returns its address. */
function prepare(folder: string, flags: string[]): string {
  const root = path.join(import.meta.dirname, "../..");
  const args = ["--conditions=react-server", "--import", "tsx", "script/lib/prepare.ts", "--demo", ...flags];
  return execFileSync(process.execPath, args, {
    cwd: root,
    env: { ...process.env, PLUMB_DATA: folder },
    encoding: "utf8",
  }).trim();
}

const standalone = path.join(import.meta.dirname, "../../.next/standalone");

/** A running production build with a database of its own. */
export interface App {
  address: string;
  folder: string;
  databaseUrl: string;
  log: string;
  /** Ends the server at once, as a power cut would. */
  kill: () => Promise<void>;
  /** Starts the server again on the same port. */
  start: () => Promise<void>;
  /** Ends everything and throws the data away. */
  end: () => Promise<void>;
}

/** Starts the built application on free loopback ports. @param flags more flags for its database. @param folder where its data is. */
export async function startApp(
  flags: string[] = [],
  folder = mkdtempSync(path.join(tmpdir(), "plumb-app-")),
): Promise<App> {
  const databaseUrl = prepare(path.join(folder, "db"), flags);
  const port = await freePort();
  const address = `http://127.0.0.1:${port}`;
  const log = path.join(folder, "app.log");
  let server: ChildProcess | null = null;

  const start = async () => {
    const out = openSync(log, "a");
    server = spawn(process.execPath, ["server.js"], {
      cwd: standalone,
      env: {
        ...appEnv(port),
        DATABASE_URL: databaseUrl,
        PLUMB_DISK: path.join(folder, "db"),
      },
      stdio: ["ignore", out, out],
    });
    for (let i = 0; i < 1200; i++) {
      const ready = await fetch(`${address}/api/health`).then(
        (r) => r.ok,
        () => false,
      );
      if (ready) return;
      if (server.exitCode !== null) throw new Error(`The application stopped while starting; its log is ${log}`);
      await sleep(100);
    }
    throw new Error("The application did not answer within two minutes.");
  };
  const kill = async () => {
    const running = server;
    server = null;
    if (!running || running.exitCode !== null) return;
    const gone = new Promise((resolve) => running.once("exit", resolve));
    running.kill("SIGKILL");
    await gone;
  };
  await start();
  return {
    address,
    folder,
    databaseUrl,
    log,
    kill,
    start,
    end: async () => {
      await kill();
      await reset(path.join(folder, "db"));
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

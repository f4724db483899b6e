import { spawn, spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { setTimeout as sleep } from "node:timers/promises";
import { describe, expect, it } from "vitest";
import { freePort, layout, reset, runningPid } from "../../script/lib/mariadb.mjs";

const root = path.join(import.meta.dirname, "../..");

describe("the program that is started", () => {
  it("starts what ends by itself again; of two on one folder the last to stop takes the database with it", {
    timeout: 300_000,
  }, async () => {
    const folder = mkdtempSync(path.join(tmpdir(), "plumb-keep-"));
    const data = path.join(folder, "db");
    const base = { ...process.env, PLUMB_DATA: data };
    const prepared = spawnSync(
      process.execPath,
      ["--conditions=react-server", "--import", "tsx", "script/lib/prepare.ts"],
      { cwd: root, env: base, encoding: "utf8" },
    );
    const run = async (more: Record<string, string> = {}) => {
      const port = await freePort();
      const child = spawn(process.execPath, ["script/lib/run.mjs", "demo"], {
        cwd: root,
        env: { ...base, ...more, PORT: String(port), DATABASE_URL: prepared.stdout.trim() },
        stdio: ["ignore", "pipe", "inherit"],
      });
      let said = "";
      child.stdout.on("data", (d) => {
        said += d;
      });
      const health = () =>
        fetch(`http://127.0.0.1:${port}/api/health`).then(
          async (r) => ({ status: r.status, ...((await r.json()) as { name: string; database: string }) }),
          () => null,
        );
      const answers = async () => {
        for (let i = 0; i < 600; i++) {
          if ((await health())?.status === 200) return;
          await sleep(100);
        }
        throw new Error(`no answer: ${said}`);
      };
      await answers();
      const children = () => {
        const list = spawnSync("ps", ["-o", "pid=", "--ppid", String(child.pid)], { encoding: "utf8" });
        return list.stdout.split(/\s+/).map(Number).filter(Boolean);
      };
      return { child, health, answers, children, said: () => said };
    };
    try {
      const first = await run();
      const database = runningPid(layout(data));
      // The application is killed, then its database.
      for (const pid of first.children()) if (pid !== database) process.kill(pid, "SIGKILL");
      await sleep(300);
      await first.answers();
      expect(first.said()).toMatch(/ended by itself/);
      if (!database) throw new Error("The database does not run.");
      process.kill(database, "SIGKILL");
      await sleep(200);
      // Meanwhile it says whose it is, and that the database is away.
      expect(await first.health()).toMatchObject({ status: 503, name: "mellow-plumb", database: "away" });
      await first.answers();
      // It answers as soon as the database does; that it runs again is said a moment later.
      for (let i = 0; i < 300 && !/The database runs again/.test(first.said()); i++) await sleep(100);
      expect(first.said()).toMatch(/The database runs again/);

      const second = await run();
      const stopped = new Promise((resolve) => first.child.once("exit", resolve));
      first.child.kill("SIGTERM");
      await stopped;
      expect(await second.health()).toMatchObject({ status: 200 });
      const byHand = spawnSync(process.execPath, ["script/lib/db.mjs", "stop"], {
        cwd: root,
        env: base,
        encoding: "utf8",
      });
      expect(byHand.status).toBe(1);
      expect(byHand.stderr).toMatch(/stop that first/);
      const ended = new Promise((resolve) => second.child.once("exit", resolve));
      second.child.kill("SIGTERM");
      await ended;
      expect(runningPid(layout(data))).toBeNull();
      expect(readFileSync(path.join(folder, "app.log"), "utf8")).toMatch(/Ready/);
      // What somebody started by hand is left running.
      spawnSync(process.execPath, ["script/lib/db.mjs", "start"], { cwd: root, env: base });
      const third = await run({ PLUMB_DATABASE: "hand" });
      const over = new Promise((resolve) => third.child.once("exit", resolve));
      third.child.kill("SIGTERM");
      await over;
      expect(runningPid(layout(data))).not.toBeNull();
    } finally {
      await reset(data);
      rmSync(folder, { recursive: true, force: true });
    }
  });
  it("says in words where it cannot write", () => {
    const folder = mkdtempSync(path.join(tmpdir(), "plumb-words-"));
    const file = path.join(folder, "a-file");
    spawnSync("touch", [file]);
    const made = spawnSync(process.execPath, ["script/lib/db.mjs", "url"], {
      cwd: root,
      env: { ...process.env, PLUMB_DATA: path.join(file, "db") },
      encoding: "utf8",
    });
    rmSync(folder, { recursive: true, force: true });
    expect(made.status).toBe(1);
    expect(made.stderr).toMatch(/^✗ .*cannot be written to/);
    expect(made.stderr).not.toMatch(/\bat .*mariadb\.mjs/);
  });
});

import { execFileSync } from "node:child_process";
import { closeSync, mkdirSync, mkdtempSync, openSync, readFileSync, rmSync, statfsSync, writeSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { setTimeout as sleep } from "node:timers/promises";
import { v4 as uuid } from "uuid";
import { afterAll, describe, expect, it } from "vitest";
import { type Job, spanId } from "@/core/job";
import { length } from "@/core/units";
import { layout, start, stop } from "../../script/lib/mariadb.mjs";
import { startApp } from "../support/app";

/** A disk of its own for the database, large enough to start on. */
const DISK_MB = 600;
/** What a person waits for an answer at most, ms. */
const PATIENCE_MS = 15_000;

/** Whether this machine lets a test have a disk of its own. */
function mounted(at: string): boolean {
  mkdirSync(at, { recursive: true });
  try {
    execFileSync("mount", ["-t", "tmpfs", "-o", `size=${DISK_MB}m`, "tmpfs", at], { stdio: "ignore" });
    return true;
  } catch {
    return false;
  }
}

/** Takes all space that is left. */
function fill(file: string): void {
  const { blocks, bsize } = statfsSync(path.dirname(file));
  if (blocks * bsize > 2 * DISK_MB * 2 ** 20) throw new Error("This is no disk of the test's own.");
  const to = openSync(file, "w");
  try {
    for (const size of [1 << 20, 4096]) {
      const block = Buffer.alloc(size, 1);
      try {
        for (;;) writeSync(to, block);
      } catch (e) {
        if (!(e instanceof Error && "code" in e && e.code === "ENOSPC")) throw e;
      }
    }
  } finally {
    closeSync(to);
  }
}

const folder = mkdtempSync(path.join(tmpdir(), "plumb-full-"));
const disk = path.join(folder, "db");
const hasDisk = mounted(disk);

afterAll(() => {
  try {
    if (hasDisk) execFileSync("umount", ["-l", disk], { stdio: "ignore" });
  } catch {
    // It went with the folder.
  }
  rmSync(folder, { recursive: true, force: true });
});

describe("a full disk", () => {
  it.skipIf(!hasDisk)(
    "is said in words, pages go on being read, and nothing that was acknowledged is lost",
    {
      timeout: 300_000,
    },
    async () => {
      const app = await startApp([], folder);
      const filler = path.join(disk, "filler");
      const ask = (url: string, init?: RequestInit) =>
        fetch(`${app.address}${url}`, { ...init, signal: AbortSignal.timeout(PATIENCE_MS) });
      const post = (url: string, body: unknown) =>
        ask(url, { method: "POST", headers: { "content-type": "application/json" }, body: JSON.stringify(body) });
      try {
        const { id } = (await (await post("/api/jobs", { name: "Full", units: "mm", origin: "test" })).json()) as {
          id: string;
        };
        const roundId = uuid();
        const entry = (rest: object) => ({ id: uuid(), at: new Date().toISOString(), origin: "test", ...rest });
        await post(`/api/jobs/${id}/entries`, {
          since: 0,
          entries: [{ ...entry({ kind: "round", gate: "dry fit", method: "heights" }), id: roundId }],
        });
        const acknowledged = new Set<string>();
        const add = async () => {
          const entries = Array.from({ length: 200 }, () =>
            entry({
              ...{ kind: "reading", roundId, instrumentId: "rule", what: spanId("AB"), value: length("1000") },
            }),
          );
          const answer = await post(`/api/jobs/${id}/entries`, { since: 1e6, entries });
          if (answer.status === 200) for (const e of entries) acknowledged.add(e.id);
          return answer;
        };
        expect((await add()).status).toBe(200);
        fill(filler);
        // Space is asked for a few times a second.
        await sleep(500);
        for (let i = 0; i < 20; i++) {
          const answer = await add();
          expect(answer.status).toBe(503);
          expect(((await answer.json()) as { message: string }).message).toMatch(/disk of the server is full/);
        }
        for (const stage of ["", "/square", "/check", "/log"]) {
          const page = await ask(`/jobs/${id}${stage}`);
          expect(page.status, stage).toBe(200);
        }
        expect((await add()).status).toBe(503);
        // The database ends all the same: it does not start on a full disk, and finds its port again where there is space.
        const at = layout(disk);
        const port = readFileSync(at.portFile, "utf8");
        await stop(disk, "SIGKILL");
        await expect(start(disk)).rejects.toThrow(/^The disk is (nearly )?full/);
        expect(readFileSync(at.portFile, "utf8")).toBe(port);
        rmSync(filler);
        expect(String((await start(disk)).port)).toBe(port);
        for (let i = 0; i < 40; i++) {
          if ((await add()).status === 200) break;
          await sleep(500);
        }
        expect((await add()).status).toBe(200);
        const { job } = (await (await ask(`/api/jobs/${id}`)).json()) as { job: Job };
        const stored = new Set(job.entries.flatMap((e) => (e.kind === "reading" ? [e.id] : [])));
        expect(acknowledged.size).toBeGreaterThanOrEqual(400);
        for (const one of acknowledged) expect(stored.has(one), one).toBe(true);
      } finally {
        rmSync(filler, { force: true });
        await app.end().catch(() => undefined);
        execFileSync("umount", ["-l", disk], { stdio: "pipe" });
        rmSync(folder, { recursive: true, force: true });
      }
    },
  );
});

import path from "node:path";
import { setTimeout as sleep } from "node:timers/promises";
import { v4 as uuid } from "uuid";
import { describe, expect, it } from "vitest";
import { type Job, spanId } from "@/core/job";
import { length } from "@/core/units";
import { start as startDatabase, stop as stopDatabase } from "../../script/lib/mariadb.mjs";
import { startApp } from "../support/app";

const WRITERS = 4;
/** Kills; a long run asks for more by KILLS=1000. */
const ROUNDS = Number(process.env.KILLS ?? 30);
/** A kill and what comes after it take no longer, ms. */
const ROUND_MS = 30_000;

describe("a power cut in the middle of saving", () => {
  it("loses no reading that was acknowledged, whether the application or the database is killed", {
    timeout: ROUND_MS * Math.max(30, ROUNDS),
  }, async () => {
    // Default flush settings: what is acknowledged is on the disk.
    const app = await startApp();
    let writing = true;
    const post = (url: string, body: unknown) =>
      fetch(`${app.address}${url}`, {
        method: "POST",
        headers: { "content-type": "application/json" },
        body: JSON.stringify(body),
      });
    try {
      const { id } = (await (await post("/api/jobs", { name: "Crash", units: "mm", origin: "test" })).json()) as {
        id: string;
      };
      const roundId = uuid();
      const entry = (rest: object) => ({ id: uuid(), at: new Date().toISOString(), origin: "test", ...rest });
      await post(`/api/jobs/${id}/entries`, {
        since: 0,
        entries: [{ ...entry({ kind: "round", gate: "dry fit", method: "heights" }), id: roundId }],
      });
      const acknowledged = new Map<string, number>();
      let failed: unknown = null;
      const write = async (writer: number) => {
        for (let n = 0; writing; n++) {
          const mm = 1000 + writer + (n % 1000) / 1000;
          const reading = entry({
            kind: "reading",
            roundId,
            instrumentId: "rule",
            what: spanId("AB"),
            value: length(String(mm)),
          });
          try {
            const answer = await post(`/api/jobs/${id}/entries`, { since: 1e6, entries: [reading] });
            if (answer.status === 200) acknowledged.set(reading.id, mm);
            else if (answer.status !== 503) throw new Error(`unexpected ${answer.status}`);
            if (answer.status === 503) await sleep(50);
          } catch (e) {
            if (e instanceof Error && e.message.startsWith("unexpected")) throw e;
            await sleep(50);
          }
        }
      };
      /** Waits until some more readings were acknowledged, so that every blow falls in the middle of saving. */
      const more = async () => {
        const enough = acknowledged.size + 12;
        while (acknowledged.size < enough) {
          if (failed) throw failed;
          await sleep(20);
        }
      };
      const writers = Array.from({ length: WRITERS }, (_, i) =>
        write(i).catch((e: unknown) => {
          failed = e;
        }),
      );
      for (let round = 0; round < ROUNDS; round++) {
        await more();
        if (round % 2 === 0) {
          await app.kill();
          await app.start();
        } else {
          await stopDatabase(path.join(app.folder, "db"), "SIGKILL");
          await sleep(300);
          await startDatabase(path.join(app.folder, "db"));
        }
      }
      // Both at once, and then no more writing.
      await more();
      writing = false;
      await Promise.all([app.kill(), stopDatabase(path.join(app.folder, "db"), "SIGKILL")]);
      await Promise.all(writers);
      await startDatabase(path.join(app.folder, "db"));
      await app.start();
      const { job } = (await (await fetch(`${app.address}/api/jobs/${id}`)).json()) as { job: Job };
      const stored = new Map(
        job.entries.flatMap((e) =>
          e.kind === "reading" && e.value && "mm" in e.value ? [[e.id, e.value.mm] as const] : [],
        ),
      );
      expect(acknowledged.size).toBeGreaterThanOrEqual(12 * (ROUNDS + 1));
      for (const [entryId, mm] of acknowledged) expect(stored.get(entryId), `reading ${entryId}`).toBe(mm);
      expect(stored.size).toBe(job.entries.length - 1);
      console.log(
        `${acknowledged.size} acknowledged, all there; ${stored.size - acknowledged.size} stored that were cut off before they could be acknowledged`,
      );
    } finally {
      writing = false;
      await app.end();
    }
  });
});

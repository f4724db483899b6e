// What a reading costs, as ratios in one run: node --import tsx tests/bench/readings.ts
import { performance } from "node:perf_hooks";
import { v4 as uuid } from "uuid";
import { spanId } from "../../src/core/job";
import { length } from "../../src/core/units";
import { startApp } from "../support/app";

const ROUNDS = 150;
const median = (list: number[]): number => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)] ?? Number.NaN;
const at = () => new Date().toISOString();

const app = await startApp();
const post = async (path: string, body: unknown, method = "POST") => {
  const answer = await fetch(`${app.address}${path}`, {
    method,
    headers: { "content-type": "application/json" },
    body: JSON.stringify(body),
  });
  if (answer.status !== 200) throw new Error(`${path}: ${answer.status} ${await answer.text()}`);
  return answer.json();
};
const timed = async (work: () => Promise<unknown>): Promise<number> => {
  const from = performance.now();
  await work();
  return performance.now() - from;
};

/** A job with so many readings. */
async function jobWith(count: number): Promise<{ id: string; roundId: string; seq: number }> {
  const { id } = (await post("/api/jobs", { name: `${count} readings`, units: "mm", origin: "bench" })) as {
    id: string;
  };
  const roundId = uuid();
  await post(`/api/jobs/${id}/entries`, {
    since: 0,
    entries: [{ kind: "round", id: roundId, at: at(), origin: "bench", gate: "dry fit", method: "heights" }],
  });
  for (let done = 0; done < count; done += 200)
    await post(`/api/jobs/${id}/entries`, {
      since: 2 ** 31,
      entries: Array.from({ length: Math.min(200, count - done) }, (_, i) => reading(roundId, 1000 + (i % 7) / 10)),
    });
  return { id, roundId, seq: count + 1 };
}
function reading(roundId: string, mm: number) {
  const value = length(String(mm));
  return {
    kind: "reading",
    id: uuid(),
    at: at(),
    origin: "bench",
    roundId,
    instrumentId: "rule",
    what: spanId("AB"),
    value,
  };
}
const bead = () => ({
  ...{ id: uuid(), at: at(), origin: "bench", process: "MAG", volts: 18, amps: 120, travelMmPerS: 5, wallMm: 3 },
  ...{ material: "mild steel", seam: "fillet", position: "flat", result: "keep", note: "" },
});

try {
  const jobs = [await jobWith(10), await jobWith(5000)];
  const costs: number[][] = [[], [], []];
  for (let i = 0; i < ROUNDS; i++) {
    // One insert, with nothing to look up: what any route of this server costs.
    costs[0]?.push(await timed(() => post("/api/test-beads", bead())));
    for (const [j, job] of jobs.entries()) {
      const body = { since: job.seq++, entries: [reading(job.roundId, 1000.5)] };
      costs[j + 1]?.push(await timed(() => post(`/api/jobs/${job.id}/entries`, body)));
    }
  }
  const [bare = 0, small = 0, large = 0] = costs.map(median);
  console.log(
    `one insert ${bare.toFixed(2)} ms; a reading at 10: ${(small / bare).toFixed(2)} times, at 5000: ${(large / bare).toFixed(2)} times`,
  );
  const pages: number[][] = [[], []];
  for (let i = 0; i < 12; i++)
    for (const [j, job] of jobs.entries())
      pages[j]?.push(await timed(() => fetch(`${app.address}/jobs/${job.id}/square`).then((r) => r.text())));
  const [few = 0, many = 0] = pages.map((p) => median(p.slice(2)));
  console.log(`page at 10 readings ${few.toFixed(0)} ms, at 5000: ${(many / few).toFixed(2)} times`);
} finally {
  await app.end();
}

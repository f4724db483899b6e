import { randomUUID } from "node:crypto";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { afterAll, describe, expect, it } from "vitest";
import type { Instrument } from "@/core/instruments";
import type { Job } from "@/core/job";
import { writeJobFile } from "@/formats/jobFile";
import { type ShopArchive, writeArchive } from "@/formats/shopArchive";
import { getJob, listJobs } from "@/server/jobs";
import { importShop, shopFile } from "@/server/shop";
import { LOCAL } from "@/server/who";
import { closePool } from "@/store";
import { demoJobs } from "../../script/lib/demo-jobs";

afterAll(closePool);

const WISH = { lessons: true, origin: "bench" };
const valueIn = <T>(o: { ok: true; value: T } | { ok: false; message: string }): T => {
  if (!o.ok) throw new Error(o.message);
  return o.value;
};

/** The demo's jobs as those of a shop that this database has never seen: ids of its own, an instrument of its own. */
function anotherShop(): ShopArchive {
  const tape: Instrument = {
    id: randomUUID(),
    name: "Tape of the old shop",
    kind: "tape",
    resolutionMm: 1,
    handlingMm: 0.3,
    zeroMm: 0.2,
    scaleMmPerM: 0.1,
  };
  const jobs = demoJobs().map(({ job }, i) => {
    const ids = new Map(job.entries.map((e) => [e.id, randomUUID()]));
    const fresh = (id: string): string => ids.get(id) ?? id;
    const entries = job.entries.map((e) =>
      e.kind === "reading"
        ? { ...e, id: fresh(e.id), roundId: fresh(e.roundId), instrumentId: tape.id }
        : { ...e, id: fresh(e.id) },
    ) as Job["entries"];
    const used = entries.some((e) => e.kind === "reading");
    return { job: { ...job, id: randomUUID(), entries, instruments: used ? [tape] : [] }, away: i === 2 };
  });
  return { shop: { id: randomUUID(), name: "The old shop" }, jobs, instruments: [tape], lessons: [], testBeads: [] };
}

describe("a whole shop as one file", () => {
  it("is read in whole, and comes out with every job file the same to the byte", async () => {
    const old = anotherShop();
    const taken = valueIn(await importShop(LOCAL, writeArchive(old), WISH));
    expect(taken).toEqual({ jobs: 4, here: [], instruments: 1, lessons: 0, testBeads: 0, unread: [] });
    // Other tests keep jobs in this database, too: these are found among them.
    const files = unzipSync(valueIn(await shopFile(LOCAL)).bytes);
    const text = (name: string): string => strFromU8(files[name] ?? new Uint8Array());
    const { jobs } = JSON.parse(text("shop.json")) as { jobs: { id: string; away: boolean }[] };
    for (const { job, away } of old.jobs) {
      expect(jobs).toContainEqual({ id: job.id, away });
      expect(text(`jobs/${job.id}.json`)).toBe(writeJobFile(job));
    }
    expect(JSON.parse(text("instruments.json"))).toContainEqual(old.instruments[0]);
    const listed = await listJobs(LOCAL, { away: true });
    expect(listed.jobs.some((j) => j.id === old.jobs[2]?.job.id)).toBe(true);
  });
  it("leaves what is here as it is, and says so", async () => {
    const old = anotherShop();
    const first = old.jobs[0] as ShopArchive["jobs"][number];
    valueIn(await importShop(LOCAL, writeArchive({ ...old, jobs: [first] }), WISH));
    const changed = { ...first.job, plan: { ...first.job.plan, purpose: "another" } };
    const taken = valueIn(
      await importShop(
        LOCAL,
        writeArchive({ ...old, jobs: [{ job: changed, away: false }, ...old.jobs.slice(1)] }),
        WISH,
      ),
    );
    expect(taken).toMatchObject({ jobs: 3, here: [first.job.plan.name], instruments: 0 });
    expect(valueIn(await getJob(LOCAL, first.job.id)).job.plan.purpose).toBe(first.job.plan.purpose);
  });
  it("takes what can be read of a damaged one, and names the rest", async () => {
    const old = anotherShop();
    const files = unzipSync(writeArchive(old));
    const lost = old.jobs[1]?.job.id ?? "";
    files[`jobs/${lost}.json`] = strToU8("{");
    const taken = valueIn(await importShop(LOCAL, zipSync(files), WISH));
    expect(taken.jobs).toBe(old.jobs.length - 1);
    expect(taken.unread).toEqual([expect.stringContaining(`jobs/${lost}.json`)]);
    expect((await getJob(LOCAL, lost)).ok).toBe(false);
    expect(valueIn(await getJob(LOCAL, old.jobs[0]?.job.id ?? "")).job.entries).toEqual(old.jobs[0]?.job.entries);
  });
  it("takes nothing of a file that is wrong, or that would not fit on the shelf", async () => {
    const before = (await listJobs(LOCAL)).total;
    expect(await importShop(LOCAL, new Uint8Array([80, 75, 3, 4, 0]), WISH)).toMatchObject({ ok: false, status: 422 });
    const old = anotherShop();
    const tape = old.instruments[0] as Instrument;
    const many = Array.from({ length: 301 }, () => ({ ...tape, id: randomUUID() }));
    expect(await importShop(LOCAL, writeArchive({ ...old, instruments: [tape, ...many] }), WISH)).toMatchObject({
      ok: false,
      status: 422,
    });
    expect(await importShop(LOCAL, writeArchive(old), { lessons: true, origin: "" })).toMatchObject({ ok: false });
    expect((await listJobs(LOCAL)).total).toBe(before);
  });
});

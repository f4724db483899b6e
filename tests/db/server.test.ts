import { v4 as uuid } from "uuid";
import { afterAll, describe, expect, it } from "vitest";
import { SHELF, selfTest } from "@/core/instruments";
import {
  type Entry,
  evaluate,
  type NewEntry,
  type Plan,
  partPlan,
  predict,
  type QuantityId,
  roundsOf,
} from "@/core/job";
import { outcomeKey, type PredictedOutcome } from "@/core/shrink";
import { length } from "@/core/units";
import { readJobFile, writeJobFile } from "@/formats";
import { answer, readBody, readJson } from "@/server/http";
import * as instruments from "@/server/instruments";
import * as jobs from "@/server/jobs";
import { done, type Outcome } from "@/server/outcome";
import { LOCAL } from "@/server/who";
import { closePool } from "@/store";
import { inchTube, started } from "../support/drawnFrames";
import { quantity } from "../support/jobs";
import { sized, withDrawn } from "../support/plans";

afterAll(closePool);

// What one person on a machine of their own does; who may do what is tested in people.test.ts.
const addInstrument = (input: unknown) => instruments.addInstrument(LOCAL, input);
const listInstruments = () => instruments.listInstruments(LOCAL);
const addEntries = (id: string, input: unknown) => jobs.addEntries(LOCAL, id, input);
const createJob = (input: unknown) => jobs.createJob(LOCAL, input);
const getJob = (id: string) => jobs.getJob(LOCAL, id);
const importJob = (text: string, asCopy: boolean, origin: string) => jobs.importJob(LOCAL, text, asCopy, origin);
const jobForFile = (id: string) => jobs.jobForFile(LOCAL, id);
const listJobs = async (query: object = {}) => (await jobs.listJobs(LOCAL, query)).jobs;
const newsOf = (id: string, since: number, version: number) => jobs.newsOf(LOCAL, id, since, version);
const savePlan = (id: string, input: unknown) => jobs.savePlan(LOCAL, id, input);
const startOf = (id: string) => jobs.startOf(LOCAL, id);

const at = "2026-11-24T08:00:00.000Z";
function value<T>(outcome: Outcome<T>): T {
  if (!outcome.ok) throw new Error(`${outcome.status}: ${outcome.message}`);
  return outcome.value;
}
const start = async (name = "Server test") => value(await createJob({ name, units: "mm", origin: "test" })).id;
const planOf = async (id: string): Promise<Plan> => value(await getJob(id)).job.plan;
const note = (text = "n"): NewEntry => ({ kind: "note", id: uuid(), at, origin: "test", text });
const round = (gate: "bed" | "cut" | "dry fit" = "dry fit"): NewEntry => ({
  kind: "round",
  id: uuid(),
  at,
  origin: "test",
  gate,
  method: "heights",
});
const piece = (member: string): QuantityId => ({ kind: "piece", member });
const reading = (roundId: string, what: string | QuantityId = "AB", mm = "1000"): NewEntry => ({
  kind: "reading",
  id: uuid(),
  at,
  origin: "test",
  roundId,
  instrumentId: "rule",
  what: typeof what === "string" ? quantity(what) : what,
  value: length(mm),
});

const isAB = (o: PredictedOutcome): boolean => outcomeKey(o.id) === "AB";

describe("the prediction that a page starts with", () => {
  it("is that of the core when it is quick, and none when it would keep the page waiting; then the next page has it", async () => {
    const id = await start();
    const plan = await planOf(id);
    await expect
      .poll(async () => value(await startOf(id)).prediction?.outcomes.find(isAB)?.estimate.value ?? null, {
        timeout: 60_000,
      })
      .toBe(predict(plan)?.prediction.outcomes.find(isAB)?.estimate.value);
    const big = sized(plan, {
      length: length("8200"),
      width: length("1000"),
      cross: Array.from({ length: 40 }, (_, i) => ({ id: `M${i + 1}`, at: length(String(200 * (i + 1))) })),
    });
    value(await savePlan(id, { baseVersion: 1, plan: big, origin: "test" }));
    expect(value(await startOf(id)).prediction).toBeNull();
    // Others are answered meanwhile.
    expect(value(await getJob(id)).job.plan.frame.sizes.cross).toHaveLength(40);
  });
});

describe("saving a plan", () => {
  it("of a drawing that was read has its rests under that frame, and by what it is counted from", async () => {
    for (const name of ["A-shaped drawbar", "two frames stacked"] as const) {
      const drawn = started(name, {}, inchTube, "inch-fraction");
      const { id } = value(await createJob({ name, units: "inch-fraction", origin: "test", drawn }));
      const { job } = value(await getJob(id));
      const over = evaluate(job, null).footprint;
      if (!over) throw new Error("no frame");
      const places = job.plan.bed.rests.map(({ x, y }) => ({ x: x.mm, y: y.mm, unit: x.unit }));
      expect(Math.max(...places.map((p) => p.x)), name).toBeCloseTo(over.lengthMm - over.insetMm, 1);
      expect(Math.max(...places.map((p) => p.y)), name).toBeCloseTo(over.widthMm - over.insetMm, 1);
      expect(places.every((p) => p.unit === "in")).toBe(true);
    }
  });
  it("begins a job with one that was made of another's, under the name and in the units that are asked; nonsense is refused", async () => {
    const table = withDrawn(await planOf(await start()), started("table base"));
    const plan = partPlan(table, ["L1", "L2", "AB"], "elsewhere");
    const { id } = value(await createJob({ name: "Front", units: "mm", origin: "test", plan }));
    const made = await planOf(id);
    expect(made).toMatchObject({ name: "Front", units: "mm", frame: { by: "members" }, limits: table.limits });
    expect(made.frame.by === "members" && made.frame.drawn.members.map((m) => m.id)).toEqual(["AB", "L1", "L2"]);
    for (const wrong of [
      {},
      7,
      "plan",
      { ...made, format: 99 },
      { ...made, bed: { ...made.bed, pitch: length("99") } },
    ])
      expect(await createJob({ name: "Wrong", units: "mm", origin: "test", plan: wrong })).toMatchObject({
        status: 422,
      });
  });
  it("moves the version on, writes what changed into the record, and is one save however often it is sent", async () => {
    const id = await start();
    const plan = { ...(await planOf(id)), name: "Renamed" };
    const first = value(await savePlan(id, { baseVersion: 1, plan, origin: "me" }));
    expect(first).toMatchObject({ version: 2, seq: 1, changes: [{ label: "Name", to: "Renamed" }] });
    expect(value(await savePlan(id, { baseVersion: 1, plan, origin: "me" }))).toMatchObject({
      version: 2,
      changes: [],
    });
    const { job } = value(await getJob(id));
    expect(job).toMatchObject({ version: 2, plan: { name: "Renamed" } });
    expect(job.entries).toMatchObject([{ kind: "change", origin: "me", version: 2 }]);
    expect((await listJobs()).find((j) => j.id === id)?.name).toBe("Renamed");
  });
  it("is refused when somebody else saved first, with what they saved", async () => {
    const id = await start();
    const plan = await planOf(id);
    const both = await Promise.all(
      ["a", "b"].map((name) => savePlan(id, { baseVersion: 1, plan: { ...plan, name }, origin: name })),
    );
    expect(both.filter((o) => o.ok)).toHaveLength(1);
    const refused = both.find((o) => !o.ok);
    const winner = (await planOf(id)).name;
    expect(refused).toMatchObject({ status: 409, current: { version: 2, plan: { name: winner } } });
  });
  it("is refused with the field for anything that cannot be built or is not a plan", async () => {
    const id = await start();
    const plan = await planOf(id);
    const save = (p: unknown) => savePlan(id, { baseVersion: 1, plan: p, origin: "me" });
    expect(await save(sized(plan, { length: length("40 m") }))).toMatchObject({
      status: 422,
      problems: [{ path: "frame.sizes.length" }],
    });
    expect(await save({ ...plan, name: "" })).toMatchObject({ status: 422, problems: [{ path: "plan.name" }] });
    expect(await save({ ...plan, weld: { ...plan.weld, volts: Number.NaN } })).toMatchObject({
      status: 422,
      problems: [{ path: "plan.weld.volts" }],
    });
    expect(await save(null)).toMatchObject({ status: 422 });
    expect(await savePlan("not-an-id", {})).toMatchObject({ status: 404 });
    expect(await savePlan(uuid(), { baseVersion: 1, plan, origin: "x" })).toMatchObject({ status: 404 });
    expect((await getJob(id)).ok && value(await getJob(id)).job.version).toBe(1);
  });
});

describe("adding entries", () => {
  it("is done once per entry, tells of what others added, and moves the stage on", async () => {
    const id = await start();
    const r = round();
    const mine = [r, reading(r.id), reading(r.id, "AC", "1166.19")];
    const first = value(await addEntries(id, { entries: mine, since: 0 }));
    expect(first).toMatchObject({ seq: 3, entries: mine });
    expect(value(await addEntries(id, { entries: mine, since: 3 }))).toMatchObject({ seq: 3, entries: [] });
    value(await addEntries(id, { entries: [note("from another")], since: 3 }));
    const third = value(await addEntries(id, { entries: [note("mine")], since: 3 }));
    expect(third.entries.map((e: Entry) => e.kind === "note" && e.text)).toEqual(["from another", "mine"]);
    expect((await listJobs()).find((j) => j.id === id)).toMatchObject({ stage: "square" });
  });
  it("keeps the order when many add at once", async () => {
    const id = await start();
    const notes = Array.from({ length: 12 }, (_, i) => note(String(i)));
    await Promise.all(notes.map((n) => addEntries(id, { entries: [n], since: 0 })));
    const { job, seq } = value(await getJob(id));
    expect(seq).toBe(12);
    expect(new Set(job.entries.map((e) => e.id))).toEqual(new Set(notes.map((n) => n.id)));
  });
  it("is refused with the field for what makes no sense", async () => {
    const id = await start();
    const r = round();
    const bed = round("bed");
    value(await addEntries(id, { entries: [r, bed], since: 0 }));
    const add = (...entries: unknown[]) => addEntries(id, { entries, since: 0 });
    expect(await add(reading(uuid()))).toMatchObject({ status: 422, problems: [{ path: "entries.0.roundId" }] });
    expect(await add(reading(r.id, "R1"))).toMatchObject({ status: 422, problems: [{ path: "entries.0.what" }] });
    expect(await add(reading(bed.id, "AB"))).toMatchObject({ status: 422 });
    const cut = round("cut");
    value(await add(cut, reading(cut.id, piece("M12")), reading(cut.id, piece("AB"))));
    for (const what of ["AC", "zA", "BD", "R1"])
      expect(await add(reading(cut.id, what))).toMatchObject({ status: 422 });
    // R1 may be the name of a rest and of a piece.
    expect(await add(reading(cut.id, piece("R1"), "-5"))).toMatchObject({
      status: 422,
      problems: [{ path: "entries.0.value" }],
    });
    expect(await add(reading(r.id, piece("M1")))).toMatchObject({
      status: 422,
      problems: [{ path: "entries.0.what" }],
    });
    expect(await add({ ...reading(r.id), instrumentId: "yardstick" })).toMatchObject({
      status: 422,
      problems: [{ path: "entries.0.instrumentId" }],
    });
    expect(await add(reading(r.id, "AB", "-5"))).toMatchObject({
      status: 422,
      problems: [{ path: "entries.0.value" }],
    });
    expect(await add({ ...note(), kind: "change", version: 1, changes: [] })).toMatchObject({ status: 422 });
    expect(await add()).toMatchObject({ status: 422 });
    const twice = note();
    expect(await add(twice, twice)).toMatchObject({ status: 422 });
    const other = await start();
    value(await addEntries(other, { entries: [twice], since: 0 }));
    expect(await add(twice)).toMatchObject({ status: 409 });
    expect(value(await getJob(id)).job.entries).toHaveLength(5);
  });
});

describe("news", () => {
  it("holds the plan only when it moved on, and the entries since", async () => {
    const id = await start();
    value(await addEntries(id, { entries: [note("a"), note("b")], since: 0 }));
    expect(value(await newsOf(id, 1, 1))).toMatchObject({ seq: 2, version: 1, plan: null, entries: [{ text: "b" }] });
    value(await savePlan(id, { baseVersion: 1, plan: { ...(await planOf(id)), name: "New" }, origin: "x" }));
    expect(value(await newsOf(id, 2, 1))).toMatchObject({
      version: 2,
      plan: { name: "New" },
      entries: [{ kind: "change" }],
    });
    expect(await newsOf(uuid(), 0, 0)).toMatchObject({ status: 404 });
  });
});

describe("a job file", () => {
  it("read in elsewhere gives the same job; here it is refused, or read in as a copy that measures the same", async () => {
    const gate = (await listJobs()).find((j) => j.name === "Courtyard gate leaf");
    const job = value(await jobForFile(gate?.id ?? ""));
    const text = writeJobFile(job);
    expect(await importJob(text, false, "me")).toMatchObject({ status: 409, current: { id: job.id } });
    const elsewhere = { ...job, id: uuid(), entries: job.entries.map((e) => ({ ...e, id: uuid() })) } as typeof job;
    const ids = new Map(job.entries.map((e, i) => [e.id, elsewhere.entries[i]?.id ?? ""]));
    for (const e of elsewhere.entries) if (e.kind === "reading") e.roundId = ids.get(e.roundId) ?? "";
    const { id } = value(await importJob(writeJobFile(elsewhere), false, "me"));
    expect(value(await jobForFile(id))).toEqual(elsewhere);
    const copy = value(await importJob(text, true, "me"));
    const again = value(await jobForFile(copy.id));
    expect(again.entries).toHaveLength(job.entries.length);
    expect(again.id).not.toBe(job.id);
    expect((await listJobs()).find((j) => j.id === copy.id)).toMatchObject({ verdict: "pass", stage: "log" });
    expect(readJobFile(writeJobFile(again)).ok).toBe(true);
  });
  it("that is none is refused with its reason", async () => {
    expect(await importJob("{", false, "me")).toMatchObject({
      status: 422,
      message: expect.stringMatching(/cut short|JSON/),
    });
    expect(
      await importJob(writeJobFile(value(await jobForFile((await listJobs())[0]?.id ?? ""))), false, ""),
    ).toMatchObject({ status: 422 });
  });
});

describe("instruments", () => {
  it("are added with what is known of them, and refused without it", async () => {
    const { id: _id, ...tape } = SHELF[0] as (typeof SHELF)[number];
    const added = value(await addInstrument({ ...tape, name: "New tape" }));
    expect(added).toMatchObject({ name: "New tape", resolutionMm: 1 });
    expect(await addInstrument({ ...tape, resolutionMm: 0 })).toMatchObject({
      status: 422,
      problems: [{ path: "resolutionMm", message: expect.stringMatching(/no uncertainty/) }],
    });
    expect(await addInstrument({ ...tape, name: " " })).toMatchObject({ status: 422, problems: [{ path: "name" }] });
  });
  it("lie as every shelf has them, whenever each was put there: the first that fits is the one in hand", async () => {
    const ids = (await listInstruments()).map((i) => i.id);
    expect(ids.slice(0, SHELF.length)).toEqual(SHELF.map((i) => i.id));
    const jobId = await start("Which tape");
    expect(value(await getJob(jobId)).job.instruments.map((i) => i.id)).toEqual(ids);
  });
});

describe("an instrument that was tested", () => {
  it("takes the place of its old card once; readings keep the card that they were made with", async () => {
    const { id: _id, ...tape } = SHELF[0] as (typeof SHELF)[number];
    const first = value(await addInstrument({ ...tape, name: "Odo's tape" }));
    const jobId = await start("Tested tape");
    const r = round();
    if (r.kind !== "round") throw new Error("a round expected");
    value(await addEntries(jobId, { entries: [r, { ...reading(r.id), instrumentId: first.id }], since: 0 }));
    const tested = selfTest(first, { test: "hook", fromHookMm: 1001.75, fromMarkMm: 1100, markMm: 100 }, at);
    if (!tested.ok) throw new Error(tested.message);
    const second = value(await addInstrument(tested.value.updated));
    const { job } = value(await getJob(jobId));
    expect(job.instruments.find((i) => i.id === second.id)).toEqual(second);
    expect(second).toMatchObject({ replaces: first.id, foundZeroMm: 1.75, checked: { test: "hook", at } });
    expect(job.entries.flatMap((e) => (e.kind === "reading" ? [e.instrumentId] : []))).toEqual([first.id]);
    expect(await addInstrument(tested.value.updated)).toMatchObject({
      status: 422,
      problems: [{ path: "replaces", message: expect.stringMatching(/replaced already/) }],
    });
    expect(await addInstrument({ ...tested.value.updated, replaces: "nobody" })).toMatchObject({
      status: 422,
      problems: [{ path: "replaces" }],
    });
    expect(await addInstrument({ ...tested.value.updated, replaces: second.id, kind: "feeler" })).toMatchObject({
      message: expect.stringMatching(/cannot become/),
    });
  });
});

describe("a survey by several methods", () => {
  it("is stored and read back as it was made, file and all", async () => {
    const jobId = await start("Surveyed");
    const r: NewEntry = {
      kind: "round",
      id: uuid(),
      at,
      origin: "test",
      gate: "bed",
      method: "heights",
      warmerK: 12,
      part: "U2",
    };
    const of = (what: string, more: object): NewEntry => ({ ...reading(r.id, what), ...more }) as NewEntry;
    const blocks = [length("5"), length("1/4 in")];
    const entries: NewEntry[] = [
      r,
      of("R2", {
        value: { value: -0.4, text: "-0.4", slant: "mm/m" },
        how: { by: "slope", from: "R1", arrow: "back" },
      }),
      of("R2", { value: length("0.3"), how: { by: "difference", from: "R1" } }),
      of("R3", { value: length("5.1"), how: { by: "edge", from: "R1", to: "R4", blocks }, again: true }),
      of("R4", { value: length("1500"), how: { by: "rod", setUp: 2, sightM: 12.5 } }),
      of("R4", { value: null, how: { by: "rod", setUp: 2, sightM: 12.5 } }),
    ];
    value(await addEntries(jobId, { entries, since: 0 }));
    const { job } = value(await getJob(jobId));
    expect(job.entries).toEqual(entries);
    expect(value(await newsOf(jobId, 1, 1)).entries).toEqual(entries.slice(1));
    const file = writeJobFile(value(await jobForFile(jobId)));
    const again = readJobFile(file);
    expect(again.ok && again.job.entries).toEqual(entries);
  });
  it("is refused with the field that is wrong, and nothing of it is stored", async () => {
    const jobId = await start("Surveyed badly");
    const r = round("bed");
    if (r.kind !== "round") throw new Error("a round expected");
    const bad: [object, string][] = [
      [{ how: { by: "slope", from: "R1", arrow: "on" } }, "value"],
      [{ how: { by: "slope", from: "R2", arrow: "on" }, value: { value: 1, text: "1", slant: "mm/m" } }, "how.from"],
      [{ how: { by: "slope", from: "R1", arrow: "up" }, value: { value: 1, text: "1", slant: "mm/m" } }, "how.arrow"],
      [{ value: { value: 1, text: "2", slant: "deg" } }, "value"],
      [{ how: { by: "rod", setUp: 99, sightM: null } }, "how.setUp"],
    ];
    for (const [more, path] of bad) {
      const outcome = await addEntries(jobId, { entries: [r, { ...reading(r.id, "R2"), ...more }], since: 0 });
      expect(outcome, path).toMatchObject({ ok: false, status: 422 });
      if (!outcome.ok) expect(outcome.problems[0]?.path, JSON.stringify(more)).toContain(path);
    }
    expect(value(await getJob(jobId)).job.entries).toEqual([]);
  });
});

describe("requests", () => {
  const post = (body: BodyInit, headers: Record<string, string> = {}) =>
    new Request("http://127.0.0.1:1/api/x", { method: "POST", body, headers: { host: "127.0.0.1:1", ...headers } });
  it("are refused when too large, by their length or while they arrive", async () => {
    expect(await readBody(post("x".repeat(50), { "content-length": "50" }), 10)).toMatchObject({ status: 413 });
    const endless = new ReadableStream({ pull: (c) => c.enqueue(new Uint8Array(1024)) });
    const request = new Request("http://127.0.0.1/", { method: "POST", body: endless, duplex: "half" } as RequestInit);
    expect(await readBody(request, 100_000)).toMatchObject({ status: 413 });
  });
  it("must be JSON and come from this program's own pages", async () => {
    expect(await readJson(post("{}", { "content-type": "text/plain" }))).toMatchObject({ status: 415 });
    expect(await readJson(post("{", { "content-type": "application/json" }))).toMatchObject({ status: 400 });
    const foreign = await answer(post("{}", { origin: "http://elsewhere.test" }), async () => done(1));
    expect(foreign.status).toBe(403);
    expect((await answer(post("{}", { origin: "http://127.0.0.1:1" }), async () => done(1))).status).toBe(200);
  });
  it("say so in words when the database is away", async () => {
    const away = await answer(post("{}"), () =>
      Promise.reject(Object.assign(new Error("x"), { code: "ECONNREFUSED" })),
    );
    expect(away.status).toBe(503);
    expect(await away.json()).toMatchObject({ message: expect.stringMatching(/database does not answer/) });
  });
});

describe("two devices with clocks of their own", () => {
  const ago = (minutes: number): string => new Date(Date.now() - 60_000 * minutes).toISOString();
  it("the newest reading stands, whenever it arrives and whatever its device's clock shows", async () => {
    const cart = (await listJobs()).find((j) => j.name === "Ware cart base");
    const { id } = value(await importJob(writeJobFile(value(await jobForFile(cart?.id ?? ""))), true, "me"));
    const { job } = value(await getJob(id));
    const round = job.entries.findLast((e) => e.kind === "round" && e.gate !== "bed");
    const [instrument] = job.instruments;
    if (!round || !instrument) throw new Error("no round");
    const read = (text: string, at: string) => ({
      kind: "reading" as const,
      id: uuid(),
      at,
      origin: "bench",
      roundId: round.id,
      instrumentId: instrument.id,
      what: { kind: "distance" as const, from: "A", to: "B" },
      value: length(text),
    });
    const stands = async () => {
      const { job: now } = value(await getJob(id));
      return roundsOf(now.entries)
        .find((r) => r.round.id === round.id)
        ?.readings.get("AB")?.value?.text;
    };
    const send = async (entry: ReturnType<typeof read>, sentAt?: string) =>
      value(await addEntries(id, { entries: [entry], since: 0, ...(sentAt ? { sentAt } : {}) }));
    await send(read("1201", ago(5)), new Date().toISOString());
    expect(await stands()).toBe("1201");
    // Read before that on a device without a connection, and sent only now.
    await send(read("1200", ago(60)), new Date().toISOString());
    expect(await stands()).toBe("1201");
    // A device whose clock is two hours behind reads a minute ago.
    const slow = value(await addEntries(id, { entries: [read("1202", ago(121))], since: 0, sentAt: ago(120) }));
    expect(await stands()).toBe("1202");
    const last = slow.entries.at(-1);
    expect(Math.abs(Date.parse(last?.at ?? "") - (Date.now() - 60_000))).toBeLessThan(10_000);
    // One that is a day ahead replaces nothing that is read later.
    await send(read("1203", ago(-24 * 60)), ago(-24 * 60));
    expect(await stands()).toBe("1203");
    await new Promise((resolve) => setTimeout(resolve, 5));
    await send(read("1204", new Date().toISOString()), new Date().toISOString());
    expect(await stands()).toBe("1204");
  });
});

describe("a file with another shop's instruments", () => {
  it("keeps what was known of them, also where an id here means another one", async () => {
    const cart = (await listJobs()).find((j) => j.name === "Ware cart base");
    const job = value(await jobForFile(cart?.id ?? ""));
    const theirs = { ...job, instruments: job.instruments.map((i) => ({ ...i, handlingMm: i.handlingMm + 0.5 })) };
    const { id } = value(await importJob(writeJobFile(theirs), true, "me"));
    const read = value(await jobForFile(id));
    expect(read.instruments.map((i) => i.handlingMm).sort()).toEqual(
      theirs.instruments.map((i) => i.handlingMm).sort(),
    );
    expect(read.instruments.some((i) => job.instruments.some((j) => j.id === i.id))).toBe(false);
    expect(value(await getJob(job.id)).job.instruments.find((i) => i.id === job.instruments[0]?.id)).toEqual(
      job.instruments[0],
    );
  });
  it("fills no shelf: what nothing was read with stays off it, and more than it holds is refused in words", async () => {
    const cart = (await listJobs()).find((j) => j.name === "Ware cart base");
    const good = value(await jobForFile(cart?.id ?? ""));
    const before = (await listInstruments()).length;
    const [first] = good.instruments;
    const reading = good.entries.find((e) => e.kind === "reading");
    if (!first || reading?.kind !== "reading") throw new Error("nothing was read");
    const many = Array.from({ length: 310 }, (_, i) => ({ ...first, id: `theirs-${i}`, name: `Rule ${i}` }));
    value(await importJob(writeJobFile({ ...good, instruments: [...good.instruments, ...many] }), true, "me"));
    expect(await listInstruments()).toHaveLength(before);
    const readings = many.map((m, i) => ({
      ...reading,
      id: `00000000-0000-4000-8000-${String(i).padStart(12, "0")}`,
      instrumentId: m.id,
    }));
    const full = { ...good, instruments: [...good.instruments, ...many], entries: [...good.entries, ...readings] };
    expect(await importJob(writeJobFile(full), true, "me")).toMatchObject({
      status: 422,
      message: expect.stringMatching(/holds at most 300 instruments/),
    });
    expect(await listInstruments()).toHaveLength(before);
  });
  it("and with times or numbers that no database holds is refused, never a crash", async () => {
    const cart = (await listJobs()).find((j) => j.name === "Ware cart base");
    const good = value(await jobForFile(cart?.id ?? ""));
    const bad = (change: (job: typeof good) => void) => {
      const job = structuredClone(good);
      change(job);
      return importJob(writeJobFile(job), true, "me");
    };
    expect(await bad((j) => Object.assign(j, { createdAt: "0000-01-01T00:00:00.000Z" }))).toMatchObject({
      status: 422,
      problems: [{ path: "job.createdAt" }],
    });
    expect(await bad((j) => Object.assign(j, { version: 2 ** 40 }))).toMatchObject({
      status: 422,
      problems: [{ path: "job.version" }],
    });
    expect(await bad((j) => Object.assign(j.entries[0] ?? {}, { at: "9999-12-31T23:59:59.999Z" }))).toMatchObject({
      status: 422,
    });
    const far = "9".repeat(55);
    expect(
      await bad((j) => {
        const reading = j.entries.find((e) => e.kind === "reading");
        Object.assign(reading ?? {}, { value: length(far) });
      }),
    ).toMatchObject({ status: 422, problems: [{ message: expect.stringMatching(/Check the unit/) }] });
  });
});

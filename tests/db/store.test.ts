import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir, userInfo } from "node:os";
import path from "node:path";
import fc from "fast-check";
import { createConnection, type RowDataPacket } from "mysql2/promise";
import { v4 as uuid } from "uuid";
import { afterAll, describe, expect, it } from "vitest";
import { type Job, newPlan, spanId, summaryOf } from "@/core/job";
import { length } from "@/core/units";
import { readJobFile } from "@/formats/jobFile";
import {
  appendEntries,
  closePool,
  FIRST_SHOP,
  insertJob,
  isUnreachable,
  loadJob,
  lockJob,
  newsOf,
  pool,
  transaction,
} from "@/store";
import { insertEntries } from "@/store/entries";
import { migrate, readMigrations } from "@/store/migrate";

const socketPath = process.env.PLUMB_TEST_SOCKET ?? "";
const admin = () => createConnection({ socketPath, user: userInfo().username });
const at = "2026-11-24T08:00:00.000Z";
const newJob = (): Job => ({
  id: uuid(),
  createdAt: at,
  version: 1,
  plan: newPlan("Stored", "mm"),
  instruments: [],
  entries: [],
});
const put = (job: Job) => transaction((db) => insertJob(db, FIRST_SHOP, job, summaryOf(job), at, "test"));

afterAll(closePool);

describe("migrations", () => {
  const folder = path.join(import.meta.dirname, "../../src/store/migrations");
  const options = { socketPath, adminUser: userInfo().username, appPassword: "x-y-z", folder };

  it("are applied once, however often and however many at a time they run", async () => {
    const database = "t_migrate";
    const runs = await Promise.all(
      [1, 2, 3].map(() =>
        migrate({ ...options, database, appPassword: new URL(process.env.DATABASE_URL ?? "").password }),
      ),
    );
    expect(runs.flat()).toEqual(readMigrations(folder).map((m) => m.name));
    expect(
      await migrate({ ...options, database, appPassword: new URL(process.env.DATABASE_URL ?? "").password }),
    ).toEqual([]);
  });

  it("go on where they were cut off", async () => {
    const own = mkdtempSync(path.join(tmpdir(), "plumb-mig-"));
    const tables = [
      "job",
      "job_plan",
      "entry",
      "prediction",
      "test_bead",
      "shop",
      "instrument_away",
      "person",
      "invitation",
    ];
    const good = [...tables, "device", "failed_try", "audit", "upkeep", "presence", "lesson"]
      .map((t) => `CREATE TABLE IF NOT EXISTS ${t} (id INT);\n`)
      .join("");
    writeFileSync(path.join(own, "001-first.sql"), `${good}CREATE TABLE broken;\n`);
    const run = () =>
      migrate({
        ...options,
        database: "t_cut",
        folder: own,
        appPassword: new URL(process.env.DATABASE_URL ?? "").password,
      });
    await expect(run()).rejects.toThrow();
    writeFileSync(path.join(own, "001-first.sql"), `${good}CREATE TABLE IF NOT EXISTS instrument (id INT);\n`);
    expect(await run()).toEqual(["first"]);
    writeFileSync(path.join(own, "001-first.sql"), "SELECT 1;\n");
    await expect(run()).rejects.toThrow(/changed after it was applied/);
  });

  it("can run every statement twice", async () => {
    const db = await admin();
    await db.query("CREATE DATABASE t_twice");
    await db.query("USE t_twice");
    for (let i = 0; i < 2; i++) for (const m of readMigrations(folder)) for (const s of m.statements) await db.query(s);
    await db.end();
  });
});

describe("what the application may do", () => {
  it("is to add entries, plans and instruments, never to change or remove them", async () => {
    const job = newJob();
    await put(job);
    for (const sql of [
      "UPDATE entry SET note = 'x'",
      "DELETE FROM entry",
      "UPDATE job_plan SET origin = 'x'",
      "DELETE FROM job_plan",
      "UPDATE instrument SET name = 'x'",
      "DELETE FROM instrument",
      "DELETE FROM job",
      "DROP TABLE entry",
      "CREATE TABLE more (a INT)",
      "SELECT * FROM mysql.user",
    ])
      await expect(pool().query(sql), sql).rejects.toThrow(/denied/);
  });
  it("is held by the tables themselves, whoever asks", async () => {
    const db = await admin();
    await db.query("USE mellow_plumb");
    await expect(db.query("UPDATE entry SET note = 'x'")).rejects.toThrow(/kept as they are/);
    await expect(db.query("DELETE FROM entry")).rejects.toThrow(/kept for good/);
    await expect(db.query("DELETE FROM job_plan")).rejects.toThrow(/kept for good/);
    await db.end();
  });
  it("lists jobs along an index", async () => {
    const db = await admin();
    await db.query("USE mellow_plumb");
    const [rows] = await db.query<RowDataPacket[]>(
      "EXPLAIN SELECT id FROM job WHERE shop_id = '00000000-0000-4000-8000-000000000001' AND is_away = 0 ORDER BY changed_at DESC, id DESC LIMIT 5",
    );
    expect(rows[0]?.key).toBe("by_shop");
    expect(rows[0]?.Extra).not.toContain("filesort");
    await db.end();
  });
});

describe("a stored job", () => {
  it("comes back to the last digit, whatever the numbers and the texts", async () => {
    const start = newJob();
    const roundId = uuid();
    const texts = ["1200", "47 1/4 in", "0.1", "1/3 in", "12.5+3", "3' 11 1/4\"", "0,0001", "99999.123456"];
    const entries: Job["entries"] = [
      { kind: "round", id: roundId, at, origin: "Größe Ł 木", gate: "cold", method: "heights" },
      ...texts.map((t, i) => ({
        kind: "reading" as const,
        id: uuid(),
        at: `2026-11-24T08:00:0${i}.123Z`,
        origin: "test",
        roundId,
        instrumentId: "rule",
        what: spanId("AB"),
        value: length(t),
      })),
      {
        kind: "reading",
        id: uuid(),
        at,
        origin: "test",
        roundId,
        instrumentId: "rule",
        what: spanId("AB"),
        value: null,
      },
      {
        kind: "tick",
        id: uuid(),
        at,
        origin: "test",
        step: { do: "tack" as const, joint: "A", line: "inside" as const },
        done: true,
      },
      {
        kind: "tick",
        id: uuid(),
        at,
        origin: "test",
        step: { do: "tack" as const, joint: "A", line: "inside" as const },
        done: false,
      },
      {
        kind: "note",
        id: uuid(),
        at,
        origin: "test",
        text: `<script>alert("1")</script> \\ ' " ; DROP TABLE job; -- 木 😀`,
      },
      {
        kind: "change",
        id: uuid(),
        at,
        origin: "test",
        version: 1,
        changes: [{ path: "name", label: "Name", from: "a\n", to: 'b"' }],
      },
    ];
    await put({ ...start, entries });
    const stored = await loadJob(pool(), FIRST_SHOP, start.id);
    expect(stored?.seq).toBe(entries.length);
    expect(stored?.job.entries).toEqual(entries);
    expect(stored?.job.plan).toEqual(start.plan);
    expect(stored?.job.createdAt).toBe(at);
  });
  it("is loaded, and heard of, without a table on disk: each question along its index", async () => {
    const job = newJob();
    await put({
      ...job,
      entries: Array.from({ length: 40 }, (_, i) => ({
        kind: "note" as const,
        id: uuid(),
        at,
        origin: "t",
        text: `note ${i}`,
      })),
    });
    const one = await pool().getConnection();
    try {
      const made = async (): Promise<number> => {
        const [rows] = await one.query<RowDataPacket[]>("SHOW SESSION STATUS LIKE 'Created_tmp_disk_tables'");
        return Number(rows[0]?.Value);
      };
      const before = await made();
      expect((await loadJob(one, FIRST_SHOP, job.id))?.job.entries).toHaveLength(40);
      expect((await newsOf(one, FIRST_SHOP, job.id, 30, 0))?.entries).toHaveLength(10);
      expect(await newsOf(one, FIRST_SHOP, job.id, 40, 1)).toMatchObject({ entries: [], plan: null });
      expect((await made()) - before).toBe(0);
    } finally {
      one.release();
    }
  });
  it("keeps any double exactly", async () => {
    const values = fc.sample(fc.double({ min: -1e5, max: 1e5, noNaN: true }), { numRuns: 200, seed: 5 });
    const job = newJob();
    const roundId = uuid();
    await put({
      ...job,
      entries: [
        { kind: "round", id: roundId, at, origin: "t", gate: "bed", method: "heights" },
        ...values.map((mm) => ({
          kind: "reading" as const,
          id: uuid(),
          at,
          origin: "t",
          roundId,
          instrumentId: "rule",
          what: { kind: "rest" as const, rest: "R1" },
          value: { mm, text: "1", unit: "mm" as const },
        })),
      ],
    });
    const stored = await loadJob(pool(), FIRST_SHOP, job.id);
    expect(
      stored?.job.entries.flatMap((e) => (e.kind === "reading" && e.value && "mm" in e.value ? [e.value.mm] : [])),
    ).toEqual(values.map((v) => (v === 0 ? 0 : v)));
  });
  it("is read on from what was read before, and never shows what was undone meanwhile", async () => {
    const job = newJob();
    const note = (text: string) => ({ kind: "note" as const, id: uuid(), at, origin: "t", text });
    await put({ ...job, entries: [note("first")] });
    const texts = async () =>
      (await loadJob(pool(), FIRST_SHOP, job.id))?.job.entries.map((e) => (e.kind === "note" ? e.text : e.kind));
    expect(await texts()).toEqual(["first"]);
    await transaction((db) => insertEntries(db, job.id, 1, [note("second"), note("third")]));
    expect(await texts()).toEqual(["first", "second", "third"]);
    const undone = transaction(async (db) => {
      await insertEntries(db, job.id, 3, [note("undone"), note("undone, too")]);
      expect((await loadJob(db, FIRST_SHOP, job.id))?.job.entries).toHaveLength(5);
      throw new Error("changed my mind");
    });
    await expect(undone).rejects.toThrow("changed my mind");
    expect(await texts()).toEqual(["first", "second", "third"]);
    const undoneAgain = transaction(async (db) => {
      await insertEntries(db, job.id, 3, [note("undone")]);
      await loadJob(db, FIRST_SHOP, job.id);
      throw new Error("changed my mind");
    });
    await expect(undoneAgain).rejects.toThrow("changed my mind");
    await transaction((db) => insertEntries(db, job.id, 3, [note("instead"), note("last")]));
    expect(await texts()).toEqual(["first", "second", "third", "instead", "last"]);
    // Nobody who has them can change what the next one is given.
    const given = (await loadJob(pool(), FIRST_SHOP, job.id))?.job.entries as unknown[] | undefined;
    expect(() => given?.push("x")).toThrow("not extensible");
  });
  it("is not there when its insert fails half way", async () => {
    const job = newJob();
    const twice = { kind: "note" as const, id: uuid(), at, origin: "t", text: "x" };
    await expect(put({ ...job, entries: [twice, twice] })).rejects.toThrow();
    expect(await loadJob(pool(), FIRST_SHOP, job.id)).toBeNull();
  });
});

describe("two transactions that get in each other's way", () => {
  it("are both done, however they cross, and leave nothing twice", async () => {
    const [one, two] = [newJob(), newJob()];
    await put(one);
    await put(two);
    let tried = 0;
    const crossing = (first: Job, second: Job, text: string) =>
      transaction(async (db) => {
        tried += 1;
        const a = await lockJob(db, FIRST_SHOP, first.id);
        // Long enough that the other holds what this one asks for next.
        await new Promise((resolve) => setTimeout(resolve, 150));
        await lockJob(db, FIRST_SHOP, second.id);
        const note = { kind: "note" as const, id: uuid(), at, origin: "t", text };
        await appendEntries(db, first.id, a?.seq ?? 0, [note], at);
      });
    await Promise.all([crossing(one, two, "there"), crossing(two, one, "back")]);
    expect(tried).toBeGreaterThan(2);
    for (const job of [one, two]) expect((await loadJob(pool(), FIRST_SHOP, job.id))?.job.entries).toHaveLength(1);
  });
});

describe("a question that hangs", () => {
  it("is ended, and is told as an outage, not as a bug", async () => {
    const one = await pool().getConnection();
    try {
      const [rows] = await one.query<RowDataPacket[]>("SELECT @@SESSION.max_statement_time AS s");
      expect(Number(rows[0]?.s)).toBe(10);
      await one.query("SET SESSION max_statement_time = 0.2");
      const hung = await one.query("SELECT SLEEP(3)").catch((e: unknown) => e);
      expect(hung).toBeInstanceOf(Error);
      expect(isUnreachable(hung)).toBe(true);
      expect(isUnreachable(new Error("anything else"))).toBe(false);
    } finally {
      one.destroy();
    }
  });
});

describe("rows of the first format", () => {
  const folder = path.join(import.meta.dirname, "../fixtures/v1");
  it.each(readdirSync(folder))("%s is loaded as its file is read", async (name) => {
    const text = readFileSync(path.join(folder, name), "utf8");
    const old = JSON.parse(text).job;
    const read = readJobFile(text);
    if (!read.ok) throw new Error("unreadable");
    const job = { ...read.job, id: uuid(), entries: read.job.entries.map((e) => ({ ...e, id: uuid() })) };
    const ids = new Map(read.job.entries.map((e, i) => [e.id, job.entries[i]?.id ?? ""]));
    for (const e of job.entries) if (e.kind === "reading") e.roundId = ids.get(e.roundId) ?? e.roundId;
    await put({ ...job, entries: [] });
    // What the first version wrote.
    await pool().execute("UPDATE job SET plan = ? WHERE id = ?", [JSON.stringify(old.plan), job.id]);
    for (const [i, e] of old.entries.entries()) {
      const length = e.value && "mm" in e.value ? e.value : {};
      const { slant, how, again, warmerK } = { slant: e.value && "slant" in e.value ? e.value : undefined, ...e };
      const more = JSON.stringify({ slant, how, again, warmerK });
      await pool().execute(
        `INSERT INTO entry (job_id, seq, id, kind, made_at, origin, gate, method, round_id, instrument_id, what,
          value_mm, value_text, value_unit, step, done, note, version, changes, more)
          VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
        [
          job.id,
          i + 1,
          job.entries[i]?.id,
          e.kind,
          e.at.replace("T", " ").replace("Z", ""),
          e.origin,
          e.gate,
          e.method,
          ids.get(e.roundId),
          e.instrumentId,
          e.what,
          length.mm,
          length.text,
          length.unit,
          e.step,
          e.done,
          e.text,
          e.version,
          e.changes && JSON.stringify(e.changes),
          more === "{}" ? null : more,
        ].map((v) => v ?? null),
      );
    }
    const stored = await loadJob(pool(), FIRST_SHOP, job.id);
    expect(stored?.job.plan).toEqual(job.plan);
    expect(stored?.job.entries).toEqual(job.entries);
    // And by themselves, without the rounds that they belong to.
    const since = Math.max(0, job.entries.length - 3);
    expect((await newsOf(pool(), FIRST_SHOP, job.id, since, 1))?.entries).toEqual(job.entries.slice(since));
  });
});

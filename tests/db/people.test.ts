import { v4 as uuid } from "uuid";
import { afterAll, beforeAll, describe, expect, it, vi } from "vitest";
import { SHELF } from "@/core/instruments";
import { newPlan } from "@/core/job";
import { length } from "@/core/units";
import { writeJobFile } from "@/formats/jobFile";
import { respond } from "@/server/http";
import * as instruments from "@/server/instruments";
import * as jobs from "@/server/jobs";
import type { Outcome } from "@/server/outcome";
import { done } from "@/server/outcome";
import * as people from "@/server/people";
import { addTestBead, listTestBeads } from "@/server/testBeads";
import { allowed, type Caller, COOKIE, callerOf, LOCAL } from "@/server/who";
import { closePool, FIRST_SHOP, pool } from "@/store";
import { administrate } from "../support/admin";

const at = "2026-11-24T08:00:00.000Z";
function value<T>(outcome: Outcome<T>): T {
  if (!outcome.ok) throw new Error(`${outcome.status}: ${outcome.message}`);
  return outcome.value;
}
const OTHER_SHOP = uuid();
/** Who runs the server lets the first owner of a shop in. */
const owner: Caller = { shopId: FIRST_SHOP, role: "owner", person: null };
const name = (who: string): string => `${who} ${uuid().slice(0, 8)}`;
const PASSWORD = "three warm tubes";

async function comeIn(who: Caller, role: "owner" | "welder" | "looks", password: string | null = PASSWORD) {
  const called = name(role);
  const { code } = value(await people.invite(who, { name: called, role }));
  const { token } = value(await people.join({ code, password, device: "phone" }, uuid()));
  const caller = await callerOf(token);
  if (!caller?.person) throw new Error("not let in");
  return { token, caller, called, id: caller.person.id, code };
}

beforeAll(async () => {
  vi.stubEnv("PLUMB_SIGN_IN", "1");
  await administrate((db) => db.execute("INSERT INTO shop (id, name) VALUES (?, 'The other shop')", [OTHER_SHOP]));
});
afterAll(async () => {
  vi.unstubAllEnvs();
  await closePool();
});

describe("who may come in", () => {
  it("is asked on the network alone: on a machine by itself everybody is its owner", async () => {
    expect(await callerOf(undefined)).toBeNull();
    expect(await callerOf("x".repeat(32))).toBeNull();
    vi.stubEnv("PLUMB_SIGN_IN", "");
    expect(await callerOf(undefined)).toEqual(LOCAL);
    vi.stubEnv("PLUMB_SIGN_IN", "1");
  });
  it("comes in by an invitation that is good once, and by name and password from then on", async () => {
    const { caller, called, code, token } = await comeIn(owner, "welder");
    expect(caller).toMatchObject({ shopId: FIRST_SHOP, role: "welder", person: { name: called } });
    expect(await people.join({ code, password: null, device: "" }, "a")).toMatchObject({ ok: false, status: 401 });
    const again = value(await people.signIn({ name: called, password: PASSWORD, device: "desk" }, "a"));
    expect(again.token).not.toBe(token);
    expect((await callerOf(again.token))?.person?.id).toBe(caller.person?.id);
    expect(await people.signIn({ name: called, password: "three cold tubes", device: "" }, "a")).toMatchObject({
      status: 401,
    });
  });
  it("keeps neither password, token nor code as it was given", async () => {
    const { token, id, code } = await comeIn(owner, "welder");
    const dump = await administrate(async (db) => {
      const [p] = await db.query("SELECT * FROM person WHERE id = ?", [id]);
      const [d] = await db.query("SELECT HEX(token) AS t, name FROM device WHERE person_id = ?", [id]);
      const [i] = await db.query("SELECT HEX(code) AS c FROM invitation WHERE person_id = ?", [id]);
      return JSON.stringify([p, d, i]);
    });
    for (const secret of [token, code, PASSWORD]) {
      expect(dump).not.toContain(secret);
      expect(dump).not.toContain(Buffer.from(secret).toString("hex").toUpperCase());
    }
    expect(dump).toMatch(/\$argon2id\$v=19\$m=19456,t=2,p=1\$/);
  });
  it("is nobody with a short password, an invitation that is too old, or one that was withdrawn", async () => {
    const { code } = value(await people.invite(owner, { name: name("short"), role: "welder" }));
    expect(await people.join({ code, password: "short", device: "" }, "b")).toMatchObject({
      status: 422,
      problems: [{ path: "password" }],
    });
    await administrate((db) => db.query("UPDATE invitation SET until_at = UTC_TIMESTAMP(3) - INTERVAL 1 SECOND"));
    expect(await people.join({ code, password: null, device: "" }, "b")).toMatchObject({ status: 401 });
    const left = name("left");
    const { code: theirs } = value(await people.invite(owner, { name: left, role: "welder" }));
    const shop = value(await people.peopleOf(owner));
    const id = shop.people.find((p) => p.name === left)?.id ?? "";
    value(await people.changePerson(owner, id, { do: "leave" }));
    expect(await people.join({ code: theirs, password: null, device: "" }, "b")).toMatchObject({ status: 401 });
  });
  it("who guesses is stopped, by name and by where it comes from, and one who knows is stopped with them", async () => {
    const { called } = await comeIn(owner, "welder");
    const guess = (who: string, from: string) =>
      people.signIn({ name: who, password: "not this one", device: "" }, from);
    for (let i = 0; i < 8; i++) expect(await guess(called, uuid())).toMatchObject({ status: 401 });
    expect(await guess(called, uuid())).toMatchObject({ status: 429 });
    expect(await people.signIn({ name: called, password: PASSWORD, device: "" }, uuid())).toMatchObject({
      status: 429,
    });
    const from = uuid();
    for (let i = 0; i < 40; i++)
      await administrate((db) =>
        db.query("INSERT INTO failed_try (subject) VALUES (UNHEX(SHA2(?, 256)))", [`address ${from}`]),
      );
    expect(await guess(name("anybody"), from)).toMatchObject({ status: 429 });
    // After a while it is asked again.
    await administrate((db) => db.query("UPDATE failed_try SET tried_at = tried_at - INTERVAL 16 MINUTE"));
    expect(value(await people.signIn({ name: called, password: PASSWORD, device: "" }, from)).name).toBe(called);
  });
  it("who leaves is out at once on every device; a device that is withdrawn or unused for long is out", async () => {
    const { token, id, called } = await comeIn(owner, "welder");
    const second = value(await people.signIn({ name: called, password: PASSWORD, device: "tablet" }, "c"));
    const devices = value(await people.peopleOf(owner)).devices.filter((d) => d.personId === id);
    expect(devices.map((d) => d.name).sort()).toEqual(["phone", "tablet"]);
    value(await people.withdrawDevice(owner, devices.find((d) => d.name === "tablet")?.id ?? ""));
    expect(await callerOf(second.token)).toBeNull();
    expect(await callerOf(token)).not.toBeNull();
    value(await people.changePerson(owner, id, { do: "leave" }));
    expect(await callerOf(token)).toBeNull();
    expect(await people.signIn({ name: called, password: PASSWORD, device: "" }, "c")).toMatchObject({ status: 401 });
    value(await people.changePerson(owner, id, { do: "come back" }));
    const back = value(await people.signIn({ name: called, password: PASSWORD, device: "" }, "c"));
    await administrate((db) =>
      db.query("UPDATE device SET until_at = UTC_TIMESTAMP(3) - INTERVAL 1 SECOND WHERE person_id = ?", [id]),
    );
    expect(await callerOf(back.token)).toBeNull();
  });
  it("who changes the password needs the old one, and is signed out on every other device", async () => {
    const { token, caller, called } = await comeIn(owner, "welder");
    const other = value(await people.signIn({ name: called, password: PASSWORD, device: "" }, "d"));
    const next = "four warm tubes";
    expect(await people.changePassword(caller, { old: "wrong one here", password: next })).toMatchObject({
      problems: [{ path: "old" }],
    });
    value(await people.changePassword(caller, { old: PASSWORD, password: next }));
    expect(await callerOf(other.token)).toBeNull();
    expect(await callerOf(token)).not.toBeNull();
    expect(value(await people.signIn({ name: called, password: next, device: "" }, "d")).name).toBe(called);
    value(await people.signOut(caller));
    expect(await callerOf(token)).toBeNull();
  });
  it("a shop keeps an owner, also when two owners send each other away at once", async () => {
    await administrate((db) => db.query("UPDATE person SET role = 'welder' WHERE shop_id = ?", [OTHER_SHOP]));
    const other: Caller = { ...owner, shopId: OTHER_SHOP };
    const [a, b] = [await comeIn(other, "owner"), await comeIn(other, "owner")];
    const both = await Promise.all([
      people.changePerson(a.caller, b.id, { do: "leave" }),
      people.changePerson(b.caller, a.id, { do: "role", role: "looks" }),
    ]);
    expect(both.filter((o) => o.ok)).toHaveLength(1);
    expect(both.find((o) => !o.ok)).toMatchObject({ status: 422, message: /at least one owner/ });
  });
  it("every coming and going is in the audit, which nobody changes", async () => {
    const { called } = await comeIn(owner, "looks");
    const lines = value(await people.peopleOf(owner)).audit;
    expect(lines.some((l) => l.what === "invited" && l.about === called)).toBe(true);
    expect(lines.some((l) => l.what === "signed in" && l.by === called)).toBe(true);
    for (const sql of ["UPDATE audit SET what = 'x'", "DELETE FROM audit"]) {
      await expect(pool().query(sql)).rejects.toThrow(/denied/);
      await expect(administrate((db) => db.query(sql))).rejects.toThrow(/kept/);
    }
  });
});

describe("what one may do", () => {
  it("is what the role says, whatever is asked", async () => {
    const [looks, welder, own] = [
      await comeIn(owner, "looks"),
      await comeIn(owner, "welder"),
      await comeIn(owner, "owner"),
    ];
    const may = (who: Caller | null) => (["look", "work", "own"] as const).map((need) => allowed(who, need).ok);
    expect(may(null)).toEqual([false, false, false]);
    expect(may(looks.caller)).toEqual([true, false, false]);
    expect(may(welder.caller)).toEqual([true, true, false]);
    expect(may(own.caller)).toEqual([true, true, true]);
    const ask = (token: string | null, need: "look" | "work" | "own") =>
      respond(
        new Request("https://shop.test/api/x", { headers: token ? { cookie: `a=b; ${COOKIE}=${token}` } : {} }),
        need,
        async (who) => done(who.role),
      );
    expect((await ask(null, "look")).status).toBe(401);
    expect((await ask("nobody", "look")).status).toBe(401);
    expect((await ask(looks.token, "work")).status).toBe(403);
    expect(await (await ask(welder.token, "work")).json()).toBe("welder");
  });
  it("enters under the name that the shop knows, whatever the device says", async () => {
    const { caller, called } = await comeIn(owner, "welder");
    const { id } = value(await jobs.createJob(caller, { name: "Signed", units: "mm", origin: "somebody else, desk" }));
    const note = (origin: string) => ({ kind: "note" as const, id: uuid(), at, origin, text: "n" });
    const entries = [note(`${called}, bench`), note("unnamed, desk"), note("Odo, bench"), note("x".repeat(60))];
    const added = value(await jobs.addEntries(caller, id, { entries, since: 0 }));
    expect(added.entries.map((e) => e.origin)).toEqual([
      `${called}, bench`,
      `${called}, desk`,
      `${called} for Odo, bench`,
      expect.stringMatching(new RegExp(`^${called} for x{20,}, desk$`)),
    ]);
    for (const e of added.entries) expect(e.origin.length).toBeLessThanOrEqual(60);
  });
});

describe("another shop", () => {
  const theirs: Caller = { shopId: OTHER_SHOP, role: "owner", person: null };
  it("is not there: neither its jobs nor its people, devices, instruments or test beads", async () => {
    const { id } = value(await jobs.createJob(owner, { name: "Ours alone", units: "mm", origin: "x" }));
    const note = { kind: "note", id: uuid(), at, origin: "x", text: "n" };
    const asked = [
      await jobs.getJob(theirs, id),
      await jobs.startOf(theirs, id),
      await jobs.jobForFile(theirs, id),
      await jobs.cutListOf(theirs, id),
      await jobs.newsOf(theirs, id, 0, 0),
      await jobs.addEntries(theirs, id, { entries: [note], since: 0 }),
      await jobs.savePlan(theirs, id, { baseVersion: 1, plan: newPlan("Theirs", "mm"), origin: "x" }),
      await jobs.putJobAway(theirs, id, { away: true }),
    ];
    expect(asked.map((o) => (o.ok ? "there" : o.status))).toEqual(asked.map(() => 404));
    expect((await jobs.listJobs(theirs, { text: "Ours alone" })).total).toBe(0);
    expect(value(await jobs.getJob(owner, id)).job.entries).toEqual([]);

    const { id: personId } = await comeIn(owner, "welder");
    expect(await people.changePerson(theirs, personId, { do: "leave" })).toMatchObject({ status: 404 });
    const device = value(await people.peopleOf(owner)).devices.find((d) => d.personId === personId);
    expect(await people.withdrawDevice(theirs, device?.id ?? "")).toMatchObject({ status: 404 });

    const { id: _id, ...tape } = SHELF[0] as (typeof SHELF)[number];
    const ours = value(await instruments.addInstrument(owner, { ...tape, name: "Our own tape" }));
    expect((await instruments.listInstruments(theirs)).some((i) => i.id === ours.id)).toBe(false);
    expect(await instruments.putInstrumentAway(theirs, ours.id, { away: true })).toMatchObject({ status: 404 });
    const { id: job } = value(await jobs.createJob(theirs, { name: "Theirs", units: "mm", origin: "x" }));
    const round = { kind: "round", id: uuid(), at, origin: "x", gate: "dry fit", method: "heights" };
    const reading = {
      ...{ kind: "reading", id: uuid(), at, origin: "x", roundId: round.id, instrumentId: ours.id },
      what: { kind: "distance", from: "A", to: "B" },
      value: length("1000"),
    };
    expect(await jobs.addEntries(theirs, job, { entries: [round, reading], since: 0 })).toMatchObject({
      status: 422,
      problems: [{ path: "entries.1.instrumentId" }],
    });
    const bead = {
      ...{ id: uuid(), at, origin: "x", process: "MAG", volts: 18, amps: 120, travelMmPerS: 5, wallMm: 3 },
      ...{ material: "mild steel", seam: "fillet", position: "flat", result: "keep", note: "" },
    };
    value(await addTestBead(owner, bead));
    expect((await listTestBeads(theirs)).some((b) => b.id === bead.id)).toBe(false);
  });
  it("whose job file is read in gives its instruments ids of their own: none is reached across", async () => {
    const { id: _id, ...tape } = SHELF[0] as (typeof SHELF)[number];
    const ours = value(await instruments.addInstrument(owner, { ...tape, name: "A tape of ours" }));
    const { id } = value(await jobs.createJob(owner, { name: "Goes across", units: "mm", origin: "x" }));
    const round = { kind: "round", id: uuid(), at, origin: "x", gate: "dry fit", method: "heights" };
    const reading = {
      ...{ kind: "reading", id: uuid(), at, origin: "x", roundId: round.id, instrumentId: ours.id },
      what: { kind: "distance", from: "A", to: "B" },
      value: length("1000"),
    };
    value(await jobs.addEntries(owner, id, { entries: [round, reading], since: 0 }));
    const text = writeJobFile(value(await jobs.jobForFile(owner, id)));
    const read = value(await jobs.importJob(theirs, text, true, "x"));
    const { job } = value(await jobs.getJob(theirs, read.id));
    const used = job.entries.flatMap((e) => (e.kind === "reading" ? [e.instrumentId] : []));
    expect(used).toHaveLength(1);
    expect(used[0]).not.toBe(ours.id);
    expect(job.instruments.find((i) => i.id === used[0])?.name).toBe("A tape of ours");
  });
});

describe("what is put away", () => {
  it("is hidden from its list and kept whole: jobs, and instruments with the readings made with them", async () => {
    const called = name("Put away");
    const { id } = value(await jobs.createJob(owner, { name: called, units: "mm", origin: "x" }));
    const { id: _id, ...tape } = SHELF[0] as (typeof SHELF)[number];
    const own = value(await instruments.addInstrument(owner, { ...tape, name: called }));
    const round = { kind: "round", id: uuid(), at, origin: "x", gate: "dry fit", method: "heights" };
    const read = (mm: string) => ({
      ...{ kind: "reading", id: uuid(), at, origin: "x", roundId: round.id, instrumentId: own.id },
      what: { kind: "distance", from: "A", to: "B" },
      value: length(mm),
    });
    value(await jobs.addEntries(owner, id, { entries: [round, read("1000")], since: 0 }));
    value(await instruments.putInstrumentAway(owner, own.id, { away: true }));
    value(await jobs.putJobAway(owner, id, { away: true }));
    value(await jobs.putJobAway(owner, id, { away: true }));
    const listed = async (away: boolean) => (await jobs.listJobs(owner, { text: called, away })).jobs.map((j) => j.id);
    expect(await listed(false)).toEqual([]);
    expect(await listed(true)).toEqual([id]);
    const { job } = value(await jobs.getJob(owner, id));
    expect(job.instruments.find((i) => i.id === own.id)?.away).toBe(true);
    // What an offline device read with it still comes in.
    value(await jobs.addEntries(owner, id, { entries: [read("1001")], since: 2 }));
    expect(value(await jobs.jobForFile(owner, id)).instruments.map((i) => i.away)).toEqual([undefined]);
    value(await jobs.putJobAway(owner, id, { away: false }));
    value(await instruments.putInstrumentAway(owner, own.id, { away: false }));
    expect(await listed(false)).toEqual([id]);
    expect((await instruments.listInstruments(owner)).find((i) => i.id === own.id)?.away).toBeUndefined();
  });
});

describe("the list of jobs", () => {
  it("is found by name, whatever signs it has, page by page, and says how each stands now", async () => {
    const shop: Caller = { ...owner, shopId: uuid() };
    await administrate((db) => db.execute("INSERT INTO shop (id, name) VALUES (?, 'A large shop')", [shop.shopId]));
    const ids: string[] = [];
    for (let i = 1; i <= 53; i++)
      ids.push(
        value(
          await jobs.createJob(shop, {
            name: i === 7 ? "50% off_cut \\ seven" : `Rack ${i}`,
            units: "mm",
            origin: "x",
          }),
        ).id,
      );
    const first = await jobs.listJobs(shop);
    expect(first).toMatchObject({ total: 53, page: 1, pages: 2 });
    const second = await jobs.listJobs(shop, { page: "2" });
    expect(new Set([...first.jobs, ...second.jobs].map((j) => j.id))).toEqual(new Set(ids));
    for (const text of ["50%", "off_cut", "\\ seven", "SEVEN"])
      expect(
        (await jobs.listJobs(shop, { text })).jobs.map((j) => j.id),
        text,
      ).toEqual([ids[6]]);
    expect((await jobs.listJobs(shop, { text: "%" })).total).toBe(1);
    for (const page of ["0", "-1", "x", "9999999999"]) expect((await jobs.listJobs(shop, { page })).page).toBe(1);
    expect((await jobs.listJobs(shop, { page: "40" })).jobs).toEqual([]);
    const [id = ""] = ids;
    expect(first.jobs.concat(second.jobs).find((j) => j.id === id)?.stage).not.toBe("square");
    const round = { kind: "round", id: uuid(), at, origin: "x", gate: "dry fit", method: "heights" };
    const reading = {
      ...{ kind: "reading", id: uuid(), at, origin: "x", roundId: round.id, instrumentId: "rule" },
      what: { kind: "distance", from: "A", to: "B" },
      value: length("1000"),
    };
    value(await jobs.addEntries(shop, id, { entries: [round, reading], since: 0 }));
    expect((await jobs.listJobs(shop)).jobs[0]).toMatchObject({ id, stage: "square" });
  });
});

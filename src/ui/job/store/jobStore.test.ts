import { describe, expect, it } from "vitest";
import { type Entry, type Job, newPlan, type Plan } from "@/core/job";
import { length } from "@/core/units";
import { sized } from "../../../../tests/support/plans";
import type { DeviceState, DeviceStore } from "./device";
import { JobStore, type Surroundings } from "./jobStore";
import type { PageLocks } from "./keeping";
import type { Transport } from "./sender";

/** A server of one job, as the real one answers. */
class FakeServer {
  plan: Plan;
  version = 1;
  entries: Entry[] = [];
  down = false;
  requests: string[] = [];
  refuse: string | null = null;

  constructor(plan: Plan) {
    this.plan = plan;
  }

  /** What something in between answers instead of the server. */
  between: { status: number; body: unknown } | null = null;

  readonly transport: Transport = async (method, path, body) => {
    this.requests.push(`${method} ${path.split("/").pop()?.split("?")[0]}`);
    if (this.down) throw new Error("not reached");
    if (this.between) return this.between;
    if (method === "GET" && path === "/api/jobs/job")
      return {
        status: 200,
        body: {
          seq: this.entries.length,
          job: {
            ...{ id: "job", createdAt: "", version: this.version, plan: this.plan, instruments: [] },
            entries: [...this.entries],
          },
        },
      };
    if (path.includes("/news")) {
      const q = new URL(path, "http://x").searchParams;
      const plan = Number(q.get("version")) === this.version ? null : this.plan;
      return {
        status: 200,
        body: {
          seq: this.entries.length,
          version: this.version,
          entries: this.entries.slice(Number(q.get("since"))),
          plan,
        },
      };
    }
    if (method === "PUT") {
      const { baseVersion, plan, origin } = body as { baseVersion: number; plan: Plan; origin: string };
      if (baseVersion !== this.version)
        return {
          status: 409,
          body: { message: "", problems: [], current: { version: this.version, plan: this.plan } },
        };
      this.save(plan, origin);
      return { status: 200, body: { version: this.version } };
    }
    const { entries, since } = body as { entries: Entry[]; since: number };
    if (this.refuse && entries.some((e) => e.kind === "note" && e.text === this.refuse))
      return { status: 422, body: { message: "Not this one.", problems: [] } };
    for (const e of entries) if (!this.entries.some((k) => k.id === e.id)) this.entries.push(e);
    return {
      status: 200,
      body: { seq: this.entries.length, version: this.version, entries: this.entries.slice(since) },
    };
  };

  save(plan: Plan, origin: string) {
    this.plan = plan;
    this.version += 1;
    this.entries.push({
      kind: "change",
      id: `change-${this.version}`,
      at: "",
      origin,
      version: this.version,
      changes: [{ path: "x", label: "X", from: "1", to: "2" }],
    });
  }
}

const plan = newPlan("Test", "mm");
let ids = 0;

/** A device that keeps values in memory, each copied as a real one does. */
class FakeDevice implements DeviceStore {
  readonly kept = new Map<string, string>();
  private readonly listeners = new Set<(state: DeviceState) => void>();

  left(prefix: string): Promise<[string, unknown][]> {
    const found = [...this.kept].filter(([k]) => k.startsWith(prefix));
    return Promise.resolve(found.map(([k, v]): [string, unknown] => [k, JSON.parse(v)]));
  }

  put(key: string, value: unknown): void {
    if (value === null) this.kept.delete(key);
    else this.kept.set(key, JSON.stringify(value));
  }

  /** Keys of what the server has not got. */
  get unsaved(): string[] {
    return [...this.kept.keys()].filter((k) => !k.startsWith("plumb/job/"));
  }

  leave(): void {
    // Everything is written at once.
  }

  watch(listener: (state: DeviceState) => void): () => void {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  }

  tell(state: DeviceState): void {
    for (const listener of this.listeners) listener(state);
  }
}

/** A browser without locks: every other page is gone. */
const NO_LOCKS: PageLocks = { hold: () => () => undefined, whenFree: (_name, work) => work() };

/** Locks as a browser has them: held by pages, handed on to who waits. */
class FakeLocks implements PageLocks {
  private readonly held = new Set<string>();
  private readonly waiting = new Map<string, (() => Promise<void>)[]>();

  hold(name: string): () => void {
    this.held.add(name);
    return () => {
      this.held.delete(name);
      for (const work of this.waiting.get(name) ?? []) void work();
      this.waiting.delete(name);
    };
  }

  async whenFree(name: string, work: () => Promise<void>): Promise<void> {
    if (!this.held.has(name)) return work();
    this.waiting.set(name, [...(this.waiting.get(name) ?? []), work]);
  }
}

function page(server: FakeServer, device = new FakeDevice(), version = server.version, locks: PageLocks = NO_LOCKS) {
  const timers: (() => void)[] = [];
  // What waits for seconds comes after everything that is quick.
  const slow: (() => void)[] = [];
  const around: Surroundings = {
    transport: server.transport,
    device,
    locks,
    now: () => "2026-11-24T08:00:00.000Z",
    newId: () => `id-${++ids}`,
    later: (work, ms) => (ms < 3000 ? timers : slow).push(work),
    cancel: () => undefined,
  };
  const job: Job = {
    id: "job",
    createdAt: "",
    version,
    plan: server.plan,
    instruments: [],
    entries: [...server.entries],
  };
  const store = new JobStore({ job, seq: server.entries.length }, () => "me", around);
  const resumed = store.resume();
  /** Lets every timer and request that is due run to its end. */
  const settle = async () => {
    for (let i = 0; i < 12; i++) {
      for (const work of [...timers.splice(0), ...(i > 8 ? slow.splice(0) : [])]) work();
      for (let j = 0; j < 12; j++) await Promise.resolve();
    }
  };
  return { store, settle, resumed, device, now: () => store.getSnapshot() };
}
const note = (text: string) => ({ kind: "note" as const, text });
const longer = (p: Plan): Plan => sized(p, { length: length("1100") });

describe("the job on screen", () => {
  it("shows an edit at once and saves it a moment later", async () => {
    const server = new FakeServer(plan);
    const p = page(server);
    await p.settle();
    p.store.edit(longer);
    expect(p.now().job.plan.frame.sizes.length.mm).toBe(1100);
    expect(server.plan.frame.sizes.length.mm).toBe(1000);
    expect(p.now().save.state).toBe("saving");
    await p.settle();
    expect(server.plan.frame.sizes.length.mm).toBe(1100);
    expect(p.now()).toMatchObject({ save: { state: "saved" }, othersChanges: [] });
    expect(p.device.unsaved).toEqual([]);
  });

  it("undoes and redoes, each saved", async () => {
    const server = new FakeServer(plan);
    const p = page(server);
    p.store.edit(longer);
    p.store.undo();
    expect(p.now()).toMatchObject({
      canUndo: false,
      canRedo: true,
      job: { plan: { frame: { sizes: { length: { mm: 1000 } } } } },
    });
    p.store.redo();
    await p.settle();
    expect(server.plan.frame.sizes.length.mm).toBe(1100);
  });

  it("keeps entries on the device while the server is away and sends each once, in order, when it is back", async () => {
    const server = new FakeServer(plan);
    const p = page(server);
    await p.settle();
    server.down = true;
    p.store.add(note("one"));
    p.store.add(note("two"));
    await p.settle();
    expect(p.now().save.state).toBe("waiting");
    expect(p.now().unsent.size).toBe(2);
    expect(p.now().job.entries).toHaveLength(2);
    server.down = false;
    p.store.retry();
    await p.settle();
    expect(server.entries.map((e) => (e.kind === "note" ? e.text : ""))).toEqual(["one", "two"]);
    expect(p.now()).toMatchObject({ save: { state: "saved" } });
    expect(p.now().job.entries).toHaveLength(2);
  });

  it("loses nothing when the page is closed before anything was sent", async () => {
    const server = new FakeServer(plan);
    server.down = true;
    const first = page(server);
    first.store.add(note("kept"));
    first.store.edit(longer);
    first.store.keepText("frame.width", "sixty");
    first.store.end();
    server.down = false;
    const second = page(server, first.device);
    await second.resumed;
    expect(second.now().texts).toEqual({ "frame.width": "sixty" });
    await second.settle();
    expect(server.entries.some((e) => e.kind === "note" && e.text === "kept")).toBe(true);
    expect(server.plan.frame.sizes.length.mm).toBe(1100);
  });

  it("forgets texts of fields that are gone, and only those", async () => {
    const p = page(new FakeServer(plan));
    p.store.keepText("frame.cross.M1.at", "here");
    p.store.keepText("frame.length", "long");
    p.store.forgetTexts("frame.cross.M1.");
    expect(p.now().texts).toEqual({ "frame.length": "long" });
  });

  it("keeps the same job object while only texts change, so that nothing is worked out again", async () => {
    const p = page(new FakeServer(plan));
    await p.settle();
    const before = p.now().job;
    p.store.keepText("reading/x/AB", "12");
    expect(p.now().job).toBe(before);
    p.store.add(note("n"));
    expect(p.now().job).not.toBe(before);
  });

  it("sets aside an entry that the server refuses and goes on with the others", async () => {
    const server = new FakeServer(plan);
    server.refuse = "bad";
    const p = page(server);
    server.down = true;
    p.store.add(note("good"), note("bad"), note("also good"));
    await p.settle();
    server.down = false;
    p.store.retry();
    await p.settle();
    expect(server.entries).toHaveLength(2);
    expect(p.now().refused).toMatchObject([{ entry: { text: "bad" }, why: "Not this one." }]);
  });

  it("takes nothing that comes from in between for an answer, and sends again until the server itself speaks", async () => {
    for (const between of [
      { status: 404, body: null },
      { status: 408, body: { error: "timeout" } },
      { status: 429, body: { message: "slow down" } },
      { status: 403, body: "<html>sign in</html>" },
      { status: 200, body: null },
      { status: 302, body: { message: "", problems: [] } },
    ]) {
      const server = new FakeServer(plan);
      const p = page(server);
      await p.settle();
      server.between = between;
      p.store.add(note("kept"));
      p.store.edit(longer);
      await p.settle();
      expect(p.now().save).toMatchObject({ state: "waiting" });
      expect(p.now().refused).toEqual([]);
      expect(p.now().unsent.size).toBe(1);
      server.between = null;
      p.store.retry();
      await p.settle();
      expect(p.now().save).toMatchObject({ state: "saved" });
      expect(server.entries.some((e) => e.kind === "note" && e.text === "kept")).toBe(true);
      expect(server.plan).toMatchObject({ frame: { sizes: { length: { mm: 1100 } } } });
    }
  });

  it("keeps what was refused on the device, past the page, until it is mended, noted or given up", async () => {
    const server = new FakeServer(plan);
    server.refuse = "bad";
    const device = new FakeDevice();
    const first = page(server, device);
    first.store.add(note("bad"));
    await first.settle();
    expect(first.now().refused).toHaveLength(1);
    first.store.end();
    // The next page on this device has it still.
    const second = page(server, device);
    await second.settle();
    expect(second.now().refused).toMatchObject([{ entry: { text: "bad" }, why: "Not this one." }]);
    const [refused] = second.now().refused;
    second.store.settleRefused(refused?.entry.id ?? "", "note");
    await second.settle();
    expect(second.now().refused).toEqual([]);
    expect(server.entries.some((e) => e.kind === "note" && e.text === "Not taken: bad. Not this one.")).toBe(true);
    second.store.end();
    const third = page(server, device);
    await third.settle();
    expect(third.now().refused).toEqual([]);
  });

  it("does not overwrite what somebody else saved first, and lays own edits over it when asked", async () => {
    const server = new FakeServer(plan);
    const p = page(server);
    await p.settle();
    server.save({ ...plan, name: "Theirs" }, "them");
    p.store.edit(longer);
    await p.settle();
    expect(server.plan).toMatchObject({ name: "Theirs", frame: { sizes: { length: { mm: 1000 } } } });
    expect(p.now().conflict).toMatchObject({ theirs: [{ label: "Name", to: "Theirs" }], both: [] });
    p.store.settle("mine");
    await p.settle();
    expect(server.plan).toMatchObject({ name: "Theirs", frame: { sizes: { length: { mm: 1100 } } } });
    expect(p.now().conflict).toBeNull();
  });

  it("says saved again when an edit was changed back before it was sent", async () => {
    const server = new FakeServer(plan);
    const p = page(server);
    await p.settle();
    p.store.edit(longer);
    p.store.edit((q) => sized(q, { length: plan.frame.sizes.length }));
    expect(p.now().save.state).toBe("saving");
    await p.settle();
    expect(p.now().save.state).toBe("saved");
    expect(server.version).toBe(1);
  });
  it("has nothing to settle with its own earlier edit, when the page was left while that was on its way", async () => {
    const server = new FakeServer(plan);
    const device = new FakeDevice();
    const first = page(server, device);
    await first.settle();
    first.store.edit(longer);
    server.down = true;
    await first.settle();
    first.store.end();
    server.down = false;
    // It arrives after the next page was read, and its answer reaches nobody.
    const next = page(server, device);
    server.save(first.now().job.plan, "me");
    await next.resumed;
    next.store.edit((p) => sized(p, { width: length("700") }));
    await next.settle();
    expect(next.now()).toMatchObject({ conflict: null, save: { state: "saved" } });
    expect(server.plan.frame.sizes).toMatchObject({ length: { mm: 1100 }, width: { mm: 700 } });
    expect(device.unsaved).toEqual([]);
  });
  it("has nothing to settle with itself through a row of pages, each left before an answer came", async () => {
    const server = new FakeServer(plan);
    const device = new FakeDevice();
    const widths = ["700", "710", "720", "730"];
    // What the last page sent gets in after the next one was read; nobody hears that it did.
    let late: Plan | null = null;
    for (const width of widths) {
      const p = page(server, device);
      if (late) server.save(late, "me");
      server.down = true;
      await p.resumed;
      p.store.edit((q) => sized(q, { width: length(width) }));
      await p.settle();
      late = p.now().job.plan;
      p.store.end();
      server.down = false;
    }
    const last = page(server, device);
    await last.settle();
    expect(last.now()).toMatchObject({ conflict: null, save: { state: "saved" } });
    expect(server.plan.frame.sizes.width.mm).toBe(730);
    expect(device.unsaved).toEqual([]);
  });
  it("forgets nothing that an earlier page left while the device is still asked, though the server answers first", async () => {
    const server = new FakeServer(plan);
    const device = new FakeDevice();
    const first = page(server, device);
    await first.settle();
    server.down = true;
    first.store.edit(longer);
    await first.settle();
    first.store.end();
    server.down = false;
    let answer = (): void => undefined;
    const asked = new Promise<void>((done) => {
      answer = done;
    });
    const left = device.left.bind(device);
    device.left = (prefix) => asked.then(() => left(prefix));
    const next = page(server, device);
    await next.store.poll();
    answer();
    await next.settle();
    await next.settle();
    expect(server.plan.frame.sizes.length.mm).toBe(1100);
  });
  it("does not send what the server would refuse, says why, and sends it when it is mended", async () => {
    const server = new FakeServer(plan);
    const p = page(server);
    await p.settle();
    p.store.edit((q) => sized(q, { length: length("1") }));
    await p.settle();
    expect(p.now().save).toMatchObject({ state: "refused" });
    expect(server.requests).not.toContain("PUT plan");
    p.store.edit(longer);
    await p.settle();
    expect(p.now().save.state).toBe("saved");
    expect(server.plan.frame.sizes.length.mm).toBe(1100);
  });
  it("drops own edits when asked to take theirs", async () => {
    const server = new FakeServer(plan);
    const p = page(server);
    await p.settle();
    server.save({ ...plan, name: "Theirs" }, "them");
    p.store.edit(longer);
    await p.settle();
    p.store.settle("theirs");
    await p.settle();
    expect(p.now().job.plan).toMatchObject({ name: "Theirs", frame: { sizes: { length: { mm: 1000 } } } });
    expect(server.version).toBe(2);
  });

  it("hears what others did, and says what they changed", async () => {
    const server = new FakeServer(plan);
    const p = page(server);
    await p.settle();
    server.save({ ...plan, name: "Theirs" }, "them");
    server.entries.push({ kind: "note", id: "theirs", at: "", origin: "them", text: "hello" });
    await p.store.poll();
    expect(p.now().job.plan.name).toBe("Theirs");
    expect(p.now().othersChanges).toMatchObject([{ by: "them" }]);
    expect(p.now().job.entries).toHaveLength(2);
    p.store.dismissOthers();
    expect(p.now().othersChanges).toEqual([]);
  });

  it("finds out on opening that a draft left on the device has been overtaken", async () => {
    const server = new FakeServer(plan);
    server.down = true;
    const first = page(server);
    first.store.edit(longer);
    first.store.end();
    server.down = false;
    server.save({ ...plan, name: "Theirs" }, "them");
    const second = page(server, first.device);
    await second.settle();
    expect(second.now().conflict?.theirs).toMatchObject([{ label: "Name" }]);
    expect(server.plan.frame.sizes.length.mm).toBe(1000);
  });

  it("keeps what is typed while the device is still asked what it has, and takes up the rest", async () => {
    const server = new FakeServer(plan);
    server.down = true;
    const first = page(server);
    first.store.add(note("left"));
    first.store.edit((p) => ({ ...p, name: "Left" }));
    first.store.end();
    server.down = false;
    const second = page(server, first.device);
    second.store.edit(longer);
    await second.settle();
    expect(server.plan).toMatchObject({ name: "Left", frame: { sizes: { length: { mm: 1100 } } } });
    expect(server.entries.some((e) => e.kind === "note" && e.text === "left")).toBe(true);
  });

  it("writes over nothing that an earlier page left, though something is typed before the device has been read", async () => {
    const server = new FakeServer(plan);
    const first = page(server);
    await first.settle();
    server.down = true;
    first.store.keepText("frame.sizes.length", "twelve hundred");
    first.store.edit((p) => ({ ...p, name: "Left" }));
    await first.settle();
    first.store.end();
    // What is typed at once is written before the device is read, as the browser's own database does it.
    const { device } = first;
    const read = device.left.bind(device);
    let answer = (): void => undefined;
    const asked = new Promise<void>((done) => {
      answer = done;
    });
    device.left = (prefix) => asked.then(() => read(prefix));
    const second = page(server, device);
    second.store.keepText("ab", "1000,5x");
    second.store.edit(longer);
    second.store.end();
    // That page too was closed before it had read anything.
    server.down = false;
    const third = page(server, device);
    third.store.keepText("bc", "500 or so");
    answer();
    await third.settle();
    await third.settle();
    expect(third.now().texts).toEqual({ "frame.sizes.length": "twelve hundred", ab: "1000,5x", bc: "500 or so" });
    expect(server.plan).toMatchObject({ name: "Left", frame: { sizes: { length: { mm: 1100 } } } });
    expect(device.unsaved).toEqual([expect.stringMatching(/^plumb\/texts\/job\//)]);
  });

  it("leaves a draft to the page that made it as long as that lives, and takes it over when it is gone", async () => {
    const server = new FakeServer(plan);
    const device = new FakeDevice();
    const locks = new FakeLocks();
    const first = page(server, device, server.version, locks);
    await first.settle();
    server.down = true;
    first.store.edit(longer);
    first.store.add(note("of the first"));
    first.store.keepText("bc", "half of it");
    await first.settle();
    const before = device.unsaved;
    const second = page(server, device, server.version, locks);
    second.store.edit((p) => ({ ...p, name: "Second" }));
    await second.settle();
    expect(second.now().job.plan).toMatchObject({ name: "Second", frame: { sizes: { length: { mm: 1000 } } } });
    expect(second.now().unsent.size).toBe(0);
    for (const key of before) expect(device.unsaved).toContain(key);
    // The second page saves and is done; nothing of the first is gone with it.
    server.down = false;
    second.store.retry();
    await second.settle();
    expect(server.plan.name).toBe("Second");
    for (const key of before) expect(device.unsaved).toContain(key);
    server.down = true;
    first.store.end();
    await second.settle();
    // It is based on an older plan than the one that the second page saved: saving finds that out, and asks.
    expect(second.now().job.plan).toMatchObject({ frame: { sizes: { length: { mm: 1100 } } } });
    expect(second.now().texts).toEqual({ bc: "half of it" });
    expect(second.now().unsent.size).toBe(1);
    for (const key of before) expect(device.unsaved).not.toContain(key);
    server.down = false;
    second.store.retry();
    await second.settle();
    expect(second.now().conflict).toMatchObject({ theirs: [{ label: "Name", to: "Second" }], both: [] });
    second.store.settle("mine");
    await second.settle();
    expect(server.plan).toMatchObject({ name: "Second", frame: { sizes: { length: { mm: 1100 } } } });
    expect(server.entries.filter((e) => e.kind === "note")).toHaveLength(1);
  });

  it("waits at the door when it has to sign in again: nothing is refused, everything is sent afterwards", async () => {
    for (const status of [401, 403, 429]) {
      const server = new FakeServer(plan);
      const p = page(server);
      await p.settle();
      server.between = { status, body: { message: "Not now.", problems: [] } };
      p.store.add(note("kept"));
      p.store.edit(longer);
      await p.settle();
      expect(p.now().save).toEqual({ state: "waiting", why: "Not now.", ...(status === 401 ? { signIn: true } : {}) });
      expect(p.now().refused).toEqual([]);
      server.between = null;
      p.store.retry();
      await p.settle();
      expect(p.now().save.state).toBe("saved");
      expect(server.plan.frame.sizes.length.mm).toBe(1100);
    }
  });

  it("notices a server that came back older, sends again what this person entered, and the plan", async () => {
    const server = new FakeServer(plan);
    const p = page(server);
    await p.settle();
    p.store.add(note("before"));
    await p.settle();
    const backup = { plan: server.plan, version: server.version, entries: [...server.entries] };
    p.store.add(note("after"));
    p.store.edit(longer);
    server.entries.push({ kind: "note", id: "theirs", at: "", origin: "them, bench", text: "by another" });
    await p.settle();
    await p.store.poll();
    expect(p.now().job.entries.filter((e) => e.kind === "note")).toHaveLength(3);
    Object.assign(server, backup);
    await p.store.poll();
    expect(p.now().wentBack).toBeNull();
    await p.store.poll();
    expect(p.now().wentBack).toBe(1);
    await p.settle();
    const texts = server.entries.flatMap((e) => (e.kind === "note" ? [e.text] : []));
    expect(texts).toEqual(["before", "after"]);
    expect(server.plan.frame.sizes.length.mm).toBe(1100);
    expect(p.now()).toMatchObject({ conflict: null, save: { state: "saved" } });
    p.store.dismissWentBack();
    expect(p.now().wentBack).toBeNull();
  });

  it("takes up what a page of the first format left, in today's words", async () => {
    const server = new FakeServer(plan);
    server.entries.push({ kind: "round", id: "r", at: "", origin: "me", gate: "cut", method: "heights" });
    const device = new FakeDevice();
    const old = { at: "2026-11-24T08:00:00.000Z", origin: "me" };
    device.put("plumb/outbox/job/an-old-page", [
      { kind: "tick", id: "t", ...old, step: "tack/A/inside", done: true },
      { kind: "reading", id: "m", ...old, roundId: "r", instrumentId: "rule", what: "AB", value: length("1000") },
    ]);
    const p = page(server, device);
    await p.settle();
    expect(server.entries).toMatchObject([
      { id: "r" },
      { id: "t", step: { do: "tack", joint: "A", line: "inside" } },
      { id: "m", what: { kind: "piece", member: "AB" } },
    ]);
    expect(device.unsaved).toEqual([]);
  });

  it("says when the device keeps nothing, and takes it back when it does again", async () => {
    const p = page(new FakeServer(plan));
    await p.settle();
    p.device.tell({ state: "full", why: "full" });
    expect(p.now().device).toEqual({ state: "full", why: "full" });
    p.device.tell({ state: "keeps" });
    expect(p.now().device.state).toBe("keeps");
  });

  it("leaves everything as it was that a change does not touch, so that who shows it is not woken", async () => {
    const p = page(new FakeServer(plan));
    await p.settle();
    const before = p.now();
    p.store.keepText("frame.sizes.length", "long");
    const after = p.now();
    const same = Object.keys(before).filter((k) => before[k as "job"] === after[k as "job"]);
    expect(same.sort()).toEqual(
      Object.keys(before)
        .filter((k) => k !== "texts")
        .sort(),
    );
  });
});

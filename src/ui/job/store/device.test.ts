import "fake-indexeddb/auto";
import { IDBFactory, IDBObjectStore } from "fake-indexeddb";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { type DeviceState, IndexedDevice } from "./device";

/** The small storage of earlier versions, in memory. */
function small(left: Record<string, string> = {}): Storage {
  const kept = new Map(Object.entries(left));
  return {
    get length() {
      return kept.size;
    },
    key: (i) => [...kept.keys()][i] ?? null,
    getItem: (k) => kept.get(k) ?? null,
    setItem: (k, v) => void kept.set(k, v),
    removeItem: (k) => void kept.delete(k),
    clear: () => kept.clear(),
  };
}
const heard = (device: IndexedDevice): DeviceState[] => {
  const all: DeviceState[] = [];
  device.watch((s) => all.push(s));
  return all;
};

describe("what is kept on the device", () => {
  beforeEach(() => {
    globalThis.indexedDB = new IDBFactory();
  });
  afterEach(() => vi.restoreAllMocks());

  it("is there for the next page, the last value of each key, and gone when it is forgotten", async () => {
    const first = new IndexedDevice(() => null);
    first.put("plumb/draft/a", { n: 1 });
    first.put("plumb/draft/a", { n: 2 });
    first.put("plumb/outbox/a/p", [1]);
    first.put("plumb/draft/b", { n: 3 });
    await first.left("plumb/");
    const second = new IndexedDevice(() => null);
    expect(await second.left("plumb/draft/a")).toEqual([["plumb/draft/a", { n: 2 }]]);
    second.put("plumb/draft/a", null);
    expect((await second.left("plumb/")).map(([k]) => k)).toEqual(["plumb/draft/b", "plumb/outbox/a/p"]);
    expect(heard(second)).toEqual([{ state: "keeps" }]);
  });
  it("is brought over from the small storage of earlier versions, and nothing else of it", async () => {
    const old = small({
      "plumb/outbox/a/p": '[{"id":"e"}]',
      "plumb/texts/a": "not JSON",
      "plumb/device": '{"who":"Odo"}',
    });
    const device = new IndexedDevice(() => old);
    expect(await device.left("plumb/")).toEqual([["plumb/outbox/a/p", [{ id: "e" }]]]);
    expect([old.length, old.key(0)]).toEqual([1, "plumb/device"]);
  });
  it("is there for the next page though this one was left before anything was written", async () => {
    const corner = small();
    const first = new IndexedDevice(() => corner);
    first.put("plumb/draft/a", { n: 1 });
    first.put("plumb/outbox/a/p", [1]);
    await first.left("plumb/");
    first.put("plumb/draft/a", { n: 2 });
    first.put("plumb/outbox/a/p", null);
    first.leave();
    // Only what is written by now outlives the page.
    const left = small(
      Object.fromEntries(
        Array.from({ length: corner.length }, (_, i) => corner.key(i) ?? "").map((k) => [k, corner.getItem(k) ?? ""]),
      ),
    );
    globalThis.indexedDB = new IDBFactory();
    const second = new IndexedDevice(() => left);
    second.put("plumb/outbox/a/p", [1]);
    expect(await second.left("plumb/draft/")).toEqual([["plumb/draft/a", { n: 2 }]]);
    expect(left.length).toBe(0);
  });
  it("leaves nothing stale behind when the page comes back and writes on", async () => {
    const corner = small();
    const device = new IndexedDevice(() => corner);
    device.put("plumb/draft/a", { n: 1 });
    device.leave();
    expect(corner.length).toBe(1);
    device.put("plumb/draft/a", { n: 2 });
    expect(await device.left("plumb/")).toEqual([["plumb/draft/a", { n: 2 }]]);
    expect(corner.length).toBe(0);
  });
  it("says that it keeps nothing where there is no such storage", async () => {
    vi.spyOn(globalThis.indexedDB, "open").mockImplementation(() => {
      throw new DOMException("no", "SecurityError");
    });
    const device = new IndexedDevice(() => null);
    const states = heard(device);
    expect(await device.left("plumb/")).toEqual([]);
    expect(states.at(-1)).toMatchObject({ state: "missing", why: expect.stringMatching(/keeps nothing/) });
  });
  it("says that it is full, and takes it back when it keeps again", async () => {
    const device = new IndexedDevice(() => null);
    const states = heard(device);
    const put = vi.spyOn(IDBObjectStore.prototype, "put").mockImplementation(() => {
      throw new DOMException("full", "QuotaExceededError");
    });
    device.put("plumb/draft/a", { n: 1 });
    await device.left("plumb/");
    expect(states.at(-1)).toMatchObject({ state: "full", why: expect.stringMatching(/full/) });
    put.mockRestore();
    device.put("plumb/draft/a", { n: 1 });
    await device.left("plumb/");
    expect(states.at(-1)).toEqual({ state: "keeps" });
  });
});

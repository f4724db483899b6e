import { describe, expect, it } from "vitest";
import type { DeviceStore } from "./device";
import { sendLeft, waitingOn } from "./left";
import type { Transport } from "./sender";

const note = (id: string) => ({ kind: "note", id, at: "2026-11-24T08:00:00.000Z", origin: "me", text: id });

function deviceWith(kept: Record<string, unknown>): DeviceStore & { kept: Map<string, unknown> } {
  const all = new Map(Object.entries(kept));
  return {
    kept: all,
    left: async (prefix) => [...all].filter(([k]) => k.startsWith(prefix)),
    put: (key, value) => void (value === null ? all.delete(key) : all.set(key, value)),
    leave: () => undefined,
    watch: () => () => undefined,
  };
}
const free = { hold: () => () => undefined, whenFree: (_name: string, work: () => Promise<void>) => work() };
const now = () => "2026-11-24T08:00:00.000Z";

describe("what pages that are gone left unsent", () => {
  it("is counted by job and sent in order without opening one, a hundred at a time", async () => {
    const many = Array.from({ length: 230 }, (_, i) => note(`n${i}`));
    const device = deviceWith({
      "plumb/outbox/a/1": many,
      "plumb/outbox/a/2": [note("x")],
      "plumb/outbox/b": [note("y")],
    });
    expect(await waitingOn(device)).toEqual([
      { jobId: "a", count: 231 },
      { jobId: "b", count: 1 },
    ]);
    const sent: [string, string[]][] = [];
    const transport: Transport = async (_method, path, body) => {
      sent.push([path, (body as { entries: { id: string }[] }).entries.map((e) => e.id)]);
      return { status: 200, body: { seq: 1, entries: [] } };
    };
    expect(await sendLeft(device, free, transport, now)).toBe(false);
    expect(sent.map(([path, ids]) => [path, ids.length])).toEqual([
      ["/api/jobs/a/entries", 100],
      ["/api/jobs/a/entries", 100],
      ["/api/jobs/a/entries", 30],
      ["/api/jobs/a/entries", 1],
      ["/api/jobs/b/entries", 1],
    ]);
    expect(sent.slice(0, 3).flatMap(([, ids]) => ids)).toEqual(many.map((n) => n.id));
    expect(device.kept.size).toBe(0);
  });
  it("stays where it is when the server refuses it, is away, or stops in the middle; what went is not sent twice", async () => {
    const many = Array.from({ length: 150 }, (_, i) => note(`n${i}`));
    for (const [status, later] of [
      [422, false],
      [503, true],
      [0, true],
    ] as const) {
      const device = deviceWith({ "plumb/outbox/a/1": many });
      let asked = 0;
      const transport: Transport = async () => {
        asked += 1;
        if (asked === 1) return { status: 200, body: {} };
        if (status === 0) throw new Error("not reached");
        return { status, body: {} };
      };
      expect(await sendLeft(device, free, transport, now)).toBe(later);
      expect(device.kept.get("plumb/outbox/a/1")).toEqual(many.slice(100));
    }
  });
  it("is left to the page that still lives", async () => {
    const device = deviceWith({ "plumb/outbox/a/1": [note("n")] });
    const held = { ...free, whenFree: async () => undefined };
    await sendLeft(device, held, () => Promise.reject(new Error("nothing is to be sent")), now);
    expect(device.kept.size).toBe(1);
  });
});

import { randomUUID } from "node:crypto";
import { afterAll, describe, expect, it } from "vitest";
import type { TestBead } from "@/core/weld";
import { addTestBead, closePool, countTestBeads, FIRST_SHOP, listTestBeads, pool } from "@/store";

afterAll(closePool);

const bead = (change: Partial<TestBead> = {}): TestBead => ({
  id: randomUUID(),
  at: "2026-03-02T08:00:00.000Z",
  origin: "bench",
  process: "MAG",
  volts: 18,
  amps: 120,
  travelMmPerS: 5.1,
  wallMm: 3,
  material: "mild steel",
  seam: "fillet",
  position: "flat",
  result: "keep",
  note: "'; DROP TABLE test_bead; --",
  ...change,
});

describe("the log of test beads", () => {
  it("gives back what was logged, the newest first, once each, and never changes or loses one", async () => {
    const [older, newer] = [bead(), bead({ at: "2026-03-03T08:00:00.123Z", result: "too hot" })];
    const before = await countTestBeads(pool(), FIRST_SHOP);
    expect(await addTestBead(pool(), FIRST_SHOP, newer)).toBe(true);
    expect(await addTestBead(pool(), FIRST_SHOP, older)).toBe(true);
    expect(await addTestBead(pool(), FIRST_SHOP, { ...older, amps: 1 })).toBe(false);
    expect(await countTestBeads(pool(), FIRST_SHOP)).toBe(before + 2);
    const ours = (await listTestBeads(pool(), FIRST_SHOP, 100)).filter((b) => [older.id, newer.id].includes(b.id));
    expect(ours).toEqual([newer, older]);
    expect(await listTestBeads(pool(), FIRST_SHOP, 1)).toHaveLength(1);
    for (const sql of ["UPDATE test_bead SET doc = '{}'", "DELETE FROM test_bead"])
      await expect(pool().query(sql)).rejects.toThrow(/denied|kept/);
  });
});

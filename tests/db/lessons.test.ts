import { randomUUID } from "node:crypto";
import { afterAll, describe, expect, it } from "vitest";
import { newPlan } from "@/core/job";
import { length } from "@/core/units";
import { addEntries, createJob, getJob, savePlan } from "@/server/jobs";
import { addLesson, importLessons, lessonsFile, shopBook, teach } from "@/server/lessons";
import { LOCAL } from "@/server/who";
import { closePool, pool } from "@/store";

afterAll(closePool);

const at = (minute: number): string => new Date(Date.UTC(2026, 10, 20, 8, minute)).toISOString();
const coupon = (afterMm: number, minute = 0) => ({
  ...{ kind: "coupon", id: randomUUID(), at: at(minute), origin: "bench" },
  ...{ process: "MAG", volts: 18, amps: 120, travelMmPerS: 5, material: "mild steel", wallMm: 3 },
  ...{ beforeMm: 100, afterMm, uMm: 0.06, coupon: { of: "butt" } },
});
const valueIn = <T>(o: { ok: true; value: T } | { ok: false; message: string }): T => {
  if (!o.ok) throw new Error(o.message);
  return o.value;
};

/** A job of 1000 by 600 that was read before it was welded and cold. */
async function finished(cold: Record<string, number>): Promise<string> {
  const { id } = valueIn(await createJob(LOCAL, { name: "Teaches", units: "mm", origin: "bench" }));
  const { job } = valueIn(await getJob(LOCAL, id));
  const plan = newPlan("Teaches", "mm");
  const sizes = { ...plan.frame.sizes, length: length("1000"), width: length("600"), cross: [] };
  valueIn(
    await savePlan(LOCAL, id, {
      baseVersion: job.version,
      plan: { ...job.plan, frame: { by: "sizes", sizes } },
      origin: "bench",
    }),
  );
  const before: Record<string, number> = { AB: 1000, BC: 600, CD: 1000, DA: 600 };
  const round = (gate: string, values: Record<string, number>, minute: number) => {
    const roundId = randomUUID();
    return [
      { kind: "round", id: roundId, at: at(minute), origin: "bench", gate, method: "heights" },
      ...Object.entries(values).map(([span, mm], i) => ({
        ...{ kind: "reading", id: randomUUID(), at: at(minute + 1 + i), origin: "bench", roundId },
        ...{ instrumentId: "tape-100", what: { kind: "distance", from: span[0], to: span[1] } },
        value: length(String(mm)),
      })),
    ];
  };
  const entries = [...round("tacked", before, 0), ...round("cold", cold, 20)];
  valueIn(await addEntries(LOCAL, id, { since: 0, entries }));
  return id;
}

describe("what a shop has learned", () => {
  it("counts a coupon once however often it is sent, refuses one that did not shrink, and goes into the next job", async () => {
    const first = coupon(99.6);
    const one = valueIn(await addLesson(LOCAL, first));
    const again = valueIn(await addLesson(LOCAL, first));
    expect(again.learned.coupons).toBe(one.learned.coupons);
    const grew = await addLesson(LOCAL, coupon(100.1));
    expect(grew).toMatchObject({ ok: false, status: 422 });
    expect(!grew.ok && grew.message).toMatch(/did not shrink/);
    for (const wrong of [{ ...coupon(99), wallMm: -1 }, { ...coupon(99), uMm: 0 }, { kind: "frame" }, null, 7])
      expect(await addLesson(LOCAL, wrong)).toMatchObject({ ok: false, status: 422 });
    const { id } = valueIn(await createJob(LOCAL, { name: "After it", units: "mm", origin: "bench" }));
    const { job } = valueIn(await getJob(LOCAL, id));
    expect(job.plan.learned?.coupons).toBe(one.learned.coupons);
    for (const sql of ["UPDATE lesson SET doc = '{}'", "DELETE FROM lesson"])
      await expect(pool().query(sql)).rejects.toThrow(/denied|kept/);
  });
  it("lets a finished frame teach, asks first where it does not fit, and lets it be left out with a reason", async () => {
    const fits = await finished({ AB: 999.6, BC: 599.7, CD: 999.6, DA: 599.7 });
    const book = valueIn(await teach(LOCAL, fits, { origin: "bench", anyway: false }));
    const [line] = book.lessons.filter((l) => l.kind === "frame" && l.jobId === fits);
    expect(line?.leftOut).toBeNull();
    expect(book.right.frames).toBeGreaterThan(0);
    const slipped = await finished({ AB: 999.6, BC: 591, CD: 999.6, DA: 599.7 });
    expect(await teach(LOCAL, slipped, { origin: "bench", anyway: false })).toMatchObject({ ok: false, status: 409 });
    expect((await teach(LOCAL, slipped, { origin: "bench", anyway: true })).ok).toBe(true);
    const out = valueIn(
      await addLesson(LOCAL, {
        ...{ kind: "left out", id: randomUUID(), at: at(50), origin: "bench" },
        ...{ lesson: line?.id, why: "nudged between" },
      }),
    );
    expect(out.lessons.find((l) => l.id === line?.id)?.leftOut).toBe("nudged between");
    expect(
      await addLesson(LOCAL, {
        ...{ kind: "taken back", id: randomUUID(), at: at(51), origin: "bench", lesson: randomUUID() },
      }),
    ).toMatchObject({ ok: false, status: 404 });
    expect(await teach(LOCAL, randomUUID(), { origin: "bench", anyway: false })).toMatchObject({
      ok: false,
      status: 404,
    });
  });
  it("goes out as a file and comes back the same; another shop's is asked about", async () => {
    const text = valueIn(await lessonsFile(LOCAL));
    const before = await shopBook(LOCAL);
    expect(valueIn(await importLessons(LOCAL, text, false)).lessons.length).toBe(before.lessons.length);
    const foreign = text.replace(/"id": "00000000-0000-4000-8000-000000000001"/, `"id": "${randomUUID()}"`);
    expect(foreign).not.toBe(text);
    expect(await importLessons(LOCAL, foreign, false)).toMatchObject({ ok: false, status: 409 });
    for (const bad of ["", "{", "[]", '{"format":"other"}', text.slice(0, 200)])
      expect(await importLessons(LOCAL, bad, false)).toMatchObject({ ok: false, status: 422 });
  });
});

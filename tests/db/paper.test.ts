import { randomUUID } from "node:crypto";
import { afterAll, describe, expect, it } from "vitest";
import { buyingParts, evaluate, SHEETS } from "@/core/job";
import { createJob, getJob } from "@/server/jobs";
import { layoutFile, sheetFile } from "@/server/layout";
import { LOCAL } from "@/server/who";
import { closePool } from "@/store";
import { inThread } from "@/workers/predictionThread";

afterAll(closePool);

const HERE = "http://127.0.0.1:4270";
const begin = (bytes: Uint8Array): string => new TextDecoder().decode(bytes.slice(0, 5));

describe("paper and files of a frame", () => {
  it("come as they were asked for, and what nobody can ask for is said", async () => {
    const made = await createJob(LOCAL, { name: "On paper", units: "mm", origin: "bench" });
    if (!made.ok) throw new Error(made.message);
    const { id } = made.value;
    const pdf = await layoutFile(LOCAL, id, {
      as: "pdf",
      paper: "A3",
      size: "set-up",
      layers: "outline,cut",
      bar: "99.2",
    });
    expect(pdf.ok && begin(pdf.value.bytes)).toBe("%PDF-");
    const svg = await layoutFile(LOCAL, id, { as: "svg" });
    expect(svg.ok && new TextDecoder().decode(svg.value.bytes)).toContain("<svg");
    const dxf = await layoutFile(LOCAL, id, { as: "dxf" });
    expect(dxf.ok && dxf.value.name).toBe("On paper-full-size.dxf");
    for (const wrong of [
      {},
      { as: "exe" },
      { as: "pdf", paper: "A0" },
      { as: "pdf", layers: "outline,nothing" },
      { as: "pdf", bar: "1" },
      { as: "pdf", bar: "a bit" },
      { as: "pdf", more: "1" },
    ])
      expect(await layoutFile(LOCAL, id, wrong)).toMatchObject({ ok: false, status: 422 });
    for (const name of SHEETS) {
      const sheet = await sheetFile(LOCAL, id, { name }, HERE);
      expect(sheet.ok && begin(sheet.value.bytes)).toBe("%PDF-");
    }
    expect(await sheetFile(LOCAL, id, { name: "bill" }, HERE)).toMatchObject({ ok: false, status: 422 });
    for (const nobody of [randomUUID(), "x", "../../etc"]) {
      expect(await layoutFile(LOCAL, nobody, { as: "svg" })).toMatchObject({ ok: false, status: 404 });
      expect(await sheetFile(LOCAL, nobody, { name: "check" }, HERE)).toMatchObject({ ok: false, status: 404 });
    }
  });
  it("lays bars out beside the server's own thread, as the screen does", async () => {
    const made = await createJob(LOCAL, { name: "From bars", units: "mm", origin: "bench" });
    if (!made.ok) throw new Error(made.message);
    const found = await getJob(LOCAL, made.value.id);
    if (!found.ok) throw new Error(found.message);
    const { job } = found.value;
    const [laid] = await inThread("nest", buyingParts(job.plan, evaluate(job, null)));
    if (!laid || "tooLong" in laid) throw new Error("nothing laid out");
    // Two of 1000 and two of 600 are cut from one bar of six metres.
    expect(laid.buy).toMatchObject([{ lengthMm: 6000, count: 1 }]);
    expect(laid.proven).toBe(true);
  });
});

import { randomUUID } from "node:crypto";
import { afterAll, describe, expect, it } from "vitest";
import { createJob } from "@/server/jobs";
import { layoutFile, sheetFile } from "@/server/layout";
import { LOCAL } from "@/server/who";
import { closePool } from "@/store";

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
    for (const name of ["certificate", "check", "order", "cut"]) {
      const sheet = await sheetFile(LOCAL, id, { name }, HERE);
      expect(sheet.ok && begin(sheet.value.bytes)).toBe("%PDF-");
    }
    expect(await sheetFile(LOCAL, id, { name: "bill" }, HERE)).toMatchObject({ ok: false, status: 422 });
    for (const nobody of [randomUUID(), "x", "../../etc"]) {
      expect(await layoutFile(LOCAL, nobody, { as: "svg" })).toMatchObject({ ok: false, status: 404 });
      expect(await sheetFile(LOCAL, nobody, { name: "check" }, HERE)).toMatchObject({ ok: false, status: 404 });
    }
  });
});

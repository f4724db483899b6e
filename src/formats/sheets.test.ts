import { PDFDocument } from "pdf-lib";
import { describe, expect, it } from "vitest";
import { STARTERS } from "@/core/frame";
import {
  coldSet,
  evaluate,
  type Job,
  layOut,
  markingOutOf,
  quantityWords,
  SHEETS,
  type Sheet,
  sheetOf,
} from "@/core/job";
import { formatLength } from "@/core/units";
import { demoJobs } from "../../script/lib/demo-jobs";
import { started } from "../../tests/support/drawnFrames";
import { job, round, SQUARE } from "../../tests/support/jobs";
import { PDF_FONTS } from "../../tests/support/pdfFonts";
import { withDrawn } from "../../tests/support/plans";
import { beginPdf } from "./pdfLetters";
import { SHEET_PAPERS, sheetPdf } from "./sheetPdf";

const NOW = "2026-11-29T08:00:00.000Z";
const sheet = (name: (typeof SHEETS)[number], j: Job): Sheet => sheetOf(name, j, evaluate(j, null), NOW);
const words = (s: Sheet): string =>
  s.blocks
    .flatMap((b) =>
      b.kind === "table"
        ? [...b.columns.map((c) => c.title), ...b.rows.flat().filter((c) => typeof c === "string")]
        : b.kind === "lines"
          ? b.of
          : b.kind === "card"
            ? [b.title, b.figure, ...b.lines]
            : b.kind === "picture"
              ? b.picture.items.flatMap((i) => (i.kind === "label" ? [i.text] : []))
              : [b.text],
    )
    .join(" | ");

describe("sheets of paper", () => {
  it("have as many cells as columns, and their job, version and day, for every starter", () => {
    for (const { name } of STARTERS)
      for (const which of SHEETS) {
        const s = sheet(
          which,
          job([], (p) => withDrawn({ ...p, name: "Stand" }, started(name))),
        );
        expect(s.about).toContain("Stand, version 1, 2026-11-29");
        for (const b of s.blocks)
          if (b.kind === "table") for (const row of b.rows) expect(row.length).toBe(b.columns.length);
      }
  });
  it("certify what was read, limit by limit as Check says it, and nothing before it was read", () => {
    const none = job([]);
    expect(words(sheet("certificate", none))).toMatch(/nothing to certify/);
    const j = job(round("cold", { ...SQUARE, zA: "0", zB: "0", zC: "0", zD: "0.2" }));
    const said = words(sheet("certificate", j));
    const { cold } = evaluate(j, null);
    expect(cold?.verdicts.length).toBeGreaterThan(3);
    for (const v of cold?.verdicts ?? []) expect(said).toContain(v.limit.label);
    expect(said).toContain("1000.50 mm ±");
    expect(said).toMatch(/It is no approval/);
    expect(said).toContain("never tested here");
    // A limit that nothing was read for has no verdict.
    const part = words(sheet("certificate", job(round("cold", { AB: "1000.5" }))));
    expect(part).toContain("no verdict");
    expect(part).toContain("not all limits were read");
  });
  it("say nothing in millimetres of a job in inches", () => {
    const stand = demoJobs().find((d) => d.job.plan.units !== "mm")?.job;
    if (!stand) throw new Error("no job in inches");
    for (const which of SHEETS) expect(words(sheet(which, stand)), which).not.toMatch(/\d\s?mm\b/);
  });
  it("say of a frame what its own stages say: sizes, marks, elements", () => {
    for (const { job: j } of demoJobs()) {
      const e = evaluate(j, null);
      const { structure } = e;
      if (!structure) throw new Error(j.plan.name);
      const { units } = j.plan;
      const sketch = words(sheet("sketch", j));
      if (structure.quad) expect(sketch).toContain(formatLength(structure.quad.lengthMm, units).text);
      for (const m of structure.members) if (m.id.length > 2 || !structure.quad) expect(sketch).toContain(m.id);
      const marking = words(sheet("marking", j));
      for (const piece of markingOutOf(j.plan, e).pieces)
        for (const mark of piece.marks) expect(marking).toContain(formatLength(mark.centreMm, units).text);
      const fixture = words(sheet("fixture", j));
      for (const { element } of layOut(j.plan, structure, null).elements) expect(fixture).toContain(element.id);
      for (const r of j.plan.bed.rests) expect(fixture).toContain(r.id);
    }
  });
  it("have what is read of the cold frame in the order in which the screen asks for it", () => {
    for (const { job: j } of demoJobs()) {
      const asked = coldSet(evaluate(j, null)).map(quantityWords);
      const table = sheet("check", j).blocks.find((b) => b.kind === "table");
      expect(table?.kind === "table" && table.rows.map((r) => r[0])).toEqual(asked);
      expect(asked.length).toBeGreaterThan(5);
    }
  });
  it("are PDF on either paper, of as many pages as they need, whatever stands in them", async () => {
    const j = demoJobs()[1]?.job as Job;
    for (const paper of SHEET_PAPERS)
      for (const which of SHEETS) {
        const pdf = await PDFDocument.load(
          await sheetPdf(sheet(which, j), paper, "http://127.0.0.1:4270/jobs/x/check", PDF_FONTS),
        );
        expect(pdf.getPageCount()).toBeGreaterThanOrEqual(1);
        expect((pdf.getPage(0).getWidth() / 72) * 25.4).toBeCloseTo(paper === "A4" ? 210 : 215.9, 1);
      }
    const odd: Sheet = {
      title: "Ω \u202e \u0000",
      about: "x".repeat(4000),
      stage: "check",
      blocks: [
        { kind: "text", text: "" },
        { kind: "text", text: "w".repeat(3000) },
        {
          kind: "table",
          columns: [
            { title: "a", share: 0.01 },
            { title: "b", share: 1 },
          ],
          rows: [["long ".repeat(300), ""]],
        },
      ],
    };
    const pdf = await PDFDocument.load(await sheetPdf(odd, "A4", "http://127.0.0.1/x", PDF_FONTS));
    expect(pdf.getPageCount()).toBeGreaterThan(1);
  });
  it("write what the letters lack otherwise", async () => {
    const { plain } = await beginPdf("x", PDF_FONTS);
    expect(plain("\u2212 \u00b1 \u2264 1 \u2248 \u201c2\u201d\u2026 \u2192 3 \u00b5m\u0000\u202e\u4e2d")).toBe(
      "\u2212 \u00b1 \u2264 1 \u2248 \u201c2\u201d\u2026 to 3 um???",
    );
  });
});

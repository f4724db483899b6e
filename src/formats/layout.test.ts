import DxfParser from "dxf-parser";
import fc from "fast-check";
import { PDFDocument } from "pdf-lib";
import { describe, expect, it } from "vitest";
import { type FullScale, LAYERS, type LayerName } from "@/core/drawing";
import { STARTERS } from "@/core/frame";
import { builtOf, fullScaleOf, type Plan, predict } from "@/core/job";
import { length } from "@/core/units";
import { started } from "../../tests/support/drawnFrames";
import { PDF_FONTS } from "../../tests/support/pdfFonts";
import { drawnPlan, sizesPlan } from "../../tests/support/plans";
import { layoutDxf } from "./layoutDxf";
import { layoutPdf, PAPERS, type Paper, tilesOf, within } from "./layoutPdf";
import { layoutSvg } from "./layoutSvg";

const whole = (plan: Plan, layers: readonly LayerName[] = LAYERS): FullScale => {
  const made = fullScaleOf(plan, null, { size: "drawing", layers });
  if (!made) throw new Error("no frame");
  return made.drawing;
};
const HEAD = { title: "A frame − 1:1 ≈ \u202e?", about: "version 1" };

describe("a frame at full size", () => {
  it("has its corners where the drawing has them, and cuts as long as the pieces are", () => {
    const plan = sizesPlan({ length: length("1000"), width: length("600"), cross: [] });
    const outlines = whole(plan, ["outline"]).items.flatMap((i) => (i.kind === "line" ? [i.points] : []));
    const all = outlines.flat();
    expect(Math.min(...all.map((p) => p.x))).toBeCloseTo(0, 6);
    expect(Math.max(...all.map((p) => p.x))).toBeCloseTo(1000, 6);
    expect(Math.max(...all.map((p) => p.y))).toBeCloseTo(600, 6);
    const [ab] = outlines;
    const long = Math.max(...(ab ?? []).map((p) => p.x)) - Math.min(...(ab ?? []).map((p) => p.x));
    expect(long).toBeCloseTo(builtOf(plan).structure?.members[0]?.longMm ?? 0, 6);
  });
  it("is set off as the frame is set up: a side as long as its target", () => {
    const plan = sizesPlan({ length: length("1000"), width: length("600"), cross: [] });
    const prediction = predict(plan)?.prediction ?? null;
    const made = fullScaleOf(plan, prediction, { size: "set-up", layers: ["centre"] });
    const drawn = fullScaleOf(plan, prediction, { size: "drawing", layers: ["centre"] });
    expect(made?.isSetOff).toBe(true);
    expect(drawn?.isSetOff).toBe(false);
    const longOf = (d: typeof made): number => {
      const [line] = d?.drawing.items ?? [];
      if (line?.kind !== "line") return Number.NaN;
      const [p, q] = line.points;
      return p && q ? Math.hypot(q.x - p.x, q.y - p.y) : Number.NaN;
    };
    // It shrinks: it is set up longer, by tenths.
    expect(longOf(made) - longOf(drawn)).toBeGreaterThan(0.05);
    expect(longOf(made) - longOf(drawn)).toBeLessThan(3);
  });
  it("draws every starter, each layer by itself, with nothing that is no number", () => {
    for (const { name } of STARTERS)
      for (const layer of LAYERS) {
        const { items } = whole(drawnPlan(started(name)), [layer]);
        for (const i of items) {
          expect(i.layer).toBe(layer);
          const places = i.kind === "line" ? i.points : [i.at];
          for (const p of places) expect(Number.isFinite(p.x + p.y)).toBe(true);
        }
      }
  });
});

describe("DXF", () => {
  it("is read back by a library that did not write it, in millimetres, every line on its layer and in its place", () => {
    for (const { name } of STARTERS) {
      const drawing = whole(drawnPlan(started(name)));
      const back = new DxfParser().parseSync(layoutDxf(drawing));
      expect(back?.header.$INSUNITS).toBe(4);
      expect(Object.keys(back?.tables.layer.layers ?? {})).toEqual(expect.arrayContaining([...LAYERS]));
      expect(back?.entities.length).toBe(drawing.items.length);
      drawing.items.forEach((item, i) => {
        const read = back?.entities[i] as unknown as {
          layer: string;
          vertices?: { x: number; y: number }[];
          center?: { x: number; y: number };
          startPoint?: { x: number; y: number };
          position?: { x: number; y: number };
        };
        expect(read.layer).toBe(item.layer);
        const points = item.kind === "line" ? item.points : [item.at];
        const got = read.vertices ?? [
          read.center ?? read.startPoint ?? read.position ?? { x: Number.NaN, y: Number.NaN },
        ];
        points.forEach((p, k) => {
          expect(got[k]?.x).toBeCloseTo(p.x, 6);
          expect(got[k]?.y).toBeCloseTo(p.y, 6);
        });
      });
    }
  });
  it("takes names that would end a value for what they are", () => {
    const drawing: FullScale = {
      low: { x: 0, y: 0 },
      high: { x: 1, y: 1 },
      items: [{ layer: "joint", kind: "text", at: { x: 0, y: 0 }, text: "A\n0\nEOF\n½", heightMm: 5 }],
    };
    const back = new DxfParser().parseSync(layoutDxf(drawing));
    expect(back?.entities).toHaveLength(1);
  });
});

describe("SVG", () => {
  it("is as large on paper as the frame, in mm, and says nothing that a reader would run", () => {
    const plan = sizesPlan({ length: length("1000"), width: length("600"), cross: [] });
    const drawing = whole(plan);
    const svg = layoutSvg(drawing, `<script>"&`);
    const [, w, box] = /width="([\d.]+)mm".*viewBox="0 0 ([\d.]+) /.exec(svg) ?? [];
    expect(Number(w)).toBeCloseTo(drawing.high.x - drawing.low.x + 20, 3);
    expect(box).toBe(w);
    expect(svg).not.toContain("<script>");
    for (const layer of ["outline", "centre", "cut", "joint", "datum"]) expect(svg).toContain(`<g id="${layer}"`);
  });
});

describe("PDF", () => {
  it("shows every place of the drawing on some sheet, whatever its size, the paper and the printer", () => {
    const papers: Paper[] = [...(Object.keys(PAPERS) as Paper[]), "one"];
    fc.assert(
      fc.property(
        fc.integer({ min: 50, max: 4000 }),
        fc.integer({ min: 50, max: 2500 }),
        fc.constantFrom(...papers),
        fc.double({ min: 95, max: 105, noNaN: true }),
        (w, h, paper, barMm) => {
          const box = { low: { x: -7, y: 13 }, high: { x: w - 7, y: h + 13 } };
          const { columns, rows, sheet, shows } = tilesOf(box, { paper, barMm });
          const scale = 100 / barMm;
          // Sheets lie over each other by 10 mm; the first begins 5 mm before the drawing, a single page 10.
          const reach = (n: number, shown: number): number =>
            paper === "one" ? shown - 10 : n * (shown - 10) + 10 - 5;
          expect(reach(columns, shows[0])).toBeGreaterThanOrEqual(scale * w - 1e-6);
          expect(reach(rows, shows[1])).toBeGreaterThanOrEqual(scale * h - 1e-6);
          expect(shows[0]).toBeLessThan(sheet[0]);
        },
      ),
    );
  });
  it("has as many pages as sheets, each as large as its paper, and refuses what nobody tapes together", async () => {
    const drawing = whole(sizesPlan({ length: length("1000"), width: length("600"), cross: [] }));
    for (const paper of ["A4", "Letter", "one"] as const) {
      const { columns, rows, sheet } = tilesOf(drawing, { paper, barMm: 100 });
      const pdf = await PDFDocument.load(await layoutPdf(drawing, HEAD, { paper, barMm: 100 }, PDF_FONTS));
      expect(pdf.getPageCount()).toBe(columns * rows);
      const { width, height } = pdf.getPage(0).getSize();
      expect((width / 72) * 25.4).toBeCloseTo(sheet[0], 3);
      expect((height / 72) * 25.4).toBeCloseTo(sheet[1], 3);
    }
    const vast = { low: { x: 0, y: 0 }, high: { x: 20_000, y: 20_000 }, items: [] };
    await expect(layoutPdf(vast, HEAD, { paper: "A4", barMm: 100 }, PDF_FONTS)).rejects.toThrow(/sheets/);
    await expect(layoutPdf(vast, HEAD, { paper: "one", barMm: 100 }, PDF_FONTS)).rejects.toThrow(/one page|One page/i);
  });
  it("cuts a line to what lies within a sheet", () => {
    const window = { low: { x: 0, y: 0 }, high: { x: 10, y: 10 } };
    const place = fc.record({ x: fc.integer({ min: -30, max: 40 }), y: fc.integer({ min: -30, max: 40 }) });
    fc.assert(
      fc.property(place, place, (a, b) => {
        const part = within(a, b, window);
        const inside = (p: { x: number; y: number }): boolean =>
          p.x >= -1e-9 && p.x <= 10 + 1e-9 && p.y >= -1e-9 && p.y <= 10 + 1e-9;
        if (part) expect(part.every(inside)).toBe(true);
        else
          for (let t = 0; t <= 1; t += 0.05)
            expect(inside({ x: a.x + t * (b.x - a.x), y: a.y + t * (b.y - a.y) })).toBe(false);
      }),
    );
  });
});

import { execFileSync } from "node:child_process";
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import jsqr from "jsqr";
import { PNG } from "pngjs";
import { afterAll, describe, expect, it } from "vitest";
import type { FullScale } from "@/core/drawing";
import { evaluate, SHEETS, sheetOf } from "@/core/job";
import { layoutPdf, tilesOf } from "@/formats/layoutPdf";
import { sheetPdf } from "@/formats/sheetPdf";
import { demoJobs } from "../../script/lib/demo-jobs";
import { PDF_FONTS } from "../support/pdfFonts";

/** Paper as poppler (Debian's poppler-utils), which did not write it, renders and reads it. */
const folder = mkdtempSync(path.join(tmpdir(), "paper-"));
afterAll(() => rmSync(folder, { recursive: true }));

const DPI = 254;
/** At so many dots an inch a dot is a tenth of a millimetre. */
const MM = 10;
/** A bar is drawn with a pen so thick, and is longer by that. */
const PEN_MM = 0.35;

function rendered(bytes: Uint8Array, name: string, dpi = DPI): PNG[] {
  const file = path.join(folder, `${name}.pdf`);
  writeFileSync(file, bytes);
  execFileSync("pdftoppm", ["-r", String(dpi), "-png", "-gray", file, path.join(folder, name)]);
  return readdirSync(folder)
    .filter((f) => f.startsWith(`${name}-`) && f.endsWith(".png"))
    .sort()
    .map((f) => PNG.sync.read(readFileSync(path.join(folder, f))));
}
const tool = (name: string, file: string, ...more: string[]): string =>
  execFileSync(name, [path.join(folder, file), ...more], { encoding: "utf8" });

const isDark = (png: PNG, x: number, y: number): boolean => (png.data[4 * (y * png.width + x)] ?? 255) < 120;

/** A frame of lines at known places: uprights every 100 mm, and rules every 100 mm. */
function grid(wide: number, high: number): FullScale {
  const items: FullScale["items"] = [];
  for (let x = 0; x <= wide; x += 100)
    items.push({
      layer: "outline",
      kind: "line",
      closed: false,
      points: [
        { x, y: 0 },
        { x, y: high },
      ],
    });
  for (let y = 0; y <= high; y += 100)
    items.push({
      layer: "outline",
      kind: "line",
      closed: false,
      points: [
        { x: 0, y },
        { x: wide, y },
      ],
    });
  return { low: { x: 0, y: 0 }, high: { x: wide, y: high }, items };
}

/** Middles of the dark runs along a row of dots. */
function runs(png: PNG, y: number): number[] {
  const found: number[] = [];
  for (let x = 0; x < png.width; ) {
    if (!isDark(png, x, y)) {
      x++;
      continue;
    }
    const from = x;
    while (x < png.width && isDark(png, x, y)) x++;
    if (x - from < 12) found.push((from + x - 1) / 2 / MM);
  }
  return found;
}

describe("a drawing on sheets, as it is rendered", () => {
  it.each(["A4", "Letter"] as const)(
    "is true within 0.2 % on every sheet of %s, and sheets join within 0.2 mm",
    async (paper) => {
      const drawing = grid(500, 400);
      const pages = rendered(
        await layoutPdf(drawing, { title: "t", about: "a" }, { paper, barMm: 100 }, PDF_FONTS),
        paper,
      );
      expect(pages.length).toBeGreaterThan(3);
      const { columns, shows } = tilesOf(drawing, { paper, barMm: 100 });
      /** Uprights of a sheet, read along a row of dots that no rule runs along, most of which are seen. */
      const uprights = pages.map((png) => {
        const rows = Array.from({ length: 40 }, (_, i) => runs(png, 150 + 37 * i));
        return rows.reduce((best, r) => (r.length > best.length && r.length < 12 ? r : best), [] as number[]);
      });
      let [spaced, joined] = [0, 0];
      pages.forEach((png, i) => {
        const size = [png.width / MM, png.height / MM].sort((p, q) => p - q);
        const asked = paper === "A4" ? [210, 297] : [215.9, 279.4];
        size.forEach((v, k) => {
          expect(Math.abs(v - (asked[k] as number))).toBeLessThan(0.2);
        });
        const at = uprights[i] ?? [];
        for (const p of at)
          for (const q of at)
            if (Math.abs(q - p - 100) < 1) {
              expect(Math.abs(q - p - 100)).toBeLessThan(0.2);
              spaced++;
            }
        // The next sheet lies a step to the right: laid so, uprights of both stand whole hundreds apart.
        if ((i + 1) % columns === 0) return;
        for (const p of at)
          for (const q of uprights[i + 1] ?? []) {
            const off = q + shows[0] - 10 - p;
            expect(Math.abs(off - 100 * Math.round(off / 100))).toBeLessThan(0.2);
            joined++;
          }
      });
      expect(spaced).toBeGreaterThan(2);
      expect(joined).toBeGreaterThan(0);
    },
  );
  it("has a bar of 100 mm and one of 4 in on every sheet, and draws larger by what a bar came short", async () => {
    const bars = async (barMm: number, name: string): Promise<number[]> => {
      const [first] = rendered(
        await layoutPdf(grid(100, 100), { title: "t", about: "a" }, { paper: "A4", barMm }, PDF_FONTS),
        name,
      );
      if (!first) throw new Error("no page");
      // The longest dark runs in the foot are the bars.
      const long: number[] = [];
      for (let y = first.height - 240; y < first.height - 90; y++) {
        let from = -1;
        for (let x = 0; x <= first.width; x++) {
          const dark = x < first.width && isDark(first, x, y);
          if (dark && from < 0) from = x;
          if (!dark && from >= 0) {
            if (x - from > 900) long.push((x - from) / MM);
            from = -1;
          }
        }
      }
      return long;
    };
    const true_ = await bars(100, "bars");
    // A line is as long as it is and as thick as its pen at both ends.
    expect(Math.min(...true_.map((v) => Math.abs(v - PEN_MM - 100)))).toBeLessThan(0.2);
    expect(Math.min(...true_.map((v) => Math.abs(v - PEN_MM - 101.6)))).toBeLessThan(0.2);
    const corrected = await bars(99, "short");
    expect(Math.min(...corrected.map((v) => Math.abs(v - PEN_MM - 100 / 0.99)))).toBeLessThan(0.2);
  });
});

describe("sheets, as they are read", () => {
  it("are text in letters that are in the file, and their code opens the job", async () => {
    const { job } = demoJobs()[0] as { job: Parameters<typeof evaluate>[0] };
    const address = `https://192.0.2.7:4270/jobs/${job.id}/check`;
    for (const name of SHEETS) {
      const sheet = sheetOf(name, job, evaluate(job, null), "2026-11-20T10:00:00.000Z");
      const pages = rendered(await sheetPdf(sheet, "A4", address, PDF_FONTS), name, 127);
      const fonts = tool("pdffonts", `${name}.pdf`).trim().split("\n").slice(2);
      expect(fonts.length).toBeGreaterThan(0);
      // Columns of pdffonts before the object's number: embedded, named as a subset, with a table back to text.
      for (const line of fonts) expect(line).toMatch(/\byes (yes|no)\s+yes\s+\d+\s+\d+$/);
      const words = tool("pdftotext", `${name}.pdf`, "-");
      expect(words.replace(/\s+/g, " ")).toContain(sheet.title);
      expect(words).toContain(job.plan.name);
      const first = pages[0] as PNG;
      const code = jsqr(new Uint8ClampedArray(first.data), first.width, first.height);
      expect(code?.data, name).toBe(address);
    }
  });
});

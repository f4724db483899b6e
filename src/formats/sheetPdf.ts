import { type PDFPage, rgb } from "pdf-lib";
import { create } from "qrcode";
import type { Picture } from "@/core/drawing";
import type { Sheet, SheetBlock, SheetCell } from "@/core/job";
import type { Vec2 } from "@/core/numeric";
import { PAPERS } from "./layoutPdf";
import { beginPdf, type PdfFonts, type PdfLetters } from "./pdfLetters";

/** Papers that sheets are printed on. */
export const SHEET_PAPERS = ["A4", "Letter"] as const;
export type SheetPaper = (typeof SHEET_PAPERS)[number];

const PT_PER_MM = 72 / 25.4;
const MARGIN_MM = 14;
/** Of the head of the first page, and of the code in it. */
const CODE_MM = 24;
const INK = rgb(0, 0, 0);
const PAPER = rgb(1, 1, 1);
const LIGHT = rgb(0.6, 0.6, 0.6);
/** Letters, legible at arm's length with gloves on, pt. */
const SIZE = { title: 18, figure: 34, heading: 13, text: 11, small: 9 } as const;
const LEADING = 1.3;
/** The narrowest letter as a share of its size (own judgement). */
const NARROWEST = 0.15;
/** Least height of a row that is written into, mm. */
const ROOM_MM = 9;

/** A pen on the pages of a sheet: it begins another one where there is no more room. */
class Pen {
  private page: PDFPage;
  private y: number;
  pages = 1;

  constructor(
    private readonly letters: PdfLetters,
    private readonly sheet: readonly [number, number],
  ) {
    this.page = this.newPage();
    this.y = sheet[1] - MARGIN_MM;
  }

  get wideMm(): number {
    return this.sheet[0] - 2 * MARGIN_MM;
  }

  private newPage(): PDFPage {
    return this.letters.pdf.addPage([this.sheet[0] * PT_PER_MM, this.sheet[1] * PT_PER_MM]);
  }

  /** Makes sure that so much is left on the page, mm; a row never breaks. */
  room(mm: number): void {
    if (this.y - mm > MARGIN_MM + 6) return;
    this.page = this.newPage();
    this.pages++;
    this.y = this.sheet[1] - MARGIN_MM;
  }

  down(mm: number): void {
    this.y -= mm;
  }

  /** Words in lines that are no wider, by words; a word that is wider by itself is cut. */
  wrapped(text: string, wideMm: number, size: number, isBold = false): string[] {
    const { font, bold, plain } = this.letters;
    const own = isBold ? bold : font;
    const wide = (t: string): number => own.widthOfTextAtSize(t, size) / PT_PER_MM;
    // Not more letters than this can stand side by side: a word may be thousands of letters long.
    const most = Math.ceil((wideMm * PT_PER_MM) / (NARROWEST * size));
    const lines: string[] = [];
    let line = "";
    for (const word of plain(text).split(" ")) {
      let rest = word;
      while (rest.length > 1 && wide(rest.slice(0, most)) > wideMm) {
        // As much of it as fits, by halving.
        let [n, over] = [1, Math.min(most, rest.length)];
        while (over - n > 1) {
          const middle = Math.floor((n + over) / 2);
          if (wide(rest.slice(0, middle)) > wideMm) over = middle;
          else n = middle;
        }
        if (line !== "") lines.push(line);
        lines.push(rest.slice(0, n));
        line = "";
        rest = rest.slice(n);
      }
      const next = line === "" ? rest : `${line} ${rest}`;
      if (wide(next) <= wideMm) line = next;
      else {
        lines.push(line);
        line = rest;
      }
    }
    return [...lines, line];
  }

  lineMm(size: number): number {
    return (size * LEADING) / PT_PER_MM;
  }

  /** Lines at a place across, from the pen's height down. */
  write(lines: readonly string[], xMm: number, size: number, isBold = false): void {
    lines.forEach((text, i) => {
      this.page.drawText(text, {
        x: (MARGIN_MM + xMm) * PT_PER_MM,
        y: (this.y - (i + 0.8) * this.lineMm(size)) * PT_PER_MM,
        size,
        font: isBold ? this.letters.bold : this.letters.font,
        color: INK,
      });
    });
  }

  rule(fromMm: number, toMm: number, downMm = 0, color = LIGHT): void {
    const y = (this.y - downMm) * PT_PER_MM;
    this.page.drawLine({
      start: { x: (MARGIN_MM + fromMm) * PT_PER_MM, y },
      end: { x: (MARGIN_MM + toMm) * PT_PER_MM, y },
      thickness: 0.6,
      color,
    });
  }

  box(xMm: number, isTicked: boolean): void {
    const side = 3.6;
    const [x, y] = [(MARGIN_MM + xMm) * PT_PER_MM, (this.y - 4.4) * PT_PER_MM];
    this.page.drawRectangle({
      x,
      y,
      width: side * PT_PER_MM,
      height: side * PT_PER_MM,
      borderWidth: 1,
      borderColor: INK,
    });
    if (!isTicked) return;
    const [a, b] = [x + side * PT_PER_MM, y + side * PT_PER_MM];
    this.page.drawLine({ start: { x, y }, end: { x: a, y: b }, thickness: 1.4, color: INK });
    this.page.drawLine({ start: { x, y: b }, end: { x: a, y }, thickness: 1.4, color: INK });
  }

  /** A picture fitted to the width of the page and so high; words that would lie over others are left out. */
  picture({ low, high, items }: Picture, highMm: number): void {
    const { font, bold, plain } = this.letters;
    const per = Math.min(this.wideMm / Math.max(1, high.x - low.x), highMm / Math.max(1, high.y - low.y));
    const left = MARGIN_MM + (this.wideMm - per * (high.x - low.x)) / 2;
    const foot = this.y - highMm + (highMm - per * (high.y - low.y)) / 2;
    const on = (p: Vec2): Vec2 => ({ x: left + per * (p.x - low.x), y: foot + per * (p.y - low.y) });
    const line = (a: Vec2, b: Vec2, thick: number, dashes?: number[]): void =>
      this.page.drawLine({
        start: { x: a.x * PT_PER_MM, y: a.y * PT_PER_MM },
        end: { x: b.x * PT_PER_MM, y: b.y * PT_PER_MM },
        thickness: thick,
        color: INK,
        ...(dashes ? { dashArray: dashes } : {}),
      });
    const taken: { x: number; y: number; wide: number; high: number }[] = [];
    for (const i of items) {
      if (i.kind === "line")
        i.points.forEach((p, k) => {
          const next = i.points[k + 1] ?? (i.closed ? i.points[0] : undefined);
          if (next) line(on(p), on(next), i.weight === "thick" ? 0.9 : 0.4, i.weight === "dashed" ? [6, 3] : undefined);
        });
      if (i.kind === "mark") {
        const p = on(i.at);
        line({ x: p.x - 2, y: p.y }, { x: p.x + 2, y: p.y }, 0.8);
        line({ x: p.x, y: p.y - 2 }, { x: p.x, y: p.y + 2 }, 0.8);
      }
    }
    // Letters of weight first: they keep their place.
    const labels = items.flatMap((i) => (i.kind === "label" ? [i] : []));
    for (const i of [...labels].sort((a, b) => Number(b.isBold) - Number(a.isBold))) {
      const own = i.isBold ? bold : font;
      const text = plain(i.text);
      const wide = own.widthOfTextAtSize(text, SIZE.small) / PT_PER_MM;
      const tall = SIZE.small / PT_PER_MM;
      const p = on(i.at);
      const box = { x: p.x - wide / 2, y: p.y - tall / 2, wide, high: tall };
      const clash = taken.some(
        (t) => box.x < t.x + t.wide + 0.6 && t.x < box.x + wide + 0.6 && box.y < t.y + t.high && t.y < box.y + box.high,
      );
      if (clash) continue;
      taken.push(box);
      this.page.drawRectangle({
        x: box.x * PT_PER_MM - 1,
        y: box.y * PT_PER_MM,
        width: wide * PT_PER_MM + 2,
        height: tall * PT_PER_MM,
        color: PAPER,
      });
      this.page.drawText(text, {
        x: box.x * PT_PER_MM,
        y: (box.y + 0.22 * tall) * PT_PER_MM,
        size: SIZE.small,
        font: own,
        color: INK,
      });
    }
  }

  /** A code that opens an address, at the upper right of the page. */
  code(address: string): void {
    const { modules } = create(address, { errorCorrectionLevel: "M" });
    const dot = CODE_MM / modules.size;
    for (let r = 0; r < modules.size; r++)
      for (let c = 0; c < modules.size; c++)
        if (modules.get(r, c))
          this.page.drawRectangle({
            x: (this.sheet[0] - MARGIN_MM - CODE_MM + c * dot) * PT_PER_MM,
            y: (this.sheet[1] - MARGIN_MM - (r + 1) * dot) * PT_PER_MM,
            width: dot * PT_PER_MM,
            height: dot * PT_PER_MM,
            color: INK,
          });
  }
}

function table(pen: Pen, { columns, rows }: Extract<SheetBlock, { kind: "table" }>): void {
  const total = columns.reduce((s, c) => s + c.share, 0);
  const wide = columns.map((c) => (pen.wideMm * c.share) / total);
  const starts = wide.map((_, i) => wide.slice(0, i).reduce((s, w) => s + w, 0));
  const PAD = 1.5;
  const size = SIZE.text;
  const row = (cells: readonly SheetCell[], isBold: boolean): void => {
    // A row that says one thing and nothing else says it over the whole width.
    const said = cells.flatMap((c, i) => (c === "" ? [] : [i]));
    const alone = said.length === 1 && typeof cells[said[0] ?? 0] === "string" ? said[0] : undefined;
    const lines = cells.map((c, i) =>
      typeof c === "string"
        ? pen.wrapped(c, (i === alone ? pen.wideMm - (starts[i] ?? 0) : (wide[i] ?? 20)) - PAD, size, isBold)
        : [],
    );
    const hasRoom = cells.some((c) => typeof c === "object" && "room" in c);
    const high = Math.max(hasRoom ? ROOM_MM : 0, ...lines.map((l) => l.length * pen.lineMm(size))) + 1.6;
    pen.room(high);
    pen.rule(0, pen.wideMm);
    pen.down(0.8);
    cells.forEach((c, i) => {
      if (typeof c === "string") pen.write(lines[i] ?? [], starts[i] ?? 0, size, isBold);
      else if ("tick" in c) pen.box(starts[i] ?? 0, c.tick);
      else pen.rule((starts[i] ?? 0) + 1, (starts[i] ?? 0) + (wide[i] ?? 0) - 2, ROOM_MM - 1.5, INK);
    });
    pen.down(high - 0.8);
  };
  if (columns.some((c) => c.title !== ""))
    row(
      columns.map((c) => c.title),
      true,
    );
  for (const cells of rows) row(cells, false);
  pen.rule(0, pen.wideMm);
  pen.down(3);
}

/** A card with a figure that is read from afar; it never breaks over two pages. */
function card(pen: Pen, { title, figure, lines }: Extract<SheetBlock, { kind: "card" }>): void {
  const head = pen.wrapped(title, pen.wideMm, SIZE.heading, true);
  const own = lines.flatMap((l) => pen.wrapped(l, pen.wideMm, SIZE.text));
  const figures = pen.wrapped(figure, pen.wideMm, SIZE.figure, true);
  const rows: [readonly string[], number, boolean][] = [
    [head, SIZE.heading, true],
    [figures, SIZE.figure, true],
    [own, SIZE.text, false],
  ];
  pen.room(rows.reduce((s, [l, size]) => s + l.length * pen.lineMm(size), 4));
  pen.rule(0, pen.wideMm, 0, INK);
  pen.down(1.5);
  for (const [text, size, isBold] of rows) {
    pen.write(text, 0, size, isBold);
    pen.down(text.length * pen.lineMm(size));
  }
  pen.down(2.5);
}

/** A sheet as PDF, black on white. @param address that its code opens. */
export async function sheetPdf(sheet: Sheet, paper: SheetPaper, address: string, fonts: PdfFonts): Promise<Uint8Array> {
  const letters = await beginPdf(`${sheet.title}: ${sheet.about}`, fonts);
  const { pdf, font, plain } = letters;
  const pen = new Pen(letters, PAPERS[paper]);
  pen.code(address);
  const headMm = pen.wideMm - CODE_MM - 4;
  const title = pen.wrapped(sheet.title, headMm, SIZE.title, true);
  pen.write(title, 0, SIZE.title, true);
  pen.down(title.length * pen.lineMm(SIZE.title));
  const about = pen.wrapped(sheet.about, headMm, SIZE.text);
  pen.write(about, 0, SIZE.text);
  pen.down(Math.max(about.length * pen.lineMm(SIZE.text) + 3, CODE_MM + 3 - title.length * pen.lineMm(SIZE.title)));
  for (const block of sheet.blocks) {
    switch (block.kind) {
      case "heading":
        pen.room(20);
        pen.write([plain(block.text)], 0, SIZE.heading, true);
        pen.down(pen.lineMm(SIZE.heading) + 1);
        break;
      case "text": {
        const lines = pen.wrapped(block.text, pen.wideMm, SIZE.text);
        for (const line of lines) {
          pen.room(pen.lineMm(SIZE.text));
          pen.write([line], 0, SIZE.text);
          pen.down(pen.lineMm(SIZE.text));
        }
        pen.down(2);
        break;
      }
      case "table":
        table(pen, block);
        break;
      case "card":
        card(pen, block);
        break;
      case "picture":
        pen.room(block.highMm + 4);
        pen.picture(block.picture, block.highMm);
        pen.down(block.highMm + 4);
        break;
      case "lines":
        for (const of of block.of) {
          pen.room(ROOM_MM + 2);
          pen.down(ROOM_MM);
          pen.write([plain(of)], 0, SIZE.small);
          pen.rule(40, pen.wideMm, 3, INK);
        }
        pen.down(6);
        break;
    }
  }
  const pages = pdf.getPages();
  pages.forEach((page, i) => {
    page.drawText(plain(`${sheet.title}, ${sheet.about}: page ${i + 1} of ${pages.length}`).slice(0, 130), {
      x: MARGIN_MM * PT_PER_MM,
      y: 8 * PT_PER_MM,
      size: SIZE.small,
      font,
      color: INK,
    });
  });
  return pdf.save();
}

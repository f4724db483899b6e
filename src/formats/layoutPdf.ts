import { type PDFPage, rgb } from "pdf-lib";
import { crossLines, type FullScale, type LayoutItem } from "@/core/drawing";
import type { Vec2 } from "@/core/numeric";
import { beginPdf, type PdfFonts, type PdfLetters } from "./pdfLetters";

/** Sheets that it is laid out on, mm; `one` is a single page as large as the drawing. */
export const PAPERS = { A4: [210, 297], A3: [297, 420], Letter: [215.9, 279.4], Tabloid: [279.4, 431.8] } as const;
export type Paper = keyof typeof PAPERS | "one";

/** How it is printed. */
export interface PaperWish {
  paper: Paper;
  /** What the check bar measured on an earlier print, of 100 mm: everything is drawn larger or smaller by that. */
  barMm: number;
}

/** What no printer reaches, and what sheets lie over each other by, mm. */
const EDGE_MM = 10;
const OVERLAP_MM = 10;
/** Of the foot of a sheet: its number, the check bars. */
const FOOT_MM = 14;
const BAR_MM = 100;
const BAR_IN = 4;
const MM_PER_IN = 25.4;
const PT_PER_MM = 72 / MM_PER_IN;
/** A sheet is never wider or longer than this, mm: what a reader of PDF takes. */
const LARGEST_MM = 5000;
/** More sheets than this nobody tapes together. */
const MOST_SHEETS = 400;
const INK = rgb(0, 0, 0);
const LIGHT = rgb(0.55, 0.55, 0.55);

/** What a sheet says of itself. */
export interface SheetHead {
  title: string;
  /** Version, date, sizes: a line under the title. */
  about: string;
}

/** How a drawing falls onto sheets. */
interface Tiles {
  columns: number;
  rows: number;
  /** Of a sheet, and of what of the drawing it shows, mm. */
  sheet: readonly [number, number];
  shows: readonly [number, number];
}

/** How many sheets a drawing takes. @throws RangeError when it is more than anybody tapes together. */
export function tilesOf({ low, high }: Pick<FullScale, "low" | "high">, { paper, barMm }: PaperWish): Tiles {
  const scale = BAR_MM / barMm;
  const [w, h] = [(high.x - low.x) * scale, (high.y - low.y) * scale];
  if (paper === "one") {
    const sheet = [w + 4 * EDGE_MM, h + 4 * EDGE_MM + FOOT_MM] as const;
    if (Math.max(...sheet) > LARGEST_MM)
      throw new RangeError(`One page would be ${Math.round(Math.max(...sheet))} mm long: take sheets.`);
    return { columns: 1, rows: 1, sheet, shows: [w + 2 * EDGE_MM, h + 2 * EDGE_MM] };
  }
  const options = [PAPERS[paper], [...PAPERS[paper]].reverse() as unknown as readonly [number, number]].map(
    (sheet): Tiles => {
      const shows = [sheet[0] - 2 * EDGE_MM, sheet[1] - 2 * EDGE_MM - FOOT_MM] as const;
      const [sx, sy] = [shows[0] - OVERLAP_MM, shows[1] - OVERLAP_MM];
      return {
        columns: Math.max(1, Math.ceil((w + EDGE_MM) / sx)),
        rows: Math.max(1, Math.ceil((h + EDGE_MM) / sy)),
        sheet,
        shows,
      };
    },
  );
  const [upright, across] = options as [Tiles, Tiles];
  const best = across.columns * across.rows < upright.columns * upright.rows ? across : upright;
  if (best.columns * best.rows > MOST_SHEETS)
    throw new RangeError(`It would take ${best.columns * best.rows} sheets: take larger ones, or one page.`);
  return best;
}

/**
 * A drawing one to one as PDF: on one page, or on sheets that overlap, each with its number, marks to lay it by, a key of all sheets,
 * and a check bar in mm and in inches.
 */
export async function layoutPdf(
  drawing: FullScale,
  head: SheetHead,
  wish: PaperWish,
  fonts: PdfFonts,
): Promise<Uint8Array> {
  const tiles = tilesOf(drawing, wish);
  const scale = BAR_MM / wish.barMm;
  const letters = await beginPdf(head.title, fonts);
  const { pdf } = letters;
  const { columns, rows, sheet, shows } = tiles;
  const step: Vec2 = wish.paper === "one" ? { x: 0, y: 0 } : { x: shows[0] - OVERLAP_MM, y: shows[1] - OVERLAP_MM };
  for (let row = rows - 1; row >= 0; row--)
    for (let column = 0; column < columns; column++) {
      const page = pdf.addPage([sheet[0] * PT_PER_MM, sheet[1] * PT_PER_MM]);
      // Where the drawing's lower left lies on this sheet, mm.
      const from: Vec2 = {
        x: EDGE_MM + (wish.paper === "one" ? EDGE_MM : EDGE_MM / 2) - column * step.x - scale * drawing.low.x,
        y: EDGE_MM + FOOT_MM + (wish.paper === "one" ? EDGE_MM : EDGE_MM / 2) - row * step.y - scale * drawing.low.y,
      };
      const window = {
        low: { x: EDGE_MM, y: EDGE_MM + FOOT_MM },
        high: { x: EDGE_MM + shows[0], y: EDGE_MM + FOOT_MM + shows[1] },
      };
      for (const item of drawing.items) draw(page, letters, item, from, scale, window);
      frame(page, letters, head, { row, column, tiles, window, scale });
    }
  return pdf.save();
}

type Window = { low: Vec2; high: Vec2 };

/** The part of a line within a window; null where it lies outside. Source: Liang and Barsky (1984), from memory. */
export function within(a: Vec2, b: Vec2, { low, high }: Window): [Vec2, Vec2] | null {
  let [t0, t1] = [0, 1];
  const d = { x: b.x - a.x, y: b.y - a.y };
  for (const [p, q] of [
    [-d.x, a.x - low.x],
    [d.x, high.x - a.x],
    [-d.y, a.y - low.y],
    [d.y, high.y - a.y],
  ] as const) {
    if (p === 0) {
      if (q < 0) return null;
      continue;
    }
    const t = q / p;
    if (p < 0) t0 = Math.max(t0, t);
    else t1 = Math.min(t1, t);
    if (t0 > t1) return null;
  }
  const at = (t: number): Vec2 => ({ x: a.x + t * d.x, y: a.y + t * d.y });
  return [at(t0), at(t1)];
}

function draw(
  page: PDFPage,
  { font, plain }: PdfLetters,
  item: LayoutItem,
  from: Vec2,
  scale: number,
  window: Window,
): void {
  const on = (p: Vec2): Vec2 => ({ x: from.x + scale * p.x, y: from.y + scale * p.y });
  const thick = item.layer === "outline" || item.layer === "cut" ? 0.35 : 0.18;
  const segment = (a: Vec2, b: Vec2): void => {
    const part = within(on(a), on(b), window);
    if (!part) return;
    const [p, q] = part;
    page.drawLine({
      start: { x: p.x * PT_PER_MM, y: p.y * PT_PER_MM },
      end: { x: q.x * PT_PER_MM, y: q.y * PT_PER_MM },
      thickness: thick * PT_PER_MM,
      color: INK,
      ...(item.layer === "centre" ? { dashArray: [12, 3, 2, 3].map((d) => d * PT_PER_MM) } : {}),
    });
  };
  if (item.kind === "line") {
    const { points, closed } = item;
    points.forEach((p, i) => {
      const next = points[i + 1] ?? (closed ? points[0] : undefined);
      if (next) segment(p, next);
    });
    return;
  }
  const { at } = item;
  if (item.kind === "cross") {
    for (const [a, b] of crossLines(item)) segment(a, b);
    return;
  }
  if (item.kind === "circle") {
    const SIDES = 48;
    const round = Array.from({ length: SIDES + 1 }, (_, i) => ({
      x: at.x + item.radiusMm * Math.cos((2 * Math.PI * i) / SIDES),
      y: at.y + item.radiusMm * Math.sin((2 * Math.PI * i) / SIDES),
    }));
    round.slice(1).forEach((p, i) => {
      segment(round[i] as Vec2, p);
    });
    return;
  }
  const p = on(at);
  if (p.x < window.low.x || p.x > window.high.x || p.y < window.low.y || p.y > window.high.y) return;
  page.drawText(plain(item.text), {
    x: p.x * PT_PER_MM,
    y: p.y * PT_PER_MM,
    size: item.heightMm * PT_PER_MM,
    font,
    color: INK,
  });
}

/** What stands round a sheet: marks to lay the next one by, its number, the key, the bars. */
function frame(
  page: PDFPage,
  { font, plain }: PdfLetters,
  { title, about }: SheetHead,
  { row, column, tiles, window, scale }: { row: number; column: number; tiles: Tiles; window: Window; scale: number },
): void {
  const line = (a: Vec2, b: Vec2, thick = 0.15, color = LIGHT): void =>
    page.drawLine({
      start: { x: a.x * PT_PER_MM, y: a.y * PT_PER_MM },
      end: { x: b.x * PT_PER_MM, y: b.y * PT_PER_MM },
      thickness: thick * PT_PER_MM,
      color,
    });
  const text = (x: number, y: number, what: string, size = 3, color = INK): void =>
    page.drawText(plain(what), { x: x * PT_PER_MM, y: y * PT_PER_MM, size: size * PT_PER_MM, font, color });
  const { low, high } = window;
  const { columns, rows } = tiles;
  // Sheets are laid over each other so that these lines fall together.
  const inner = [...(columns > 1 ? [low.x + OVERLAP_MM / 2, high.x - OVERLAP_MM / 2] : [])];
  for (const x of inner) line({ x, y: low.y }, { x, y: high.y });
  if (rows > 1)
    for (const y of [low.y + OVERLAP_MM / 2, high.y - OVERLAP_MM / 2]) line({ x: low.x, y }, { x: high.x, y });
  const y = EDGE_MM;
  const x = EDGE_MM;
  // Bars are true on paper when the printer is: they are drawn with everything else.
  line({ x, y: y + 6 }, { x: x + scale * BAR_MM, y: y + 6 }, 0.35, INK);
  for (const at of [0, BAR_MM]) line({ x: x + scale * at, y: y + 4.5 }, { x: x + scale * at, y: y + 7.5 }, 0.35, INK);
  text(x, y + 8.5, "100 mm: measure it", 2.6);
  const inches = BAR_IN * MM_PER_IN * scale;
  line({ x, y: y + 1.5 }, { x: x + inches, y: y + 1.5 }, 0.35, INK);
  for (const at of [0, inches]) line({ x: x + at, y }, { x: x + at, y: y + 3 }, 0.35, INK);
  text(x + inches + 2, y + 0.5, "4 in", 2.6);
  const right = x + scale * BAR_MM + 12;
  text(right, y + 8, title.slice(0, 60), 3.2);
  text(right, y + 4, about.slice(0, 90), 2.4);
  if (rows * columns > 1) {
    text(right, y, `Sheet ${String.fromCharCode(65 + (rows - 1 - row))}${column + 1} of ${rows} x ${columns}`, 2.8);
    const cell = Math.min(3, 12 / Math.max(rows, columns));
    const start: Vec2 = { x: tiles.sheet[0] - EDGE_MM - cell * columns, y };
    for (let r = 0; r < rows; r++)
      for (let c = 0; c < columns; c++)
        page.drawRectangle({
          x: (start.x + c * cell) * PT_PER_MM,
          y: (start.y + r * cell) * PT_PER_MM,
          width: cell * PT_PER_MM,
          height: cell * PT_PER_MM,
          borderWidth: 0.3,
          borderColor: INK,
          ...(r === row && c === column ? { color: INK } : {}),
        });
  }
}

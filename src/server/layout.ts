import "server-only";
import * as z from "zod";
import { LAYERS, type LayerName } from "@/core/drawing";
import { evaluate, fullScaleOf, SHEETS, sheetOf } from "@/core/job";
import { layoutDxf } from "@/formats/layoutDxf";
import { layoutPdf, PAPERS, type Paper } from "@/formats/layoutPdf";
import { layoutSvg } from "@/formats/layoutSvg";
import { SHEET_PAPERS, sheetPdf } from "@/formats/sheetPdf";
import { pdfFonts } from "./fonts";
import { getJob } from "./jobs";
import { done, type Outcome, parse, refuse } from "./outcome";
import { predictionOf } from "./predictions";
import { type Caller, outsideAddress } from "./who";

const wishSchema = z.strictObject({
  as: z.enum(["pdf", "dxf", "svg"], "Give pdf, dxf or svg."),
  paper: z.enum(["one", ...(Object.keys(PAPERS) as Paper[])], "Give A4, A3, Letter, Tabloid or one.").default("A4"),
  size: z.enum(["set-up", "drawing"], "Give set-up or drawing.").default("drawing"),
  /** Names of layers, with commas; all when left out. */
  layers: z
    .string()
    .max(200)
    .transform((text) => text.split(","))
    .pipe(z.array(z.enum(LAYERS as unknown as [LayerName, ...LayerName[]], "There is no such layer.")))
    .optional(),
  /** What the check bar of an earlier print measured, mm. */
  bar: z.coerce
    .number("Give what the bar measured in mm.")
    .min(80, "A bar of 100 mm that measures under 80 mm: print it at 100 %.")
    .max(125, "A bar of 100 mm that measures over 125 mm: print it at 100 %.")
    .default(100),
});

/** A file of the frame at full size. */
export interface LayoutFile {
  bytes: Uint8Array;
  type: string;
  name: string;
}

/** The frame of a job at full size, as it is drawn or as it is set up. */
export async function layoutFile(who: Caller, id: string, input: unknown): Promise<Outcome<LayoutFile>> {
  const parsed = parse(wishSchema, input);
  if (!parsed.ok) return parsed;
  const found = await getJob(who, id);
  if (!found.ok) return found;
  const { job } = found.value;
  const { as, paper, size, layers = [...LAYERS], bar } = parsed.value;
  const { prediction } = evaluate(job, size === "set-up" ? await predictionOf(job.plan) : null);
  const made = fullScaleOf(job.plan, prediction, { size, layers });
  if (!made) return refuse(422, "The frame has errors: mend them under Frame first.");
  if (size === "set-up" && !made.isSetOff)
    return refuse(422, "How it is set up off nominal is not known: it is not predicted. Take the drawing's sizes.");
  const { name } = job.plan;
  const about = `version ${job.version}, ${made.isSetOff ? "as it is set up, off nominal" : "as drawn"}, seen from above, 1:1`;
  const text = (body: string, type: string): LayoutFile => ({
    bytes: new TextEncoder().encode(body),
    type,
    name: `${name}-full-size.${as}`,
  });
  if (as === "svg") return done(text(layoutSvg(made.drawing, `${name}, ${about}`), "image/svg+xml"));
  if (as === "dxf") return done(text(layoutDxf(made.drawing), "image/vnd.dxf"));
  try {
    const bytes = await layoutPdf(made.drawing, { title: name, about }, { paper, barMm: bar }, await pdfFonts());
    return done({ bytes, type: "application/pdf", name: `${name}-full-size.pdf` });
  } catch (e) {
    if (e instanceof RangeError) return refuse(422, e.message);
    throw e;
  }
}

const sheetSchema = z.strictObject({
  name: z.enum(SHEETS, `Give one of ${SHEETS.join(", ")}.`),
  paper: z.enum(SHEET_PAPERS, "Give A4 or Letter.").default("A4"),
});

/** A sheet of paper about a job. @param here address of this server as it was asked. */
export async function sheetFile(who: Caller, id: string, input: unknown, here: string): Promise<Outcome<LayoutFile>> {
  const parsed = parse(sheetSchema, input);
  if (!parsed.ok) return parsed;
  const found = await getJob(who, id);
  if (!found.ok) return found;
  const { job } = found.value;
  const { name, paper } = parsed.value;
  const evaluation = evaluate(job, await predictionOf(job.plan));
  const sheet = sheetOf(name, job, evaluation, new Date().toISOString());
  // Other devices reach it under its outside address, where it has one.
  const address = `${outsideAddress() ?? here}/jobs/${job.id}/${sheet.stage}`;
  const bytes = await sheetPdf(sheet, paper, address, await pdfFonts());
  return done({ bytes, type: "application/pdf", name: `${job.plan.name}-${name}.pdf` });
}

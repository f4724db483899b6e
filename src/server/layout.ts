import "server-only";
import * as z from "zod";
import { templatesOf } from "@/core/cut";
import { type FullScale, LAYERS, type LayerName, solidBodies, templatesDrawing } from "@/core/drawing";
import { builtOf, buyingParts, evaluate, FULL_SCALE_VIEWS, fullScaleOf, type Job, SHEETS, sheetOf } from "@/core/job";
import { bodyGlb, bodyStl } from "@/formats/bodyFiles";
import { layoutDxf } from "@/formats/layoutDxf";
import { layoutPdf, PAPERS, type Paper } from "@/formats/layoutPdf";
import { layoutSvg } from "@/formats/layoutSvg";
import { SHEET_PAPERS, sheetPdf } from "@/formats/sheetPdf";
import { inThread } from "@/workers/predictionThread";
import { pdfFonts } from "./fonts";
import { getJob } from "./jobs";
import { done, type Outcome, parse, refuse } from "./outcome";
import { forecastOf } from "./predictions";
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
  view: z.enum(FULL_SCALE_VIEWS, "Give above, front or right.").default("above"),
  /** The frame, or templates of the ends that a saw does not cut. */
  of: z.enum(["frame", "templates"], "Give frame or templates.").default("frame"),
  /** Which edge of the wall touches a round. */
  edge: z.enum(["inner", "outer"], "Give inner or outer.").default("inner"),
});
type LayoutWish = z.infer<typeof wishSchema>;

/** A file of the frame at full size. */
export interface LayoutFile {
  bytes: Uint8Array;
  type: string;
  name: string;
}

/** What of a job is drawn at full size, and what is said of it. */
interface Drawn {
  drawing: FullScale;
  about: string;
  file: string;
}

/** The frame as it is drawn, or as it is set up. */
async function frameDrawn(job: Job, { size, layers = [...LAYERS], view }: LayoutWish): Promise<Outcome<Drawn>> {
  const forecast = size === "set-up" ? await forecastOf(job.plan) : done(null);
  if (!forecast.ok) return forecast;
  const { prediction } = evaluate(job, forecast.value);
  const made = fullScaleOf(job.plan, prediction, { size, layers, view });
  if (!made) return refuse(422, "The frame has errors: mend them under Frame first.");
  if (size === "set-up" && !made.isSetOff)
    return refuse(
      422,
      view === "above"
        ? "How it is set up off nominal is not known: it is not predicted. Take the drawing's sizes."
        : "How it is set up off nominal is known from above alone. Take the drawing's sizes.",
    );
  const as = made.isSetOff ? "as it is set up, off nominal" : "as drawn";
  return done({
    drawing: made.drawing,
    about: `${as}, seen from ${view === "above" ? "above" : `the ${view}`}, 1:1`,
    file: "full-size",
  });
}

/** Templates of every end that a saw does not cut. */
function templatesDrawn(job: Job, { edge }: LayoutWish): Outcome<Drawn> {
  const { structure } = builtOf(job.plan);
  if (!structure) return refuse(422, "The frame has errors: mend them under Frame first.");
  const list = templatesOf(structure, edge);
  if (list.length === 0) return refuse(422, "A saw cuts every end of this frame: it needs no template.");
  return done({ drawing: templatesDrawing(list), about: "templates to wrap round the ends, 1:1", file: "templates" });
}

/** The frame of a job at full size, or templates of its ends. */
export async function layoutFile(who: Caller, id: string, input: unknown): Promise<Outcome<LayoutFile>> {
  const parsed = parse(wishSchema, input);
  if (!parsed.ok) return parsed;
  const found = await getJob(who, id);
  if (!found.ok) return found;
  const { job } = found.value;
  const { as, of, paper, bar } = parsed.value;
  const made = of === "templates" ? templatesDrawn(job, parsed.value) : await frameDrawn(job, parsed.value);
  if (!made.ok) return made;
  const { name } = job.plan;
  const { drawing } = made.value;
  const about = `version ${job.version}, ${made.value.about}`;
  const file = `${name}-${made.value.file}.${as}`;
  const text = (body: string, type: string): LayoutFile => ({
    bytes: new TextEncoder().encode(body),
    type,
    name: file,
  });
  if (as === "svg") return done(text(layoutSvg(drawing, `${name}, ${about}`), "image/svg+xml"));
  if (as === "dxf") return done(text(layoutDxf(drawing), "image/vnd.dxf"));
  try {
    const bytes = await layoutPdf(drawing, { title: name, about }, { paper, barMm: bar }, await pdfFonts());
    return done({ bytes, type: "application/pdf", name: file });
  } catch (e) {
    if (e instanceof RangeError) return refuse(422, e.message);
    throw e;
  }
}

/** The frame of a job as bodies, for programs that show or machine them. */
export async function bodyFile(who: Caller, id: string, as: unknown): Promise<Outcome<LayoutFile>> {
  const parsed = parse(z.enum(["stl", "glb"], "Give stl or glb."), as);
  if (!parsed.ok) return parsed;
  const found = await getJob(who, id);
  if (!found.ok) return found;
  const { plan } = found.value.job;
  const { structure } = builtOf(plan);
  if (!structure) return refuse(422, "The frame has errors: mend them under Frame first.");
  const bodies = solidBodies(structure);
  const name = `${plan.name}.${parsed.value}`;
  return parsed.value === "stl"
    ? done({ bytes: bodyStl(bodies), type: "model/stl", name })
    : done({ bytes: await bodyGlb(bodies, plan.name), type: "model/gltf-binary", name });
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
  const forecast = await forecastOf(job.plan);
  if (!forecast.ok) return forecast;
  const evaluation = evaluate(job, forecast.value);
  // Where the bars cannot be laid out the sheet says so.
  const laid = name === "buying" ? await inThread("nest", buyingParts(job.plan, evaluation)).catch(() => []) : [];
  const sheet = sheetOf(name, job, evaluation, new Date().toISOString(), laid);
  // Other devices reach it under its outside address, where it has one.
  const address = `${outsideAddress() ?? here}/jobs/${job.id}/${sheet.stage}`;
  const bytes = await sheetPdf(sheet, paper, address, await pdfFonts());
  return done({ bytes, type: "application/pdf", name: `${job.plan.name}-${name}.pdf` });
}

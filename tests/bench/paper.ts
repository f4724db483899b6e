// What paper and files of other programs take, in Node: part of npm run bench
import { performance } from "node:perf_hooks";
import { DxfWriter, point3d, Units } from "@tarikjabiri/dxf";
import { strToU8 } from "fflate";
import { LAYERS } from "@/core/drawing";
import { fromLines, usualWish } from "@/core/frame";
import { evaluate, fullScaleOf, SHEETS, sheetOf } from "@/core/job";
import { layoutDxf } from "@/formats/layoutDxf";
import { layoutPdf, tilesOf } from "@/formats/layoutPdf";
import { openFile } from "@/formats/openFile";
import { sheetPdf } from "@/formats/sheetPdf";
import { demoJobs } from "../../script/lib/demo-jobs";
import { started } from "../support/drawnFrames";
import { PDF_FONTS } from "../support/pdfFonts";
import { drawnPlan } from "../support/plans";

const row = (name: string, value: string, target = ""): void =>
  console.log(`${name.padEnd(56)} ${value.padStart(12)}  ${target}`);

async function timed(what: string, work: () => unknown | Promise<unknown>, target?: string): Promise<void> {
  await work();
  const runs: number[] = [];
  for (let i = 0; i < 3; i++) {
    const from = performance.now();
    await work();
    runs.push(performance.now() - from);
  }
  const [, middle = 0] = runs.sort((a, b) => a - b);
  row(what, `${middle.toFixed(0)} ms`, target);
}

const ladder = drawnPlan(started("ladder", { length: 2400, width: 1200, cross: 10 }));
const made = fullScaleOf(ladder, null, { size: "drawing", layers: LAYERS });
if (!made) throw new Error("no frame");
const { drawing } = made;
const wish = { paper: "A4", barMm: 100 } as const;
const tiles = tilesOf(drawing, wish);
const head = { title: "Bench", about: "as drawn" };
await timed(
  `Full-size PDF, 24 joints, ${tiles.columns * tiles.rows} sheets`,
  () => layoutPdf(drawing, head, wish, PDF_FONTS),
  "target < 2 s",
);
await timed("The same on one page", () => layoutPdf(drawing, head, { paper: "one", barMm: 100 }, PDF_FONTS));

/** A frame of some 200 members: rails and what lies between them. */
const many = new DxfWriter();
many.setUnits(Units.Millimeters);
for (let i = 0; i <= 10; i++) many.addLine(point3d(0, i * 800), point3d(9000, i * 800));
for (let i = 0; i <= 18; i++)
  for (let k = 0; k < 10; k++) many.addLine(point3d(i * 500, k * 800), point3d(i * 500, k * 800 + 800));
const opened = openFile(strToU8(many.stringify()));
if (!opened.ok || opened.value.kind !== "drawing") throw new Error("no drawing");
const { work } = opened.value;
const { sizes } = ladder.frame;
const section = {
  ...{ id: "S1", shape: "tube" as const, profile: sizes.section.profile, width: sizes.section.face },
  ...{ height: sizes.section.depth, wall: sizes.section.wall, material: sizes.material },
};
let members = 0;
await timed("Members from the lines of a drawing", () => {
  const r = fromLines(work, usualWish(work, "mm"), section, "mm");
  members = r.ok ? r.value.frame.members.length : 0;
});
const whole = fromLines(work, usualWish(work, "mm"), section, "mm");
if (!whole.ok) throw new Error(whole.message);
const plan = drawnPlan(whole.value.frame);
const large = fullScaleOf(plan, null, { size: "drawing", layers: LAYERS });
if (!large) throw new Error("no frame");
await timed(`DXF of ${members} members`, () => layoutDxf(large.drawing), "target < 200 ms");

/** A drawing of 5 MB: a hall with a frame in it. */
const hall = new DxfWriter();
hall.addLayer("hall", 1, "Continuous");
hall.addLayer("centre", 2, "Continuous");
for (let n = 0; n < 18_500; n++) hall.addLine(point3d(n, 0), point3d(n, 1000 + (n % 7)), { layerName: "hall" });
for (const [a, b, c, d] of [
  [0, 0, 2000, 0],
  [2000, 0, 2000, 900],
  [2000, 900, 0, 900],
  [0, 900, 0, 0],
] as const)
  hall.addLine(point3d(a, b), point3d(c, d), { layerName: "centre" });
// Drawings of buildings are mostly words.
for (let n = 0; n < 20_000; n++)
  hall.addText(point3d(n, 0), 50, `Column ${n}, see sheet ${n % 40}`, { layerName: "hall" });
const text = hall.stringify();
await timed(`Reading a DXF of ${(text.length / 1e6).toFixed(1)} MB`, () => openFile(strToU8(text)), "target < 2 s");

const { job } = demoJobs()[2] as ReturnType<typeof demoJobs>[number];
const evaluation = evaluate(job, null);
for (const name of SHEETS)
  await timed(`Sheet as PDF, ${name}`, () =>
    sheetPdf(
      sheetOf(name, job, evaluation, "2026-11-20T10:00:00.000Z"),
      "A4",
      "https://192.0.2.7/jobs/x/cut",
      PDF_FONTS,
    ),
  );

import { readFileSync } from "node:fs";
import Ajv2020 from "ajv/dist/2020.js";
import addFormats from "ajv-formats";
import fc from "fast-check";
import Papa from "papaparse";
import { describe, expect, it } from "vitest";
import { demoJobs } from "../../script/lib/demo-jobs";
import { started } from "../../tests/support/drawnFrames";
import { withDrawn } from "../../tests/support/plans";
import { type DrawnFrame, mirrorMembers, moveMembers, STARTERS } from "../core/frame";
import { evaluate, type Plan } from "../core/job";
import { length, type UnitPreference } from "../core/units";
import {
  cutCsv,
  JOB_FILE_VERSION,
  jobFileJsonSchema,
  readingsCsv,
  readJobFile,
  reportData,
  reportText,
  writeJobFile,
} from ".";
import { orderCsv, recordCsv } from "./recordCsv";

const jobs = demoJobs().map((d) => d.job);
const cart = jobs[0];
if (!cart) throw new Error("no demo job");
const file = () => JSON.parse(writeJobFile(cart));
const problem = (text: string) => {
  const read = readJobFile(text);
  if (read.ok) throw new Error("was read");
  return read.problems[0];
};

describe("tables of a job", () => {
  it("are read by a library as they were written, and run nothing", () => {
    for (const { job } of demoJobs()) {
      const evil = { ...job, entries: [...job.entries] };
      evil.entries.push({
        ...{ kind: "note", id: "0197a0b0-0000-7000-8000-00000000aaaa", at: "2026-11-20T10:00:00.000Z", origin: "@who" },
        text: '=1+1, "quoted"\nsecond line',
      });
      const evaluation = evaluate(evil, null);
      const record = Papa.parse<string[]>(recordCsv(evil, evaluation), { skipEmptyLines: true });
      expect(record.errors).toEqual([]);
      expect(record.data).toHaveLength(evil.entries.length + 1);
      expect(record.data.at(-1)).toEqual([
        ...["2026-11-20T10:00:00.000Z", "note", `'=1+1, "quoted"\nsecond line`, "", "'@who"],
      ]);
      const order = Papa.parse<string[]>(orderCsv(evil, evaluation), { skipEmptyLines: true });
      expect(order.errors).toEqual([]);
      expect(order.data.slice(1).map((r) => Number(r[0]))).toEqual(evaluation.steps.map((_, i) => i + 1));
    }
  });
});

describe("the job file", () => {
  it("gives the same job back, to the last digit", () => {
    for (const job of jobs) {
      const read = readJobFile(writeJobFile(job));
      expect(read).toEqual({ ok: true, job });
    }
  });
  it("says what is wrong, and where", () => {
    expect(problem("")).toMatchObject({ path: "file", message: expect.stringMatching(/empty/) });
    expect(problem(writeJobFile(cart).slice(0, 700))).toMatchObject({
      path: "file",
      message: expect.stringMatching(/cut short|not JSON/),
    });
    expect(problem("hello")).toMatchObject({ path: "file", message: expect.stringMatching(/not JSON/) });
    expect(problem("[1]")?.message).toMatch(/not a job file/);
    expect(problem('{"a":1}')).toMatchObject({ path: "format" });
    expect(problem(JSON.stringify({ ...file(), formatVersion: JOB_FILE_VERSION + 1 }))).toMatchObject({
      path: "formatVersion",
      message: expect.stringMatching(/later version/),
    });
    const f = file();
    f.job.plan.frame.sizes.length = { mm: 1200, text: "1300", unit: "mm" };
    expect(problem(JSON.stringify(f))).toMatchObject({
      path: "job.plan.frame.sizes.length",
      message: expect.stringMatching(/says 1300 mm/),
    });
    const g = file();
    g.job.plan.frame.sizes.section.wall = { mm: 30, text: "30", unit: "mm" };
    expect(problem(JSON.stringify(g))?.path).toBe("job.plan.frame.sizes.section.wall");
    const h = file();
    h.job.entries = h.job.entries.slice(1);
    expect(problem(JSON.stringify(h))).toMatchObject({ path: "job.entries.0.roundId" });
    const i = file();
    i.job.instruments = [];
    expect(problem(JSON.stringify(i))?.path).toMatch(/instrumentId$/);
    const k = file();
    k.job.entries.push(k.job.entries[0]);
    expect(problem(JSON.stringify(k))?.message).toMatch(/there twice/);
    const u = file();
    u.job.plan.colour = "red";
    expect(problem(JSON.stringify(u))).toMatchObject({ path: "job.plan" });
  });
  it("holds by its published schema as another library reads it, and breaks it where it is wrong", () => {
    const ajv = new Ajv2020({ strict: false, allErrors: false });
    addFormats(ajv);
    const holds = ajv.compile(JSON.parse(readFileSync("public/schema/job-file.schema.json", "utf8")));
    for (const { job } of demoJobs()) {
      const text = writeJobFile(job);
      expect(holds(JSON.parse(text)), ajv.errorsText(holds.errors)).toBe(true);
      const wrong = JSON.parse(text);
      wrong.job.plan.units = "cubits";
      expect(holds(wrong)).toBe(false);
    }
  });
  it("has a published schema that is this one", () => {
    expect(JSON.parse(readFileSync("public/schema/job-file.schema.json", "utf8"))).toEqual(
      JSON.parse(JSON.stringify(jobFileJsonSchema())),
    );
  });
});

describe("a drawn frame", () => {
  const plan = (drawn: DrawnFrame): Plan => withDrawn(cart.plan, drawn);
  it("comes back from its file to the last digit, whatever it was started from and however it was edited", () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...STARTERS.map((s) => s.name)),
        fc.double({ min: -900, max: 900, noNaN: true }),
        fc.constantFrom<UnitPreference>("mm", "inch-decimal"),
        (name, mm, units) => {
          let free = started(name);
          const first = free.members[0]?.id ?? "";
          free = moveMembers(free, [first], [mm, mm / 7, 0], units, true);
          free = mirrorMembers(free, [first], "x", mm, true, units).frame;
          const job = { ...cart, plan: plan(free) };
          expect(readJobFile(writeJobFile(job))).toEqual({ ok: true, job });
        },
      ),
      { numRuns: 40 },
    );
  });
  it("is stored with its clashes, and refused only for what could not be read again", () => {
    const clash = { ...started("rectangle"), gap: length("90") };
    expect(readJobFile(writeJobFile({ ...cart, plan: plan(clash) })).ok).toBe(true);
    const file = JSON.parse(writeJobFile({ ...cart, plan: plan(started("rectangle")) }));
    file.job.plan.frame.drawn.members[0].id = "no name";
    expect(problem(JSON.stringify(file))).toMatchObject({ path: "job.plan.frame.drawn.members.0.id" });
    file.job.plan.frame.drawn.members[0].id = "AB";
    file.job.plan.frame.drawn.members[0].from.x = { mm: 5, text: "6", unit: "mm" };
    expect(problem(JSON.stringify(file))?.path).toBe("job.plan.frame.drawn.members.0.from.x");
  });
  it("has its cut list as CSV, a line a kind, read back by a common parser", () => {
    const free = started("table base");
    const cut = evaluate({ ...cart, plan: plan(free) }, null).cut;
    const rows = Papa.parse<Record<string, string>>(
      cutCsv(cut, "mm", () => "=SUM(1)"),
      { header: true, skipEmptyLines: true },
    ).data;
    expect(rows.map((r) => [r.pieces, r.members])).toEqual(cut.map((p) => [String(p.quantity), p.members.join(" ")]));
    expect(rows[0]?.["long point, mm"]).toBe("1200.0");
    expect(rows[0]?.section).toBe("'=SUM(1)");
  });
  it("is told by the report with what it is made of", () => {
    const text = reportText({ ...cart, plan: plan(started("stand")) });
    expect(text).toMatch(/1200\.0 mm × 800\.0 mm, tube 40×40×3, mild steel, \d+\.\d kg/);
    expect(text).toMatch(/4 × L1, L2, L3, L4/);
  });
});

describe("readings as CSV", () => {
  it("holds every reading, also those replaced, and reads back by a common parser", () => {
    const kiln = jobs[3];
    if (!kiln) throw new Error("no kiln stand");
    const { data } = Papa.parse<Record<string, string>>(readingsCsv(kiln), { header: true, skipEmptyLines: true });
    expect(data).toHaveLength(kiln.entries.filter((e) => e.kind === "reading").length);
    const bd = data.filter((r) => r.what === "BD" && r.gate === "dry fit");
    expect(bd.map((r) => r.stands)).toEqual(["replaced", "yes"]);
    expect(Number(bd[1]?.value_mm)).toBeCloseTo((52 + 13 / 16) * 25.4, 9);
    expect(bd[1]?.as_typed).toBe("52 13/16");
  });
  it("says how a rest was read, and slopes in their own unit", () => {
    const { data } = Papa.parse<Record<string, string>>(readingsCsv(cart), { header: true, skipEmptyLines: true });
    const slopes = data.filter((r) => r.how?.startsWith("slope"));
    expect(slopes.map((r) => [r.what, r.how, r.slope_or_angle, r.unit_if_bare, r.value_mm])).toContainEqual([
      "R3",
      "slope from R2, arrow on",
      "0.8",
      "mm/m",
      "",
    ]);
    const gaps = data.filter((r) => r.how?.startsWith("gap"));
    expect(gaps.map((r) => [r.what, r.value_mm, r.how])).toContainEqual([
      "R2",
      "5.35",
      "gap under an edge from R1 to R3, blocks 5 and 5 mm",
    ]);
    // Read in three ways, one rest stands three times.
    expect(
      data.filter((r) => r.gate === "bed" && r.round === "2" && r.what === "R2" && r.stands === "yes"),
    ).toHaveLength(3);
  });
  it("lets no cell act as a formula", () => {
    const job = structuredClone(cart);
    for (const e of job.entries) e.origin = "=HYPERLINK(1)";
    expect(readingsCsv(job)).toContain("'=HYPERLINK");
    expect(readingsCsv(job)).not.toMatch(/(^|,)=/m);
  });
});

describe("the report", () => {
  it("says in text what it says as data", () => {
    for (const job of jobs) {
      const text = reportText(job);
      const data = reportData(job);
      expect(text).toContain(job.plan.name);
      expect(text).toContain(`Verdict so far: ${data.verdict.verdict}`);
      expect(data.steps.filter((s) => s.done)).toHaveLength((text.match(/^\[x\]/gm) ?? []).length);
      expect(JSON.stringify(data)).not.toMatch(/NaN/);
    }
  });
  it("keeps the four demo jobs at four different places", () => {
    expect(jobs.map((j) => reportData(j).verdict)).toEqual([
      { stage: "weld", verdict: "pass", about: "square, tacked, round 3" },
      { stage: "log", verdict: "pass", about: "cold frame, round 1" },
      { stage: "frame", verdict: "not measured", about: "" },
      { stage: "weld", verdict: "fail", about: "square, tacked, round 1" },
    ]);
  });
});

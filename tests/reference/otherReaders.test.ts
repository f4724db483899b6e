import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import Papa from "papaparse";
import { afterAll, describe, expect, it } from "vitest";
import { LAYERS } from "@/core/drawing";
import { STARTERS } from "@/core/frame";
import { evaluate, fullScaleOf, pieceSection } from "@/core/job";
import { cutCsv } from "@/formats/cutCsv";
import { layoutDxf } from "@/formats/layoutDxf";
import { readingsCsv } from "@/formats/readingsCsv";
import { orderCsv, recordCsv } from "@/formats/recordCsv";
import { demoJobs } from "../../script/lib/demo-jobs";
import { started } from "../support/drawnFrames";
import { drawnPlan } from "../support/plans";

/** Files as programs of other languages read them: Debian's python3-ezdxf, and Python's own csv. */
const folder = mkdtempSync(path.join(tmpdir(), "readers-"));
afterAll(() => rmSync(folder, { recursive: true }));

describe("a drawing as another reader opens it", () => {
  it("has no error that its audit finds, for every starter", () => {
    const files = STARTERS.map(({ name }) => {
      const file = path.join(folder, `${name.replace(/\W+/g, "-")}.dxf`);
      const made = fullScaleOf(drawnPlan(started(name)), null, { size: "drawing", layers: LAYERS });
      if (!made) throw new Error(name);
      writeFileSync(file, layoutDxf(made.drawing));
      return file;
    });
    const said = execFileSync("ezdxf", ["audit", ...files], { encoding: "utf8", cwd: folder });
    expect(said.match(/^No errors found\.$/gm)).toHaveLength(STARTERS.length);
    expect(said).not.toMatch(/not a DXF file/);
  });
});

describe("tables as Python reads them", () => {
  it("have the cells that a parser of this language finds", () => {
    const script = "import csv, json, sys; print(json.dumps(list(csv.reader(sys.stdin, strict=True))))";
    for (const { job } of demoJobs()) {
      const evaluation = evaluate(job, null);
      for (const text of [
        readingsCsv(job),
        cutCsv(evaluation.cut, job.plan.units, (p) => pieceSection(job.plan, p), job.plan.stock.also),
        orderCsv(job, evaluation),
        recordCsv(job, evaluation),
      ]) {
        const read = JSON.parse(
          execFileSync("/usr/bin/python3", ["-c", script], {
            input: text,
            encoding: "utf8",
            env: { ...process.env, PYTHONUTF8: "1" },
          }),
        );
        expect(read).toEqual(Papa.parse<string[]>(text, { skipEmptyLines: true }).data);
        expect(read.length).toBeGreaterThan(0);
      }
    }
  });
});

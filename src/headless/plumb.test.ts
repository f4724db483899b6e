import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { describe, expect, it } from "vitest";
import { type OutcomeId, outcomeKey } from "@/core/shrink";
import { demoJobs } from "../../script/lib/demo-jobs";
import { sized } from "../../tests/support/plans";
import { length } from "../core/units";
import { writeJobFile } from "../formats";
import { plumb } from "./plumb";

const folder = mkdtempSync(path.join(tmpdir(), "plumb-"));
const put = (name: string, text: string): string => {
  const file = path.join(folder, name);
  writeFileSync(file, text);
  return file;
};
function run(...args: string[]) {
  let out = "";
  let err = "";
  const code = plumb(args, { out: (t) => (out += t), err: (t) => (err += t) });
  return { code, out, err };
}
const [cart, gate] = demoJobs().map((d) => d.job);
if (!cart || !gate) throw new Error("no demo job");

describe("plumb report", () => {
  it("prints what the screens say, as text and as data", () => {
    const file = put("gate.json", writeJobFile(gate));
    const text = run("report", file);
    expect(text).toMatchObject({ code: 0, err: "" });
    expect(text.out).toMatch(/Verdict so far: pass \(cold frame, round 1\)/);
    const data = JSON.parse(run("report", "--json", file).out);
    expect(data.verdict.verdict).toBe("pass");
    expect(data.cut[0]).toMatchObject({ members: ["AB", "CD"], longPointMm: 1800 });
  });
  it("ends with 2 and the field on wrong input", () => {
    const bad = JSON.parse(writeJobFile(gate));
    bad.job.plan.weld.volts = "many";
    expect(run("report", put("bad.json", JSON.stringify(bad)))).toMatchObject({
      code: 2,
      out: "",
      err: expect.stringMatching(/job\.plan\.weld\.volts/),
    });
    expect(run("report", put("cut.json", writeJobFile(gate).slice(0, 300)))).toMatchObject({ code: 2 });
    expect(run("report", path.join(folder, "none.json"))).toMatchObject({
      code: 2,
      err: expect.stringMatching(/ENOENT/),
    });
    expect(run("report", put("huge.json", " ".repeat(9 * 1024 * 1024)))).toMatchObject({
      code: 2,
      err: expect.stringMatching(/larger than any/),
    });
    expect(run()).toMatchObject({ code: 2, err: expect.stringMatching(/Usage/) });
    expect(run("paint", "x")).toMatchObject({ code: 2, err: expect.stringMatching(/Unknown command "paint"/) });
    expect(run("report", "--loud", "x")).toMatchObject({ code: 2, err: expect.stringMatching(/--loud/) });
    expect(run("--help")).toMatchObject({ code: 0, out: expect.stringMatching(/Usage/) });
  });
});

describe("plumb simulate", () => {
  const file = put("simulate.json", writeJobFile(cart));
  it("tells every step, the cold shape with bands, and what to set up", () => {
    const { code, out, err } = run("simulate", file);
    expect({ code, err }).toEqual({ code: 0, err: "" });
    expect(out).toMatch(/side AB: −\d+\.\d\d mm \(−\d+\.\d\d to −\d+\.\d\d\)/);
    expect(out).toMatch(/SET UP OFF NOMINAL\nside AB: 120\d\.\d mm ± /);
    expect(out).toMatch(/ {2}3\. .*Tack A, inside corner/);
  });
  it("as data, its steps add up to the cold frame", () => {
    const data = JSON.parse(run("simulate", file, "--json").out);
    for (const id of ["AB", "square", "twist"]) {
      const cold = data.prediction.outcomes.find((q: { id: OutcomeId }) => outcomeKey(q.id) === id);
      const sum = data.steps.reduce(
        (s: number, step: { change: Record<string, number> }) => s + (step.change[id] ?? 0),
        0,
      );
      expect(sum).toBeCloseTo(cold.nominal, 9);
    }
    expect(data.steps.at(-1).movementsMm).toHaveLength(data.points.length);
    expect(data.steps[0].clampForcesN).toHaveLength(8);
  });
  it("names the field of a frame that cannot be built", () => {
    const bad = { ...cart, plan: sized(cart.plan, { length: length("10") }) };
    expect(run("simulate", put("short.json", writeJobFile(bad)))).toMatchObject({
      code: 2,
      out: "",
      err: expect.stringMatching(/frame\.sizes\.length: Length is 10 mm/),
    });
  });
  it("asks for a command and one file", () => {
    expect(run("simulate")).toMatchObject({ code: 2, err: expect.stringMatching(/Name one job file/) });
    expect(run("weigh", file)).toMatchObject({ code: 2, err: expect.stringMatching(/Unknown command "weigh"/) });
  });
});

describe("plumb orders", () => {
  it("compares the schools as the screen does, with the chance of each, and advises one of them", () => {
    const [job] = demoJobs().map((d) => ({ ...d.job, entries: [], plan: sized(d.job.plan, { cross: [] }) }));
    if (!job) throw new Error("no demo job");
    const file = put("orders.json", writeJobFile(job));
    const { orders, advised } = JSON.parse(run("orders", "--json", file).out);
    // Every pair of schools, and the likeliest of them cut and set once more.
    expect(orders.length).toBe(13);
    expect(orders.filter((o: { order: { cutAndSet?: true } }) => o.order.cutAndSet)).toHaveLength(1);
    const chances = orders.map((o: { chance: number }) => o.chance);
    expect(chances).toEqual([...chances].sort((a, b) => b - a));
    expect(orders.map((o: { order: unknown }) => o.order)).toContainEqual(advised);
    const text = run("orders", file);
    expect(text).toMatchObject({ code: 0, err: "" });
    expect(text.out).toMatch(/Chance that every limit is kept/);
    expect(text.out.split("\n").filter((l) => /turns?, about/.test(l))).toHaveLength(13);
  });
});

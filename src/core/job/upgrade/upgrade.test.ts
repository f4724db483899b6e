import { readdirSync, readFileSync } from "node:fs";
import path from "node:path";
import { describe, expect, it } from "vitest";
import { readJobFile, writeJobFile } from "../../../formats/jobFile";
import { newEntrySchema } from "../entrySchema";
import { evaluate } from "../evaluate";
import { newPlan } from "../plan";
import { planSchema } from "../planSchema";
import { quantityKey } from "../quantityId";
import { tickFromFirst } from "./first";
import { upgradeEntries, upgradePlan } from "./upgrade";

/** Job files as the first format wrote them. */
const FOLDER = path.join(import.meta.dirname, "../../../../tests/fixtures/v1");
const FILES = readdirSync(FOLDER).filter((f) => f.endsWith(".json"));

interface First {
  job: {
    plan: { name: string; free?: { members: { id: string }[] }; frame: { length: { mm: number } } };
    entries: { kind: string; step?: string; what?: string; value?: { mm?: number }; id: string; done?: boolean }[];
  };
}

/** Joints that the first format took for some: a rung that ends on a rail never touched the frame that lies on it. */
const GONE = ["EF/M1", "GH/M1"];

describe("job files of the first format", () => {
  it("are there: rectangles, drawn frames, inch and mm", () => expect(FILES.length).toBeGreaterThanOrEqual(10));
  for (const name of FILES) {
    const text = readFileSync(path.join(FOLDER, name), "utf8");
    const old = JSON.parse(text) as First;
    it(`${name} opens, with every reading, tick and note, and what it was built from`, () => {
      const read = readJobFile(text);
      if (!read.ok) throw new Error(JSON.stringify(read.problems));
      const { job } = read;
      expect(job.plan.name).toBe(old.job.plan.name);
      expect(job.entries.map((e) => e.id)).toEqual(old.job.entries.map((e) => e.id));
      for (const [i, e] of job.entries.entries()) {
        const was = old.job.entries[i];
        expect(e.kind).toBe(was?.kind);
        if (e.kind === "reading" && e.value && "mm" in e.value) expect(e.value.mm).toBe(was?.value?.mm);
        if (e.kind === "tick") expect(e.done).toBe(was?.done);
      }
      if (job.plan.frame.by === "members")
        expect(job.plan.frame.drawn.members.map((m) => m.id)).toEqual(old.job.plan.free?.members.map((m) => m.id));
      else expect(job.plan.frame.sizes.length.mm).toBe(old.job.plan.frame.length.mm);
      // Readings count where they did: none is cast off.
      const e = evaluate(job, null);
      expect(e.problems.filter((p) => p.severity === "error")).toEqual([]);
      for (const r of e.bedRounds) expect(r.orphaned).toEqual([]);
      // Ticks of a tack or a bead stand at a joint and a face that there are. Two that lie along each other had faces across once, and what
      // fits into a corner of others had all its faces on each of them.
      const cornered = new Set(
        e.structure?.members.flatMap(({ id, ends }) =>
          [ends.from, ends.to].some((end) => end.joints.length > 1) ? [id] : [],
        ),
      );
      const faces = new Set(
        e.structure?.joints.flatMap((j) => [
          ...j.faces.map((f) => `${j.id}/${f.line}`),
          ...(j.along || cornered.has(j.b) ? ["plus", "minus", "top", "bottom"].map((line) => `${j.id}/${line}`) : []),
        ]),
      );
      for (const t of job.entries)
        if (t.kind === "tick" && (t.step.do === "tack" || t.step.do === "bead") && !GONE.includes(t.step.joint))
          expect(faces.has(`${t.step.joint}/${t.step.line}`), `${t.step.joint}/${t.step.line}`).toBe(true);
      // Written by today's version it comes back the same.
      expect(readJobFile(writeJobFile(job))).toEqual({ ok: true, job });
    });
  }
  it("keep their ticks in the order of work where they came from a rectangle", () => {
    const read = readJobFile(readFileSync(path.join(FOLDER, "ware-cart-base.json"), "utf8"));
    if (!read.ok) throw new Error("unreadable");
    const { steps, ticked } = evaluate(read.job, null);
    const inOrder = steps.filter((s) => ticked.has(s.key));
    expect(inOrder).toHaveLength(ticked.size);
    // All tacks from the first: nothing between them is open.
    const tacking = steps.filter((s) => s.part === "tack");
    expect(inOrder.slice(0, tacking.length)).toEqual(tacking);
  });
});

describe("words of the first format", () => {
  it("of ticks become what they meant; faces of a cross member by the side that they looked to", () => {
    expect(tickFromFirst("tack/A/inside")).toEqual({ do: "tack", joint: "A", line: "inside" });
    expect(tickFromFirst("bead/M1/AB/far")).toEqual({ do: "bead", joint: "M1/AB", line: "plus" });
    expect(tickFromFirst("bead/M1/CD/far")).toEqual({ do: "bead", joint: "M1/CD", line: "minus" });
    expect(tickFromFirst("measure/dry fit")).toEqual({ do: "measure", gate: "dry fit", nth: 1 });
    expect(tickFromFirst("measure/tacked-2")).toEqual({ do: "measure", gate: "tacked", nth: 2 });
    expect(tickFromFirst("cut/M1")).toEqual({ do: "cut", member: "M1" });
    expect(tickFromFirst("job/closed")).toEqual({ do: "close" });
    expect(tickFromFirst("nonsense")).toBeNull();
  });
  it("of quantities become places by name", () => {
    const round = { kind: "round", id: "r", gate: "dry fit" };
    const what = (word: string, gate = "dry fit") =>
      (
        upgradeEntries([
          { ...round, gate },
          { kind: "reading", roundId: "r", what: word },
        ])[1] as { what: Parameters<typeof quantityKey>[0] }
      ).what;
    for (const word of ["AB", "BD", "A-M1AB", "D^A^B", "M1AB|A-B", "zA", "fM1AB", "gA", "sM1", "eAC", "lAB", "r", "rA"])
      expect(quantityKey(what(word)), word).toBe(word);
    expect(what("AB", "cut")).toEqual({ kind: "piece", member: "AB" });
    expect(what("R12", "bed")).toEqual({ kind: "rest", rest: "R12" });
  });
});

describe("upgrading", () => {
  it("leaves a plan of today as it is", () => {
    const plan = newPlan("x", "mm");
    expect(upgradePlan(plan)).toBe(plan);
  });
  it("hands on what is no plan or no entry, for the schema to refuse", () => {
    for (const nonsense of [null, 7, "x", [], { units: 5 }, { frame: "no" }])
      expect(planSchema.safeParse(upgradePlan(nonsense)).success).toBe(false);
    for (const nonsense of [null, 7, { kind: "tick", step: "nonsense" }, { kind: "reading", what: "???" }])
      expect(newEntrySchema.safeParse(upgradeEntries([nonsense])[0]).success).toBe(false);
  });
});

import { describe, expect, it } from "vitest";
import { resolveFrame } from "../frame";
import { newPlan } from "../job";
import { length } from "../units";
import { orderOfWork } from "./schools";
import type { Step } from "./step";

const frame = resolveFrame({
  ...newPlan("t", "mm").frame,
  cross: [
    { id: "M1", at: length("300") },
    { id: "M2", at: length("700") },
  ],
});
const steps = orderOfWork(frame);
const of = (kind: Step["kind"], part: Step["part"]) => steps.filter((s) => s.kind === kind && s.part === part);

describe("the order of work", () => {
  it("tacks and beads every face of every mitre once, and every face of every tee", () => {
    const faces = (kind: "bead" | "tack") => steps.filter((s) => s.kind === kind).map((s) => `${s.joint}/${s.face}`);
    expect(new Set(faces("bead")).size).toBe(faces("bead").length);
    expect(faces("bead").sort()).toEqual(frame.joints.flatMap((j) => j.faces.map((f) => `${j.name}/${f}`)).sort());
    expect(faces("tack")).toHaveLength(16 + 8);
  });
  it("names every step once, so that ticks stay with it", () => {
    expect(new Set(steps.map((s) => s.key)).size).toBe(steps.length);
    expect(steps.every((s) => s.say.length > 5 && s.why.length > 10)).toBe(true);
  });
  it("goes to the opposite corner each time: hinge tacks first, insides last", () => {
    const tacks = of("tack", "tack");
    expect(tacks.slice(0, 4).map((s) => `${s.joint} ${s.face}`)).toEqual([
      "A inside",
      "C inside",
      "B inside",
      "D inside",
    ]);
    const beads = of("bead", "weld").filter((s) => (s.joint ?? "").length === 1);
    expect(beads.slice(0, 4).map((s) => `${s.joint} ${s.face}`)).toEqual([
      "A outside",
      "C outside",
      "B outside",
      "D outside",
    ]);
    expect(beads.slice(-4).every((s) => s.face === "inside")).toBe(true);
    // Never two corners begun on one face and two on the other: that twists a frame.
    expect(beads.slice(4, 8).every((s) => s.face === beads[4]?.face)).toBe(true);
    expect(beads.slice(8, 12).every((s) => s.face === beads[8]?.face)).toBe(true);
  });
  it("measures dry, tacked and cold, and only welds a top face when it is up", () => {
    expect(steps.filter((s) => s.kind === "measure").map((s) => s.gate)).toEqual([
      "dry fit",
      "tacked",
      "tacked",
      "cold",
    ]);
    for (const s of steps) if (s.face === "top" || s.face === "bottom") expect(s.up, s.key).toBe(s.face);
    let up = "top";
    for (const s of steps) {
      if (s.kind === "flip") up = s.up;
      expect(s.up, s.key).toBe(up);
    }
  });
  it("tacks before it welds and releases only at the end", () => {
    const keys = steps.map((s) => s.key);
    for (const s of of("bead", "weld"))
      expect(
        steps.some((t) => t.kind === "tack" && t.joint === s.joint && keys.indexOf(t.key) < keys.indexOf(s.key)),
      ).toBe(true);
    expect(keys.at(-2)).toBe("release/all");
  });
});

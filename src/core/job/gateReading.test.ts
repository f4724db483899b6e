import { describe, expect, it } from "vitest";
import { base, job, opened, read } from "../../../tests/support/jobs";
import { length } from "../units";
import type { Entry } from "./entrySchema";
import { evaluate } from "./evaluate";
import { gateReading } from "./gateReading";

const SQUARE = { AB: "1000", BC: "600", CD: "1000", DA: "600", AC: "1166.2", BD: "1166.2" };
const taped = (r: Entry & { kind: "round" }, spans: Record<string, string>): Entry[] =>
  Object.entries(spans).map(([w, t]) => read(r.id, w, t));
function at(entries: Entry[], gate: string, nth = 1, change?: Parameters<typeof job>[1]) {
  const e = evaluate(job(entries, change), null);
  const step = e.steps.find((s) => s.id.do === "measure" && s.id.gate === gate && s.id.nth === nth);
  if (!step) throw new Error("no such step");
  return { state: gateReading(step, e)?.state, ticked: e.ticked.has(step.key), e };
}

describe("a step that asks for readings", () => {
  const dry = opened("dry fit");
  it("is open until the shape is known, then done without a tick", () => {
    expect(at([], "dry fit")).toMatchObject({ state: "unread", ticked: false });
    expect(at([dry, ...taped(dry, { AB: "1000", BC: "600" })], "dry fit")).toMatchObject({
      state: "unread",
      ticked: false,
    });
    expect(at([dry, ...taped(dry, SQUARE)], "dry fit")).toMatchObject({ state: "read", ticked: true });
    // The second of a gate waits for its own round.
    expect(at([dry, ...taped(dry, SQUARE)], "tacked", 2)).toMatchObject({ state: "unread", ticked: false });
  });
  it("stays open while what was read fails", () => {
    const racked = { ...SQUARE, AC: "1176", BD: "1156" };
    expect(at([dry, ...taped(dry, racked)], "dry fit")).toMatchObject({ state: "failed", ticked: false });
    const wide = read(dry.id, "gA", "3", {}, "feeler");
    const gap: Parameters<typeof job>[1] = (p) => ({
      ...p,
      limits: { ...p.limits, gap: length("1") } as typeof p.limits,
    });
    expect(at([dry, ...taped(dry, SQUARE), wide], "dry fit", 1, gap)).toMatchObject({ state: "failed", ticked: false });
  });
  it("goes by the newest round of its gate, and leaves a second measuring alone until it is reached", () => {
    const [first, second] = [opened("tacked"), opened("tacked")];
    const racked = { ...SQUARE, AC: "1176", BD: "1156" };
    const entries = [first, ...taped(first, racked), second, ...taped(second, SQUARE)];
    expect(at(entries, "tacked", 1)).toMatchObject({ state: "read", ticked: true });
    expect(at(entries, "tacked", 2)).toMatchObject({ state: "unread", ticked: false });
    const { e } = at([], "tacked", 2);
    const later = e.steps.findIndex((s) => s.id.do === "measure" && s.id.gate === "tacked" && s.id.nth === 2);
    const ticks = e.steps
      .slice(0, later)
      .flatMap((s): Entry[] => (s.joint === null ? [] : [{ kind: "tick", ...base(), step: s.id, done: true }]));
    expect(at([...ticks, ...entries], "tacked", 2)).toMatchObject({ state: "read", ticked: true });
  });
  it("is not done by readings that contradict each other, nor cold while a limit is unread", () => {
    const misread = { ...SQUARE, AC: "1186" };
    expect(at([dry, ...taped(dry, misread)], "dry fit")).toMatchObject({ state: "failed", ticked: false });
    const cold = opened("cold");
    const heights = ["zA", "zB", "zC", "zD"].map((w) => read(cold.id, w, "0", {}, "feeler"));
    expect(at([cold, ...taped(cold, SQUARE)], "cold")).toMatchObject({ state: "unread", ticked: false });
    expect(at([cold, ...taped(cold, SQUARE), ...heights], "cold")).toMatchObject({ state: "read", ticked: true });
  });
  it("asks nothing of a step that is no measuring", () => {
    const { e } = at([], "dry fit");
    const tack = e.steps.find((s) => s.id.do === "tack");
    expect(tack && gateReading(tack, e)).toBeNull();
  });
});

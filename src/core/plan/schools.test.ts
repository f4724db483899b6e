import { describe, expect, it } from "vitest";
import { started } from "../../../tests/support/drawnFrames";
import { resolveStructure, STARTERS } from "../frame";
import { orderOfWork } from "./schools";

describe("the order of any frame", () => {
  it("tacks before it welds, beads every face that gets one just once, and turns back what it turned over", () => {
    for (const s of STARTERS) {
      const { steps } = orderOfWork(resolveStructure(started(s.name)).structure);
      const keys = steps.map((x) => x.key);
      expect(new Set(keys).size, s.name).toBe(keys.length);
      const beads = steps.filter((x) => x.id.do === "bead");
      for (const b of beads)
        expect(
          steps.findIndex((x) => x.id.do === "tack" && x.joint === b.joint),
          `${s.name} ${b.key}`,
        ).toBeLessThan(steps.indexOf(b));
      expect(beads).toHaveLength(4 * new Set(beads.map((b) => b.joint)).size);
      let up = "top";
      for (const x of steps) {
        if (x.id.do === "flip") up = x.up;
        expect(x.up, `${s.name} ${x.key}`).toBe(up);
      }
      expect(keys.indexOf("release")).toBeGreaterThan(keys.lastIndexOf(beads.at(-1)?.key ?? ""));
    }
  });
  it("turns the frame no more often than its faces need: once for tacks below, once between the beads of either face", () => {
    for (const s of STARTERS) {
      const { steps } = orderOfWork(resolveStructure(started(s.name)).structure);
      const welded = steps.filter((x) => x.id.do === "tack" || x.id.do === "bead");
      const lines = (part: string): Set<string> => new Set(welded.filter((x) => x.part === part).map((x) => x.up));
      const needed = [...lines("tack")].length - 1 + (lines("weld").has("top") && lines("weld").has("bottom") ? 1 : 0);
      expect(steps.filter((x) => x.id.do === "flip").length, s.name).toBeLessThanOrEqual(needed);
    }
  });
  it("leaves out the faces that stay clear", () => {
    const free = started("ladder", { rungs: 1 });
    const clear = {
      ...free,
      joints: [
        {
          between: ["AB", "M1"] as [string, string],
          kind: null,
          through: null,
          faces: [{ line: "top" as const, bead: false, leg: null, care: "keep clear" as const }],
        },
      ],
    };
    const keys = (f: typeof free) => orderOfWork(resolveStructure(f).structure).steps.map((x) => x.key);
    expect(keys(free)).toContain("bead/M1/AB/top");
    expect(keys(clear)).not.toContain("bead/M1/AB/top");
  });
});

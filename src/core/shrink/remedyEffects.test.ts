import { describe, expect, it } from "vitest";
import { started } from "../../../tests/support/drawnFrames";
import { drawnPlan, sizesPlan } from "../../../tests/support/plans";
import type { FaceLine, Structure } from "../frame";
import { builtOf, factorsOf } from "../job";
import { fromStructure } from "../mechanics";
import { drain } from "../numeric";
import { length } from "../units";
import { KINK_RAD, remedyEffects, type UnitDeed } from "./remedyEffects";

const plan = sizesPlan({ length: length("1000"), width: length("600"), cross: [] });
const structure = builtOf(plan).structure as Structure;
const effects = (deeds: readonly UnitDeed[], open: Parameters<typeof remedyEffects>[4] = [], of = structure) =>
  drain(remedyEffects(of, fromStructure(of), factorsOf(plan), deeds, open));
const bead = (joint: string, line: FaceLine, share = 1): UnitDeed => ({
  id: `${joint} ${line}${share === 1 ? "" : ` ${share}`}`,
  do: "bead",
  joint,
  line,
  share,
  heatJPerMm: 345,
});
const kink = (member: string, alongMm: number): UnitDeed => ({
  id: `${member} ${alongMm}`,
  do: "kink",
  member,
  alongMm,
  way: "bow",
});

describe("what is done to a finished frame", () => {
  it("is mirrored where it is done at a mirrored corner: insides of A and C lengthen AC, of B and D shorten it", () => {
    const e = effects(["A", "B", "C", "D"].map((j) => bead(j, "inside")));
    const square = (j: string): number => e.get(`${j} inside`)?.square ?? Number.NaN;
    expect(square("A")).toBeGreaterThan(0);
    expect(square("C")).toBeCloseTo(square("A"), 6);
    expect(square("B")).toBeCloseTo(-square("A"), 6);
    expect(square("D")).toBeCloseTo(-square("A"), 6);
    // A bead in the frame's middle plane lifts nothing.
    expect(Math.abs(e.get("A inside")?.twist ?? 1)).toBeLessThan(1e-9);
  });
  it("is done by a bead along some of its line in proportion", () => {
    const gate = builtOf(drawnPlan(started("gate leaf"))).structure as Structure;
    const e = effects([bead("X1/AB", "top"), bead("X1/AB", "top", 0.25)], [], gate);
    const [whole, quarter] = [e.get("X1/AB top") ?? {}, e.get("X1/AB top 0.25") ?? {}];
    const moved = Object.entries(whole).filter(([, mm]) => Math.abs(mm) > 1e-3);
    expect(moved.length).toBeGreaterThan(5);
    for (const [id, mm] of moved) expect((quarter[id] ?? 0) / mm, id).toBeCloseTo(0.25, 9);
  });
  it("neither squares nor twists by a kink in the middle of a member, and bows less than a free one", () => {
    const e = effects([kink("AB", 500), kink("AB", 60)]);
    const middle = e.get("AB 500");
    const near = e.get("AB 60");
    const free = (KINK_RAD * 1000) / 4;
    expect(Math.abs(middle?.["bow AB"] ?? 0)).toBeLessThan(free);
    expect(Math.abs(middle?.["bow AB"] ?? 0)).toBeGreaterThan(0.4 * free);
    // Joints are not where outside corners are, and no two of them are quite alike: a hair is left.
    expect(Math.abs(middle?.square ?? 1)).toBeLessThan(0.1 * Math.abs(near?.square ?? 0));
    expect(Math.abs(middle?.twist ?? 1)).toBeLessThan(1e-9);
  });
  it("pulls a diagonal in as far as a sway frame gives (slope deflection), corners a little softer than stiff", () => {
    const e = effects([{ id: "pull", do: "pull", from: { joint: "A" }, to: { joint: "C" } }]);
    const own = structure.members[0];
    if (!own) throw new Error("no member");
    const [l, h] = [960, 560];
    const d = Math.hypot(1000, 600);
    // M = P L H / (4 D), shear angle M/6 (L/EI + H/EI), change of AC = L H angle / D.
    const perN = (((((l * h) / (4 * d)) * (l + h)) / (6 * 210_000 * own.properties.izMm4)) * l * h) / d;
    const found = -(e.get("pull")?.AC ?? 0);
    expect(found / perN).toBeGreaterThan(0.9);
    expect(found / perN).toBeLessThan(1.4);
    const opened = effects(
      [{ id: "pull", do: "pull", from: { joint: "A" }, to: { joint: "C" } }],
      (["outside", "top", "bottom"] as const).map((line) => ({ joint: "A", line })),
    );
    expect(-(opened.get("pull")?.AC ?? 0)).toBeGreaterThan(found);
  });
});

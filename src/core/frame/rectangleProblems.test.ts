import { describe, expect, it } from "vitest";
import { rectangle } from "../../../tests/support/plans";
import { length } from "../units";
import { rectangleProblems } from "./rectangleProblems";
import type { Rectangle } from "./rectangleSchema";

import { PROFILES } from "./sections";

const base = rectangle();
const frame = (change: Partial<Rectangle> = {}): Rectangle => ({ ...base, ...change });
const cross = (...at: string[]) => at.map((a, i) => ({ id: `M${i + 1}`, at: length(a) }));

describe("what cannot be built", () => {
  it.each([
    [{ length: length("0") }, "frame.sizes.length", /more than zero/],
    [{ length: length("-5") }, "frame.sizes.length", /more than zero/],
    [{ length: length("40 m") }, "frame.sizes.length", /over 20 m/],
    [{ width: length("5 mm") }, "frame.sizes.width", /under 60 mm/],
    [{ section: { ...base.section, wall: length("21") } }, "frame.sizes.section.wall", /fills the tube/],
    [{ section: { ...base.section, wall: length("0") } }, "frame.sizes.section.wall", /more than zero/],
    [{ section: { ...base.section, face: length("2 m") } }, "frame.sizes.section.face", /outside 8 to 400/],
    [{ width: length("75") }, "frame.sizes.width", /no opening/],
    [{ cross: cross("10") }, "frame.sizes.cross.0.at", /run into a side/],
    [{ cross: cross("300", "320") }, "frame.sizes.cross.1.at", /overlaps M1/],
    [{ cross: [...cross("300"), { id: "M1", at: length("500") }] }, "frame.sizes.cross.1.id", /there twice/],
  ] as [Partial<Rectangle>, string, RegExp][])("%j", (change, path, why) => {
    expect(rectangleProblems(frame(change))).toContainEqual({
      path,
      message: expect.stringMatching(why),
      severity: "error",
    });
  });
  it("is nothing in any profile of the table", () => {
    for (const p of PROFILES) {
      const section = {
        profile: p.name,
        face: length(String(p.smallMm)),
        depth: length(String(p.largeMm)),
        wall: length(String(p.wallMm)),
      };
      expect(rectangleProblems(frame({ section })), p.name).toEqual([]);
    }
  });
});

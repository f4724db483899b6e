import { describe, expect, it } from "vitest";
import { FREE_FRAMES, inchTube, squareTube, started } from "../../../tests/support/drawnFrames";
import { length } from "../units";
import { flatParts } from "./flatParts";
import { resolveStructure } from "./resolveStructure";
import { takenOut } from "./takenOut";
import { laidFlat, TURNS, turnFrame } from "./turning";

const of = (frame: Parameters<typeof resolveStructure>[0]) => resolveStructure(frame).structure;

describe("the flat frames that a frame which stands is built from", () => {
  it("hold every leg once, lie flat when laid down, and leave what joins them", () => {
    for (const section of [squareTube(), inchTube, { ...squareTube(), width: length("60"), height: length("30") }])
      for (const [name, change] of [
        ["table base", { way: "on its feet" }],
        ["table base", { stretchers: "all round" }],
        ["stand", { shelves: 1 }],
        ["stand", { shelves: 3, length: 700, width: 1100 }],
      ] as const) {
        const frame = started(name, change, section);
        const parts = flatParts(of(frame));
        expect(parts.length, name).toBe(2);
        const all = parts.flatMap((p) => p.members);
        expect(new Set(all).size).toBe(all.length);
        const legs = frame.members.filter((m) => m.id.startsWith("L")).map((m) => m.id);
        expect(all).toEqual(expect.arrayContaining(legs));
        expect(all.length).toBeLessThan(frame.members.length);
        for (const { members } of parts) {
          const flat = of(laidFlat(takenOut(frame, members, "mm"), "mm"));
          expect(flat.high[2] - flat.low[2], `${name} ${members}`).toBeLessThan(62);
        }
      }
  });
  it("are the same the way it is drawn, upside down or not, and are named as one stands before it", () => {
    const stand = started("stand", { length: 700, width: 1100 });
    expect(flatParts(of(stand)).map((p) => p.name)).toEqual(["left side", "right side"]);
    const over = turnFrame(stand, TURNS["upside down"], "mm").frame;
    const sets = (parts: ReturnType<typeof flatParts>) => parts.map((p) => p.members.toSorted().join()).toSorted();
    expect(sets(flatParts(of(over)))).toEqual(sets(flatParts(of(stand))));
    expect(flatParts(of(started("stand", { length: 1100, width: 700 }))).map((p) => p.name)).toEqual(["front", "back"]);
  });
  it("are none of what lies flat, or of a single leg", () => {
    for (const frame of [started("ladder"), started("gate leaf"), FREE_FRAMES.foot, FREE_FRAMES.drawbar])
      expect(flatParts(of(frame))).toEqual([]);
    const stand = started("stand");
    const [leg] = stand.members.filter((m) => m.id.startsWith("L"));
    expect(flatParts(of(takenOut(stand, [leg?.id ?? ""], "mm")))).toEqual([]);
  });
});

import { describe, expect, it } from "vitest";
import { drawn, squareTube, started } from "../../../tests/support/drawnFrames";
import { built } from "../../../tests/support/ladder";
import { rectangle } from "../../../tests/support/plans";
import { type DrawnFrame, resolveStructure } from "../frame";
import { length } from "../units";
import { footprint } from "./footprint";
import { GRAVITY_N_PER_KG, sagOnRests } from "./sagOnRests";
import { sagOnTwoRests } from "./support";

const of = (frame: DrawnFrame) => resolveStructure(frame).structure;
const sag = (structure: ReturnType<typeof of>, rests: readonly [number, number][]) => {
  const over = footprint(structure);
  return (
    over &&
    sagOnRests(
      structure,
      rests.map(([x, y]) => ({ x, y })),
      over.origin,
    )
  );
};
const flat = built(rectangle({ length: length("2000"), width: length("800") }));
const weightN = (s: ReturnType<typeof of>) => s.massKg * GRAVITY_N_PER_KG;
/** Four places in a rectangle, set in from the ends of a 2000 x 800 frame. */
const fourAt = (inset: number): [number, number][] =>
  [inset, 2000 - inset].flatMap((x) => [20, 780].map((y): [number, number] => [x, y]));

describe("sag of a frame on its rests", () => {
  it("is the closed form of a beam on two rests, where the members across weigh nearly nothing", () => {
    // Two rails of 40x40x3, joined at their ends by wire: 8x8x1 is 600 times softer, and 20 times lighter.
    const wire = squareTube(8, 1, "S2");
    const rails = of(
      drawn(
        {
          P: [
            [0, 20, 20],
            [2000, 20, 20],
          ],
          Q: [
            [0, 780, 20],
            [2000, 780, 20],
          ],
          V: [[4, 40, 20], [4, 760, 20], "S2"],
          W: [[1996, 40, 20], [1996, 760, 20], "S2"],
        },
        [squareTube(40, 3), wire],
      ),
    );
    const p = rails.members.find((m) => m.id === "P");
    if (!p) throw new Error("no rail");
    const w = (p.massKg * GRAVITY_N_PER_KG) / 2000;
    const want = sagOnTwoRests(w, 2000, 210_000, p.properties.iyMm4, 0);
    expect(-(sag(rails, fourAt(0))?.lowMm ?? 0) / want.centreMm).toBeCloseTo(1, 1);
  });
  it("carries its whole weight, and no rest pulls", () => {
    for (const rests of [
      fourAt(0),
      [
        [0, 0],
        [0, 800],
        [2000, 400],
      ],
      [
        [400, 0],
        [400, 800],
        [800, 0],
        [1600, 800],
        [1600, 0],
      ],
    ] as [number, number][][]) {
      const found = sag(flat, rests);
      expect(found?.loadsN.reduce((s, v) => s + v, 0)).toBeCloseTo(weightN(flat), 3);
      expect(Math.min(...(found?.loadsN ?? [-1]))).toBeGreaterThanOrEqual(0);
    }
  });
  it("sags more beyond a single rest in the middle of an end, which carries half", () => {
    const three = sag(flat, [
      [20, 20],
      [20, 780],
      [1980, 400],
    ]);
    expect(three?.lowMm).toBeLessThan(sag(flat, fourAt(20))?.lowMm ?? 0);
    expect(three?.loadsN[2]).toBeCloseTo(weightN(flat) / 2, 1);
  });
  it("falls when its weight lies beyond the rests", () => {
    expect(
      sag(flat, [
        [0, 0],
        [200, 0],
        [0, 800],
      ]),
    ).toBeNull();
  });
  it("goes with density over stiffness, not with the wall: the same sizes in aluminium sag about alike, at a third of the load", () => {
    const metal = built(rectangle({ length: length("2000"), width: length("800"), material: "aluminium 6061" }));
    const [steel, light] = [sag(flat, fourAt(20)), sag(metal, fourAt(20))];
    // 2700/69 against 7850/210: 1.05 (closed form w/EI).
    expect((light?.lowMm ?? 0) / (steel?.lowMm ?? 1)).toBeCloseTo(1.05, 1);
    expect((light?.loadsN[0] ?? 0) / (steel?.loadsN[0] ?? 1)).toBeCloseTo(2700 / 7850, 2);
  });
  it("of a table counts legs and stretchers: its rests carry all of it", () => {
    const table = of(started("table base"));
    const over = footprint(table);
    if (!over) throw new Error("no footprint");
    const { lengthMm, widthMm } = over;
    const found = sag(table, [
      [20, 20],
      [lengthMm - 20, 20],
      [20, widthMm - 20],
      [lengthMm - 20, widthMm - 20],
    ]);
    expect(found?.loadsN.reduce((s, v) => s + v, 0)).toBeCloseTo(weightN(table), 2);
  });
  it("of members with sections of their own is that of the heavier where it is heavier", () => {
    const sized = (mm: number) =>
      of(
        drawn(
          {
            AB: [
              [20, 20, 20],
              [1980, 20, 20],
            ],
            BC: [
              [1980, 20, 20],
              [1980, 780, 20],
            ],
            CD: [
              [1980, 780, 20],
              [20, 780, 20],
            ],
            DA: [
              [20, 780, 20],
              [20, 20, 20],
            ],
            M1: [[1000, 40, 20], [1000, 760, 20], "S2"],
          },
          [squareTube(40, 3), squareTube(mm, 5, "S2")],
        ),
      );
    const [light, heavy] = [sized(30), sized(40)];
    expect(sag(heavy, fourAt(20))?.lowMm).toBeLessThan(sag(light, fourAt(20))?.lowMm ?? 0);
    expect(sag(heavy, fourAt(20))?.loadsN.reduce((s, v) => s + v, 0)).toBeCloseTo(weightN(heavy), 3);
  });
});

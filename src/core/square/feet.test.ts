import fc from "fast-check";
import { describe, expect, it } from "vitest";
import {
  comb,
  deckWithPole,
  drawn,
  drawnAnyhow,
  FREE_FRAMES,
  squareTube,
  tableWith,
} from "../../../tests/support/drawnFrames";
import { type DrawnFrame, resolveStructure } from "../frame";
import { type Feet, footWayMm } from "./feet";
import { placesOf } from "./places";

const feetIn = (frame: DrawnFrame): Feet => placesOf(resolveStructure(frame).structure).feet;
const waysOf = (feet: Feet): number[] =>
  feet.pairs.map(([p, q]) => footWayMm(feet, p, q) ?? Number.NaN).sort((a, b) => a - b);

/** Spokes from one middle, each on a leg. */
const star = (legs: number): DrawnFrame =>
  drawn(
    Object.fromEntries(
      Array.from({ length: legs }, (_, i) => {
        const by = (2 * Math.PI * i) / legs;
        const [x, y] = [400 * Math.cos(by), 400 * Math.sin(by)];
        return [
          [
            `R${i + 1}`,
            [
              [0, 0, 500],
              [x, y, 500],
            ],
          ],
          [
            `G${i + 1}`,
            [
              [x, y, 480],
              [x, y, 0],
            ],
          ],
        ] as const;
      }).flat(),
    ) as Parameters<typeof drawn>[0],
    [squareTube(40, 3)],
  );

describe("feet of what stands", () => {
  it("are the legs' free ends, of a table upside down or not, straight or splayed: round about and across", () => {
    const cases = fc.record({
      leg: fc.integer({ min: 400, max: 1000 }),
      out: fc.integer({ min: 0, max: 200 }),
      up: fc.boolean(),
      long: fc.integer({ min: 600, max: 2400 }),
      wide: fc.integer({ min: 400, max: 1200 }),
      seed: fc.integer({ min: 1, max: 1e6 }),
    });
    fc.assert(
      fc.property(cases, ({ leg, out, up, long, wide, seed }) => {
        let s = seed;
        const random = (): number => {
          s = (s * 48271) % 2147483647;
          return s / 2147483647;
        };
        const frame = tableWith(up ? leg : -leg, out, [long, wide]);
        const feet = feetIn(frame);
        const [l, w] = [long + 2 * out, wide + 2 * out];
        const wanted = [l, l, w, w, Math.hypot(l, w), Math.hypot(l, w)].sort((a, b) => a - b);
        const got = waysOf(feet);
        expect(got).toHaveLength(6);
        // A leg ends square across its own line, so that a splayed foot's middle lies where it was drawn.
        for (const [i, mm] of got.entries()) expect(Math.abs(mm - (wanted[i] ?? 0))).toBeLessThan(1);
        // Drawn in another order, or from its other end, the same ways are asked for.
        const again = waysOf(feetIn(drawnAnyhow(frame, random)));
        for (const [i, mm] of again.entries()) expect(mm).toBeCloseTo(got[i] ?? 0, 6);
      }),
      { numRuns: 25 },
    );
  });
  it("are asked for of three legs and of six, and of a trestle whose top is one tube", () => {
    expect(feetIn(star(3)).pairs).toHaveLength(3);
    expect(feetIn(star(6)).pairs).toHaveLength(9);
    const trestle = drawn({
      TOP: [
        [0, 0, 800],
        [1000, 0, 800],
      ],
      L1: [
        [100, 0, 800],
        [0, -300, 0],
      ],
      L2: [
        [100, 0, 800],
        [0, 300, 0],
      ],
      L3: [
        [900, 0, 800],
        [1000, -300, 0],
      ],
      L4: [
        [900, 0, 800],
        [1000, 300, 0],
      ],
    });
    expect(Object.keys(feetIn(trestle).at).sort()).toEqual(["L1E", "L2E", "L3E", "L4E"]);
  });
  it("share no name with a joint that is called so", () => {
    // The joint of leg G1 on a spoke that is called E goes by G1E, as its foot would.
    const frame = star(3);
    const renamed = { ...frame, members: frame.members.map((m) => ({ ...m, id: m.id === "R1" ? "E" : m.id })) };
    const { nodes, freeEnds, feet } = placesOf(resolveStructure(renamed).structure);
    expect(nodes.G1E).toBeDefined();
    expect(freeEnds.G1E).toBeUndefined();
    expect(Object.keys(feet.at).sort()).toEqual(["G1EX", "G2E", "G3E"]);
  });
  it("are none of what lies, of uprights in a row, or of fewer than three", () => {
    for (const frame of [
      deckWithPole(800),
      comb(5, 200, 300),
      FREE_FRAMES.rack,
      FREE_FRAMES.foot,
      FREE_FRAMES["six sides"],
    ])
      expect(feetIn(frame).pairs).toEqual([]);
  });
});

import fc from "fast-check";
import { describe, expect, it } from "vitest";
import {
  drawn,
  drawnAnyhow,
  FLUSH,
  flatTube,
  onPosts,
  squareTube,
  started,
  twoTubes,
  without,
} from "../../../tests/support/drawnFrames";
import { built } from "../../../tests/support/ladder";
import { rectangle } from "../../../tests/support/plans";
import { CORNERS, ends, SIDES } from "../geometry";
import { distance, type Vec3 } from "../numeric";
import { length } from "../units";
import type { DrawnFrame } from "./drawnSchema";
import { renameMember, setJoint } from "./editing";
import { resolveStructure } from "./resolveStructure";

const of = (frame: DrawnFrame) => resolveStructure(frame).structure;
const cross = (...at: string[]) => at.map((a, i) => ({ id: `M${i + 1}`, at: length(a) }));

describe("the quadrilateral of a frame", () => {
  it("of a rectangle by its sizes has them: corners, sides, joints, weight", () => {
    const s = built(rectangle({ cross: cross("300", "700") }));
    expect(s.quad).toMatchObject({ lengthMm: 1000, widthMm: 600, squareDifferenceMm2: 0 });
    expect(s.quad?.corners.C).toEqual({ x: 1000, y: 600 });
    expect(s.quad?.sides).toEqual({ AB: "AB", BC: "BC", CD: "CD", DA: "DA" });
    expect(s.members.map((m) => m.id)).toEqual(["AB", "BC", "CD", "DA", "M1", "M2"]);
    expect(s.members[4]?.longMm).toBeCloseTo(520, 9);
    expect(s.joints.map((j) => j.id).sort()).toEqual(["A", "B", "C", "D", "M1/AB", "M1/CD", "M2/AB", "M2/CD"]);
    expect(s.centreOfMass[0]).toBeCloseTo(500, 9);
    // 2 (960 + 560) + 2 x 520 mm of 40x40x3 at 3.30 kg/m
    expect(s.massKg).toBeCloseTo(((2 * 960 + 2 * 560 + 2 * 520) / 1000) * 3.3, 1);
  });
  it("lets cross members run the other way; the weight follows them", () => {
    const along = built(rectangle({ crossRuns: "along", cross: cross("300") }));
    expect(along.members[4]?.longMm).toBeCloseTo(920, 9);
    expect(along.joints.map((j) => j.id)).toContain("M1/DA");
    expect(built(rectangle({ cross: cross("200") })).centreOfMass[0]).toBeLessThan(500);
  });
  it("is found in a table and in stacked frames, and not where there is none", () => {
    expect(of(started("table base")).quad).not.toBeNull();
    expect(of(started("two frames stacked")).quad).not.toBeNull();
    expect(of(started("A-shaped drawbar")).quad).toBeNull();
    const askew = started("rectangle");
    const moved = {
      ...askew,
      members: askew.members.map((m) => (m.id === "CD" ? { ...m, from: { ...m.from, z: length("60") } } : m)),
    };
    expect(of(moved).quad).toBeNull();
  });
  it("has posts at its corners where its sides land on those, whoever draws it: their outsides, the ring nearest to their ends", () => {
    const size = fc.integer({ min: 20, max: 80 });
    const extent = fc.integer({ min: 300, max: 1800 });
    fc.assert(
      fc.property(
        size,
        size,
        extent,
        extent,
        fc.boolean(),
        fc.infiniteStream(fc.double({ min: 0, max: 0.999 })),
        (one, other, long, wide, onFeet, stream) => {
          // Rails wider than their posts are mitred over those.
          const [post, rail] = [Math.max(one, other), Math.min(one, other)];
          const random = (): number => stream.next().value;
          const levelsMm = onFeet ? [rail / 2, 500] : [250, 800 - rail / 2];
          const frame = onPosts(long, wide, levelsMm, [squareTube(post), squareTube(rail, 3, "S2")]);
          const quad = of(drawnAnyhow(frame, random)).quad;
          const [z, first] = onFeet ? [rail / 2, 1] : [800 - rail / 2, 5];
          expect(quad?.posts).toEqual({ A: "P1", B: "P2", C: "P3", D: "P4" });
          expect(SIDES.map((side) => quad?.sides[side])).toEqual([0, 1, 2, 3].map((k) => `R${first + k}`));
          // Each corner by the joint of the side that begins there.
          CORNERS.forEach((c, k) => {
            expect(quad?.joints[c].split("/").sort()).toEqual([`P${k + 1}`, `R${first + k}`]);
            expect(quad?.at[c][2]).toBeCloseTo(z, 6);
          });
          expect(quad?.lengthMm).toBeCloseTo(long + post, 6);
          expect(quad?.widthMm).toBeCloseTo(wide + post, 6);
          // Open on one side it has none.
          const open = [first - 1, first + 3].map((k) => `R${(k % 8) + 1}`).reduce(without, frame);
          expect(of(open).quad).toBeNull();
        },
      ),
      { numRuns: 40 },
    );
  });
  it("is no bay of a frame, nor half of one: what is taken for the frame takes up most of it", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 300, max: 900 }),
        fc.integer({ min: 300, max: 900 }),
        fc.integer({ min: 300, max: 900 }),
        fc.integer({ min: 0, max: 360 }),
        (first, second, wide, turnDeg) => {
          const [c, s] = [Math.cos((turnDeg * Math.PI) / 180), Math.sin((turnDeg * Math.PI) / 180)];
          const at = (x: number, y: number): [number, number, number] => [x * c - y * s, x * s + y * c, 20];
          // Rails that are broken where the middle member stands.
          const bays = drawn({
            P1: [at(0, 0), at(first, 0)],
            P2: [at(first, 0), at(first + second, 0)],
            Q1: [at(0, wide), at(first, wide)],
            Q2: [at(first, wide), at(first + second, wide)],
            E1: [at(0, 0), at(0, wide)],
            E2: [at(first + second, 0), at(first + second, wide)],
            M: [at(first, 0), at(first, wide)],
          });
          const share = Math.max(first, second) / (first + second);
          fc.pre(Math.abs(share - 0.55) > 0.02);
          expect(of(bays).quad !== null).toBe(share > 0.55);
          // Six sides of one length with a bar across.
          const six = (k: number): [number, number, number] =>
            at(wide * Math.cos(k * (Math.PI / 3)), wide * Math.sin(k * (Math.PI / 3)));
          const hexagon = drawn({
            ...Object.fromEntries(Array.from({ length: 6 }, (_, k) => [`H${k}`, [six(k), six(k + 1)]])),
            BAR: [six(0), six(3)],
          });
          expect(of(hexagon).quad).toBeNull();
        },
      ),
      { numRuns: 60 },
    );
    // A drawbar half as long again as a square deck, and a pole however long, leave the deck what it is.
    const deck = started("rectangle", { length: 1000, width: 1000 });
    const unnamed = { ...deck, members: deck.members.map((m) => ({ ...m, id: `S${m.id}` })) };
    const arm = (y: number): [Vec3, Vec3] => [
      [1000, y, 20],
      [2500, 500, 20],
    ];
    const pole = drawn({
      POLE: [
        [1000, 500, 20],
        [5000, 500, 20],
      ],
      ARM1: arm(40),
      ARM2: arm(960),
    });
    expect(of({ ...unnamed, members: [...unnamed.members, ...pole.members] }).quad).not.toBeNull();
  });
  it("is found of tubes of unlike height, flush below or above or neither, as of tubes that lie in one plane", () => {
    const size = fc.constantFrom(20, 30, 40, 50, 60, 80, 100);
    fc.assert(
      fc.property(size, size, size, size, (w1, h1, w2, h2) => {
        fc.pre(Math.max(w1, h1, w2, h2) <= 4 * Math.min(w1, h1, w2, h2));
        const quads = FLUSH.map((flush) => of(twoTubes(flatTube(w1, h1), flatTube(w2, h2), flush)).quad);
        for (const quad of quads) {
          expect(quad?.lengthMm).toBeCloseTo(1600, 6);
          expect(quad?.widthMm).toBeCloseTo(900 + w1, 6);
          expect(quad?.corners).toEqual(quads[0]?.corners);
          expect(quad?.joints).toEqual(quads[0]?.joints);
        }
      }),
    );
    // On each other they lie in two planes.
    const stacked = twoTubes(flatTube(40, 40), flatTube(40, 40), "below");
    const [e1, e2] = ["E1", "E2"].map((id) => stacked.members.find((m) => m.id === id));
    const up = (m: typeof e1) => m && { ...m, from: { ...m.from, z: length("60") }, to: { ...m.to, z: length("60") } };
    const members = stacked.members.map((m) => (m.id === "E1" ? up(e1) : m.id === "E2" ? up(e2) : m) ?? m);
    expect(of({ ...stacked, members }).quad).toBeNull();
  });
  it("keeps its corners whichever of its sides are called otherwise, and those that keep their names stay those", () => {
    const rings = ["rectangle", "ladder", "gate leaf", "table base", "two frames stacked"].map((name) => started(name));
    fc.assert(
      fc.property(fc.constantFrom(...rings), fc.subarray([...SIDES], { minLength: 1 }), (frame, others) => {
        const before = of(frame).quad;
        const renamed = others.reduce((f, side) => {
          const done = renameMember(f, side, `Z${side}`);
          return done.ok ? done.value : f;
        }, frame);
        const after = of(renamed).quad;
        if (others.length < SIDES.length)
          for (const side of SIDES) expect(after?.sides[side]).toBe(others.includes(side) ? `Z${side}` : side);
        // Of more than one ring without any name the largest that lies is taken: one of as much, wherever its letters begin.
        expect(after?.lengthMm).toBeGreaterThan(0);
        expect([after?.lengthMm, after?.widthMm].sort()).toEqual([before?.lengthMm, before?.widthMm].sort());
      }),
    );
    // A side's name on what is none of its sides is nobody's corner.
    const wrong = renameMember(started("ladder"), "AB", "SILL");
    const cross = wrong.ok ? renameMember(wrong.value, "M1", "AB") : wrong;
    expect(cross.ok && of(cross.value).quad).toBeNull();
  });
  it("has outside corners where the outsides of its sides meet, whatever its angles and however it is joined", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 400, max: 2400 }),
        fc.integer({ min: 300, max: 1500 }),
        fc.integer({ min: -150, max: 150 }),
        fc.constantFrom("mitre", "butt" as const),
        (l, w, lean, kind) => {
          const [a, b, c, d] = [
            [20, 20, 20],
            [20 + l, 20, 20],
            [20 + l + lean, 20 + w, 20],
            [20 + lean, 20 + w, 20],
          ] as [[number, number, number], [number, number, number], [number, number, number], [number, number, number]];
          let frame = drawn({ AB: [a, b], BC: [b, c], CD: [c, d], DA: [d, a] });
          if (kind === "butt")
            for (const [p, q] of [
              ["AB", "BC"],
              ["BC", "CD"],
              ["CD", "DA"],
              ["DA", "AB"],
            ] as const)
              frame = setJoint(frame, p, q, { kind: "butt", through: p });
          const { quad, members } = of(frame);
          expect(quad).not.toBeNull();
          if (!quad) return;
          // A leaning pair of sides, 40 wide, is wider along the others by the same share as its slope is longer.
          expect(quad.lengthMm).toBeCloseTo(l + (40 * Math.hypot(w, lean)) / w, 6);
          for (const side of SIDES) {
            const [p, q] = ends(side).map((x) => quad.corners[x]) as [
              { x: number; y: number },
              { x: number; y: number },
            ];
            const member = members.find((m) => m.id === quad.sides[side]);
            // Mitred, a side is as long as between its corners; butted, it may be cut back by its neighbour.
            if (kind === "mitre") expect(distance(p, q)).toBeCloseTo(member?.longMm ?? 0, 6);
          }
          const { A, B, C, D } = quad.corners;
          expect(quad.squareDifferenceMm2).toBeCloseTo(distance(A, C) ** 2 - distance(B, D) ** 2, 3);
          expect(new Set(CORNERS.map((x) => quad.joints[x])).size).toBe(4);
        },
      ),
      { numRuns: 60 },
    );
  });
});

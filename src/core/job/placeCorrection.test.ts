import fc from "fast-check";
import { describe, expect, it } from "vitest";
import {
  deckWith,
  deckWithPole,
  drawn,
  FRAMES_THAT_REACH_BEYOND,
  FREE_FRAMES,
  squareTube,
} from "../../../tests/support/drawnFrames";
import { job as jobOf } from "../../../tests/support/jobs";
import { coldAt, placesMoved } from "../../../tests/support/placesRead";
import { drawnPlan } from "../../../tests/support/plans";
import { type DrawnFrame, MATERIALS, resolveStructure } from "../frame";
import { add, dot, drain, norm, scale, sub, type Vec2 } from "../numeric";
import { outcomeKey } from "../shrink";
import { type Places, placesOf } from "../square";
import type { UnitPreference } from "../units";
import { type Correction, type CorrectionWay, correcting, firstGo } from "./correction";
import { standingOf } from "./correctionStand";
import { besidesWords, correctionAdvice, correctionWayWords, goWords, leavesNow } from "./correctionWords";
import { evaluate } from "./evaluate";

const placesIn = (frame: DrawnFrame): Places => placesOf(resolveStructure(frame).structure);
const jobAt = (frame: DrawnFrame, nodes: Record<string, Vec2>, units: UnitPreference = "mm") =>
  jobOf(coldAt(placesIn(frame), nodes), () => drawnPlan(frame, units));

/** What to do about a frame of which one place stands elsewhere. */
function correctionOf(frame: DrawnFrame, place: string, by: Vec2, units: UnitPreference = "mm"): Correction {
  const found = drain(correcting(jobAt(frame, placesMoved(placesIn(frame), { [place]: by }), units)));
  if (!found) throw new Error("nothing to judge");
  return found;
}

/** A place's words, and what it is off by them. */
const keysOf = (place: string): string[] =>
  (["right", "up"] as const).map((way) => outcomeKey({ kind: "place", place, way }));
const offOf = (of: Readonly<Record<string, { value: number }>>, place: string): Vec2 => {
  const [x, y] = keysOf(place).map((k) => of[k]?.value ?? Number.NaN) as [number, number];
  return { x, y };
};
const remedyOf = (c: Correction, key: string) => c.remedies.find((r) => r.option.id === key);
const doesOf = (c: Correction, way: CorrectionWay): string[] =>
  way.steps.map((s) => remedyOf(c, s.remedy)?.id.do ?? "");

/** Two tubes joined at their ends. */
const angled = drawn(
  {
    P: [
      [0, 0, 0],
      [900, 0, 0],
    ],
    Q: [
      [0, 0, 0],
      [0, 700, 0],
    ],
  },
  [squareTube(40, 3)],
);

describe("what to do about a place that is off", () => {
  it("counts it inside either way when it is within its limit, and only then", () => {
    const frame = deckWithPole(800);
    const places = placesIn(frame);
    fc.assert(
      fc.property(fc.double({ min: -3, max: 3, noNaN: true }), fc.double({ min: -3, max: 3, noNaN: true }), (x, y) => {
        const round = evaluate(jobAt(frame, placesMoved(places, { PE: { x, y } })), null).cold;
        const verdict = round?.verdicts.find((v) => v.limit.kind === "place");
        if (!round || !verdict?.measured || verdict.limit.upper === null) throw new Error("not judged");
        const { quantities } = standingOf(round, places);
        const isInside = keysOf("PE").every((k) => {
          const q = quantities[k];
          return q !== undefined && q.high !== null && Math.abs(q.value) <= q.high;
        });
        // Rounding to a hundredth of a millimetre may tip it at the limit itself.
        if (Math.abs(verdict.measured.value - verdict.limit.upper) > 0.02)
          expect(isInside).toBe(verdict.measured.value < verdict.limit.upper);
      }),
      { numRuns: 30 },
    );
  });
  it("draws the tip of a pole across past yield, either way alike, and saws off what stands out too far", () => {
    const [up, down] = [6, -6].map((y) => correctionOf(deckWithPole(800), "PE", { x: 0, y })) as [
      Correction,
      Correction,
    ];
    for (const [c, by] of [
      [up, "B"],
      [down, "C"],
    ] as const) {
      expect(c.aside).toEqual([]);
      expect(c.advice).toBe("correct it");
      expect(c.ways[0]?.steps.map((s) => s.remedy)).toEqual([`swing PE toward ${by}`]);
      expect(c.doNothing).toBeLessThan(0.01);
    }
    expect(up.ways[0]?.chance).toBeCloseTo(down.ways[0]?.chance ?? 0, 2);
    const long = correctionOf(deckWithPole(800), "PE", { x: 6, y: 0 });
    expect(long.ways[0] && doesOf(long, long.ways[0])).toEqual(["trim"]);
    expect(long.ways[0]?.steps[0]?.amount).toBeCloseTo(6, 0);
    const both = correctionOf(deckWithPole(800), "PE", { x: 5, y: -5 });
    expect(both.ways[0] && doesOf(both, both.ways[0]).sort()).toEqual(["swing", "trim"]);
    const short = correctionOf(deckWithPole(800), "PE", { x: -6, y: 0 });
    expect(short.advice).toBe("make it anew");
    expect(correctionAdvice(short, "mm").why).toContain("No remedy that is known here makes that better");
    expect(besidesWords(short, drawnPlan(deckWithPole(800))).join(" ")).toContain("PE stands 6.0 mm short");
  });
  it("leaves what a new reading finds, of frames with corners and without, once the end stands so much elsewhere", () => {
    const frames: [DrawnFrame, string][] = [
      [deckWithPole(700, [1200, 800]), "PE"],
      [FREE_FRAMES.foot, "BE"],
      [angled, "PE"],
    ];
    for (const [frame, place] of frames) {
      const places = placesIn(frame);
      const outward = places.freeEnds[place]?.way as Vec2;
      const side = { x: -outward.y, y: outward.x };
      for (const mm of [5, -5]) {
        const by = scale(side, mm);
        const c = correctionOf(frame, place, by);
        const way = c.ways.find((w) => doesOf(c, w).join() === "swing");
        const swing = way && remedyOf(c, way.steps[0]?.remedy ?? "");
        if (!way || swing?.id.do !== "swing") throw new Error(`${place}: not swung`);
        // Whichever free end is swung, it goes across its member to the side on which it belongs.
        const { place: end } = swing.id;
        const out = places.freeEnds[end]?.way as Vec2;
        const across = { x: -out.y, y: out.x };
        const amount = -Math.sign(dot(offOf(c.quantities, end), across)) * (way.steps[0]?.amount ?? 0);
        const swungBy = scale(across, amount);
        const moves = end === place ? { [place]: add(by, swungBy) } : { [place]: by, [end]: swungBy };
        const then = placesMoved(places, moves);
        const round = evaluate(jobAt(frame, then), null).cold;
        const stands = round ? standingOf(round, places).quantities : {};
        for (const key of Object.keys(c.quantities))
          if (/^(place|mouth)/.test(key))
            expect(way.leaves[key]?.value, `${place} ${key}`).toBeCloseTo(stands[key]?.value ?? Number.NaN, 0);
        expect(norm(offOf(way.leaves, end))).toBeLessThan(norm(offOf(c.quantities, end)));
      }
    }
  });
  it("springs back as a cantilever does on top of what the frame gives (bending theory)", () => {
    for (const [face, wall] of [
      [50, 3],
      [60, 4],
    ] as const) {
      // A pole on a frame that is stiff for it.
      const frame = deckWith(
        [1200, 800],
        {
          P: [[1200, 400, 0], [2100, 400, 0], "S2"],
        },
        squareTube(120, 8),
        squareTube(face, wall, "S2"),
      );
      const places = placesIn(frame);
      const c = correctionOf(frame, "PE", { x: 0, y: 6 });
      const swing = c.remedies.find((r) => r.id.do === "swing");
      if (!swing?.push || swing.id.do !== "swing") throw new Error("not swung");
      const { eMPa, yieldMPa } = MATERIALS["mild steel"];
      const armMm = 900;
      const [hole, i] = [face - 2 * wall, (face ** 4 - (face - 2 * wall) ** 4) / 12];
      // Real yield is taken as 1.15 of what is stated; M = fy Z, across F = M / L, give of a cantilever F L^3 / 3 E I.
      const moment = (1.15 * yieldMPa * (face ** 3 - hole ** 3)) / 4;
      const give = (moment / armMm) * (armMm ** 3 / (3 * eMPa * i));
      const to = sub(places.nodes.B as Vec2, places.nodes.PE as Vec2);
      expect(swing.id).toMatchObject({ by: "B", way: "toward" });
      expect(swing.push.forceN).toBeCloseTo(moment / armMm / Math.abs(to.y / norm(to)), -1);
      expect(swing.push.springbackMm / give).toBeGreaterThan(1);
      expect(swing.push.springbackMm / give).toBeLessThan(1.5);
    }
  });
  it("says what bears it: what is told of a way is what it does, in the units of the job, and no name is changed", () => {
    const c = correctionOf(deckWithPole(800), "PE", { x: 0, y: 6 }, "inch-fraction");
    const [best] = c.ways;
    const swing = best && remedyOf(c, best.steps[0]?.remedy ?? "");
    const go = swing && firstGo(c, swing.id, best.steps[0]?.amount ?? 0);
    if (!best || !swing || !go?.springback) throw new Error("no push");
    expect(go.wanted * (swing.push?.mmPerUnit ?? 0)).toBeCloseTo(best.steps[0]?.amount ?? 0, 6);
    expect(go.amount).toBeGreaterThan(go.springback.low);
    const words = [...goWords(go, "inch-fraction"), ...leavesNow(c, best, "inch-fraction")];
    expect(words.join(" ")).not.toMatch(/\bmm\b|kN/);
    expect(leavesNow(c, best, "mm").join()).toMatch(/^PE, from where it belongs: 6\.0 mm/);
    // A drawbar that is braced is not drawn across by what a shop has: what comes nearest is said, and by its own names.
    const braced = correctionOf(FRAMES_THAT_REACH_BEYOND["an A-shaped drawbar"]?.frame as DrawnFrame, "PE", {
      x: 0,
      y: 8,
    });
    expect(braced.advice).toBe("make it anew");
    expect(braced.refused.join(" ")).toMatch(/^Pushing PE across past yield takes about [\d.]+\skN/);
    const [nearest] = braced.ways;
    if (!nearest || nearest.steps.length === 0) throw new Error("nothing comes near");
    expect(correctionAdvice(braced, "mm").why).toContain(correctionWayWords(braced, nearest, "mm"));
  });
  it("heats no aluminium and bends none, but saws it", () => {
    const frame = deckWithPole(800);
    const soft = { ...frame, sections: frame.sections.map((x) => ({ ...x, material: "aluminium 6061" as const })) };
    const c = correctionOf(soft, "PE", { x: 6, y: 2 });
    expect(c.remedies.map((r) => r.id.do)).toEqual(["trim"]);
  });
  it("draws an end by wedges of heat toward the side on which it belongs, in proportion to how far it stands out", () => {
    const perWedge = [500, 1000].map((poleMm) => {
      const c = correctionOf(deckWithPole(poleMm), "PE", { x: 0, y: 6 });
      const wedges = c.remedies.find((r) => r.id.do === "draw");
      if (!wedges) throw new Error("no wedges");
      const [right, up] = keysOf("PE").map((k) => wedges.option.effect[k] ?? 0) as [number, number];
      expect(up).toBeLessThan(0);
      expect(Math.abs(right)).toBeLessThan(1e-3);
      return -up;
    }) as [number, number];
    // A kink turns what lies beyond it: from a tube's depth beyond the joint on.
    expect(perWedge[1] / perWedge[0]).toBeCloseTo((1000 - 40) / (500 - 40), 1);
  });
});

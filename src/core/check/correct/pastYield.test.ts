import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { normalDraw, seeded } from "../../numeric";
import { nextAmount, nextPush } from "./nextTry";
import { pressesToStraighten, pressMidspan, rackByDiagonal } from "./pastYield";
import { chanceAfter, planCorrection, type RemedyOption, type Stands } from "./planCorrection";
import { type BentSection, leftAlong, momentAt, plasticSection } from "./plasticSection";

const STEEL = { eMPa: 210_000, yieldMPa: 355 };
const tube = fc.record({
  widthMm: fc.integer({ min: 20, max: 120 }),
  depthMm: fc.integer({ min: 20, max: 120 }),
  wallMm: fc.constantFrom(1.5, 2, 3, 4),
});

/** Moment of a section by slices, at a curvature: elastic up to yield, ideally plastic beyond. */
function momentBySlices({ widthMm: w, depthMm: h, wallMm: t = 0 }: BentSection, curvature: number): number {
  const N = 4000;
  let sum = 0;
  for (let i = 0; i < N; i++) {
    const y = -h / 2 + ((i + 0.5) * h) / N;
    const wide = Math.abs(y) > h / 2 - t ? w : 2 * t;
    const stress = Math.max(-STEEL.yieldMPa, Math.min(STEEL.yieldMPa, STEEL.eMPa * curvature * y));
    sum += (stress * wide * y * h) / N;
  }
  return sum;
}

describe("bending past yield", () => {
  it("has the moment that slices of the section add up to, for any tube and any curvature", () => {
    fc.assert(
      fc.property(tube, fc.double({ min: 1.01, max: 12, noNaN: true }), (section, over) => {
        const core = section.depthMm / 2 / over;
        const curvature = STEEL.yieldMPa / (STEEL.eMPa * core);
        const by = momentBySlices(section, curvature);
        expect(Math.abs(momentAt(section, STEEL, core) / by - 1)).toBeLessThan(6e-3);
      }),
      { numRuns: 60 },
    );
  });
  it("leaves a bow that adds up along the length (virtual work, summed piece by piece)", () => {
    const section = { widthMm: 40, depthMm: 40, wallMm: 3 };
    const push = pressMidspan(section, STEEL, { spanMm: 1000, removeMm: 2, lengthMm: 1000 });
    const { iMm4, yieldMomentNmm } = plasticSection(section, STEEL);
    const N = 2000;
    let bow = 0;
    for (let i = 0; i < N; i++) {
      const x = ((i + 0.5) * 500) / N;
      const moment = (push.momentNmm * x) / 500;
      if (moment <= yieldMomentNmm) continue;
      let [low, high] = [0, 20];
      for (let k = 0; k < 80; k++) {
        const c = (low + high) / 2;
        if (momentAt(section, STEEL, c) > moment) low = c;
        else high = c;
      }
      const left = STEEL.yieldMPa / (STEEL.eMPa * low) - moment / (STEEL.eMPa * iMm4);
      bow += 2 * left * (x / 2) * (500 / N);
    }
    expect(bow).toBeCloseTo(2 - push.hingeFreeRad * 250, 1);
    expect(push.springbackMm).toBeGreaterThan(push.pushMm - 2.1);
  });
  it("takes more push for more that shall stay, and gives nothing below yield", () => {
    fc.assert(
      fc.property(tube, fc.double({ min: 0.2, max: 4, noNaN: true }), (section, mm) => {
        const ask = (removeMm: number) => pressMidspan(section, STEEL, { spanMm: 900, removeMm, lengthMm: 900 });
        expect(ask(mm * 1.5).pushMm).toBeGreaterThan(ask(mm).pushMm);
        expect(ask(mm).pushMm - ask(mm).springbackMm).toBeCloseTo(mm, 6);
        expect(ask(mm).momentOverYield).toBeLessThanOrEqual(plasticSection(section, STEEL).shapeFactor + 1e-9);
      }),
      { numRuns: 30 },
    );
    const { g0, g1 } = leftAlong({ widthMm: 40, depthMm: 40, wallMm: 3 }, STEEL, 20);
    expect([g0, g1]).toEqual([0, 0]);
  });
  it("springs back the more, the softer the rectangle and the harder the steel", () => {
    const frame = (l: number) => ({
      lengthMm: l,
      heightMm: 600,
      rail: { widthMm: 40, depthMm: 40, wallMm: 3 },
      post: { widthMm: 40, depthMm: 40, wallMm: 3 },
    });
    const back = (l: number, yieldMPa: number): number =>
      rackByDiagonal(frame(l), { ...STEEL, yieldMPa }, 3).springbackMm;
    expect(back(1500, 235)).toBeGreaterThan(back(1000, 235));
    expect(back(1000, 355)).toBeGreaterThan(back(1000, 235));
  });
  it("straightens an even bow by as few presses as are enough", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.1, max: 20, noNaN: true }),
        fc.double({ min: 0.1, max: 3, noNaN: true }),
        (bow, most) => {
          const { presses, leftMm } = pressesToStraighten(bow, most);
          expect(leftMm).toBeLessThanOrEqual(most + 1e-9);
          if (presses > 0) expect(bow / presses ** 2).toBeGreaterThan(most - 1e-9);
        },
      ),
    );
  });
});

describe("pushing a little further each time", () => {
  it("ends inside in a few pushes, and overshoots in fewer than one of ten, whatever the yield stress really is", () => {
    const random = seeded(23);
    const TIMES = 150;
    let [inside, over, pushes] = [0, 0, 0];
    for (let i = 0; i < TIMES; i++) {
      const wanted = 1 + 3 * random();
      const back = 10.7 * Math.exp(0.12 * normalDraw(random));
      const tries: { push: number; moved: number; u: number }[] = [];
      let stays = 0;
      for (let n = 0; n < 9; n++) {
        const { pushMm, left } = nextPush(wanted, 10.7, 0.12, tries);
        if (left < 0.5) break;
        const moved = Math.max(0, pushMm - back * (1 + 0.01 * normalDraw(random)));
        stays += moved;
        pushes++;
        tries.push({ push: pushMm, moved: moved + 0.1 * normalDraw(random), u: 0.1 });
      }
      if (Math.abs(stays - wanted) < 0.75) inside++;
      if (stays > wanted + 0.5) over++;
    }
    expect(inside / TIMES).toBeGreaterThan(0.9);
    expect(over / TIMES).toBeLessThan(0.1);
    expect(pushes / TIMES).toBeLessThan(7);
  });
  it("learns a gain from what goes did, and asks for less than would on average be right", () => {
    const { gain, amount, amountMedian } = nextAmount(3, 1, 0.4, [
      { amount: 1, effect: 2, u: 0.05 },
      { amount: 0.2, effect: 0.41, u: 0.05 },
    ]);
    expect(gain).toBeCloseTo(2, 1);
    expect(amount).toBeLessThan(amountMedian);
  });
});

describe("which remedy", () => {
  const outside = (value: number): Record<string, Stands> => ({
    square: { value, u: 0.3, low: -1.5, high: 1.5 },
  });
  const remedy = (id: string, effect: number, more: Partial<RemedyOption> = {}): RemedyOption => ({
    ...{ id, effect: { square: effect }, max: 5, cv: 0.2, effortMin: 5, risk: 0 },
    ...more,
  });
  it("leaves what is inside, and never advises what lowers the chance", () => {
    fc.assert(
      fc.property(
        fc.double({ min: -5, max: 5, noNaN: true }),
        fc.array(
          fc.tuple(fc.double({ min: -1.5, max: 1.5, noNaN: true }), fc.double({ min: 0.05, max: 0.6, noNaN: true })),
          {
            maxLength: 4,
          },
        ),
        (value, all) => {
          const found = planCorrection(
            outside(value),
            all.map(([e, cv], i) => remedy(`r${i}`, e, { cv })),
          );
          expect(found.best.chance).toBeGreaterThanOrEqual(found.doNothing - 0.0100001);
          expect(found.bestChance).toBeGreaterThanOrEqual(found.best.chance);
          if (found.doNothing > 0.995) expect(found.best.steps).toEqual([]);
        },
      ),
      { numRuns: 80 },
    );
  });
  it("loosens before it adjusts, and of equal ones takes what takes less", () => {
    const two = planCorrection({ ...outside(4), twist: { value: 3, u: 0.3, low: -1, high: 1 } }, [
      { ...remedy("untwist", 0), effect: { twist: -1 } },
      remedy("recut", -1, { loosens: true, effortMin: 20 }),
    ]);
    expect(two.best.steps.map((s) => s.remedy)).toEqual(["recut", "untwist"]);
    const cheap = planCorrection(outside(4), [
      remedy("dear", -1, { effortMin: 30, cv: 0.02 }),
      remedy("cheap", -1, { cv: 0.02 }),
    ]);
    expect(cheap.best.steps.map((s) => s.remedy)).toEqual(["cheap"]);
  });
  it("gives chances that draws agree with", () => {
    const random = seeded(9);
    const does = [{ remedy: remedy("a", -1, { cv: 0.3 }), amount: 3 }];
    const N = 60_000;
    let n = 0;
    const sd = Math.sqrt(Math.log(1 + 0.09));
    for (let i = 0; i < N; i++) {
      const left = 4 + 0.3 * normalDraw(random) - 3 * Math.exp(sd * normalDraw(random));
      if (Math.abs(left) < 1.5) n++;
    }
    expect(chanceAfter(outside(4), does)).toBeCloseTo(n / N, 2);
  });
});

import { describe, expect, it } from "vitest";
import { started } from "../../../tests/support/drawnFrames";
import { changesWhenHotter } from "../../../tests/support/hotter";
import { base, job, round } from "../../../tests/support/jobs";
import { drawnPlan, sized } from "../../../tests/support/plans";
import { type FrameLesson, type Lesson, learnedFactors, learnShop, lessonProblem, shopLearnedSchema } from "../learn";
import { outcomeKey } from "../shrink";
import { mouthsOf, placesOf } from "../square";
import { length } from "../units";
import { FACTORS } from "../weld";
import { builtOf } from "./built";
import { couponAsRead } from "./couponAsRead";
import { couponCut, couponPlan, FRAME_COUPONS, type FrameCoupon } from "./couponPlan";
import type { Entry } from "./entrySchema";
import { factorsOf } from "./factorsOf";
import { frameTeachingOf } from "./frameLesson";
import type { Job } from "./jobSchema";
import { newPlan } from "./plan";
import { type Plan, planSchema } from "./planSchema";
import { predict } from "./predict";

const plain = (p: Plan): Plan => ({
  ...sized(p, { length: length("1000"), width: length("600"), cross: [] }),
  weld: { ...p.weld, volts: 18, amps: 120, travelMmPerS: 5, from: "machine" },
});
const NOMINAL = { AB: 1000, BC: 600, CD: 1000, DA: 600, AC: Math.hypot(1000, 600), BD: Math.hypot(1000, 600) };
const H = { zA: "0", zB: "0", zC: "0", zD: "0" };

/** A frame of a shop whose heat is so many times the tables', read with a fine tape at the tacked gate and cold. */
function built(times: number, slip: Record<string, number> = {}, spans: readonly string[] = Object.keys(NOMINAL)): Job {
  const plan = plain(job([]).plan);
  const by = changesWhenHotter(plan, times);
  const texts = (values: Record<string, number>): Record<string, string> =>
    Object.fromEntries(Object.entries(values).flatMap(([k, v]) => (spans.includes(k) ? [[k, v.toFixed(3)]] : [])));
  const after = Object.fromEntries(Object.entries(NOMINAL).map(([k, v]) => [k, v + (by[k] ?? 0) + (slip[k] ?? 0)]));
  return job(
    [
      ...round("tacked", { ...texts(NOMINAL), ...H }, "calliper"),
      ...round("cold", { ...texts(after), ...H }, "calliper"),
    ],
    plain,
  );
}

const lessonOf = (j: Job, n = 1): FrameLesson => {
  const told = frameTeachingOf(j);
  if (!told.ok) throw new Error(told.why);
  return {
    kind: "frame",
    ...base(),
    id: `00000000-0000-4000-9200-${String(n).padStart(12, "0")}`,
    ...told.taught.lesson,
  };
};

describe("what a frame teaches", () => {
  it("is nothing before it was read at both gates, and says which is missing", () => {
    const none = frameTeachingOf(job([], plain));
    expect(none).toEqual({ ok: false, why: "It has not been read cold yet." });
    const cold = frameTeachingOf(job(round("cold", { AB: "1000" }), plain));
    expect(cold.ok).toBe(false);
    expect(!cold.ok && cold.why).toMatch(/before welding/);
  });
  it("moves the factor towards the shop's own, narrows its sizes, and leaves a shop that is as the tables say alone", () => {
    const [own] = [1.35].map((t) =>
      learnShop(
        [1, 2, 3].map((n) => lessonOf({ ...built(t), id: base().id }, n)),
        "2026-11-25T08:00:00.000Z",
      ),
    );
    const as = learnShop([lessonOf(built(1))], "2026-11-25T08:00:00.000Z");
    const [hot] = own?.learned.factors.transverse.mean ?? [];
    expect(hot).toBeGreaterThan(0.08);
    expect(Math.abs(as.learned.factors.transverse.mean[0] ?? 1)).toBeLessThan(0.06);
    const plan = plain(job([]).plan);
    const learnedPlan: Plan = own ? { ...plan, learned: own.learned } : plan;
    expect(factorsOf(learnedPlan).transverse.value).toBeGreaterThan(FACTORS.transverse.value);
    expect(factorsOf(learnedPlan).transverse.cv).toBeLessThan(FACTORS.transverse.cv);
    const width = (p: Plan, id: string): number => {
      const e = predict(p)?.prediction.outcomes.find((o) => outcomeKey(o.id) === id)?.estimate;
      return e ? (e.high - e.low) / Math.abs(e.value || 1) : Number.NaN;
    };
    expect(width(learnedPlan, "AB")).toBeLessThan(width(plan, "AB"));
  });
  it("is what its own ring does, too, where another sub-assembly is set square on it in between", () => {
    const stack = job([], () => drawnPlan(started("two frames stacked", { length: "1000", width: "600" })));
    const long = Math.hypot(1000, 600);
    const sides = {
      AB: "999.6",
      BC: "599.7",
      CD: "999.6",
      DA: "599.7",
      AC: (long - 0.5).toFixed(2),
      BD: (long - 0.4).toFixed(2),
    };
    const at = (gate: "tacked" | "cold", texts: Record<string, string>) => round(gate, { ...texts, ...H }, "calliper");
    const square = { ...sides, AB: "1000", BC: "600", CD: "1000", DA: "600", AC: long.toFixed(2), BD: long.toFixed(2) };
    const told = frameTeachingOf({ ...stack, entries: [...at("tacked", square), ...at("cold", sides)] });
    if (!told.ok) throw new Error(told.why);
    expect(told.taught.lesson.readings.map((r) => r.what)).toContain("AB");
  });
  it("tells a misread side from a hot machine", () => {
    const crossed = frameTeachingOf(built(1, { BC: -5 }));
    expect(!crossed.ok && crossed.why).toMatch(/contradict each other/);
    // Without diagonals nothing checks a side: what was predicted does.
    const slip = frameTeachingOf(built(1, { BC: -5 }, ["AB", "BC", "CD", "DA"]));
    expect(slip.ok && slip.taught.surprise.cause).toBe("one reading");
    expect(slip.ok && slip.taught.lesson.readings[slip.taught.surprise.reading]?.what).toBe("BC");
    const fits = frameTeachingOf(built(1));
    expect(fits.ok && fits.taught.surprise.cause).toBe("fits");
  });
  it("uses what was read before a correction alone, and says so", () => {
    const j = built(1);
    const corrected: Entry = {
      ...base(),
      kind: "corrected",
      at: "2026-11-24T09:00:00.000Z",
      remedy: { do: "rack", long: "AC" },
      amount: length("9"),
    };
    const after = round("cold", { AB: "1003", BC: "597", CD: "1003", DA: "597" }).map((e) => ({
      ...e,
      at: "2026-11-24T10:00:00.000Z",
    }));
    const told = frameTeachingOf({ ...j, entries: [...j.entries, corrected, ...after] });
    expect(told.ok && told.taught.surprise.cause).toBe("fits");
    expect(told.ok && told.taught.lesson.doubts.join(" ")).toMatch(/corrected after/);
  });
});

describe("a shop's lessons", () => {
  const at = (n: number): string => `2026-11-${String(10 + n).padStart(2, "0")}T08:00:00.000Z`;
  const coupon = (n: number, afterMm: number): Lesson => ({
    ...base(),
    kind: "coupon",
    id: `00000000-0000-4000-9300-${String(n).padStart(12, "0")}`,
    at: at(n),
    ...{ process: "MAG", volts: 18, amps: 120, travelMmPerS: 5, material: "mild steel", wallMm: 3 },
    ...{ beforeMm: 100, afterMm, uMm: 0.06, coupon: { of: "butt" } },
  });
  const NOW = "2026-11-25T08:00:00.000Z";
  const sdOf = (lessons: Lesson[], now = NOW): number =>
    Math.sqrt(learnShop(lessons, now).learned.factors.transverse.cov[0]?.[0] ?? Number.NaN);
  it("count until they are left out, count again when taken back, and none before the shop began anew", () => {
    const two = [coupon(1, 99.6), coupon(2, 99.65)];
    const out: Lesson = { ...base(), kind: "left out", at: at(3), lesson: two[0]?.id ?? "", why: "marks slipped" };
    const back: Lesson = { ...base(), kind: "taken back", at: at(4), lesson: two[0]?.id ?? "" };
    const anew: Lesson = { ...base(), kind: "begun anew", at: at(5), why: "new wire" };
    expect(learnShop(two, NOW).learned.coupons).toBe(2);
    expect(learnShop([...two, out], NOW).learned.coupons).toBe(1);
    expect(learnShop([...two, out], NOW).lessons[0]?.leftOut).toBe("marks slipped");
    expect(learnShop([...two, out, back], NOW).learned.coupons).toBe(2);
    expect(learnShop([...two, anew], NOW).learned.coupons).toBe(0);
    expect(learnShop([...two, anew, coupon(6, 99.6)], NOW).learned.coupons).toBe(1);
    expect(sdOf(two)).toBeLessThan(sdOf([...two, out]));
  });
  it("are refused where they could not be worked out, before they stop what is learned after them", () => {
    const good = lessonOf(built(1));
    expect(lessonProblem(good)).toBeNull();
    const t = good.teaching;
    for (const bad of [
      { ...t, cov: t.cov.slice(1) },
      { ...t, change: t.change.slice(1) },
      { ...t, cov: t.cov.map((row) => row.map((v) => -v)) },
      { ...t, sources: t.sources.map((s) => ({ ...s, effect: s.effect.map(() => 1e300) })) },
      { ...t, beads: [[1]] },
    ])
      expect(lessonProblem({ ...good, teaching: bad })).not.toBeNull();
  });
  it("fade with the years, and never below what the tables know", () => {
    const two = [coupon(1, 99.6), coupon(2, 99.65)];
    expect(sdOf(two, "2028-11-25T08:00:00.000Z")).toBeGreaterThan(sdOf(two));
    expect(sdOf(two, "2080-11-25T08:00:00.000Z")).toBeLessThan(Math.sqrt(Math.log(1 + 0.25 ** 2)) + 1e-9);
  });
});

describe("coupons that are small frames", () => {
  it("learns from how far a rail bows, and asks where it was bowed before", () => {
    const plan = couponPlan("rail", newPlan("x", "mm"));
    const bowed = (before: string, after: string) =>
      frameTeachingOf(
        job([...round("tacked", { sM1: before }, "feeler"), ...round("cold", { sM1: after }, "feeler")], () => plan),
      );
    const straight = bowed("0", "1.2");
    if (!straight.ok) throw new Error(straight.why);
    const { teaching, doubts } = straight.taught.lesson;
    const [change = 0] = teaching.change;
    expect(Math.abs(change)).toBeCloseTo(1.2, 9);
    // Seams on one side draw that side together: what it is expected to be has the sign of what it is taken to be.
    const expected = teaching.sources.reduce((s, { effect }) => s + (effect[0] ?? 0), 0);
    expect(Math.sign(change)).toBe(Math.sign(expected));
    expect(doubts.join(" ")).not.toMatch(/bowed before/);
    const bent = bowed("0.8", "1.2");
    if (!bent.ok) throw new Error(bent.why);
    expect(Math.abs(bent.taught.lesson.teaching.change[0] ?? 0)).toBeCloseTo(0.4, 9);
    expect(bent.taught.lesson.doubts.join(" ")).toMatch(/bowed before it was welded/);
  });
  it("knows two factors together better than each: a fillet's pull tells their product", () => {
    const own = couponAsRead("tee", newPlan("x", "mm"), "calliper");
    const told = frameTeachingOf(own);
    if (!told.ok) throw new Error(told.why);
    const { lesson } = told.taught;
    const full: Lesson = { ...lesson, kind: "frame", id: own.id, at: "2026-11-24T08:00:00.000Z", origin: "test" };
    const { learned } = learnShop([full], "2026-11-25T08:00:00.000Z");
    const { together, transverse, filletClosing } = learnedFactors(FACTORS, learned, lesson.cell);
    const common = together?.[0]?.[2] ?? 0;
    const correlation = common / Math.sqrt(Math.log(1 + transverse.cv ** 2) * Math.log(1 + filletClosing.cv ** 2));
    expect(correlation).toBeLessThan(-0.05);
    expect(correlation).toBeGreaterThan(-1);
    // In another process's cell each is known by itself alone.
    const elsewhere = learnedFactors(FACTORS, learned, { ...lesson.cell, process: "stick" });
    expect(elsewhere.together?.[0]?.[2]).toBe(0);
    expect(shopLearnedSchema.safeParse(learned).success).toBe(true);
  });
  it("can be built and read in either system, and a tee tells most of fillets, a corner of the bead across", () => {
    const power = (kind: FrameCoupon): Record<string, number> => {
      const plan = couponPlan(kind, job([]).plan);
      const { structure } = builtOf(plan);
      if (!structure) throw new Error("no frame");
      const pairs = structure.quad
        ? [
            ["A", "B"],
            ["B", "C"],
            ["C", "D"],
            ["D", "A"],
          ]
        : mouthsOf(placesOf(structure));
      if (kind === "rail") {
        const told = frameTeachingOf(couponAsRead(kind, job([]).plan, "calliper"));
        if (!told.ok) throw new Error(told.why);
        expect(told.taught.lesson.readings.map((r) => r.what)).toContain("straightness M1");
        return told.taught.narrowedTo;
      }
      const values = Object.fromEntries(pairs.map(([p, q]) => [structure.quad ? `${p}${q}` : `${p}-${q}`, "400"]));
      const told = frameTeachingOf(
        job([...round("tacked", values, "calliper"), ...round("cold", values, "calliper")], () => plan),
      );
      if (!told.ok) throw new Error(told.why);
      return told.taught.narrowedTo;
    };
    const [corner, tee, rail] = [power("L corner"), power("tee"), power("rail")];
    // Five seams pull one way on a long lever: a feeler leaf tells more of the bead across than a tape over a corner does.
    expect(rail.transverse).toBeLessThan(0.75);
    expect(rail.transverse).toBeLessThan(corner.transverse as number);
    expect(corner.transverse).toBeLessThan(0.9);
    expect(corner.filletClosing).toBeGreaterThan(0.99);
    expect(tee.filletClosing).toBeLessThan(0.85);
    for (const units of ["mm", "inch-fraction"] as const)
      for (const kind of FRAME_COUPONS) {
        const plan = couponPlan(kind, newPlan("x", units));
        expect(planSchema.safeParse(plan).success).toBe(true);
        expect(builtOf(plan).problems.filter((p) => p.severity === "error")).toEqual([]);
        if (units !== "mm") expect(couponCut(kind, units)).not.toMatch(/mm/);
      }
  });
});

import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { comb, drawn, squareTube } from "../../../tests/support/drawnFrames";
import { job as jobOf } from "../../../tests/support/jobs";
import { drawnPlan, sized } from "../../../tests/support/plans";
import type { Structure } from "../frame";
import { drain } from "../numeric";
import { heldMechanics, type OrderChoice, orderKey, USUAL_ORDER } from "../plan";
import { length } from "../units";
import { barProposals } from "./barProposals";
import { bearersUnder } from "./bearersOf";
import { builtOf } from "./built";
import { barsOf, heldOf, heldProblems, type PlannedBar, tacksBearN } from "./held";
import { type HoldingWay, heldSo, holdingAdvice, holdingTrials, holdingWays, wayWords, withTrial } from "./holdingWays";
import { EQUAL, type OrderOutlook } from "./orderOutlook";
import { suitedOutlook } from "./orderPlanning";
import { orderOutlook } from "./outlookByDraws";
import { newPlan, planProblems } from "./plan";
import { type Plan, planSchema } from "./planSchema";
import { predict } from "./predict";
import { canPredict, frameKey } from "./predictable";
import { releaseWords } from "./releaseWords";
import { weldOf } from "./settings";

const base = newPlan("x", "mm");
const structureOf = (plan: Plan): Structure => builtOf(plan).structure as Structure;
const bar = (more: Partial<PlannedBar> = {}): PlannedBar => ({
  id: "S1",
  kind: "strongback",
  from: { member: "AB", along: length("300") },
  to: { member: "CD", along: length("300") },
  putOn: "square",
  takenOff: "cold",
  ...more,
});
const withBars = (bars: PlannedBar[], plan = base): Plan => ({ ...plan, held: { bars } });
const open = drawnPlan(
  drawn(
    {
      AB: [
        [12.5, 12.5, 12.5],
        [547.5, 12.5, 12.5],
      ],
      BC: [
        [547.5, 12.5, 12.5],
        [547.5, 367.5, 12.5],
      ],
      CD: [
        [547.5, 367.5, 12.5],
        [12.5, 367.5, 12.5],
      ],
    },
    [squareTube(25, 1.6)],
  ),
);

describe("what a plan's frame is held by", () => {
  it("names what is wrong with a bar at its field, leaves it out, and predicts without it", () => {
    const wrong: [Partial<PlannedBar>, string, RegExp][] = [
      [{ from: { member: "ZZ", along: length("1") } }, "from", /no ZZ/],
      [{ to: { member: "AB", along: length("900") } }, "to", /AB to itself/],
      [{ to: { member: "CD", along: length("2000") } }, "to.along", /CD is .* long/],
      [{ from: { member: "AB", along: length("-5") } }, "from.along", /from 20 mm to .* along, not at 15 mm/],
      [{ size: { width: length("4000"), height: length("40"), wall: length("3") } }, "size.width", /Check the unit/],
      [{ size: { width: length("40"), height: length("40"), wall: length("30") } }, "size.wall", /leaves no tube/],
    ];
    for (const [change, at, says] of wrong) {
      const plan = withBars([bar(change)]);
      const found = heldProblems(structureOf(plan), plan);
      expect(found.map((p) => p.path)).toEqual([`held.bars.S1.${at}`]);
      expect(found[0]?.message).toMatch(says);
      expect(planProblems(plan)).toEqual(expect.arrayContaining(found));
      expect(barsOf(structureOf(plan), plan)).toEqual([]);
      expect(canPredict(plan)).toBe(true);
    }
    expect(heldProblems(structureOf(base), withBars([bar()]))).toEqual([]);
  });
  it("is like the member that it goes from, and a tube still where that is a flat or a bar", () => {
    const flat = { ...squareTube(40), id: "F", shape: "flat" as const, height: length("5"), wall: length("5") };
    const plan = drawnPlan(
      drawn(
        {
          A1: [
            [0, 0, 0],
            [600, 0, 0],
          ],
          B1: [
            [0, 400, 0],
            [600, 400, 0],
          ],
        },
        [flat],
      ),
    );
    const { structure: shown } = builtOf(plan).drawn ?? {};
    if (!shown) throw new Error("nothing drawn");
    const [made] = barsOf(
      shown,
      withBars(
        [bar({ from: { member: "A1", along: length("100") }, to: { member: "B1", along: length("100") } })],
        plan,
      ),
    );
    expect(made?.section.widthMm).toBe(40);
    expect(2 * (made?.section.wallMm ?? 0)).toBeLessThan(
      Math.min(made?.section.widthMm ?? 0, made?.section.heightMm ?? 0),
    );
    const [own] = barsOf(structureOf(base), withBars([bar()]));
    expect(own?.section).toEqual({ widthMm: 40, heightMm: 40, wallMm: 3 });
  });
  it("stands in the order, and in what a prediction hangs on", () => {
    const plan = withBars([bar()]);
    expect(builtOf(plan).order?.steps.map((s) => s.key)).toEqual(expect.arrayContaining(["brace/S1", "unbrace/S1"]));
    expect(builtOf(base).order?.steps.some((s) => s.key.includes("brace"))).toBe(false);
    const keys = [
      base,
      plan,
      { ...base, held: { lies: "loose" as const } },
      { ...base, held: { stops: true as const } },
    ].map(frameKey);
    expect(new Set(keys).size).toBe(keys.length);
    // Where stops stand counts only where they hold.
    const moved = { fixture: { side: "inside" as const } };
    expect(frameKey({ ...base, ...moved })).toBe(keys[0]);
    expect(frameKey({ ...base, held: { stops: true }, ...moved })).not.toBe(keys[3]);
  });
  it("is found at points of its mechanics, on the members that it names", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 400, max: 3000 }),
        fc.integer({ min: 300, max: 1500 }),
        fc.constantFrom("clamped" as const, "weight" as const, "loose" as const),
        fc.boolean(),
        (long, wide, lies, stops) => {
          const plan: Plan = {
            ...sized(base, { length: length(String(long)), width: length(String(wide)) }),
            held: {
              ...(lies === "clamped" ? {} : { lies }),
              ...(stops ? { stops: true as const } : {}),
            },
          };
          const structure = structureOf(plan);
          const held = heldOf(structure, {
            ...plan,
            held: { ...plan.held, bars: barProposals(structure, "mm").corners },
          });
          const { mechanics, by } = heldMechanics(structure, "surface", held);
          const has = ({ member, point }: { member: string; point: string }): boolean =>
            mechanics.frame.members.find((m) => m.id === member)?.points.includes(point) === true;
          const all = [...by.clamps, ...by.rests, ...by.stops, ...by.bars.flatMap((b) => [b.from, b.to])];
          expect(all.every(has)).toBe(true);
          expect(by.bars).toHaveLength(4);
          expect(by.clamps.length > 0).toBe(lies === "clamped");
          expect(by.rests.length > 0).toBe(lies === "weight");
          expect(by.stops.length > 0).toBe(stops);
          expect(mechanics.frame.carried === true).toBe(stops || lies === "weight");
        },
      ),
      { numRuns: 25, seed: 9 },
    );
  });
  it("is proposed where it fits: crossed and over corners for a ring, over the mouth of an open frame", () => {
    for (const [plan, counts] of [
      [base, { crossed: 2, corners: 4, sides: 0, blocks: 0 }],
      [open, { crossed: 0, corners: 0, sides: 1, blocks: 1 }],
      // From tooth to tooth, not from the rail's end to a tooth that stands on it.
      [drawnPlan(comb(3, 200, 180)), { crossed: 0, corners: 0, sides: 2, blocks: 2 }],
    ] as const) {
      const structure = structureOf(plan);
      const proposed = barProposals(structure, "mm");
      for (const [kind, n] of Object.entries(counts)) {
        const bars = proposed[kind as keyof typeof proposed];
        expect(bars).toHaveLength(n);
        expect(heldProblems(structure, withBars(bars, plan))).toEqual([]);
        expect(planSchema.safeParse(withBars(bars, plan)).success).toBe(true);
      }
    }
    // Crossed bars run to opposite corners.
    const structure = structureOf(base);
    const [s1, s2] = barsOf(structure, withBars(barProposals(structure, "mm").crossed));
    const way = (b: typeof s1): number => (b?.to.at[0] ?? 0) - (b?.from.at[0] ?? 0);
    expect(way(s1) * way(s2)).toBeLessThan(0);
  });
});

describe("what holding does in the forecast", () => {
  const width = (plan: Plan, kind: "square" | "mouth" | "flat"): number => {
    const found = predict(plan)?.prediction.outcomes.find((o) => o.id.kind === kind)?.estimate;
    return found ? found.high - found.low : Number.NaN;
  };
  it("narrows what it holds: crossed strongbacks the diagonals", () => {
    for (const sizes of [{}, { length: length("900"), width: length("900") }, { length: length("2000") }]) {
      const plan = sized(base, sizes);
      const { crossed } = barProposals(structureOf(plan), "mm");
      expect(width(withBars(crossed, plan), "square")).toBeLessThan(0.98 * width(plan, "square"));
    }
  });
  it("tells what every bar lets go of, and clamps theirs; nothing where nothing holds", () => {
    const structure = structureOf(base);
    const plan = withBars(barProposals(structure, "mm").crossed);
    const replay = predict(plan)?.replay;
    if (!replay) throw new Error("no replay");
    const bars = barsOf(structure, plan);
    for (const { id } of bars) {
      const [words] = releaseWords(replay, `unbrace/${id}`, bars, tacksBearN(structure, weldOf(plan)), "mm");
      const own = replay.released.find((r) => r.what === id);
      expect(own?.highN).toBeGreaterThan(own?.forceN ?? Number.POSITIVE_INFINITY);
      expect(words).toContain(`up to ${((own?.highN ?? 0) / 1000).toFixed(1)}`);
      expect(words).toMatch(/N/);
    }
    const loose = predict({ ...base, held: { lies: "loose" } })?.replay;
    expect(loose?.released).toEqual([]);
    expect(loose?.clampForces.flat()).toEqual([]);
  });
  it("says in its reasons what holds it, and nothing that does not", () => {
    const said = (held?: Plan["held"]): string =>
      predict(held ? { ...base, held } : base)?.prediction.reasons.join(" ") ?? "";
    expect(said()).toMatch(/Clamps hold it down on the bed; along the bed it is free to shrink/);
    expect(said({ lies: "loose" })).not.toMatch(/Clamps|weight|stops push|tacked on|A block/);
    expect(said({ lies: "weight" })).toMatch(/by its own weight; along the bed it is free/);
    expect(said({ stops: true })).toMatch(/along the bed stops push/);
    expect(said({ lies: "loose", bars: [bar()] })).toMatch(/Bars that are tacked on/);
    expect(said({ lies: "loose", bars: [bar({ kind: "block" })] })).toMatch(/A block keeps/);
  });
  it("says of a block that is gripped how hard it is to get out: 2 mu N", () => {
    const released = [{ step: 0, what: "B1", forceN: 500, highN: 1000, movedMm: 0.4, energyJ: 0.1 }];
    const block = barsOf(structureOf(base), withBars([bar({ id: "B1", kind: "block", putOn: "laid" })]));
    const [words] = releaseWords({ released, ids: ["unbrace/B1"] }, "unbrace/B1", block, 1e9, "mm");
    expect(words).toMatch(/up to 0\.40\skN to knock it out/);
    // Set back by as far as it would come in at the upper end: 0.4 mm · 1000 / 500.
    expect(words).toMatch(/0\.8\smm shorter/);
    expect(words).toMatch(/over 12° a side/);
  });
});

describe("ways of holding side by side", () => {
  it("are none twice, the plan's own first, and only those that this frame has a use for", () => {
    for (const plan of [
      base,
      open,
      withBars([bar()]),
      { ...base, aim: "drawing" as const },
      { ...base, held: { lies: "loose" as const } },
    ]) {
      const ways = holdingWays(plan, structureOf(plan));
      const texts = ways.map((w) => JSON.stringify([w.plan.held ?? null, w.plan.aim]));
      expect(new Set(texts).size).toBe(ways.length);
      expect(ways[0]?.id).toBe("planned");
      expect(ways.filter((w) => /planned$/.test(w.say))).toHaveLength(1);
      expect(ways.some((w) => w.id === "side")).toBe(plan === open);
      expect(ways.some((w) => w.id === "crossed")).toBe(plan !== open);
    }
  });
  it("are advised by their chances: the likeliest, of equals what takes least", () => {
    const outlook = (chance: number): OrderOutlook => ({
      choice: { by: "schools", tack: "hinge first", weld: "across and around" },
      chance,
      limits: [],
      untold: [],
      turns: 1,
      totalS: 100,
      parts: { arcS: 0, waitS: 0, measureS: 0 },
      worst: null,
      most: [],
      keeps: true,
      holdN: 0,
      letGo: { highN: 20_000, barN: 20_000, energyJ: 1 },
      shape: [],
    });
    const ways = holdingWays(base, structureOf(base));
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: ways.length, maxLength: ways.length }),
        (chances) => {
          const all = ways.map((way, i) => ({ way, outlook: outlook(chances[i] as number) }));
          const { way, words } = holdingAdvice(all, USUAL_ORDER);
          const top = Math.max(...chances);
          const own = chances[ways.findIndex((w) => w.id === way?.id)] as number;
          expect(top - own).toBeLessThan(0.02);
          const equal = ways.filter((_, i) => top - (chances[i] as number) < 0.02);
          expect(way?.takes).toBe(Math.min(...equal.map((w) => w.takes)));
          expect(words[0]).toContain(way?.id === "planned" ? "As planned is as good" : "Advised");
        },
      ),
      { numRuns: 60, seed: 2 },
    );
    const [first] = ways;
    if (!first) throw new Error("no way");
    const told = wayWords({ way: first, outlook: outlook(0.5) }, 12_000, "mm").join("; ");
    expect(told).toMatch(/its tacks bear 12\.0\skN/);
    expect(wayWords({ way: first, outlook: outlook(0.5) }, 30_000, "mm").join()).not.toMatch(/tacks/);
  });
  it("each in the order that suits it: never less likely than as planned, and the advice says which order", () => {
    for (const plan of [base, open]) {
      const job = jobOf([], () => plan);
      for (const way of holdingWays(plan, structureOf(plan)).slice(0, 3)) {
        const so = heldSo(job, way);
        const asPlanned = drain(orderOutlook(so, USUAL_ORDER, 60));
        const suited = drain(suitedOutlook(so, 60));
        const isOther = orderKey(suited.choice) !== orderKey(USUAL_ORDER);
        if (isOther) expect((suited.chance ?? 0) - (asPlanned.chance ?? 0)).toBeGreaterThanOrEqual(EQUAL);
        else expect(suited.chance).toBe(asPlanned.chance);
      }
    }
    const ways = holdingWays(base, structureOf(base));
    const trials = holdingTrials(ways, true);
    // The plan's own as it is, and every way, the plan's own too, in its order.
    expect(trials.filter((t) => t.inItsOrder)).toHaveLength(ways.length);
    expect(new Set(trials.map((t) => t.way.id)).size).toBe(ways.length + 1);
    const [own] = ways;
    const skip: OrderChoice = { by: "schools", tack: "outside first", weld: "skip" };
    const found = (way: HoldingWay, chance: number, choice: OrderChoice) => ({
      way,
      outlook: {
        ...drain(
          orderOutlook(
            jobOf([], () => base),
            USUAL_ORDER,
            8,
          ),
        ),
        chance,
        choice,
      },
    });
    if (!own) throw new Error("no way");
    const all = withTrial([found(own, 0.4, USUAL_ORDER)], found({ ...own, id: "suited" }, 0.8, skip));
    expect(holdingAdvice(all, USUAL_ORDER).words[0]).toMatch(/^Advised: .*\(.*skip.*\)\. .*as planned 40 in 100/);
    expect(withTrial(all.slice(0, 1), found({ ...own, id: "suited" }, 0.4, USUAL_ORDER))).toHaveLength(1);
  });
  it("on trestles is held down and lies where they carry it; what they do not carry is propped; a floor clamps nothing", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 700, max: 4000 }),
        fc.integer({ min: 400, max: 1500 }),
        fc.integer({ min: 2, max: 5 }),
        (long, wide, trestles) => {
          const plan = sized(base, { length: length(String(long)), width: length(String(wide)) });
          const structure = structureOf(plan);
          const bearers = bearersUnder(structure, "mm", { trestles });
          const lying = { ...plan, fixture: { bearers } };
          const xs = bearers.map((b) => b.from.x.mm);
          const place = (p: string, m: ReturnType<typeof heldMechanics>["mechanics"]) => m.frame.points[p];
          for (const lies of [undefined, "weight" as const]) {
            const { mechanics, by } = heldMechanics(
              structure,
              "surface",
              heldOf(structure, lies ? { ...lying, held: { lies } } : lying),
            );
            const places = lies ? by.rests : by.clamps;
            const onSides = places.filter((c) => ["AB", "CD"].includes(c.member));
            expect(onSides.length).toBe(lies ? 2 * trestles : 4);
            for (const { point } of onSides)
              expect(Math.min(...xs.map((x) => Math.abs(x - (place(point, mechanics)?.[0] ?? 0))))).toBeLessThan(1);
            // BC and DA run beside them: nothing is clamped there, and each is propped once.
            expect(places.filter((c) => ["BC", "DA"].includes(c.member)).length).toBe(lies ? 2 : 0);
          }
          expect(frameKey(lying)).not.toBe(frameKey(plan));
          const floor = { ...plan, fixture: { floor: true as const } };
          expect(heldOf(structure, floor).lies).toBe("weight");
          expect(holdingWays(floor, structure).map((w) => w.id)).not.toContain("clamped");
          expect(holdingWays(floor, structure)[0]?.say).toBe("By its own weight, as planned");
        },
      ),
      { numRuns: 8 },
    );
  });
});

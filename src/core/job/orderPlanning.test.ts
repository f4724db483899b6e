import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { started } from "../../../tests/support/drawnFrames";
import { job as jobOf } from "../../../tests/support/jobs";
import { drawnPlan, sized } from "../../../tests/support/plans";
import { drain } from "../numeric";
import { chosenOrder, type OrderChoice, ownOrderProblems, stepKey, USUAL_ORDER, workpiece } from "../plan";
import { length } from "../units";
import { builtOf } from "./built";
import { chanceWords } from "./forecast";
import type { Job } from "./jobSchema";
import { orderAdvice } from "./orderAdvice";
import { isCutAndSet } from "./orderChoices";
import { classesOf, moved } from "./orderMoves";
import { EQUAL, inOrder, type OrderOutlook, turnsOf } from "./orderOutlook";
import { betterToLookAt, comparing, schoolsToLookAt } from "./orderPlanning";
import { orderOutlook } from "./outlookByDraws";
import { newPlan } from "./plan";
import { predict } from "./predict";

const plain = (): Job => jobOf([]);
function planned(
  job: Job,
  trials: number,
  {
    draws = 24,
    tell = () => undefined,
    ...more
  }: { seed?: number; mostTurns?: number; draws?: number; tell?: (doing: string) => void } = {},
): OrderOutlook[] {
  return drain(comparing(job, { trials, mostTurns: 2, ...more }, tell, draws));
}

describe("planning an order", () => {
  it("of a rectangle finds one that is likelier to hold than any school, or equal to the best", () => {
    const job = plain();
    const told = new Set<string>();
    const all = planned(job, 60, { draws: 400, tell: (doing) => told.add(doing) });
    const schools = all.filter((o) => o.choice.by === "schools" && !isCutAndSet(o.choice));
    const computed = all.filter((o) => o.choice.by === "computed");
    expect(schools.length).toBe(12);
    expect(computed.length).toBeGreaterThan(0);
    const best = Math.max(...schools.map((o) => o.chance ?? 0));
    expect(Math.max(...computed.map((o) => o.chance ?? 0))).toBeGreaterThan(best - EQUAL);
    // Best first, chances as such, and it says how it goes.
    for (const [i, o] of all.entries()) {
      expect(o.chance).toBeGreaterThanOrEqual(0);
      expect(o.chance).toBeLessThanOrEqual(1);
      expect(o.chance ?? 0).toBeLessThanOrEqual(all[Math.max(0, i - 1)]?.chance ?? 1);
      // Every limit together is never likelier than one of them.
      for (const l of o.limits) expect(o.chance ?? 0).toBeLessThanOrEqual(l.chance + 1e-9);
    }
    expect([...told]).toEqual(["search"]);
  });

  it("gives orders that are whole, and turn the frame no more often than was allowed", () => {
    for (const mostTurns of [1, 2]) {
      const job = jobOf([], () => drawnPlan(started("A-shaped drawbar")));
      const { structure } = builtOf(job.plan);
      if (!structure) throw new Error("no frame");
      for (const { choice, turns } of planned(job, 12, { mostTurns })) {
        if (choice.by === "schools") continue;
        expect(turns).toBeLessThanOrEqual(mostTurns);
        expect(ownOrderProblems(structure, choice.steps, choice)).toEqual([]);
      }
    }
  });

  it("begins with what turns the frame no more often than was allowed, though another be likelier", () => {
    const job = jobOf([], () =>
      sized(newPlan("Ladder", "mm"), {
        length: length("2000"),
        width: length("800"),
        cross: [{ id: "M1", at: length("1000") }],
      }),
    );
    const outlook = (weld: "corners then field" | "strength first", chance: number): OrderOutlook => {
      const choice = { by: "schools", tack: "hinge first", weld } as const;
      const none = { limits: [], untold: [], totalS: 0, parts: { arcS: 0, waitS: 0, measureS: 0 }, worst: null };
      const held = { most: [], keeps: true, holdN: 0, letGo: { highN: 0, barN: 0, energyJ: 0 }, shape: [] };
      return { choice, chance, turns: turnsOf(inOrder(job, choice)), ...none, ...held };
    };
    const known = [outlook("corners then field", 0.9), outlook("strength first", 0.5)];
    const [often, seldom] = known.map((o) => o.turns) as [number, number];
    expect(often).toBeGreaterThan(seldom);
    const begun = (mostTurns: number) => {
      const all = drain(betterToLookAt(job, known, { trials: 1, mostTurns }, () => undefined));
      return new Set(all.map((c) => c.weld));
    };
    expect(begun(often)).toEqual(new Set(["corners then field"]));
    expect(begun(seldom)).toEqual(new Set(["strength first"]));
  });

  it("is the same for the same seed", () => {
    const keys = (seed: number) =>
      planned(plain(), 12, { seed }).map(({ choice, chance }) => [
        choice.by === "schools" ? "" : choice.steps.map(stepKey).join(),
        chance,
      ]);
    expect(keys(3)).toEqual(keys(3));
  });

  it("leaves what is welded where it is, and differs in the rest alone", () => {
    const steps = chosenOrder(builtOf(newPlan("x", "mm")).structure as never, "surface", USUAL_ORDER).steps;
    const done = steps.filter((s) => s.id.do === "tack" || /bead\/[AC]\/outside/.test(s.key));
    const job = jobOf(
      done.map(
        (s, i) =>
          ({
            kind: "tick",
            id: `t${i}`,
            at: "2026-11-24T08:00:00.000Z",
            origin: "me",
            step: s.id,
            done: true,
          }) as never,
      ),
    );
    const all = planned(job, 6);
    const computed = all.filter((o) => o.choice.by === "computed");
    expect(computed.length).toBeGreaterThan(2);
    for (const { choice } of computed) {
      if (choice.by === "schools") continue;
      expect(choice.tack).toBe("hinge first");
      const beads = choice.steps.filter((s) => s.do === "bead").map(stepKey);
      expect(beads.slice(0, 2)).toEqual(["bead/A/outside", "bead/C/outside"]);
    }
  });

  it("keeps the tacks of an own order once tacking began, a doubled one too", () => {
    const { steps } = builtOf(plain().plan).order ?? { steps: [] };
    const ids = steps.map((s) => s.id);
    const at = steps.findIndex((s) => s.key === "tack/A/outside");
    const again = { do: "tack", joint: "A", line: "outside", nth: 2 } as const;
    const own: OrderChoice = {
      by: "own",
      tack: "hinge first",
      weld: "across and around",
      steps: [...ids.slice(0, at + 1), again, ...ids.slice(at + 1)],
    };
    const [first] = steps.filter((s) => s.id.do === "tack");
    const tick = { kind: "tick", id: "t0", at: "2026-11-24T08:00:00.000Z", origin: "me", step: first?.id, done: true };
    const job = jobOf([tick as never], (p) => ({ ...p, order: own }));
    const choices = planned(job, 4).map((o) => o.choice);
    expect(choices.length).toBeGreaterThan(3);
    for (const choice of choices)
      expect(choice.by === "schools" ? [] : choice.steps.map(stepKey)).toContain("tack/A/outside-2");
  });

  it("compares sub-assemblies one after the other and together", () => {
    const choices = drain(
      schoolsToLookAt(
        jobOf([], () => drawnPlan(started("two frames stacked"))),
        () => undefined,
      ),
    );
    const ways = choices.map((c) => c.by === "schools" && c.together === true);
    expect(new Set(ways)).toEqual(new Set([true, false]));
    expect(choices.every((c) => c.by === "schools")).toBe(true);
    expect(choices.length).toBeLessThanOrEqual(17);
  });

  it("claims no chance where nothing is predicted of a limit", () => {
    const outlook = drain(orderOutlook(plain(), USUAL_ORDER, 24));
    expect(outlook.untold.map((l) => l.kind)).not.toContain("size");
    for (const l of outlook.untold) expect(outlook.limits.some((x) => x.limit.id === l.id)).toBe(false);
  });
});

describe("moves of an order of beads", () => {
  const { structure } = builtOf(sized(newPlan("x", "mm"), { cross: [{ id: "M1", at: length("500") }] }));
  const work = workpiece(structure as never);
  const classes = classesOf(work);
  const beads = chosenOrder(structure as never, "surface").steps.flatMap((s) => (s.id.do === "bead" ? [s.id] : []));
  it("lose nothing and add nothing", () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0, max: 0.999999, noNaN: true }), { minLength: 4, maxLength: 4 }),
        (numbers) => {
          let i = 0;
          const next = moved(beads, classes, () => numbers[i++ % 4] as number);
          expect(next.map(stepKey).sort()).toEqual(beads.map(stepKey).sort());
        },
      ),
    );
  });
});

describe("the advice on an order", () => {
  const compared = planned(plain(), 10);
  const outlooks = compared.filter((o) => !isCutAndSet(o.choice));
  it("tells what cutting and setting once more is worth beside the orders, by the same schools, with the time", () => {
    const [cut] = compared.filter((o) => isCutAndSet(o.choice));
    expect(cut?.choice.by).toBe("schools");
    const same = outlooks.find(
      (o) => o.choice.by === "schools" && o.choice.tack === cut?.choice.tack && o.choice.weld === cut?.choice.weld,
    );
    // What the tacks pulled is let go: every limit is kept more often, or as often, and it takes longer.
    const [without, again] = [USUAL_ORDER, { ...USUAL_ORDER, cutAndSet: true as const }].map(
      (c) => drain(orderOutlook(plain(), c, 200)).chance ?? 0,
    ) as [number, number];
    expect(again).toBeGreaterThan(without - EQUAL);
    expect(cut?.totalS ?? 0).toBeGreaterThan(same?.totalS ?? 0);
    const minutes = Math.round(((cut?.totalS ?? 0) - (same?.totalS ?? 0)) / 60);
    for (const choice of [USUAL_ORDER, { ...USUAL_ORDER, cutAndSet: true as const }]) {
      const said = orderAdvice(compared, choice, "mm").words.find((w) => w.startsWith("Measured when all is tacked"));
      expect(said).toContain(`${chanceWords(cut?.chance ?? 0)} instead of ${chanceWords(same?.chance ?? 0)}`);
      expect(said).toContain(`about ${minutes} min more`);
      expect(/not worth it/.test(said ?? "")).toBe((cut?.chance ?? 0) - (same?.chance ?? 0) < EQUAL);
    }
    // It is no order of its own kind: what is advised keeps to how the frame is squared up.
    expect(orderAdvice(compared, USUAL_ORDER, "mm").choice).toEqual(orderAdvice(outlooks, USUAL_ORDER, "mm").choice);
  });
  it("is the likeliest to hold, in its own numbers; what is as planned stays when it is equal", () => {
    const top = Math.max(...outlooks.map((o) => o.chance ?? 0));
    for (const { choice } of outlooks) {
      const { choice: advised, words } = orderAdvice(outlooks, choice, "mm");
      const chance = outlooks.find((o) => JSON.stringify(o.choice) === JSON.stringify(advised))?.chance ?? 0;
      expect(top - chance).toBeLessThan(EQUAL);
      const own = outlooks.find((o) => o.choice === choice)?.chance ?? 0;
      expect(JSON.stringify(advised) === JSON.stringify(choice)).toBe(top - own < EQUAL);
      const said = words.join(" ");
      if (advised !== choice) {
        if (own < 0.985 && own > 0.015) expect(said).toContain(`as planned: ${Math.round(100 * own)} in 100`);
        const gains = /It gains most on (.+?)\./.exec(said)?.[1];
        const by = outlooks.find((o) => o.choice === advised);
        const than = outlooks.find((o) => o.choice === choice);
        // Where a limit is named, it is the one that gains most.
        if (gains) {
          const gain = (id: string) =>
            (by?.limits.find((l) => l.limit.id === id)?.chance ?? 0) -
            (than?.limits.find((l) => l.limit.id === id)?.chance ?? 0);
          const most = [...(by?.limits ?? [])].sort((a, b) => gain(b.limit.id) - gain(a.limit.id))[0];
          expect(gain(most?.limit.id ?? "")).toBeGreaterThan(EQUAL);
        }
      } else expect(said).toMatch(/^As planned is as good as any/);
    }
  });
  it("says so where the order as planned was not compared, and takes skip for the beads that it lays", () => {
    const own: OrderChoice = { by: "own", tack: "hinge first", weld: "skip", steps: [] };
    expect(orderAdvice(outlooks, own, "mm").words[0]).toMatch(/^Advised: .* compare again/);
    const skip: OrderChoice = { by: "schools", tack: "hinge first", weld: "skip" };
    expect(orderAdvice(outlooks, skip, "mm").words[0]).toEqual(orderAdvice(outlooks, USUAL_ORDER, "mm").words[0]);
  });
  it("says so where nothing is predicted", () => {
    const none = outlooks.map((o) => ({ ...o, chance: null, limits: [] }));
    expect(orderAdvice(none, USUAL_ORDER, "mm")).toEqual({
      choice: null,
      words: [expect.stringMatching(/no order is better/)],
    });
  });
});

describe("an order in a plan", () => {
  it("is what is predicted: another order, another prediction", () => {
    const own: OrderChoice = { by: "schools", tack: "two halves", weld: "strength first" };
    const [a, b] = [USUAL_ORDER, own].map((c) => drain(orderOutlook(plain(), c, 24)));
    expect(a?.chance).not.toBe(b?.chance);
    expect(builtOf(inOrder(plain(), own).plan).order?.weld).toBe("strength first");
    // A face that is tacked twice, and a wait more, are worked too.
    const { steps } = builtOf(plain().plan).order ?? { steps: [] };
    const at = steps.findIndex((s) => s.key === "tack/A/outside");
    const again = { do: "tack", joint: "A", line: "outside", nth: 2 } as const;
    const twice: OrderChoice = {
      by: "own",
      tack: "hinge first",
      weld: "across and around",
      steps: [
        ...steps.slice(0, at + 1).map((s) => s.id),
        again,
        { do: "wait", until: "cold", nth: 2 },
        ...steps.slice(at + 1).map((s) => s.id),
      ],
    };
    const lengths = [USUAL_ORDER, twice].map(
      (c) => predict(inOrder(plain(), c).plan)?.prediction.outcomes.find((o) => o.id.kind === "length")?.nominal,
    );
    expect(lengths[1]).not.toBe(lengths[0]);
    expect(lengths[1]).toBeCloseTo(lengths[0] ?? Number.NaN, 1);
  });
});

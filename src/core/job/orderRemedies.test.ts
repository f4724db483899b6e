import { describe, expect, it } from "vitest";
import { FREE_FRAMES, started } from "../../../tests/support/drawnFrames";
import { job as jobOf } from "../../../tests/support/jobs";
import { drawnPlan, sizesPlan } from "../../../tests/support/plans";
import { drain } from "../numeric";
import { USUAL_ORDER } from "../plan";
import { length } from "../units";
import { barProposals } from "./barProposals";
import { builtOf } from "./built";
import { chanceWords } from "./forecast";
import type { Job } from "./jobSchema";
import { unlikelyAtBest } from "./orderAdvice";
import { EQUAL, inOrder } from "./orderOutlook";
import { orderRemedies } from "./orderRemedies";
import { remedyWords } from "./orderRemedyWords";
import { orderOutlook } from "./outlookByDraws";
import type { Plan } from "./planSchema";
import { predicting } from "./predict";

const jobs = (plan: Plan): Job => ({ ...jobOf([]), plan });
const tight = (plan: Plan): Plan => ({
  ...plan,
  limits:
    plan.limits.kind !== "own"
      ? plan.limits
      : { ...plan.limits, square: { as: "diagonal", limit: length("0.6") }, flat: length("0.6") },
});
const plans: [string, Plan][] = [
  ["a rectangle built to the drawing", { ...tight(sizesPlan()), aim: "drawing" }],
  ["a gate in inches", tight(drawnPlan(started("gate leaf"), "inch-fraction"))],
  ["a stand", tight(drawnPlan(started("stand")))],
  ["an open foot", tight(drawnPlan(FREE_FRAMES.foot))],
];

/** The job held by the bars that Lay out offers. */
function held(job: Job, by: "side" | "block" | "strongbacks"): Job {
  const { structure } = builtOf(job.plan);
  if (!structure) throw new Error("no frame");
  const { sides, blocks, crossed } = barProposals(structure, job.plan.units);
  return { ...job, plan: { ...job.plan, held: { bars: { side: sides, block: blocks, strongbacks: crossed }[by] } } };
}

describe("where no order makes it likely", () => {
  it.each(plans)("names the limit that fails and what each change does, by the same draws: %s", (_, plan) => {
    const job = jobs(plan);
    const outlook = drain(orderOutlook(job, USUAL_ORDER));
    expect(unlikelyAtBest([outlook])).toBe((outlook.chance ?? 1) < 0.5 ? outlook : null);
    const found = drain(orderRemedies(job, outlook));
    expect(found.worst?.chance).toBe(Math.min(...outlook.limits.map((l) => l.chance)));
    for (const { by, chance } of found.tried) {
      // Each is worked out anew, with that one thing changed.
      const again =
        by === "set-up"
          ? orderOutlook({ ...job, plan: { ...plan, aim: "set-up" } }, USUAL_ORDER)
          : by === "side" || by === "block" || by === "strongbacks"
            ? orderOutlook(held(job, by), USUAL_ORDER)
            : by === "cut and set"
              ? orderOutlook(job, { ...USUAL_ORDER, cutAndSet: true })
              : orderOutlook(job, USUAL_ORDER, undefined, 0.7);
      expect(drain(again).chance).toBe(chance);
    }
    expect(found.tried.map((t) => t.by)).toContain("heat");
    // Another way of holding it is among them wherever there is one.
    const { quad } = builtOf(plan).structure ?? {};
    expect(found.tried.some((t) => t.by === "strongbacks")).toBe(quad?.view.depth === 2);
    expect(found.tried.some((t) => t.by === "side")).toBe(outlook.limits.some((l) => l.limit.mouth));
    const words = remedyWords(found, plan.units);
    expect(words).toHaveLength(1 + found.tried.length);
    for (const { chance } of found.tried) {
      const said = words.find((w) =>
        w.includes(`: ${chanceWords(chance)} instead of ${chanceWords(outlook.chance ?? 0)}`),
      );
      expect(said).toBeDefined();
      expect(/so no help/.test(said ?? "")).toBe(chance - (outlook.chance ?? 0) < EQUAL);
    }
    expect(words[0]).toMatch(/nine in ten/);
    if (plan.units !== "mm") expect(words.join(" ")).not.toMatch(/\d mm/);
  });
  it("of less heat leaves the scatter of the settings as it is: nothing is surer, each weld pulls less", () => {
    const of = (share: number) =>
      drain(predicting(sizesPlan(), { heatShare: share })).prediction.outcomes.find((o) => o.id.kind === "span");
    const [whole, less] = [of(1), of(0.7)];
    const width = (o: typeof whole) => ((o?.estimate.high ?? 0) - (o?.estimate.low ?? 0)) / Math.abs(o?.nominal ?? 0);
    expect(Math.abs(less?.nominal ?? 9)).toBeLessThan(0.85 * Math.abs(whole?.nominal ?? 0));
    expect(width(less) / width(whole)).toBeGreaterThan(0.8);
  });
  it("is not asked where one does", () => {
    const likely = { ...drain(orderOutlook(inOrder(jobs(sizesPlan()), USUAL_ORDER), USUAL_ORDER, 24)), chance: 0.8 };
    expect(unlikelyAtBest([likely, { ...likely, chance: 0.1 }])).toBeNull();
    expect(unlikelyAtBest([{ ...likely, chance: null }])).toBeNull();
  });
});

import { describe, expect, it } from "vitest";
import { squareTube, started } from "../../../tests/support/drawnFrames";
import { job as jobOf } from "../../../tests/support/jobs";
import { drawnPlan } from "../../../tests/support/plans";
import { keptByHinges } from "../fixture";
import { length } from "../units";
import { backBow, backBowWords, bowedMembers } from "./backBow";
import { builtOf } from "./built";
import { evaluate } from "./evaluate";
import type { Plan } from "./planSchema";
import { predict } from "./predict";

const plan = drawnPlan(started("rails with a kink", {}, squareTube(40, 3)));
const on = (p: Plan) => {
  const { structure } = builtOf(p);
  const { prediction } = evaluate(
    jobOf([], () => p),
    predict(p)?.prediction ?? null,
  );
  if (!structure || !prediction) throw new Error("no prediction");
  return { structure, prediction, bowed: bowedMembers(structure, prediction) };
};
const { structure, prediction, bowed } = on(plan);
const [first] = bowed;
if (!first) throw new Error("nothing bows");
const tried = (...trials: [string, string][]): Plan => ({
  ...plan,
  fixture: {
    trials: trials.map(([shim, left], i) => ({
      id: `T${i + 1}`,
      member: first.member,
      shim: length(shim),
      left: length(left),
    })),
  },
});

describe("a member bent against its bow", () => {
  it("is one that is predicted to bow, by as much as the forecast says, most first", () => {
    for (const b of bowed) {
      const id = prediction.outcomes.find((o) => o.id.kind === b.kind && "member" in o.id && o.id.member === b.member);
      expect(b.freeMm).toBeCloseTo(Math.abs(id?.estimate.value ?? 0), 9);
    }
    expect(bowed.map((b) => b.freeMm)).toEqual([...bowed.map((b) => b.freeMm)].sort((a, b) => b - a));
    // A frame that does not bow has nothing to bend.
    const gentle = on(jobOf([]).plan);
    for (const b of gentle.bowed) expect(b.freeMm).toBeGreaterThanOrEqual(0.3);
  });
  it("begins with the shim that leaves it straight by the model, within what is not known of it", () => {
    const found = backBow(plan, structure, first);
    if (!found?.begin) throw new Error("no shim");
    const { likelyMm, lowMm, highMm } = found.begin;
    expect(lowMm).toBeLessThan(likelyMm);
    if (highMm !== null) expect(highMm).toBeGreaterThan(likelyMm);
    const bending = {
      section: { widthMm: 40, heightMm: 40, wallMm: 3 },
      lengthMm: found.longMm,
      youngMPa: 210_000,
      yieldMPa: 355,
    };
    expect(keptByHinges(bending, found.uprightsMm, 0.5, found.freeMm, likelyMm).finalMm).toBeCloseTo(0, 6);
    expect(found.nextMm).toBeNull();
    const said = backBowWords(found, "mm").join(" ");
    expect(said).toContain(`${likelyMm.toFixed(1)} mm under its middle`);
    expect(said).toMatch(/It takes \d/);
  });
  it("goes on from one trial by what it kept, and from two along the line through them", () => {
    const begin = backBow(plan, structure, first)?.begin?.likelyMm ?? 0;
    const bent = tried([begin.toFixed(2), "-0.5"]);
    const one = backBow(bent, structure, first)?.nextMm ?? 0;
    expect(one).toBeGreaterThan(begin);
    const two = backBow(tried(["20", "-2"], ["30", "1"]), structure, first)?.nextMm ?? 0;
    expect(two).toBeCloseTo(20 + (10 * 2) / 3, 6);
    expect(backBow(tried(["20", "1"], ["30", "1"]), structure, first)?.nextMm).toBeNull();
    // Of another member nobody tried anything.
    const other = bowed.find((b) => b.member !== first.member);
    if (other) expect(backBow(bent, structure, other)?.nextMm).toBeNull();
  });
  it("is none of a hardened alloy", () => {
    const alloy = drawnPlan(started("rails with a kink", {}, { ...squareTube(40, 3), material: "aluminium 6061" }));
    expect(on(alloy).bowed).toEqual([]);
  });
});

import { describe, expect, it } from "vitest";
import { started } from "../../../tests/support/drawnFrames";
import { job as jobOf } from "../../../tests/support/jobs";
import { drawnPlan } from "../../../tests/support/plans";
import { drain } from "../numeric";
import { USUAL_ORDER } from "../plan";
import { largestSteps } from "../shrink";
import { length } from "../units";
import { chanceWords } from "./forecast";
import { unlikelyAtBest } from "./orderAdvice";
import { orderOutlook } from "./outlookByDraws";
import { mostWords, worstWords } from "./outlookWords";
import { predict } from "./predict";

describe("an order's outlook in words", () => {
  const tight = (name: string) => {
    const plan = drawnPlan(started(name));
    const limits = plan.limits.kind === "own" ? { ...plan.limits, flat: length("0.4") } : plan.limits;
    return jobOf([], () => ({ ...plan, limits }));
  };
  it("names the limit kept most seldom with its chance, and the welds that move it most with what the replay says of them", () => {
    for (const job of [jobOf([]), tight("ladder"), tight("gate leaf")]) {
      const found = drain(orderOutlook(job, USUAL_ORDER, 60));
      const least = Math.min(...found.limits.map((l) => l.chance));
      expect(found.worst?.chance).toBe(least);
      const said = worstWords(found, "mm");
      expect(said).toContain(chanceWords(least));
      expect(/outside/.test(said)).toBe((found.worst?.outside ?? 0) > 0);
      const replay = predict(job.plan)?.replay;
      const limit = found.worst?.limit;
      if (!replay || !limit) throw new Error("no prediction");
      const id =
        limit.kind === "size"
          ? { kind: "span" as const, span: limit.id as "AB" }
          : { kind: limit.kind === "diagonal" ? ("square" as const) : ("twist" as const) };
      const most = largestSteps(replay, id)
        .filter((s) => /^(tack|bead)\//.test(s.step))
        .slice(0, 3);
      expect(found.most.map((m) => m.by)).toEqual(most.map((m) => expect.closeTo(m.change, 6)));
      const words = mostWords(found, "mm");
      for (const { say, by } of found.most)
        expect(words).toContain(`${say} (${by < 0 ? "−" : "+"}${Math.abs(by).toFixed(2)} mm)`);
    }
  });
  it("asks what would help in an order that keeps what must wait, though another be likelier", () => {
    const found = drain(orderOutlook(tight("ladder"), USUAL_ORDER, 30));
    const broken = { ...found, chance: 0.4, keeps: false };
    const kept = { ...found, chance: 0.3, keeps: true };
    expect(unlikelyAtBest([broken, kept])).toBe(kept);
    expect(unlikelyAtBest([broken])).toBe(broken);
  });
});

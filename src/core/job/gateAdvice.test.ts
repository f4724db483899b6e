import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { base, job as jobOf, round } from "../../../tests/support/jobs";
import type { Entry } from "./entrySchema";
import { evaluate } from "./evaluate";
import { chanceWords } from "./forecast";
import { predict } from "./predict";

const plain = jobOf([]);
const prediction = predict(plain.plan)?.prediction ?? null;
const steps = evaluate(plain, prediction).order?.steps ?? [];
const second = steps.findIndex((s) => s.key === "measure/tacked-2");
const ticks = (): Entry[] =>
  steps
    .slice(0, second)
    .filter((s) => s.joint !== null)
    .map((s): Entry => ({ ...base(), kind: "tick", step: s.id, done: true }));
/** A frame of 1000 by 600 leaning by so much between its diagonals, sides longer by so much. */
const taped = (lean: number, longer: number): Entry[] => {
  const [l, w] = [1000 + longer, 600 + longer];
  const d = Math.hypot(l, w);
  return round("tacked", {
    AB: l.toFixed(2),
    BC: w.toFixed(2),
    CD: l.toFixed(2),
    DA: w.toFixed(2),
    AC: (d + lean / 2).toFixed(2),
    BD: (d - lean / 2).toFixed(2),
  });
};
const at = (entries: Entry[]) => evaluate({ ...plain, entries }, prediction);

describe("what a gate asks for", () => {
  it("is nothing before anything is read", () => {
    expect(at([]).atGate).toBeNull();
  });
  it("is to go on where every limit is likely kept, and to act where one is not, with the chance of the worst", () => {
    fc.assert(
      fc.property(
        fc.double({ min: -8, max: 8, noNaN: true }),
        fc.double({ min: -1, max: 3, noNaN: true }),
        fc.boolean(),
        (lean, longer, locked) => {
          const entries = locked ? [...taped(0, 0.4), ...ticks(), ...taped(lean, longer)] : taped(lean, longer);
          const { atGate, forecasts, frameRounds } = at(entries);
          if (!atGate) throw new Error("nothing said");
          const chances = forecasts.flatMap((f) => (f.chance === null ? [] : [f.chance]));
          const worst = Math.min(...chances);
          expect(atGate.do).toBe(worst < 0.5 ? "act" : worst < 0.8 ? "weigh" : "go on");
          if (atGate.do !== "act") expect(atGate.say).toContain(chanceWords(worst));
          const limit = forecasts.find((f) => f.chance === worst)?.limit;
          if (atGate.do === "act" && limit?.kind === "diagonal")
            expect(atGate.say).toMatch(frameRounds.at(-1)?.locked ? /^Cut the tacks/ : /^Nudge it square now/);
          if (atGate.do === "act" && limit?.kind === "size") expect(atGate.say).toMatch(/^Re-fit or re-cut/);
        },
      ),
      { numRuns: 60 },
    );
  });
  it("tells the chances that the reading moved, and no others", () => {
    const before = at([]);
    const { atGate, forecasts } = at(taped(6, 0.4));
    for (const f of forecasts) {
      const was = before.forecasts.find((b) => b.limit.id === f.limit.id)?.chance ?? null;
      const told = atGate?.moved.some((m) => m.startsWith(`${f.limit.label}:`));
      expect(told, f.limit.id).toBe(f.chance !== null && was !== null && Math.abs(f.chance - was) >= 0.05);
    }
    expect(atGate?.moved.length).toBeGreaterThan(0);
  });
});

import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { evaluate, job, opened, read, slope } from "../../../tests/support/jobs";
import { levelReversal } from "../instruments";
import { length } from "../units";
import { bubbleMmPerM, packerMmPerM, statedSlope, turnedLevel } from "./bubble";
import { readingProblem } from "./entries";
import type { How } from "./entrySchema";
import { levelMembers } from "./levelled";
import type { Plan } from "./planSchema";

describe("a level read by its bubble", () => {
  it("says up to the end that the bubble sits toward, by divisions times what one is", () => {
    const bubble = { divisions: 1.5, perDivisionMmPerM: 0.3 };
    expect(bubbleMmPerM({ ...bubble, toward: "to" })).toBeCloseTo(0.45, 12);
    expect(bubbleMmPerM({ ...bubble, toward: "from" })).toBeCloseTo(-0.45, 12);
  });
  it("with packers under the low end: half a millimetre under 900 mm is 0.56 mm/m (common practice, no source)", () => {
    const packer = { thick: length("0.5"), base: length("900") };
    expect(packerMmPerM({ ...packer, under: "from" })).toBeCloseTo(0.556, 3);
    expect(packerMmPerM({ ...packer, under: "to" })).toBeCloseTo(-0.556, 3);
  });
  it("turned end for end tells bench from level, whatever either is out by (closed form)", () => {
    const some = fc.double({ min: -5, max: 5, noNaN: true });
    fc.assert(
      fc.property(some, some, (bench, zero) => {
        const found = turnedLevel(bench + zero, bench - zero);
        expect(found.slope).toBeCloseTo(bench, 9);
        expect(found.zero).toBeCloseTo(zero, 9);
        const other = levelReversal(bench + zero, bench - zero, 0.1, "world");
        expect([other.slope, other.zeroError]).toEqual([expect.closeTo(bench, 9), expect.closeTo(zero, 9)]);
      }),
    );
  });
  it("is refused where it does not say what is kept", () => {
    const what = { kind: "rest", rest: "R2" } as const;
    const how: How = { by: "slope", from: "R1", arrow: "on" };
    const bubble = { divisions: 1.5, toward: "to" as const, perDivisionMmPerM: 0.3 };
    expect(readingProblem({ what, how, value: statedSlope(0.45), taken: { bubble } })).toBeNull();
    expect(readingProblem({ what, how, value: statedSlope(-0.45), taken: { bubble } })?.message).toContain(
      "bubble says",
    );
    expect(readingProblem({ what: { kind: "gap", at: "A" }, value: length("1"), taken: { bubble } })).not.toBeNull();
  });
});

describe("a bed stepped round by a level", () => {
  /** Heights of four rests under the corners, by the order of their names. */
  const bedOf = (zero: number, turned: boolean) => {
    const heights = { R1: 0, R2: 0.4, R3: 0.9, R4: 0.7 } as const;
    const j = job([]);
    const at = new Map(j.plan.bed.rests.map((r) => [r.id, { x: r.x.mm, y: r.y.mm }]));
    const r = opened("bed");
    const steps = [
      ["R1", "R2"],
      ["R2", "R4"],
      ["R4", "R3"],
      ["R3", "R1"],
    ] as const;
    const entries = steps.flatMap(([from, to]) => {
      const [p, q] = [at.get(from), at.get(to)] as [{ x: number; y: number }, { x: number; y: number }];
      const rise = (1000 * (heights[to] - heights[from])) / Math.hypot(p.x - q.x, p.y - q.y);
      const one = (arrow: "on" | "back", again: boolean) =>
        read(
          r.id,
          { kind: "rest", rest: to },
          null,
          {
            value: slope((rise + (arrow === "on" ? zero : -zero)).toFixed(4)),
            how: { by: "slope", from, arrow },
            ...(again ? { again: true } : {}),
          },
          "spirit-level",
        );
      return turned ? [one("on", false), one("back", true)] : [one("on", false)];
    });
    const [round] = evaluate(job([r, ...entries])).bedRounds;
    if (round?.survey.status !== "ok") throw new Error("a survey expected");
    return { survey: round.survey, heights };
  };
  it("turned end for end at every step gives the heights, whatever the level is out by", () => {
    for (const zero of [0, 0.6, -2]) {
      const { survey, heights } = bedOf(zero, true);
      for (const [rest, mm] of Object.entries(heights)) expect(survey.zMm[rest], `${rest} ${zero}`).toBeCloseTo(mm, 2);
    }
  });
  it("one way round finds the level's own error by the loop", () => {
    const { survey, heights } = bedOf(0.3, false);
    for (const [rest, mm] of Object.entries(heights)) expect(survey.zMm[rest], rest).toBeCloseTo(mm, 1);
  });
});

describe("level as a limit", () => {
  const limited = (p: Plan): Plan => ({ ...p, limits: { ...p.limits, levelMmPerM: 1 } });
  const verdict = (slopes: Readonly<Record<string, string>>) => {
    const r = opened("cold");
    const list = Object.entries(slopes).map(([at, text]) =>
      read(r.id, { kind: "level", at }, null, { value: slope(text) }, "spirit-level"),
    );
    return evaluate(job([r, ...list], limited)).cold?.verdicts.find((v) => v.limit.id === "level")?.result?.verdict;
  };
  it("holds along and across: one way alone is not read yet, unless it is past the limit already", () => {
    const { structure } = evaluate(job([], limited));
    if (!structure) throw new Error("a structure expected");
    expect(levelMembers(structure)).toEqual(["AB", "DA"]);
    expect(verdict({ AB: "0.1" })).toBeUndefined();
    expect(verdict({ AB: "0.1", DA: "-0.1" })).toBe("pass");
    expect(verdict({ AB: "4" })).toBe("fail");
    expect(verdict({ AB: "0.1", CD: "0.2" })).toBeUndefined();
  });
});

describe("feet", () => {
  it("are turned only where they are; what has none stays as it stands", () => {
    const feet =
      (list?: string[]) =>
      (p: Plan): Plan => ({
        ...p,
        bed: { ...p.bed, adjust: "feet", ...(list ? { feet: list } : {}) },
      });
    const r = opened("bed");
    const heights = [read(r.id, "R1", "0"), read(r.id, "R2", "2"), read(r.id, "R3", "1"), read(r.id, "R4", "3")].map(
      (e) => ({ ...e, instrumentId: "height-gauge" }),
    );
    const rests = (list?: string[]) => evaluate(job([r, ...heights], feet(list))).bedRounds[0]?.verdict.rests ?? [];
    expect(rests().filter((x) => x.foot)).toHaveLength(4);
    expect(rests(["R1", "R2"]).map((x) => x.foot !== null)).toEqual([true, true, false, false]);
    expect(rests(["R1", "R2"]).map((x) => x.fixed)).toEqual([false, false, true, true]);
  });
});

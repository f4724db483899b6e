import { describe, expect, it } from "vitest";
import { base, job, opened, read } from "../../../tests/support/jobs";
import type { Entry } from "./entrySchema";
import { evaluate } from "./evaluate";
import type { FrameRound } from "./frameRound";
import { predict } from "./predict";
import {
  addedInWords,
  addedWords,
  bandWords,
  cutToWords,
  diagonalsThenWords,
  heldWords,
  lockedWords,
  toGapWords,
} from "./words";

describe("what a piece is cut to, in words", () => {
  const j = job([]);
  const [unknown] = evaluate(j, null).cut;
  const [known] = evaluate(j, predict(j.plan)?.prediction ?? null).cut;
  if (!unknown || !known) throw new Error("pieces expected");
  it("is a dash while it is being worked out, never nought and never the drawing's length in passing", () => {
    expect(unknown.allowanceMm).toBeNull();
    expect(addedWords(unknown, "mm")).toBe("–");
    expect(cutToWords(unknown, "mm", true)).toBe("–");
  });
  it("says that nothing is added where that cannot be worked out", () => {
    expect(cutToWords(unknown, "mm", false)).toBe("1000.0 mm, nothing added for the weld");
  });
  it("is the length with what is added, once that is known", () => {
    if (!known.allowanceMm) throw new Error("known expected");
    expect(addedWords(known, "mm")).toBe(bandWords(known.allowanceMm, "mm"));
    expect(cutToWords(known, "mm", true)).toMatch(/^1000\.\d mm$/);
    expect(addedWords({ ...known, fixed: true }, "mm")).toBe("must not move");
  });
});

describe("a piece that is cut to its gap, in words", () => {
  const said = (gapMm: number, workedOutMm: number | null, units: "mm" | "inch-decimal" = "mm") =>
    toGapWords({ toGap: { gapMm, workedOutMm }, cutLongPointMm: gapMm }, ["T1", "T2"], units);
  it("tells by how much its neighbours end off where they are aimed, which way, and to what they are brought first", () => {
    expect(said(1092, 1094.4)).toMatch(
      /^What is worked out for it is 2\.4\smm longer: .* T1 and T2 end so much nearer .* Spread them to 1094\.4\smm first/,
    );
    expect(said(1094.4, 1092)).toMatch(/2\.4\smm shorter: .* farther apart .* Draw them together to 1092\.0\smm first/);
    expect(said(1092, 1092.3)).toMatch(/^What is worked out for it is the same to 0\.5\smm\.$/);
    expect(said(1092, 1094.4, "inch-decimal")).toMatch(/0\.094\sin longer.* Spread them to 43\.087\sin/);
    expect(said(1092, null)).toBeNull();
    expect(toGapWords({ toGap: null, cutLongPointMm: 1 }, ["T1", "T2"], "mm")).toBeNull();
  });
  it("says at the allowance that there is none", () => {
    const worked = { fixed: false, toGap: null, allowanceMm: { value: 0.3, low: 0.2, high: 0.6 } };
    expect(addedInWords(worked, "mm")).toBe(`added ${addedWords(worked, "mm")}`);
    expect(addedInWords({ ...worked, fixed: true }, "mm")).toBe("must not move");
    expect(addedInWords({ ...worked, toGap: { gapMm: 10, workedOutMm: null } }, "mm")).toBe("to its gap");
    const none = { value: 0, low: 0, high: 0 };
    expect(addedWords({ fixed: false, toGap: { gapMm: 10, workedOutMm: null }, allowanceMm: none }, "mm")).toBe(
      "to its gap",
    );
  });
});

describe("what a frame reads when it is racked", () => {
  it("is one figure where it is square then, and two where it leans as drawn", () => {
    expect(diagonalsThenWords({ AC: 1166.19, BD: 1166.2 }, "mm")).toBe("both diagonals then read 1166.2 mm");
    expect(diagonalsThenWords({ AC: 1252.1, BD: 1650.3 }, "mm")).toBe("AC then reads 1252.1 mm, BD 1650.3 mm");
  });
});

describe("a frame that is locked", () => {
  it("is told to slide while it can, and nothing of the kind once every tack is in", () => {
    const r = opened("tacked");
    const spans = { AB: "1000", BC: "600", CD: "1000", DA: "600", AC: "1170.2", BD: "1162.2" };
    const readings = Object.entries(spans).map(([w, t]) => read(r.id, w, t));
    const loose = evaluate(job([r, ...readings]), null);
    const move = heldWords(loose.frameRounds[0] as FrameRound, "hinges", 0, "mm");
    expect(lockedWords(loose.frameRounds[0] ?? null, move)).toBe(move);
    const tacks = loose.steps.flatMap((s): Entry[] =>
      s.id.do === "tack" ? [{ kind: "tick", ...base(), step: s.id, done: true }] : [],
    );
    const locked = evaluate(job([...tacks, r, ...readings]), null).frameRounds[0];
    expect(locked?.locked).toBe(true);
    expect(lockedWords(locked ?? null, move)).toMatchObject({
      act: "leave",
      say: expect.stringMatching(/^It is locked/),
    });
  });
});

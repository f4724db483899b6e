import { describe, expect, it } from "vitest";
import { job } from "../../../tests/support/jobs";
import { evaluate } from "./evaluate";
import { predict } from "./predict";
import { addedWords, bandWords, cutToWords } from "./words";

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

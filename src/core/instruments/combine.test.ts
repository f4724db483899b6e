import { describe, expect, it } from "vitest";
import { oddOne } from "./oddOne";

describe("instruments held against each other", () => {
  it("agree, or two disagree without saying which, or one of three is the odd one", () => {
    const r = (name: string, value: number, u = 0.05) => ({ name, value, u });
    expect(oddOne([r("a", 10), r("b", 10.05)]).say).toMatch(/agree/);
    expect(oddOne([r("a", 10), r("b", 10.6)])).toMatchObject({ odd: null, say: expect.stringMatching(/third/) });
    const three = oddOne([r("feeler", 10), r("calliper", 10.02), r("rule", 10.7)]);
    expect(three.odd).toBe(2);
    expect(three.say).toMatch(/rule is the odd one/);
    expect(oddOne([r("a", 10), r("b", 10.6), r("c", 11.2)]).odd).toBeNull();
  });
});

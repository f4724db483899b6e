import { describe, expect, it } from "vitest";
import { oddOne } from "./oddOne";

const read = (...values: [string, number][]) => values.map(([name, value]) => ({ name, value, u: 0.2 }));

describe("instruments on one length", () => {
  it("agree, or two of them disagree and nobody can say which", () => {
    expect(oddOne(read(["tape", 1000], ["rule", 1000.1])).odd).toBeNull();
    const two = oddOne(read(["tape", 1000], ["rule", 1003]));
    expect(two.odd).toBeNull();
    expect(two.say).toMatch(/tape and rule disagree.*third/);
  });
  it("with three the odd one is named, when there is just one", () => {
    expect(oddOne(read(["tape", 1000], ["rule", 1000.1], ["calliper", 1004]))).toMatchObject({ odd: 2 });
    expect(oddOne(read(["a", 1000], ["b", 1004], ["c", 1008])).odd).toBeNull();
  });
});

import { describe, expect, it } from "vitest";
import { timeLeft } from "./timeLeft";

const begun = { atMs: 5000, share: 0 };
const told = (seconds: number, share: number) => timeLeft(begun, { atMs: 5000 + 1000 * seconds, share });

describe("how long it goes on", () => {
  it("is told as it went so far", () => {
    expect(told(60, 0.1)).toBe("about 9 min left");
    expect(told(300, 0.75)).toBe("about 2 min left");
    expect(told(30, 0.4)).toBe("about 1 min left");
  });
  it("is not told where nothing is done yet, it has just begun, or it is over soon", () => {
    expect(told(5, 0.01)).toBeNull();
    expect(told(60, 0)).toBeNull();
    expect(told(1, 0.5)).toBeNull();
    expect(told(300, 0.97)).toBeNull();
    expect(timeLeft({ atMs: 0, share: 0.5 }, { atMs: 1000, share: 0.4 })).toBeNull();
  });
  it("counts from where it was first seen", () => {
    expect(timeLeft({ atMs: 0, share: 0.5 }, { atMs: 60_000, share: 0.6 })).toBe("about 4 min left");
  });
});

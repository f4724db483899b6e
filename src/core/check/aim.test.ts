import { describe, expect, it } from "vitest";
import { length } from "../units";
import { aimOf } from "./aim";
import type { Limits } from "./limitsSchema";

const own = (lower: string | null, upper: string | null): Extract<Limits, { kind: "own" }> => ({
  kind: "own",
  length: { lower: lower === null ? null : length(lower), upper: upper === null ? null : length(upper) },
  width: { lower: length("-1"), upper: length("1") },
  square: null,
  flat: null,
  levelMmPerM: null,
  gap: null,
  flush: null,
});

describe("where the finished frame is aimed", () => {
  it("is the middle of the limits, and the drawing where that is wanted or one side is open", () => {
    expect(aimOf(own("-1.6", "0"))).toEqual({ lengthMm: -0.8, widthMm: 0 });
    expect(aimOf({ ...own("-1.6", "0"), aim: "drawing" })).toEqual({ lengthMm: 0, widthMm: 0 });
    expect(aimOf(own(null, "0")).lengthMm).toBe(0);
    expect(aimOf({ kind: "class", linear: "B", flat: "F", levelMmPerM: null, confirmed: {} })).toEqual({
      lengthMm: 0,
      widthMm: 0,
    });
  });
});

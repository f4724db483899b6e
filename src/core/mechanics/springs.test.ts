import { describe, expect, it } from "vitest";
import { springEntries } from "./springs";

const ROWS = [
  { at: [0, 5], value: [1, -2] },
  { at: [3], value: [4] },
];

describe("what a spring adds to the stiffness", () => {
  it("is the work of its movements: one way against itself, and against another that it is tied to", () => {
    expect(springEntries(ROWS, Float64Array.of(2, 0.5, 0.5, 3))).toEqual([
      [0, 0, 2],
      [0, 5, -4],
      [5, 0, -4],
      [5, 5, 8],
      [0, 3, 2],
      [5, 3, -4],
      [3, 0, 2],
      [3, 5, -4],
      [3, 3, 48],
    ]);
  });
  it("is no entry at all where it holds nothing, so that a place that is only touched keeps the envelope narrow", () => {
    expect(springEntries(ROWS, new Float64Array(4))).toEqual([]);
    expect(springEntries(ROWS, Float64Array.of(0, 0, 0, 3))).toEqual([[3, 3, 48]]);
  });
});

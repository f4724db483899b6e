import { describe, expect, it } from "vitest";
import { seeded } from "../numeric";
import { giveRowsBack, plainRows, rowsFor } from "./heldRows";
import { type HeldRows, heldKernel } from "./kernel/heldKernel";

const HOLDERS = 3;
const DRAWS = 5;
const WIDTH = 36;
const LINES_OF_ALL = 12;

/** Rows with something in every array. */
function filled(rows: HeldRows, seed: number): HeldRows {
  const random = seeded(seed);
  const { held, pressed, forces, sizes, start, units } = rows;
  for (const array of [held, forces, sizes, start, units])
    for (let i = 0; i < array.length; i++) array[i] = random() - 0.5;
  for (let i = 0; i < pressed.length; i++) pressed[i] = random() < 0.5 ? 0 : random();
  rows.limit.fill(0.9);
  rows.limit[4] = Number.POSITIVE_INFINITY;
  rows.most.set([1, 0.8, 1.2, 1, 1]);
  rows.touchMm.fill(0.6);
  rows.by.set([0.5, -2, 0.25]);
  rows.which.set([7, 0, 127]);
  return rows;
}
/** What is wrong with a row, one entry after the other. */
const wrongIn = ({ held, pressed, limit, most, touchMm }: HeldRows, d: number): boolean =>
  Array.from({ length: WIDTH }, (_, k) => {
    const here = held[d * WIDTH + k] as number;
    const touch = touchMm[d] as number;
    if (k < LINES_OF_ALL) return Math.abs(here) > (limit[k] as number) * (most[d] as number);
    const presses = (pressed[d * (WIDTH - LINES_OF_ALL) + k - LINES_OF_ALL] as number) > 0;
    return here > touch || (here < -touch && presses);
  }).includes(true);

const made = (): HeldRows[] => {
  const kernel = heldKernel(HOLDERS, DRAWS);
  expect(kernel).not.toBeNull();
  return [kernel as HeldRows, plainRows(HOLDERS, DRAWS)];
};

describe("rows of what is held", () => {
  it.each([1, 2, 3, 4, 5, 6])("take what sources bring, by the kernel and without: seed %i", (seed) => {
    const [kernel, plain] = made().map((rows) => filled(rows, seed)) as [HeldRows, HeldRows];
    const before = plain.held.slice();
    const sources = seed % 7;
    for (const rows of [kernel, plain]) rows.bring(sources);
    expect(kernel.held).toEqual(plain.held);
    expect(kernel.wrong).toEqual(plain.wrong);
    for (let d = 0; d < DRAWS; d++) {
      expect(plain.wrong[d]).toBe(wrongIn(plain, d) ? 1 : 0);
      for (let k = 0; k < WIDTH; k++) {
        let sum = before[d * WIDTH + k] as number;
        for (let s = 0; s < sources; s++)
          sum += (plain.sizes[s * DRAWS + d] as number) * (plain.forces[s * WIDTH + k] as number);
        expect(plain.held[d * WIDTH + k]).toBeCloseTo(sum, 12);
      }
    }
  });
  it.each([1, 2, 3, 4])("take what units give to one draw, and leave the others: seed %i", (seed) => {
    const [kernel, plain] = made().map((rows) => filled(rows, seed)) as [HeldRows, HeldRows];
    const before = plain.held.slice();
    const said = [kernel, plain].map((rows) => rows.give(2, 3));
    expect(kernel.held).toEqual(plain.held);
    expect(said).toEqual([wrongIn(plain, 2), wrongIn(plain, 2)]);
    for (let i = 0; i < before.length; i++) {
      const k = i - 2 * WIDTH;
      const sum =
        k < 0 || k >= WIDTH
          ? before[i]
          : (plain.start[k] as number) +
            [7, 0, 127].reduce(
              (s, unit, q) => s + (plain.by[q] as number) * (plain.units[unit * WIDTH + k] as number),
              0,
            );
      expect(plain.held[i]).toBeCloseTo(sum as number, 12);
    }
  });
  it("says by kernel and without what alone is wrong, wherever it is", () => {
    for (const rows of made()) {
      rows.limit.fill(1);
      rows.most.fill(1);
      rows.touchMm.fill(0.1);
      const asked = (): number[] => {
        rows.bring(0);
        return [...rows.wrong];
      };
      expect(asked()).toEqual([0, 0, 0, 0, 0]);
      for (let k = 0; k < WIDTH; k++) {
        rows.held[WIDTH + k] = k < LINES_OF_ALL ? -1.5 : 0.2;
        expect(asked()).toEqual([0, 1, 0, 0, 0]);
        rows.held[WIDTH + k] = k < LINES_OF_ALL ? 1 : -0.2;
        expect(asked()).toEqual([0, 0, 0, 0, 0]);
        if (k < LINES_OF_ALL) continue;
        rows.pressed[WIDTH - LINES_OF_ALL + k - LINES_OF_ALL] = 3;
        expect(asked()).toEqual([0, 1, 0, 0, 0]);
        rows.pressed.fill(0);
        rows.held.fill(0);
      }
    }
  });
  it("are used again once they were given back, for as many draws of as many joints only", () => {
    const rows = rowsFor(HOLDERS, DRAWS);
    expect(rowsFor(HOLDERS, DRAWS)).not.toBe(rows);
    giveRowsBack(rows);
    expect(rowsFor(HOLDERS, 1)).not.toBe(rows);
    expect(rowsFor(HOLDERS, DRAWS)).toBe(rows);
    giveRowsBack(rows);
    expect(rowsFor(HOLDERS + 1, DRAWS)).not.toBe(rows);
  });
});

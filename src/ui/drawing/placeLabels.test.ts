import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { alongStretch, type Box, boxOf, type Label, placeLabels } from "./placeLabels";

const apart = (a: Box, b: Box): boolean =>
  a.right <= b.left || b.right <= a.left || a.bottom <= b.top || b.bottom <= a.top;

describe("labels on a drawing", () => {
  it("never cover each other, unless one must be shown and has nowhere to go", () => {
    const place = fc.record({ x: fc.integer({ min: 0, max: 400 }), y: fc.integer({ min: 0, max: 300 }) });
    const label = fc.record({
      text: fc.string({ minLength: 1, maxLength: 8 }),
      size: fc.constantFrom(12, 13, 14),
      at: fc.array(place, { minLength: 1, maxLength: 5 }),
      upright: fc.boolean(),
    });
    fc.assert(
      fc.property(fc.array(label, { maxLength: 25 }), (list) => {
        const labels = list.map((l, i): Label => ({ ...l, key: String(i) }));
        const put = placeLabels(labels);
        const boxes = labels.flatMap((l) => {
          const at = put.get(l.key);
          return at ? [boxOf(l, at)] : [];
        });
        boxes.forEach((a, i) => {
          for (const b of boxes.slice(i + 1)) expect(apart(a, b)).toBe(true);
        });
      }),
    );
  });
  it("take their first place where it is free, and the next where it is not", () => {
    const at = alongStretch({ x: 0, y: 0 }, { x: 200, y: 0 });
    const two = placeLabels([
      { key: "a", text: "M1", size: 12, at },
      { key: "b", text: "M2", size: 12, at },
    ]);
    expect(two.get("a")).toEqual({ x: 100, y: 0 });
    expect(two.get("b")).toEqual({ x: 72, y: 0 });
  });
  it("that must be shown are shown where they cover least", () => {
    const here = [{ x: 0, y: 0 }];
    const put = placeLabels([
      { key: "a", text: "1200.5", size: 14, at: here },
      { key: "b", text: "R1", size: 14, at: [...here, { x: 20, y: 0 }], must: true },
      { key: "c", text: "R2", size: 14, at: here },
    ]);
    expect(put.get("b")).toEqual({ x: 20, y: 0 });
    expect(put.has("c")).toBe(false);
  });
});

import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { length } from "../units";
import type { DrawnSection } from "./drawnSchema";
import { fromLines, usualWish } from "./fromLines";
import { DRAWING_UNITS, type DrawingUnit, type LineWork, likelyUnit } from "./lineWork";

const TUBE: DrawnSection = {
  id: "S1",
  shape: "tube",
  profile: "40×40×3",
  width: length("40"),
  height: length("40"),
  wall: length("3"),
  material: "mild steel",
};

type Flat = readonly [number, number, number, number];
const work = (lines: readonly Flat[], layer = "0", unit: DrawingUnit | null = "mm"): LineWork => ({
  lines: lines.map(([a, b, c, d]) => ({ layer, from: [a, b, 0], to: [c, d, 0] })),
  unit,
  isInchHabit: false,
  unread: [],
});
const made = (w: LineWork, unit: DrawingUnit = "mm") => {
  const r = fromLines(w, { ...usualWish(w, unit), unit }, TUBE, "mm");
  if (!r.ok) throw new Error(r.message);
  return r.value;
};
const RECTANGLE: Flat[] = [
  [0, 0, 1160, 0],
  [1160, 0, 1160, 760],
  [1160, 760, 0, 760],
  [0, 760, 0, 0],
];

describe("members from centre lines", () => {
  it("makes a rectangle with its corners where the outside is at nought", () => {
    const { frame, structure, near, clashes } = made(work(RECTANGLE));
    expect(frame.members.map((m) => m.id).sort()).toEqual(["AB", "BC", "CD", "DA"]);
    expect(structure.quad?.lengthMm).toBeCloseTo(1200, 6);
    expect(structure.quad?.widthMm).toBeCloseTo(800, 6);
    expect(structure.low.map((v) => +v.toFixed(6))).toEqual([0, 0, 0]);
    expect(structure.joints).toHaveLength(4);
    expect([near, clashes]).toEqual([[], []]);
  });

  it("joins a rail that is drawn from tee to tee, and leaves a cross member in two where a rail runs through", () => {
    const pieces: Flat[] = [
      [0, 0, 400, 0],
      [400, 0, 900, 0],
      [900, 0, 1200, 0],
      [400, 0, 400, 600],
      [900, 0, 900, 600],
    ];
    const { frame, told } = made(work(pieces));
    expect(frame.members).toHaveLength(3);
    expect(told.join()).toContain("became one");
    const through: Flat[] = [
      [0, 0, 0, 2000],
      [-500, 1000, 0, 1000],
      [0, 1000, 500, 1000],
    ];
    const two = made(work(through));
    expect(two.frame.members).toHaveLength(3);
    expect(two.structure.joints).toHaveLength(2);
  });

  it("fits a brace into a corner between the two that make it", () => {
    const { structure } = made(work([[0, 0, 600, 760], ...RECTANGLE]));
    const brace = structure.members.find((m) => m.id.startsWith("M"));
    // Nothing of it stands out past the corner.
    expect(structure.low.map((v) => +v.toFixed(6))).toEqual([0, 0, 0]);
    expect(structure.joints.find((j) => j.id === "A")?.kind).toBe("mitre");
    expect(brace?.ends.from.cutters.length).toBeGreaterThan(0);
  });

  it("cuts the shorter of two that cross", () => {
    const { frame, told, clashes } = made(
      work([
        [0, 500, 2000, 500],
        [1000, 0, 1000, 1200],
      ]),
    );
    expect(frame.members).toHaveLength(3);
    expect(clashes).toEqual([]);
    expect(told.join()).toContain("cross");
  });

  it("takes lines that lie over each other once, and leaves specks out", () => {
    const { frame, told } = made(work([...RECTANGLE, ...RECTANGLE, [100, 100, 102, 100]]));
    expect(frame.members).toHaveLength(4);
    expect(told.join(" ")).toMatch(/4 lines lie over others.*became one/);
    expect(told.join(" ")).toContain("1 line shorter than");
  });

  it("takes no more lines than a frame can have", () => {
    const many = Array.from({ length: 9000 }, (_, i): Flat => [i, 0, i, 500]);
    const r = fromLines(work(many), usualWish(work(many), "mm"), TUBE, "mm");
    expect(r).toMatchObject({ ok: false, message: expect.stringContaining("9000 lines are chosen") });
    const none = fromLines(work(RECTANGLE), { unit: "mm", layers: [], means: "centre" }, TUBE, "mm");
    expect(none.ok).toBe(false);
  });
});

/** Outline of a tube on its centre line, as four lines. */
const outline = ([x0, y0, x1, y1]: Flat, w: number): Flat[] => {
  const l = Math.hypot(x1 - x0, y1 - y0);
  const [nx, ny] = [(-(y1 - y0) / l) * (w / 2), ((x1 - x0) / l) * (w / 2)];
  const p = [
    [x0 + nx, y0 + ny],
    [x1 + nx, y1 + ny],
    [x1 - nx, y1 - ny],
    [x0 - nx, y0 - ny],
  ] as const;
  return p.map((a, i) => {
    const b = p[(i + 1) % 4] as readonly [number, number];
    return [a[0], a[1], b[0], b[1]];
  });
};

describe("members from outlines", () => {
  it("finds the tubes, their width, and ends that land on another's face", () => {
    const lines = [
      ...outline([0, 0, 1500, 0], 50),
      ...outline([0, 700, 1500, 700], 50),
      ...outline([400, 25, 400, 675], 50),
      ...outline([1100, 25, 1100, 675], 50),
    ];
    const w = work(lines);
    expect(usualWish(w, "mm").means).toBe("outline");
    const { frame, structure, told } = made(w);
    expect(frame.members).toHaveLength(4);
    expect(frame.sections).toHaveLength(1);
    expect(frame.sections[0]?.width.mm).toBe(50);
    expect(structure.joints).toHaveLength(4);
    expect(told.join()).toContain("50");
  });
  it("finds them whatever the last digits of their corners are: eighths of an inch lie on the edge of a grid", () => {
    const out = (k: number): number => (k % 2 === 0 ? 1e-4 : -1e-4);
    const lines = [
      ...outline([0, 1.5875, 1500, 1.5875], 3.175 * 13),
      ...outline([0, 704.85, 1500, 704.85], 3.175 * 13),
      ...outline([403.225, 25, 403.225, 675], 3.175 * 13),
    ].map((l, i) => l.map((v, k) => v + out(i + k)) as unknown as Flat);
    const { frame } = made({ ...work(lines) });
    expect(frame.members).toHaveLength(3);
    expect(frame.sections[0]?.width.mm).toBeCloseTo(41.275, 2);
  });
  it("finds a butted base as it was drawn, its corners and its outside sizes", () => {
    const box = (x0: number, y0: number, x1: number, y1: number, ring: number) =>
      (
        [
          [x0, y0, x1, y0],
          [x1, y0, x1, y1],
          [x1, y1, x0, y1],
          [x0, y1, x0, y0],
        ] as const
      ).map(([a, b, c, d]) => ({ layer: "0", from: [a, b, 0], to: [c, d, 0], ring }) as const);
    const w: LineWork = {
      ...work([], "0", null),
      lines: [
        ...box(0, 0, 1800, 50, 0),
        ...box(0, 850, 1800, 900, 1),
        ...box(0, 50, 50, 850, 2),
        ...box(1750, 50, 1800, 850, 3),
        ...box(600, 50, 650, 850, 4),
      ],
    };
    const { frame, structure } = made(w);
    expect(frame.members.map((m) => m.id)).toEqual(["AB", "BC", "CD", "DA", "M5"]);
    expect([structure.quad?.lengthMm, structure.quad?.widthMm]).toEqual([1800, 900]);
    const corners = structure.joints.filter((j) => ["A", "B", "C", "D"].includes(j.id));
    expect(corners.map((j) => [j.kind, j.a])).toEqual(
      expect.arrayContaining([
        ["butt", "AB"],
        ["butt", "CD"],
      ]),
    );
    expect(corners.every((j) => j.kind === "butt")).toBe(true);
    expect(structure.members.find((m) => m.id === "M5")?.longMm).toBeCloseTo(800, 6);
    expect(structure.low.map((v) => +v.toFixed(3))).toEqual([0, 0, 0]);
  });
  it("takes a closed ring of centre lines for members, not for an outline", () => {
    expect(usualWish(work(RECTANGLE), "mm").means).toBe("centre");
  });
});

describe("the unit of a drawing", () => {
  it("is what makes it a frame's size, where the file says nothing or what cannot be", () => {
    const scaled = (per: number) => RECTANGLE.map((l) => l.map((v) => v / per) as unknown as Flat);
    expect(likelyUnit(work(RECTANGLE, "0", null))).toEqual({ unit: "mm", why: "by its size" });
    expect(likelyUnit(work(scaled(25.4), "0", null))).toEqual({ unit: "in", why: "by its size" });
    expect(likelyUnit(work(scaled(1000), "0", "m"))).toEqual({ unit: "m", why: "said" });
    expect(likelyUnit(work(scaled(1000), "0", "mm"))).toEqual({ unit: "m", why: "said, but odd" });
  });
});

describe("ladders, whatever their size, unit and turn", () => {
  it("have as many members and joints as were drawn, and their lengths", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 600, max: 6000 }),
        fc.integer({ min: 400, max: 2500 }),
        fc.integer({ min: 0, max: 6 }),
        fc.constantFrom<DrawingUnit>("mm", "cm", "in", "m"),
        fc.boolean(),
        fc.double({ min: -0.7, max: 0.7, noNaN: true }),
        (long, wide, cross, unit, broken, turn) => {
          const at = Array.from({ length: cross }, (_, i) => ((i + 1) * long) / (cross + 1));
          const stops = [0, ...at, long];
          const rail = (y: number): Flat[] =>
            broken ? stops.slice(1).map((x, i): Flat => [stops[i] as number, y, x, y]) : [[0, y, long, y]];
          const lines: Flat[] = [
            ...rail(0),
            ...rail(wide),
            [0, 0, 0, wide],
            [long, 0, long, wide],
            ...at.map((x): Flat => [x, 0, x, wide]),
          ];
          const [c, s] = [Math.cos(turn), Math.sin(turn)];
          const per = DRAWING_UNITS[unit];
          const drawn = lines.map(
            ([a, b, d, e]): Flat => [
              (a * c - b * s) / per,
              (a * s + b * c) / per,
              (d * c - e * s) / per,
              (d * s + e * c) / per,
            ],
          );
          const { frame, structure, clashes } = made(work(drawn, "CENTRE", unit), unit);
          expect(frame.members).toHaveLength(4 + cross);
          expect(structure.joints).toHaveLength(4 + 2 * cross);
          expect(clashes).toEqual([]);
          const lengths = frame.members
            .map((m) => Math.hypot(m.to.x.mm - m.from.x.mm, m.to.y.mm - m.from.y.mm))
            .sort((a, b) => b - a);
          expect(Math.abs((lengths[0] as number) - Math.max(long, wide))).toBeLessThan(0.03);
        },
      ),
      { numRuns: 120 },
    );
  });
});

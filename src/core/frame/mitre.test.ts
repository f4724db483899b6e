import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { drawn, squareTube } from "../../../tests/support/drawnFrames";
import { add3, cross3, dot3, norm3, scale3, sub3, unit3, type Vec3 } from "../numeric";
import { length } from "../units";
import { meets } from "./cutter";
import { endOf, intoMember, type Placed } from "./meeting";
import { goesRound, mitreReaches, turnedByDeg } from "./mitre";
import { resolveStructure } from "./resolveStructure";
import { sectionOutline } from "./sectionOutline";
import type { Shape } from "./shapes";

const tube = (widthMm: number, heightMm: number): Shape => ({ shape: "tube", widthMm, heightMm, wallMm: 3 });
const unitVec = fc
  .tuple(
    fc.double({ min: -1, max: 1, noNaN: true }),
    fc.double({ min: -1, max: 1, noNaN: true }),
    fc.double({ min: -1, max: 1, noNaN: true }),
  )
  .filter((v) => norm3(v) > 0.2)
  .map((v): Vec3 => unit3(v));

/** A member of a section that runs from the origin, turned about itself. */
function placed(id: string, x: Vec3, lead: Vec3, shape: Shape): Placed {
  const z = unit3(sub3(lead, scale3(x, dot3(lead, x))));
  return {
    id,
    from: [0, 0, 0],
    to: scale3(x, 500),
    lengthMm: 500,
    axes: [x, cross3(z, x), z],
    outline: sectionOutline(shape),
    round: false,
  };
}
/** A direction taken round the bend by turning it about the bend's own axis, step by step. */
function turnedAlong(v: Vec3, from: Vec3, to: Vec3): Vec3 {
  const axis = unit3(cross3(from, to));
  const angle = Math.acos(Math.max(-1, Math.min(1, dot3(from, to))));
  let out = v;
  for (let i = 0; i < 2000; i++) out = add3(out, scale3(cross3(axis, out), angle / 2000));
  return unit3(out);
}

describe("the mitre of two members in any direction", () => {
  it("is the bisector's plane for two of one section that go round as one; their end faces cover each other", () => {
    fc.assert(
      fc.property(
        unitVec,
        unitVec,
        unitVec,
        fc.integer({ min: 20, max: 120 }),
        fc.integer({ min: 20, max: 120 }),
        (a, b, lead, w, h) => {
          fc.pre(dot3(a, b) > -0.999 && dot3(a, b) < 0.85 && norm3(cross3(a, lead)) > 0.2);
          const m = placed("M", a, lead, tube(w, h));
          const n0 = placed("N", b, lead, tube(w, h));
          // Walls on walls: the first one's axes taken round the bend.
          const z = turnedAlong(m.axes[2], scale3(a, -1), b);
          const zz = unit3(sub3(z, scale3(b, dot3(z, b))));
          const n: Placed = { ...n0, axes: [b, cross3(zz, b), zz] };
          expect(turnedByDeg(m, n, a, b)).toBeLessThan(0.5);
          expect(goesRound(m, n, a, b)).toBe(true);
          const [ha, hb] = mitreReaches(m, n, a, b);
          expect(ha).toBe(hb);
          const bisector = unit3(add3(scale3(a, hb), scale3(b, ha)));
          const normal = unit3(cross3(bisector, unit3(cross3(a, b))));
          const plane = { kind: "plane" as const, normal, point: [0, 0, 0] as Vec3 };
          const corners = (p: Placed): Vec3[] =>
            p.outline.map((q) => {
              const from = add3(scale3(p.axes[1], q.x), scale3(p.axes[2], q.y));
              return add3(from, scale3(p.axes[0], meets(plane, from, p.axes[0]) ?? Number.NaN));
            });
          const theirs = corners(n);
          for (const c of corners(m))
            expect(Math.min(...theirs.map((t) => norm3(sub3(c, t))))).toBeLessThan(0.01 * Math.max(w, h));
        },
      ),
      { numRuns: 120 },
    );
  });
  it("cuts rails that bend in plan and height together as the solid is, and nothing past the joint", () => {
    // 100 x 50 x 5, 150 in and 140 up over a run of 420: about 26°.
    const section = { ...squareTube(100, 5), width: length("50"), height: length("100") };
    const frame = drawn(
      {
        P: [
          [0, 0, 50],
          [2000, 0, 50],
        ],
        Q: [
          [2000, 0, 50],
          [2420, 150, 190],
        ],
      },
      [section],
    );
    const { structure } = resolveStructure(frame);
    const [joint] = structure.joints;
    expect(joint?.kind).toBe("mitre");
    for (const m of structure.members) {
      // Solid geometry: the tube's four edges cut by the plane through the bisector.
      const [x, y, z] = m.axes;
      const into = m.id === "P" ? scale3(x, -1) : x;
      const other = structure.members.find((o) => o.id !== m.id);
      const away = other?.id === "P" ? scale3(other.axes[0], -1) : (other?.axes[0] ?? x);
      const normal = unit3(sub3(into, away));
      const along = [-1, 1].flatMap((i) =>
        [-1, 1].map((k) => -(25 * i * dot3(y, normal) + 50 * k * dot3(z, normal)) / dot3(x, normal)),
      );
      expect(m.longMm - m.shortMm).toBeCloseTo(Math.max(...along) - Math.min(...along), 3);
      expect(m.longMm - m.shortMm).toBeLessThan(27);
      expect(m.longMm - m.shortMm).toBeGreaterThan(20);
    }
  });
  it("keeps from the inner to the outer corner where a flat one meets its like on edge", () => {
    const flat = placed("M", [1, 0, 0], [0, 0, 1], tube(100, 50));
    const onEdge = placed("N", [0, 1, 0], [1, 0, 0], tube(100, 50));
    expect(goesRound(flat, onEdge, [1, 0, 0], [0, 1, 0])).toBe(false);
    expect(mitreReaches(flat, onEdge, [1, 0, 0], [0, 1, 0])).toEqual([50, 25]);
    expect(intoMember(flat, "from")).toEqual([1, 0, 0]);
    expect(endOf(flat, "to")).toEqual([500, 0, 0]);
  });
});

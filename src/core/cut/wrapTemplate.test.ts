import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { drawn, roundTube, squareTube } from "../../../tests/support/drawnFrames";
import { type DrawnFrame, resolveStructure, type Structure } from "../frame";
import { cutList } from "./cutList";
import { sheetStartsMm, templatesOf, wrapTemplate } from "./wrapTemplate";

const of = (frame: DrawnFrame): Structure => resolveStructure(frame).structure;
const line = (frame: DrawnFrame, member: string) => {
  const found = cutList(of(frame)).find((p) => p.members.includes(member));
  if (!found) throw new Error(`no piece ${member}`);
  return found;
};
/**
 * Depth of a cope, closed form for a round branch: distance from the through member's axis at a place round the branch.
 * @param rMm radius of the edge that touches. @param radiusMm of the through member. @param angleDeg between the axes.
 * @param offsetMm of the axes from each other. @param phi round the branch, from the plane of both axes, rad.
 * @returns along the branch from where its axis passes the through member's, mm; NaN where the branch misses it.
 * Source: exact intersection of two cylinders.
 */
function copeDepth(rMm: number, radiusMm: number, angleDeg: number, offsetMm: number, phi: number): number {
  const a = (angleDeg * Math.PI) / 180;
  return (
    (Math.sqrt(radiusMm ** 2 - (rMm * Math.sin(phi) + offsetMm) ** 2) + rMm * Math.cos(phi) * Math.cos(a)) / Math.sin(a)
  );
}

describe("copes", () => {
  it("every point of the curve lies on both cylinders, whatever radii, angle and offset", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 5, max: 40, noNaN: true }),
        fc.double({ min: 0, max: 30, noNaN: true }),
        fc.double({ min: 30, max: 150, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 0, max: 2 * Math.PI, noNaN: true }),
        (r, more, deg, off, phi) => {
          const R = r + more + 0.5;
          const e = off * (R - r - 0.25);
          const t = copeDepth(r, R, deg, e, phi);
          const a = (deg * Math.PI) / 180;
          // Branch along (cos a, 0, sin a), through member along x: a point of the branch's outside, then its distance from x.
          const along = [Math.cos(a), 0, Math.sin(a)];
          const u = [Math.sin(a), 0, -Math.cos(a)];
          const p = [0, 1, 2].map(
            (k) =>
              t * (along[k] as number) + r * Math.cos(phi) * (u[k] as number) + (k === 1 ? r * Math.sin(phi) + e : 0),
          );
          expect(Math.hypot(p[1] as number, p[2] as number)).toBeCloseTo(R, 6);
        },
      ),
    );
  });
  it("the template of a frame is that curve: of equal tubes at right angles it is as deep as the radius", () => {
    const frame = drawn(
      {
        R1: [
          [0, 0, 0],
          [1000, 0, 0],
        ],
        M1: [
          [500, 0, 0],
          [500, 600, 0],
        ],
      },
      [roundTube(60, 3)],
    );
    const m = of(frame).members[1];
    const template = m && wrapTemplate(m, "from", "outer");
    expect(template?.aroundMm).toBeCloseTo(Math.PI * 60, 6);
    expect(template?.deepMm).toBeCloseTo(30, 6);
    const inner = m && wrapTemplate(m, "from", "inner");
    expect(inner?.deepMm).toBeCloseTo(30 - Math.sqrt(900 - 27 * 27), 6);
    for (const p of template?.points ?? []) {
      const phi = p.aroundMm / 30;
      expect(p.inMm).toBeCloseTo(copeDepth(30, 30, 90, 0, phi), 5);
    }
    expect(line(frame, "M1").ends).toMatch(/cope to a round of 60 mm at 90°/);
  });
  it("is printed on as many sheets as it takes, each sharing a strip with the one before", () => {
    expect(sheetStartsMm(180, 186)).toEqual([0]);
    for (const width of [186, 187, 300, 520, 900]) {
      const starts = sheetStartsMm(width, 186);
      expect((starts.at(-1) ?? 0) + 186).toBeGreaterThanOrEqual(width);
      for (const [i, s] of starts.slice(1).entries()) expect((starts[i] ?? 0) + 186 - s).toBe(10);
      expect(starts).toHaveLength(width <= 186 ? 1 : Math.ceil((width - 10) / 176));
    }
  });
  it("a square branch on a round is notched: as deep as the round falls away under half its width", () => {
    const frame = drawn({ R1: [[0, 0, 0], [1000, 0, 0], "S1"], M1: [[500, 0, 0], [500, 600, 0], "S2"] }, [
      roundTube(80, 3, "S1"),
      squareTube(40, 3, "S2"),
    ]);
    const m = of(frame).members[1];
    const template = m && wrapTemplate(m, "from", "outer");
    expect(template?.deepMm).toBeCloseTo(40 - Math.sqrt(1600 - 400), 6);
    expect(template?.aroundMm).toBeCloseTo(160, 9);
    expect(line(frame, "M1").ends).toMatch(/notch to a round/);
  });

  it("of an end between two others has its corner where both cuts meet, by plane geometry", () => {
    // A brace of 30 tube into the square corner of two rails of 50: cut along both of their faces.
    const frame = drawn(
      {
        R1: [
          [0, 0, 0],
          [1200, 0, 0],
        ],
        R2: [
          [0, 0, 0],
          [0, 900, 0],
        ],
        X1: [[0, 0, 0], [600, 600, 0], "S2"],
      },
      [squareTube(50, 3, "S1"), squareTube(30, 3, "S2")],
    );
    const found = templatesOf(of(frame), "outer").find((t) => t.name.startsWith("X1"));
    expect(found?.template.for).toBe("two cuts");
    const points = found?.template.points ?? [];
    expect(points.at(-1)?.aroundMm).toBeCloseTo(120, 6);
    // At 45 degrees each cut goes back by as much as it goes aside: from the point in the middle of a face half its width.
    expect(found?.template.deepMm).toBeCloseTo(15, 4);
    const tips = points.filter((p) => p.inMm < 1e-3);
    for (const tip of tips) expect((tip.aroundMm % 30) / 15).toBeCloseTo(1, 3);
    expect(tips.length).toBeGreaterThan(0);
  });
});

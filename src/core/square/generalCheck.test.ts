import { levenbergMarquardt } from "ml-levenberg-marquardt";
import { describe, expect, it } from "vitest";
import { angle, PANELS, QUAD, readOff, SIX, tape } from "../../../tests/support/networks";
import { norm, normalDraw, seeded, sub, type Vec2 } from "../numeric";
import { generalCheck } from "./generalCheck";
import { adjustNetwork, type Reading } from "./network";
import { ideal } from "./oneMore";
import { cornerAngleDeg, type Quad } from "./shape";
import { squareCheck } from "./squareCheck";

describe("the network of any frame", () => {
  const random = seeded(5);
  const bent = Object.fromEntries(
    Object.entries(PANELS).map(([n, p]) => [n, { x: p.x + 3 * normalDraw(random), y: p.y + 3 * normalDraw(random) }]),
  );
  const set: Reading[] = [
    ...SIX,
    tape("A", "M1AB"),
    tape("M1AB", "B"),
    tape("M1AB", "M1CD"),
    tape("C", "M1CD"),
    angle("D", "A", "B"),
    { kind: "offset", id: "M1CD|C-D", of: "M1CD", from: "C", to: "D", valueMm: 0, uMm: 0.3 },
  ];

  it("finds the places again from distances, angles and offsets", () => {
    const { fit } = generalCheck(PANELS, readOff(bent, set));
    for (const [p, q] of [
      ["A", "C"],
      ["M1AB", "D"],
      ["M1CD", "B"],
    ] as const)
      expect(norm(sub(fit.points[p] as Vec2, fit.points[q] as Vec2))).toBeCloseTo(
        norm(sub(bent[p] as Vec2, bent[q] as Vec2)),
        6,
      );
    expect(fit.chi2).toBeCloseTo(0, 9);
  });

  it("lands where a general fitter lands: ml-levenberg-marquardt on the same residuals", () => {
    const noisy = readOff(bent, set).map(
      (r): Reading =>
        r.kind === "angle"
          ? { ...r, valueRad: r.valueRad + r.uRad * normalDraw(random) }
          : { ...r, valueMm: r.valueMm + r.uMm * normalDraw(random) },
    );
    const names = Object.keys(PANELS);
    const { fit } = generalCheck(PANELS, noisy);
    /** Residual of each reading over its uncertainty, for places by their free coordinates: A held, B on the axis. */
    const placed = (free: readonly number[]): Record<string, Vec2> =>
      Object.fromEntries(
        names.map((n, i) => [
          n,
          i === 0
            ? { x: 0, y: 0 }
            : i === 1
              ? { x: free[0] as number, y: 0 }
              : { x: free[2 * i - 3] as number, y: free[2 * i - 2] as number },
        ]),
      );
    const read = (r: Reading): { value: number; u: number } =>
      r.kind === "angle" ? { value: r.valueRad, u: r.uRad } : { value: r.valueMm, u: r.uMm };
    const start = names.flatMap((n, i) =>
      i === 0 ? [] : i === 1 ? [(PANELS[n] as Vec2).x] : [(PANELS[n] as Vec2).x, (PANELS[n] as Vec2).y],
    );
    const found = levenbergMarquardt(
      { x: noisy.map((_, i) => i), y: noisy.map((r) => read(r).value / read(r).u) },
      (free) => {
        const at = placed(free);
        return (i) => {
          const r = noisy[i] as Reading;
          return read(ideal(r, at)).value / read(r).u;
        };
      },
      {
        initialValues: start,
        damping: 1e-3,
        gradientDifference: 1e-4,
        centralDifference: true,
        maxIterations: 300,
        errorTolerance: 1e-12,
      },
    );
    const theirs = placed([...found.parameterValues]);
    const squares = noisy.reduce((t, r) => t + ((read(ideal(r, theirs)).value - read(r).value) / read(r).u) ** 2, 0);
    // The fitter stops a little short: never below the least, and next to it.
    expect(squares).toBeGreaterThan((fit.chi2 as number) - 1e-9);
    expect(squares).toBeLessThan((fit.chi2 as number) + 1e-4);
    for (const [p, q] of [
      ["A", "C"],
      ["B", "D"],
      ["M1AB", "M1CD"],
      ["A", "M1CD"],
    ] as const)
      expect(
        Math.abs(
          norm(sub(fit.points[p] as Vec2, fit.points[q] as Vec2)) - norm(sub(theirs[p] as Vec2, theirs[q] as Vec2)),
        ),
      ).toBeLessThan(0.01);
  });

  it("has derivatives that are those of the readings: a fit from afar still arrives", () => {
    const far = Object.fromEntries(
      Object.entries(bent).map(([n, p]) => [n, { x: 1.02 * p.x, y: 0.985 * p.y + 0.01 * p.x }]),
    );
    const fit = adjustNetwork({ nodes: far, readings: readOff(bent, set) });
    expect(fit.chi2).toBeCloseTo(0, 8);
  });

  it("leaves out a place that one reading reaches, and says so", () => {
    const check = generalCheck(PANELS, readOff(bent, [...SIX, tape("A", "M1AB")]));
    expect(check.untied).toEqual(["M1AB"]);
    expect(check.apart.map((a) => a.id)).toEqual(["A-M1AB"]);
    expect(check.fit.status).toBe("ok");
    expect(Object.keys(check.fit.points).sort()).toEqual(["A", "B", "C", "D"]);
  });

  it("leaves out what is free to move as a whole, and keeps what is fixed", () => {
    // A ladder's rungs may all move up together: no tape along or across sees it.
    const ladder: Record<string, Vec2> = { ...QUAD };
    const along: Reading[] = [];
    for (const [i, x] of [300, 600, 900].entries()) {
      ladder[`M${i + 1}AB`] = { x, y: 0 };
      ladder[`M${i + 1}CD`] = { x, y: 800 };
      along.push(
        tape(`M${i + 1}AB`, `M${i + 1}CD`),
        tape(i === 0 ? "A" : `M${i}AB`, `M${i + 1}AB`),
        tape(i === 0 ? "D" : `M${i}CD`, `M${i + 1}CD`),
      );
    }
    const check = generalCheck(ladder, readOff(ladder, [...SIX, ...along]));
    expect(check.fit.status).toBe("ok");
    expect(Object.keys(check.fit.points).sort()).toEqual(["A", "B", "C", "D"]);
    expect(check.untied).toHaveLength(6);
    expect(check.apart).toHaveLength(along.length);
    // One diagonal in each panel, and everything is fixed.
    const braced = [
      ...along,
      tape("M3AB", "B"),
      tape("M3CD", "C"),
      tape("A", "M1CD"),
      tape("M1AB", "M2CD"),
      tape("M2AB", "M3CD"),
      tape("M3AB", "C"),
    ];
    const whole = generalCheck(ladder, readOff(ladder, [...SIX, ...braced]));
    expect(whole.untied).toEqual([]);
    expect(whole.fit.status).toBe("ok");
  });

  it("takes spacings along one side as they are: they say how far along, not how far off", () => {
    const along = [tape("A", "M1AB"), tape("M1AB", "B")];
    const off = { ...PANELS, M1AB: { x: 603, y: 0 } };
    const check = generalCheck(PANELS, readOff(off, [...SIX, ...along]));
    expect(check.fit.status).toBe("ok");
    expect(check.untied).toEqual(["M1AB"]);
    expect(check.apart.map((a) => Math.round(a.offMm))).toEqual([3, -3]);
  });

  it("does not change with the names or the turn of the frame", () => {
    const c = Math.cos(2.1);
    const s = Math.sin(2.1);
    const name = (n: string): string => ({ A: "Q", B: "K", C: "Z", D: "E", M1AB: "T", M1CD: "U" })[n] ?? n;
    const turned = Object.fromEntries(
      Object.entries(PANELS).map(([n, p]) => [name(n), { x: c * p.x - s * p.y, y: s * p.x + c * p.y }]),
    );
    const renamed = readOff(bent, set).map((r) =>
      r.kind === "angle"
        ? { ...r, from: name(r.from), at: name(r.at), to: name(r.to) }
        : r.kind === "offset"
          ? { ...r, of: name(r.of), from: name(r.from), to: name(r.to) }
          : { ...r, from: name(r.from), to: name(r.to) },
    );
    const one = generalCheck(PANELS, readOff(bent, set));
    const two = generalCheck(turned, renamed);
    expect(two.farthest?.value).toBeCloseTo(one.farthest?.value as number, 6);
    expect(two.farthest?.u).toBeCloseTo(one.farthest?.u as number, 6);
    expect(two.farthest?.place).toBe(name(one.farthest?.place as string));
  });

  it("keeps the shape that six tapes give when a panel is read besides", () => {
    const spans = Object.fromEntries(
      readOff(bent, SIX).map((r) => [r.id, { mm: (r as { valueMm: number }).valueMm, uMm: 0.5 }]),
    );
    const { A, B, C, D } = PANELS as Quad;
    const PLAIN: Quad = { A, B, C, D };
    const check = squareCheck(PLAIN, spans, {}, 0, generalCheck(PANELS, readOff(bent, set)).fit);
    expect(check.angleDeg?.A.value).toBeCloseTo(cornerAngleDeg(bent as Quad, "A"), 6);
    expect(check.angleDeg?.A.u).toBeLessThan(squareCheck(PLAIN, spans).angleDeg?.A.u as number);
  });
});

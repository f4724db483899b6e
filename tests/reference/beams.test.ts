import { Matrix, solve } from "ml-matrix";
import { describe, expect, it } from "vitest";
import {
  type BeamJoint,
  beamStiffness,
  condense,
  LowRankRun,
  type MechanicalFrame,
  plainRun,
  SUPPORT,
  startingStiffness,
  toGlobal,
} from "@/core/mechanics";
import {
  add3,
  cross3,
  dot3,
  drain,
  factorSkyline,
  luSolve,
  scale3,
  seeded,
  skyline,
  solveSkyline,
  sub3,
  unit3,
  type Vec3,
} from "@/core/numeric";
import { CompileCache, compileLoads, type SimulationStep } from "@/core/shrink";
import { FACTORS, NOMINAL_JOINTS, weldedModel } from "@/core/weld";
import { connect, FIXED, frameOf, load, movement, STEEL, tube } from "../support/beams";

const E = STEEL.eMPa;
const G = E / 2.6;
const S = tube(50);
const I = S.izMm4;
/** So long that a 50 mm tube gives way in shear by less than one in ten thousand of its bending. */
const SLENDER_MM = 12_000;

describe("beams against closed forms", () => {
  it("a cantilever bends by P L3 / 3 E I and turns by P L2 / 2 E I (Roark, Formulas for Stress and Strain, from memory)", () => {
    const frame = frameOf(
      { A: [0, 0, 0], B: [SLENDER_MM, 0, 0] },
      [["T", ["A", "B"]]],
      [],
      [{ member: "T", point: "A", fix: FIXED }],
    );
    const [, v, w, , ry, rz] = movement(frame, [load("T", "B", [0, 100, -50, 0, 0, 0])]).at("T", "B");
    const close = (got: number | undefined, want: number) => expect((got ?? 0) / want).toBeCloseTo(1, 3);
    close(v, (100 * SLENDER_MM ** 3) / (3 * E * I));
    close(w, (-50 * SLENDER_MM ** 3) / (3 * E * S.iyMm4));
    close(rz, (100 * SLENDER_MM ** 2) / (2 * E * I));
    close(ry, (50 * SLENDER_MM ** 2) / (2 * E * S.iyMm4));
  });

  it("a short one gives way in shear too, by P L / G k A with k = 20 / 48 of a thin square tube (Timoshenko; Cowper 1966 at nu = 0, from memory)", () => {
    const thin = tube(50, 50, 0.2);
    const frame = frameOf(
      { A: [0, 0, 0], B: [200, 0, 0] },
      [["T", ["A", "B"]]],
      [],
      [{ member: "T", point: "A", fix: FIXED }],
      thin,
    );
    const v = movement(frame, [load("T", "B", [0, 100, 0, 0, 0, 0])]).at("T", "B")[1] as number;
    const bending = (100 * 200 ** 3) / (3 * E * thin.izMm4);
    const shear = (100 * 200) / (G * (20 / 48) * thin.areaMm2);
    expect(shear / bending).toBeGreaterThan(0.15);
    expect(v / (bending + shear)).toBeCloseTo(1, 2);
    // Corners of a thick wall add a little to it; never take from it.
    expect(v).toBeLessThan(bending + shear);
  });

  it("a beam built in at both ends sags by P L3 / 192 E I in the middle (Roark, from memory)", () => {
    const frame = frameOf(
      { A: [0, 0, 0], M: [1.5 * SLENDER_MM, 0, 0], B: [3 * SLENDER_MM, 0, 0] },
      [["T", ["A", "M", "B"]]],
      [],
      [
        { member: "T", point: "A", fix: FIXED },
        { member: "T", point: "B", fix: FIXED },
      ],
    );
    const w = movement(frame, [load("T", "M", [0, 0, -1000, 0, 0, 0])]).at("T", "M")[2] as number;
    expect(w / ((-1000 * (3 * SLENDER_MM) ** 3) / (192 * E * S.iyMm4))).toBeCloseTo(1, 3);
  });

  it("a beam over two equal spans, loaded in the middle of one, sags there by 23 P L3 / 1536 E I (three-moment equation)", () => {
    // Three moments: M over the middle support = 3 P L / 32. Sag under the load: P L3/48 EI - M L2/16 EI = 23 P L3/1536 EI.
    const L = 2 * SLENDER_MM;
    const frame = frameOf(
      { A: [0, 0, 0], P: [L / 2, 0, 0], M: [L, 0, 0], B: [2 * L, 0, 0] },
      [["T", ["A", "P", "M", "B"]]],
      [],
      [
        { member: "T", point: "A", fix: ["x", "y", "z", "rx"] },
        { member: "T", point: "M", fix: ["y", "z"] },
        { member: "T", point: "B", fix: ["y", "z"] },
      ],
    );
    const w = movement(frame, [load("T", "P", [0, 0, -1000, 0, 0, 0])]).at("T", "P")[2] as number;
    expect(w / ((-23 * 1000 * L ** 3) / (1536 * E * S.iyMm4))).toBeCloseTo(1, 3);
  });

  it("a thin-walled tube twists by T L / G J with Bredt's J = 4 A2 t / s (Bredt 1896; Roark, from memory)", () => {
    const frame = frameOf(
      { A: [0, 0, 0], B: [1000, 0, 0] },
      [["T", ["A", "B"]]],
      [],
      [{ member: "T", point: "A", fix: FIXED }],
    );
    // Corners add six tenths of wall over width (finite elements); on a thin wall there is next to nothing of them.
    const [wall, middle] = [0.1, 49.9];
    const thin = { ...frame, members: frame.members.map((m) => ({ ...m, section: tube(50, 50, wall) })) };
    const rx = movement(thin, [load("T", "B", [0, 0, 0, 5000, 0, 0])]).at("T", "B")[3] as number;
    const bredt = (4 * middle ** 4 * wall) / (4 * middle);
    expect(rx / ((5000 * 1000) / (G * bredt))).toBeCloseTo(1, 2);
  });

  it("a portal with built-in feet sways by P h3 (3k + 2) / 12 E I (6k + 1), k = (Ib / Ic)(h / l) (Kleinlogel, Rigid Frame Formulas, from memory; its limits of a rigid and of a limp beam are closed forms)", () => {
    const h = 0.9 * SLENDER_MM;
    const l = 1.4 * SLENDER_MM;
    // The formula knows no axial movement and no give in the corners.
    const section = { ...S, areaMm2: 1e7 };
    const joints: BeamJoint[] = [
      { id: "B", kind: "mitre", a: "left", b: "beam", point: "B" },
      { id: "C", kind: "mitre", a: "right", b: "beam", point: "C" },
    ];
    const frame = frameOf(
      { A: [0, 0, 0], B: [0, h, 0], C: [l, h, 0], D: [l, 0, 0] },
      [
        ["left", ["A", "B"]],
        ["beam", ["B", "C"]],
        ["right", ["D", "C"]],
      ],
      joints,
      [
        { member: "left", point: "A", fix: FIXED },
        { member: "right", point: "D", fix: FIXED },
      ],
      section,
    );
    const rigid = { joint: 1e5, fitup: 0.01, gapMm: null };
    const u = movement(frame, [...joints.flatMap(connect), load("left", "B", [1000, 0, 0, 0, 0, 0])], rigid);
    const k = h / l;
    const want = ((1000 * h ** 3) / (12 * E * I)) * ((3 * k + 2) / (6 * k + 1));
    expect((u.at("left", "B")[0] as number) / want).toBeCloseTo(1, 2);
  });
});

const L_JOINT: BeamJoint = { id: "J", kind: "mitre", a: "LA", b: "LB", point: "P" };
const elbow = (points: Record<"P" | "A" | "B", Vec3>, up?: Vec3): MechanicalFrame => ({
  ...frameOf(
    points,
    [
      ["LA", ["P", "A"]],
      ["LB", ["P", "B"]],
    ],
    [L_JOINT],
    [{ member: "LA", point: "A", fix: FIXED }],
  ),
  ...(up ? { up } : {}),
});
const bead = (line: "inside" | "outside" | "top" | "bottom", heatJPerMm = 400): SimulationStep => ({
  id: `bead ${line}`,
  do: "bead",
  joint: "J",
  line,
  heatJPerMm,
});
const tacks: SimulationStep[] = (["inside", "outside", "top", "bottom"] as const).map((line) => ({
  id: `tack ${line}`,
  do: "tack",
  joint: "J",
  line,
  lengthMm: 10,
  heatJPerMm: 300,
}));
const WELDED = [...tacks, bead("outside"), bead("top"), bead("inside", 450), bead("bottom")];

describe("mechanics that hold for every frame", () => {
  it("a rigid motion of a free frame loads nothing", () => {
    const frame = { ...elbow({ P: [0, 0, 0], A: [400, 0, 0], B: [50, 300, 80] }), supports: [] };
    const model = weldedModel(frame);
    const k = startingStiffness({ ...model, hold: [] });
    const turn: Vec3 = [0.3, -0.7, 0.5];
    const u = model.nodes.flatMap((n) => {
      const v = cross3(turn, n.at);
      return [v[0] + 2, v[1] - 1, v[2] + 3, ...turn];
    });
    const largest = Math.max(...k.flat().map(Math.abs));
    for (const row of k) {
      const force = row.reduce((s, v, i) => s + v * (u[i] as number), 0);
      expect(Math.abs(force) / largest).toBeLessThan(1e-9);
    }
  });

  it("a branch beside its chord's axis carries its load over the offset: force and moment balance at the foot", () => {
    const joint: BeamJoint = { id: "J", kind: "tee", a: "C", b: "B", point: "O", pointB: "Q" };
    const frame = frameOf(
      { L: [-300, 0, 0], O: [0, 0, 0], R: [300, 0, 0], Q: [0, 0, 8], T: [0, 500, 8] },
      [
        ["C", ["L", "O", "R"]],
        ["B", ["Q", "T"]],
      ],
      [joint],
      [{ member: "C", point: "L", fix: FIXED }],
    );
    const wrench = [30, 120, -40, 0, 0, 0] as const;
    const { model, u } = movement(frame, [...connect(joint), load("B", "T", wrench)]);
    const foot = model.nodeOf("C", "L");
    const element = model.elements.find((e) => e.from === foot);
    const axes = model.members.get("C")?.axes;
    if (!element || !axes) throw new Error("no foot");
    const ke = toGlobal(beamStiffness(S, element.lengthMm, E, G), axes);
    const ends = [
      ...u.subarray(6 * element.from, 6 * element.from + 6),
      ...u.subarray(6 * element.to, 6 * element.to + 6),
    ];
    const reaction = Array.from({ length: 6 }, (_, i) =>
      ends.reduce((s, v, j) => s + (ke[i * 12 + j] as number) * v, 0),
    );
    const force: Vec3 = [wrench[0], wrench[1], wrench[2]];
    const moment = cross3(sub3([0, 500, 8], [-300, 0, 0]), force);
    for (let i = 0; i < 3; i++) {
      expect(reaction[i] as number).toBeCloseTo(-(force[i] as number), 3);
      expect((reaction[i + 3] as number) / 1000).toBeCloseTo(-(moment[i] as number) / 1000, 3);
    }
  });

  it("two loads move each other's points alike (Betti and Maxwell)", () => {
    const frame = elbow({ P: [0, 0, 0], A: [400, 0, 0], B: [120, 350, 60] });
    const first = movement(frame, [...connect(L_JOINT), load("LB", "B", [0, 0, 1, 0, 0, 0])]);
    const second = movement(frame, [...connect(L_JOINT), load("LA", "P", [0, 0, 0, 0, 1000, 0])]);
    expect(first.at("LA", "P")[4] as number).toBeCloseTo((second.at("LB", "B")[2] as number) / 1000, 12);
  });

  it("work of the load is the energy in members and joint (Clapeyron)", () => {
    const frame = elbow({ P: [0, 0, 0], A: [400, 0, 0], B: [0, 350, 0] });
    const { model, u, at } = movement(frame, [...connect(L_JOINT), load("LB", "B", [20, 0, 100, 0, 0, 0])]);
    const tip = at("LB", "B");
    const work = (20 * (tip[0] as number) + 100 * (tip[2] as number)) / 2;
    let energy = 0;
    for (const e of model.elements) {
      const m = model.members.get(e.member);
      if (!m) continue;
      const k = toGlobal(beamStiffness(m.section, e.lengthMm, E, G), m.axes);
      const ends = [...u.subarray(6 * e.from, 6 * e.from + 6), ...u.subarray(6 * e.to, 6 * e.to + 6)];
      for (let i = 0; i < 12; i++)
        for (let j = 0; j < 12; j++)
          energy += ((k[i * 12 + j] as number) * (ends[i] as number) * (ends[j] as number)) / 2;
    }
    const joint = model.joints[0];
    if (!joint) throw new Error("no joint");
    const shop = new CompileCache(model, FACTORS);
    const { k: kj } = shop.jointAt(0, ["welded", "welded", "welded", "welded"]);
    const d = joint.rows.map((r) => r.at.reduce((s, f, i) => s + (r.value[i] as number) * (u[f] as number), 0));
    for (let i = 0; i < 6; i++)
      for (let j = 0; j < 6; j++) energy += ((kj[i * 6 + j] as number) * (d[i] as number) * (d[j] as number)) / 2;
    const foot = model.nodeOf("LA", "A");
    for (let i = 0; i < 6; i++)
      energy += ((i < 3 ? SUPPORT.alongNPerMm : SUPPORT.aboutNmm) * (u[6 * foot + i] as number) ** 2) / 2;
    expect(energy / work).toBeCloseTo(1, 8);
  });

  it("a frame that is turned in space moves in the same way, turned", () => {
    // Rodrigues: about an axis by 2 rad.
    const axis = unit3([0.36, 0.48, -0.8]);
    const [cos, sin] = [Math.cos(2), Math.sin(2)];
    const turn = (v: Vec3): Vec3 =>
      add3(add3(scale3(v, cos), scale3(cross3(axis, v), sin)), scale3(axis, dot3(axis, v) * (1 - cos)));
    const points: Record<"P" | "A" | "B", Vec3> = { P: [0, 0, 0], A: [400, 0, 0], B: [90, 320, 0] };
    const plain = movement(elbow(points), WELDED, NOMINAL_JOINTS, true).at("LB", "B");
    const turnedPoints = { P: turn(points.P), A: turn(points.A), B: turn(points.B) };
    const turned = movement(elbow(turnedPoints, turn([0, 0, 1])), WELDED, NOMINAL_JOINTS, true).at("LB", "B");
    const want = [
      ...turn([plain[0], plain[1], plain[2]] as unknown as Vec3),
      ...turn([plain[3], plain[4], plain[5]] as unknown as Vec3),
    ];
    turned.forEach((v, i) => {
      expect(v).toBeCloseTo(want[i] as number, i < 3 ? 6 : 9);
    });
    expect(Math.hypot(...plain.slice(0, 3))).toBeGreaterThan(0.1);
  });

  it("a mirrored frame with a mirrored plan moves in the mirror", () => {
    const right = movement(elbow({ P: [0, 0, 0], A: [400, 0, 0], B: [60, 320, 0] }), WELDED, NOMINAL_JOINTS, true);
    const left = movement(elbow({ P: [0, 0, 0], A: [400, 0, 0], B: [60, -320, 0] }), WELDED, NOMINAL_JOINTS, true);
    const [r, l] = [right.at("LB", "B"), left.at("LB", "B")];
    // Mirror in y: movements change sign along y, turns change sign along x and z.
    const sign = [1, -1, 1, -1, 1, -1];
    r.forEach((v, i) => {
      expect(l[i] as number).toBeCloseTo(v * (sign[i] as number), 9);
    });
    expect(Math.abs(r[1] as number) + Math.abs(r[2] as number)).toBeGreaterThan(0.05);
    // Upside down: tops for bottoms.
    const over: SimulationStep[] = WELDED.map((s) =>
      "line" in s && (s.line === "top" || s.line === "bottom")
        ? ({ ...s, line: s.line === "top" ? "bottom" : "top" } as SimulationStep)
        : s,
    );
    const flipped = movement(elbow({ P: [0, 0, 0], A: [400, 0, 0], B: [60, 320, 0] }), over, NOMINAL_JOINTS, true);
    const f = flipped.at("LB", "B");
    [1, 1, -1, -1, -1, 1].forEach((k, i) => {
      expect(f[i] as number).toBeCloseTo((r[i] as number) * k, 9);
    });
  });

  it("splitting a member changes nothing", () => {
    const whole = frameOf(
      { P: [0, 0, 0], A: [400, 0, 0], B: [0, 350, 0] },
      [
        ["LA", ["P", "A"]],
        ["LB", ["P", "B"]],
      ],
      [L_JOINT],
    );
    const split = {
      ...whole,
      points: { ...whole.points, M: [170, 0, 0] as Vec3, N: [0, 222, 0] as Vec3 },
      members: [
        { ...whole.members[0], points: ["P", "M", "A"] },
        { ...whole.members[1], points: ["P", "N", "B"] },
      ] as MechanicalFrame["members"],
      supports: [{ member: "LA", point: "A", fix: FIXED }],
    };
    const one = movement({ ...whole, supports: split.supports }, WELDED, NOMINAL_JOINTS, true).at("LB", "B");
    const two = movement(split, WELDED, NOMINAL_JOINTS, true).at("LB", "B");
    one.forEach((v, i) => {
      expect(two[i] as number).toBeCloseTo(v, 9);
    });
  });

  it("a free frame ends in one shape wherever it is held: free, built in at one end, or on three points", () => {
    const points: Record<"P" | "A" | "B", Vec3> = { P: [0, 0, 0], A: [400, 0, 0], B: [0, 320, 0] };
    const free = movement({ ...elbow(points), supports: [] }, WELDED, NOMINAL_JOINTS, true);
    const held = movement(elbow(points), WELDED, NOMINAL_JOINTS, true);
    // Three rests carry it, two stops locate it: six ways, and no force.
    const threePoints: MechanicalFrame["supports"] = [
      { member: "LA", point: "P", fix: ["x", "y", "z"] },
      { member: "LA", point: "A", fix: ["y", "z"] },
      { member: "LB", point: "B", fix: ["z"] },
    ];
    const resting = movement({ ...elbow(points), supports: threePoints }, WELDED, NOMINAL_JOINTS, true);
    const gap = (m: typeof free) => {
      const [a, b] = [m.at("LA", "A"), m.at("LB", "B")];
      const d = [-400, 320].map((v) => v / Math.hypot(400, 320));
      return (
        (d[0] as number) * ((b[0] as number) - (a[0] as number)) +
        (d[1] as number) * ((b[1] as number) - (a[1] as number))
      );
    };
    expect(gap(free)).toBeCloseTo(gap(held), 6);
    expect(gap(free)).toBeCloseTo(gap(resting), 6);
    expect(resting.at("LB", "B")[2]).toBeCloseTo(0, 6);
    expect(Math.abs(gap(free))).toBeGreaterThan(0.05);
  });
});

const strongback = (from: [string, string], to: [string, string], size: number): SimulationStep => ({
  id: "sb",
  do: "strongback on",
  strongback: "s",
  from,
  to,
  section: { widthMm: size, heightMm: size, wallMm: 3 },
});

describe("clamps and strongbacks", () => {
  const points: Record<"P" | "A" | "B", Vec3> = { P: [0, 0, 0], A: [300, 0, 0], B: [0, 300, 0] };
  const clamp = (extra: object = {}): SimulationStep => ({
    id: "on",
    do: "clamp",
    clamp: "c",
    member: "LB",
    point: "B",
    direction: [0, 0, 1],
    stiffnessNPerMm: 1e5,
    ...extra,
  });
  const off: SimulationStep = { id: "off", do: "unclamp", clamp: "c" };
  it("with yield on and seams that stand open, a clamped weld springs back less far than a free one", () => {
    const APART = { ...NOMINAL_JOINTS, gapMm: null };
    const free = movement(elbow(points), [...tacks, bead("top", 450)], APART, true).at("LB", "B")[2];
    const held = movement(elbow(points), [...tacks, clamp(), bead("top", 450), off], APART, true);
    expect(held.at("LB", "B")[2] as number).toBeLessThan(free as number);
    expect(held.at("LB", "B")[2] as number).toBeGreaterThan(0);
  });
  it("a back-bow over a shim springs back where nothing was welded, and takes off what yielded where something was", () => {
    const bent = movement(elbow(points), [...connect(L_JOINT), clamp({ byMm: -6 })], NOMINAL_JOINTS);
    expect(bent.at("LB", "B")[2] as number).toBeCloseTo(-6, 1);
    const back = movement(elbow(points), [...connect(L_JOINT), clamp({ byMm: -6 }), off], NOMINAL_JOINTS);
    expect(back.at("LB", "B")[2] as number).toBeCloseTo(0, 8);
    const free = movement(elbow(points), [...tacks, bead("top", 450)], NOMINAL_JOINTS, true);
    const preset = movement(
      elbow(points),
      [...tacks, clamp({ byMm: -6 }), bead("top", 450), off],
      NOMINAL_JOINTS,
      true,
    );
    expect(preset.at("LB", "B")[2] as number).toBeLessThan(free.at("LB", "B")[2] as number);
  });
  it("a strongback holds the corner while it is on, and all of an elastic movement comes back when it goes", () => {
    const steps = (welds: SimulationStep[]): SimulationStep[] => [
      ...tacks,
      strongback(["LA", "A"], ["LB", "B"], 40),
      ...welds,
    ];
    const opening = (m: ReturnType<typeof movement>): number => {
      const [a, b] = [m.at("LA", "A"), m.at("LB", "B")];
      return ((b[1] as number) - (a[1] as number) - (b[0] as number) + (a[0] as number)) / Math.SQRT2;
    };
    const start = opening(movement(elbow(points), tacks));
    const free = opening(movement(elbow(points), [...tacks, bead("inside")])) - start;
    const held = opening(movement(elbow(points), steps([bead("inside")]))) - start;
    const released = opening(
      movement(elbow(points), [...steps([bead("inside")]), { id: "x", do: "strongback off", strongback: "s" }]),
    );
    expect(Math.abs(held)).toBeLessThan(0.2 * Math.abs(free));
    expect(released - start).toBeCloseTo(free, 8);
  });
  it("squaring up takes back what is asked, and the order after it still counts", () => {
    const half = movement(elbow(points), [...tacks, { id: "s", do: "square up", residualShare: 0.5 }]).at("LB", "B");
    const whole = movement(elbow(points), tacks).at("LB", "B");
    half.forEach((v, i) => {
      expect(v).toBeCloseTo((whole[i] as number) / 2, 12);
    });
  });
});

describe("linear algebra against a general library (ml-matrix)", () => {
  const random = seeded(11);
  it("elimination with pivots", () => {
    for (let trial = 0; trial < 20; trial++) {
      const n = 1 + Math.floor(random() * 12);
      const a = Array.from({ length: n }, () => Array.from({ length: n }, () => random() - 0.5));
      const b = Array.from({ length: n }, () => [random(), random()]);
      const x = Float64Array.from(b.flat());
      expect(luSolve(Float64Array.from(a.flat()), x, n, 2)).toBe(true);
      const want = solve(new Matrix(a), new Matrix(b)).to1DArray();
      want.forEach((v, i) => {
        expect(x[i] as number).toBeCloseTo(v, 6);
      });
    }
    expect(luSolve(Float64Array.of(1, 2, 2, 4), Float64Array.of(1, 1), 2, 1)).toBe(false);
  });
  it("envelope Cholesky", () => {
    for (let trial = 0; trial < 10; trial++) {
      const n = 5 + Math.floor(random() * 30);
      const full = Matrix.eye(n, n).mul(4);
      const entries: [number, number, number][] = [];
      for (let i = 0; i < n; i++)
        for (let j = Math.max(0, i - 4); j < i; j++)
          if (random() < 0.6) {
            const v = random() - 0.5;
            full.set(i, j, v);
            full.set(j, i, v);
            entries.push([i, j, v], [j, i, v]);
          }
      for (let i = 0; i < n; i++) entries.push([i, i, 4]);
      const matrix = skyline(n, entries);
      expect(factorSkyline(matrix)).toBe(-1);
      const b = Float64Array.from({ length: n }, random);
      const want = solve(full, Matrix.columnVector([...b])).to1DArray();
      solveSkyline(matrix, b);
      want.forEach((v, i) => {
        expect(b[i] as number).toBeCloseTo(v, 9);
      });
    }
    expect(
      factorSkyline(
        skyline(2, [
          [0, 0, 1],
          [1, 0, 2],
          [1, 1, 1],
        ]),
      ),
    ).toBe(1);
  });
});

describe("the condensed path", () => {
  it("equals the plain path to 1e-9 of the largest movement through tacks, beads, clamps, a strongback, a flip and squaring up", () => {
    const joint: BeamJoint[] = [
      { id: "J", kind: "mitre", a: "LA", b: "LB", point: "P" },
      { id: "K", kind: "tee", a: "LA", b: "T", point: "M" },
    ];
    const frame = frameOf(
      { P: [0, 0, 0], M: [220, 0, 0], A: [500, 0, 0], B: [0, 420, 0], Z: [220, 400, 0] },
      [
        ["LA", ["P", "M", "A"]],
        ["LB", ["P", "B"]],
        ["T", ["M", "Z"]],
      ],
      joint,
    );
    const tee = (line: "plus" | "minus" | "top" | "bottom", what: "tack" | "bead"): SimulationStep =>
      what === "tack"
        ? { id: `t ${line}`, do: "tack", joint: "K", line, lengthMm: 12, heatJPerMm: 300 }
        : { id: `b ${line}`, do: "bead", joint: "K", line, heatJPerMm: 380 };
    const clamp = (name: string, member: string, point: string, extra: object): SimulationStep => ({
      id: name,
      do: "clamp",
      clamp: name,
      member,
      point,
      direction: [0, 0, 1],
      stiffnessNPerMm: 2e4,
      ...extra,
    });
    const steps: SimulationStep[] = [
      clamp("c1", "LA", "A", { toMm: 0 }),
      clamp("c2", "LB", "B", { toMm: 0 }),
      clamp("c3", "T", "Z", { byMm: 1.5 }),
      ...tacks,
      tee("plus", "tack"),
      tee("minus", "tack"),
      { id: "sq", do: "square up", residualShare: 0.25 },
      strongback(["LB", "B"], ["T", "Z"], 30),
      bead("outside"),
      tee("top", "bead"),
      { id: "flip", do: "flip" },
      bead("bottom"),
      tee("plus", "bead"),
      tee("bottom", "bead"),
      bead("top"),
      { id: "sb off", do: "strongback off", strongback: "s" },
      bead("inside", 500),
      tee("minus", "bead"),
      { id: "w", do: "wait" },
      ...["c1", "c2", "c3"].map((clampName): SimulationStep => ({ id: clampName, do: "unclamp", clamp: clampName })),
    ];
    const model = weldedModel(frame);
    const plan = compileLoads(new CompileCache(model, FACTORS), steps);
    const plain = plainRun(plan);
    const outputs = Array.from({ length: model.freedoms }, (_, i) => ({ at: [i], value: [1] }));
    const run = new LowRankRun(condense(plan, outputs));
    const history: Float64Array[] = [];
    const out = drain(
      run.whole(plan, (a) => {
        history[plan.stepOf[a] as number] = run.outputsOf(0).slice();
      }),
    );
    const last = plain.movements.at(-1) as Float64Array;
    const largest = Math.max(...plain.movements.flatMap((u) => [...u].map(Math.abs)));
    last.forEach((v, i) => {
      expect(Math.abs((out[i] as number) - v)).toBeLessThan(1e-9 * largest);
    });
    expect(Math.max(...last.map(Math.abs))).toBeGreaterThan(0.3);
    plain.tensions.forEach((v, i) => {
      expect(run.state.held[i] as number).toBeCloseTo(v, 4);
    });
    plain.movements.forEach((u, s) => {
      // Taking a stiff bar out of what it made stiff costs digits.
      const digits = steps[s]?.do === "strongback off" ? 3e-9 : 1e-9;
      u.forEach((v, i) => {
        expect(Math.abs((history[s]?.[i] as number) - v)).toBeLessThan(digits * largest);
      });
    });
    // Clamps that were pulled away from where the frame lay let go of something.
    expect(Math.max(...plain.released.flatMap((r) => [...r.force].map(Math.abs)))).toBeGreaterThan(10);
  });
});

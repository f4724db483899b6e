import {
  bestThree,
  footModes,
  footTurn,
  fourFootLoads,
  fourPointRock,
  restOn,
  type ShimMode,
  type SurveyFit,
  type SurveyReading,
  shimStack,
  shims,
  splitTwist,
  survey,
  tipForceN,
  turnedGaps,
} from "@/core/bed";
import { angleLimit, conformity, type FlatClass, flatLimitMm, type LinearClass, linearLimitMm } from "@/core/check";
import { cutList, jointGap, riseRun, sawTest } from "@/core/cut";
import { a500Tolerance, en10219Tolerance, resolveStructure } from "@/core/frame";
import { CORNERS, type Corner, flatness, flatnessScatter, fourCorners, noiseFloor, type Span } from "@/core/geometry";
import { collimationMmPerM, combine, levelReversal, type TapeClass, tapeLimitMm } from "@/core/instruments";
import { entryProblem } from "@/core/job";
import { degrees, radians, type Vec2 } from "@/core/numeric";
import {
  adjustNetwork,
  angleBetween,
  halfRule,
  type Quad,
  type Reading,
  setUp,
  slides,
  squareCheck,
  twistOnDiagonals,
} from "@/core/square";
import { fraction, length, parseLength, SLANT_UNITS, type SlantUnit, slantMmPerM } from "@/core/units";

import { yieldOf } from "../support/box";
import { mitred, mitredChain } from "../support/mitred";
import { CONTACTS } from "./contactOperations";
import { HOLDING } from "./holdingOperations";

/** Inputs as a case file states them; the keys are the cases' own. */
// biome-ignore lint/suspicious/noExplicitAny: case files are data of many shapes, read by one function each
type Inputs = any;

const points = (xy: [number, number][]): Vec2[] => xy.map(([x, y]) => ({ x, y }));
const quad = (c: Record<Corner, [number, number]>): Quad =>
  Object.fromEntries(Object.entries(c).map(([k, [x, y]]) => [k, { x, y }])) as Quad;
const byId = <T extends { id: string }, V>(list: T[], f: (t: T) => V): Record<string, V> =>
  Object.fromEntries(list.map((t) => [t.id, f(t)]));

function toMm(value: number | string, unit: "mm" | "in" = "mm"): number {
  if (typeof value === "number") return value;
  const parsed = parseLength(value, unit);
  if (!parsed.ok) throw new Error(parsed.message);
  return parsed.value.mm;
}

function quadCheck(i: Inputs) {
  const mm = Object.fromEntries(
    Object.entries(i.distances as Record<string, number | string>).map(([k, v]) => [k, toMm(v, i.default_unit)]),
  );
  const check = squareCheck(
    {
      A: { x: 0, y: 0 },
      B: { x: i.nominal_length_mm, y: 0 },
      C: { x: i.nominal_length_mm, y: i.nominal_height_mm },
      D: { x: 0, y: i.nominal_height_mm },
    },
    Object.fromEntries(Object.entries(mm).map(([k, v]) => [k, { mm: v, uMm: i.u_mm }])) as Partial<
      Record<Span, { mm: number; uMm: number }>
    >,
  );
  const { fit } = check;
  const controlled = fit.readings;
  return {
    status: fit.status,
    dof: fit.freedom,
    distances_mm: mm,
    chi2: fit.chi2,
    p_value: fit.pValue,
    global_ok: fit.agree,
    max_abs_w: fit.maxAbsW,
    redundancy_total: fit.readings.reduce((s, r) => s + r.redundancy, 0),
    redundancy: byId(controlled, (r) => r.redundancy),
    mdb_mm: byId(controlled, (r) => r.detectable),
    blunder: { status: fit.diagnosis.status },
    angle_deg: check.angleDeg && Object.fromEntries(Object.entries(check.angleDeg).map(([k, v]) => [k, v.value])),
    shear_mm_per_m: check.shearMmPerM?.value,
    taper_length_mm: check.taperLengthMm?.value,
    taper_height_mm: check.taperWidthMm?.value,
    diagonal_difference_mm: check.diagonalDifferenceMm?.value,
    slide_mm: check.slidesMm && {
      CD_towards_C: check.slidesMm.CD,
      AB_towards_B: check.slidesMm.AB,
      BC_towards_C: check.slidesMm.BC,
      DA_towards_D: check.slidesMm.DA,
    },
    rack_mm: check.rack && {
      C_along_AB: check.rack.cAlongMm,
      C_away_from_AB: check.rack.cAwayMm,
      D_along_AB: check.rack.dAlongMm,
      D_away_from_AB: check.rack.dAwayMm,
    },
    diagonal_after_rack_mm: check.rack?.diagonalsMm.AC,
    half_difference_rule_mm: check.nudges[0]?.habitMm,
    shape: check.shape,
  };
}

function network(i: Inputs) {
  const readings = (i.observations as Inputs[]).map(
    (o): Reading =>
      o.angle
        ? {
            kind: "angle",
            id: o.id ?? o.angle.join(""),
            from: o.angle[0],
            at: o.angle[1],
            to: o.angle[2],
            valueRad: radians(o.value_deg),
            uRad: radians(o.u_deg),
          }
        : {
            kind: "distance",
            id: o.id ?? `${o.from}${o.to}`,
            from: o.from,
            to: o.to,
            valueMm: o.value,
            uMm: o.u,
            ...(o.tape ? { tape: o.tape } : {}),
          },
  );
  const tapes = Object.fromEntries(
    Object.entries((i.tapes ?? {}) as Record<string, { u_zero: number; u_scale: number }>).map(([k, t]) => [
      k,
      { uZeroMm: t.u_zero, uScale: t.u_scale },
    ]),
  );
  const fit = adjustNetwork({
    nodes: Object.fromEntries(
      Object.entries(i.nominal_nodes_mm as Record<string, [number, number]>).map(([k, [x, y]]) => [k, { x, y }]),
    ),
    readings,
    tapes,
  });
  const angles = (i.angles_wanted ?? []) as [string, string, string][];
  const at =
    ([p, q, t]: [string, string, string]) =>
    (xy: Record<string, Vec2>) => {
      const [a, b, c] = [xy[p], xy[q], xy[t]];
      if (!a || !b || !c) throw new Error(`No point ${p}, ${q} or ${t}`);
      return degrees(angleBetween(a, b, c));
    };
  const best = fit.diagnosis.candidates[0];
  return {
    status: fit.status,
    dof: fit.freedom,
    chi2: fit.chi2,
    global_ok: fit.agree,
    w: byId(fit.readings, (r) => r.w),
    residual: byId(fit.readings, (r) => r.residual),
    angle_deg: Object.fromEntries(angles.map((a) => [a[1], at(a)(fit.points)])),
    u_angle_deg: Object.fromEntries(angles.map((a) => [a[1], fit.uOf(at(a))])),
    suspected_blunder_status: fit.diagnosis.status,
    best_candidate: best && { reading: best.id, blunder: best.slip },
  };
}

function flatnessOf(xy: Vec2[], z: number[], cov: number | number[][]) {
  const f = flatness(xy, z, cov);
  return {
    status: f.status,
    zone_mm: f.zoneMm,
    u_zone_mm: f.uZoneMm,
    flatness_ls_mm: f.leastSquaresMm,
    straightness_mm: f.straightnessMm,
  };
}

/** A survey that hangs together. @param uLevel what is not known of the level, mm per metre. */
function solved(places: Map<string, Vec2>, readings: SurveyReading[], uLevel = 0): SurveyFit {
  const found = survey(places, readings, { level: uLevel });
  if (found.status !== "ok" && found.status !== "ok_no_check") throw new Error(found.status);
  return found;
}

/** Places along one line. */
const inLine = (x: readonly number[]): Map<string, Vec2> => new Map(x.map((v, k) => [`P${k}`, { x: v, y: 0 }]));

/** A slope's unit by the names that cases use. */
function slantUnit(name: string): SlantUnit {
  const unit = SLANT_UNITS.find((u) => u === (name === "percent" ? "%" : name));
  if (!unit) throw new Error(`unknown unit ${name} of a slope`);
  return unit;
}

/** A level stepped along a line, each step where the last one ended. */
function stepped(i: Inputs) {
  const slopes = i.slopes as number[];
  const places = inLine([...slopes, 0].map((_, k) => k * i.step_mm));
  const unit = slantUnit(i.unit);
  // An uncertainty of a slope is small: its tangent is the angle.
  const small = (u: number): number => (unit === "deg" ? 1000 * radians(u) : slantMmPerM({ value: u, slant: unit }));
  const { zMm, cov } = solved(
    places,
    slopes.map((value, k) => ({
      id: String(k),
      by: "slope",
      from: `P${k}`,
      at: `P${k + 1}`,
      mmPerM: slantMmPerM({ value: value - i.zero_error, slant: unit }),
      uMm: (small(i.u_slope) * i.step_mm) / 1000,
      level: "level",
      direction: 1,
    })),
    small(i.u_zero),
  );
  const z = [...places.keys()].map((n) => (zMm[n] as number) - (zMm.P0 as number));
  const c = (p: number, q: number): number => (cov[p] as number[])[q] as number;
  return {
    z,
    zone: flatness([...places.values()], z, 0).straightnessMm,
    u_z: z.map((_, k) => Math.sqrt(Math.max(0, c(k, k) + c(0, 0) - 2 * c(k, 0)))),
  };
}

/** Gaps under an edge on two blocks. */
function underEdge(i: Inputs) {
  const gaps = i.gap_mm as number[];
  const [first, last] = (i.block_mm ?? [0, 0]) as [number, number];
  const blocks: [ReturnType<typeof length>, ReturnType<typeof length>] = [length(String(first)), length(String(last))];
  const bad = gaps.flatMap((gap, k) => {
    const reading = {
      kind: "reading" as const,
      id: "",
      at: "",
      origin: "",
      roundId: "",
      instrumentId: "",
      what: { kind: "rest" as const, rest: "R3" },
      value: length(String(gap)),
      how: { by: "edge" as const, from: "R1", to: "R2", blocks },
    };
    return entryProblem(reading) ? [k] : [];
  });
  if (bad.length > 0) return { status: "invalid", bad_index: bad };
  const places = inLine(i.x_mm);
  places.set("from", { x: i.support_x_mm[0], y: 0 }).set("to", { x: i.support_x_mm[1], y: 0 });
  const { zMm } = solved(places, [
    { id: "from", by: "height", at: "from", mm: 0, uMm: 0.001, datum: "1" },
    { id: "to", by: "height", at: "to", mm: 0, uMm: 0.001, datum: "1" },
    ...gaps.map(
      (gapMm, k): SurveyReading => ({
        id: String(k),
        by: "edge",
        from: "from",
        to: "to",
        at: `P${k}`,
        gapMm,
        blocksMm: [first, last],
        bulgeMm: 0,
        uMm: i.u_gap_mm ?? 0.05,
      }),
    ),
  ]);
  const z = gaps.map((_, k) => (zMm[`P${k}`] as number) - (zMm.from as number));
  return {
    status: "ok",
    z,
    zone: flatness(
      gaps.map((_, k) => places.get(`P${k}`) as Vec2),
      z,
      0,
    ).straightnessMm,
  };
}

function optical(i: Inputs) {
  const t = i.two_peg;
  const c = t
    ? collimationMmPerM({
        a1: t.a1,
        b1: t.b1,
        a2: t.a2,
        b2: t.b2,
        distA1: t.da1,
        distB1: t.db1,
        distA2: t.da2,
        distB2: t.db2,
      })
    : (i.collimation_mm_per_m ?? 0);
  const names = (i.rods_mm as number[]).map((_, k) => `P${k}`);
  const places = new Map(names.map((n, k) => [n, point(i.xy_mm[k])]));
  const level = solved(
    places,
    names.map((at, k): SurveyReading => {
      const sightM = i.distances_mm[k] / 1000;
      return {
        id: at,
        by: "rod",
        at,
        mm: i.rods_mm[k] - c * sightM,
        uMm: i.u_rod_mm,
        setUp: "1",
        level: "level",
        sightM,
      };
    }),
    i.u_collimation_mm_per_m ?? 0,
  );
  const z = names.map((n) => level.zMm[n] as number);
  const f = flatness([...places.values()], z, level.cov);
  return { collimation_mm_per_m: c, z_mm: z, zone_mm: f.zoneMm, u_zone_mm: f.uZoneMm };
}

type Three = [Vec2, Vec2, Vec2];
type Four = [Vec2, Vec2, Vec2, Vec2];
const point = ([x, y]: [number, number]): Vec2 => ({ x, y });

function heights(i: Inputs) {
  const names = i.points as string[];
  // Cases without places have a level's length beside each slope: any places that are not in line will do.
  const places = new Map<string, Vec2>(
    names.map((n, k) => [n, i.xy_mm ? point(i.xy_mm[n]) : { x: 1000 * k, y: 100 * k * k }]),
  );
  const found = survey(
    places,
    (i.observations as Inputs[]).map((o, k): SurveyReading => {
      const base = { id: String(k), from: o.from, at: o.to };
      return o.dz === undefined
        ? {
            ...base,
            by: "slope",
            mmPerM: o.slope_mm_per_m,
            uMm: (o.u * o.length) / 1000,
            level: "level",
            direction: o.dir ?? 1,
            lengthMm: o.length,
          }
        : { ...base, by: "difference", mm: o.dz, uMm: o.u };
    }),
    { level: i.estimate_zero ? Number.POSITIVE_INFINITY : 0 },
  );
  if (found.status !== "ok" && found.status !== "ok_no_check") return found;
  const first = found.zMm[names[0] as string] as number;
  const flat =
    i.xy_mm &&
    flatness(
      found.points.map((n) => places.get(n) as Vec2),
      found.points.map((n) => found.zMm[n] as number),
      found.cov,
    );
  return {
    status: found.status,
    dof: found.freedom,
    z: Object.fromEntries(found.points.map((n) => [n, (found.zMm[n] as number) - first])),
    T: found.chi2,
    residuals: found.readings.map((r) => r.residualMm),
    level_zero_error_mm_per_m: found.errors.level?.mmPerM,
    zone_mm: flat?.zoneMm,
    u_zone_mm: flat?.uZoneMm,
  };
}

/** Every operation that this version computes, by the name that the cases use. */
export const OPERATIONS: Record<string, (inputs: Inputs) => unknown> = {
  ...CONTACTS,
  ...HOLDING,
  quad_check: quadCheck,
  network,
  flatness: (i) => flatnessOf(points(i.xy_mm), i.z_mm, i.u_mm),
  optical_level: optical,
  four_corner_twist: (i) => {
    const f = fourCorners(i.z_mm, i.u_mm);
    return {
      twist: f.twistMm,
      flatness: f.flatnessMm,
      rock_gap: f.rockMm,
      high_pair: f.highPair,
      u_twist: f.uTwistMm,
      u_flatness: f.uFlatnessMm,
    };
  },
  shims: (i) => {
    const s = shims(points(i.xy_mm), i.z_mm, i.mode as ShimMode);
    return s && { shims: s.shimsMm, total: s.totalMm, negative: s.negative };
  },
  shim_stack: (i) => {
    const s = shimStack(i.target_mm, i.available_mm, i.max_leaves);
    return { total: s.totalMm, leaves: s.leavesMm };
  },
  jack_turns: (i) => footTurn(i.dz_mm, i.pitch_mm, i.thread),
  precompensate: (i) => {
    const moves = quad(i.weld_move_mm);
    const offsets = Object.fromEntries(CORNERS.map((c) => [c, { x: -moves[c].x, y: -moves[c].y }])) as Quad;
    const s = setUp(quad(i.final_corners_mm), offsets);
    return { targets: s.targets, diagonal_difference: s.diagonalDifferenceMm, sq_diff: s.squareDifferenceMm2 };
  },
  nudge_to_target: (i) => {
    const s = slides(quad(i.corners_now_mm), i.target_sq_diff_mm2);
    return { slide_mm: { CD_towards_C: s.CD, AB_towards_B: s.AB, BC_towards_C: s.BC, DA_towards_D: s.DA } };
  },
  half_rule: (i) => {
    const h = halfRule(i.length_mm, i.height_mm, i.diagonal_difference_mm);
    return { exact_shift: h.exactMm, rule_shift: h.ruleMm, ratio: h.ratio, fraction_left_after_rule: h.leaves };
  },
  conformity: (i) => {
    const c = conformity(i.value, i.u, i.lower ?? null, i.upper ?? null, i.nonnegative ?? false);
    return {
      verdict: c.verdict,
      pc: c.pc,
      guard: c.guard,
      accept: [c.accept.lower, c.accept.upper],
      capability_Cm: c.capability,
      acceptance_zone_empty: c.acceptanceZoneEmpty,
    };
  },
  table_iso13920: (i) => {
    const angle = angleLimit(i.linear_class as LinearClass, i.short_leg_mm);
    return {
      linear: linearLimitMm(i.linear_class as LinearClass, i.length_mm),
      flat: flatLimitMm(i.flat_class as FlatClass, i.length_mm),
      angle: { minutes: angle.minutes, mm_per_m: angle.mmPerM },
    };
  },
  mitre: (i) => {
    const m = mitred(i.included_deg, i.width1_mm, i.width2_mm);
    return {
      status: "ok",
      cut_to_axis_deg: m.cutToAxisDeg,
      saw_from_square_deg: m.sawFromSquareDeg,
      face_length: m.faceMm,
    };
  },
  // The middle one of three members, with a mitre of twice the cut's angle to the axis at each end.
  end_lengths: (i) => {
    const [f, g] = [90 - i.saw1_deg, 90 - i.saw2_deg].map((deg) => radians(2 * deg)) as [number, number];
    const w = i.width_mm / 2;
    const centre = i.outer_mm - w * (Math.tan(radians(i.saw1_deg)) + Math.tan(radians(i.saw2_deg)));
    const { structure } = resolveStructure(
      mitredChain(
        [
          [300 * Math.cos(f), 300 * Math.sin(f), 20],
          [0, 0, 20],
          [centre, 0, 20],
          [centre - 300 * Math.cos(g), 300 * Math.sin(g), 20],
        ],
        [i.width_mm, i.width_mm, i.width_mm],
      ),
    );
    const piece = cutList(structure).find((p) => p.members.includes("P2"));
    return {
      outer: piece?.longPointMm,
      inner: piece?.shortPointMm,
      centre: piece?.centreMm,
      blank: piece?.longPointMm,
    };
  },
  fractions: (i) => ({ results: (i.values as [number, number][]).map(([x, den]) => fraction(x, den)) }),
  best_three: (i) => {
    const names = Object.keys(i.points_mm);
    const b = bestThree(points(Object.values(i.points_mm)), point(i.centre_mm), i.required_margin_mm ?? 0);
    return b.status === "ok"
      ? { status: "ok", best: b.rests.map((r) => names[r]).sort(), margin: b.marginMm }
      : { status: b.status };
  },
  combine: (i) => {
    const c = combine(i.values_mm, i.u_mm);
    return { mean: c.mean, u: c.u, T: c.chi2, consistent: c.consistent, birge: c.birge, max_En: c.worstPair?.en };
  },
  flatness_mc: (i) => ({ ...flatnessScatter(points(i.xy_mm), i.z_mm, i.u_mm) }),
  noise_floor: (i) => ({ ...noiseFloor(points(i.xy_mm), i.u_mm) }),
  flip_turn: (i) => {
    const g = turnedGaps(i.frame_twist_mm, i.table_twist_mm);
    return {
      gap_as_found_mm: g.asFoundMm,
      gap_half_turn_mm: g.halfTurnMm,
      gap_flipped_mm: g.flippedMm,
      gap_quarter_turn_mm: g.quarterTurnMm,
    };
  },
  split_twist: (i) => {
    const s = splitTwist(i.signed_gap_as_found_mm, i.signed_gap_quarter_turn_mm);
    return { frame_twist_mm: s.frameMm, table_twist_mm: s.tableMm };
  },
  foot_modes: (i) => {
    const f = footModes(points(i.xy_mm) as Four, i.corrections_mm);
    return (
      f && {
        height: f.heightMm,
        slope_x_mm_per_m: f.slopeMmPerM.x,
        slope_y_mm_per_m: f.slopeMmPerM.y,
        twist: f.twistMm,
        twist_part: f.twistPartMm,
      }
    );
  },
  four_foot_loads: (i) => {
    const f = fourFootLoads(i.length_mm, i.height_mm, i.weight_N, point(i.centre_mm), i.k_corner_N_per_mm, i.twist_mm);
    return { loads: f.loadsN, all_touch: f.allTouch, largest_twist_absorbed: f.largestTwistMm };
  },
  four_point_rock: (i) => {
    const r = fourPointRock(points(i.xy_mm) as Four, i.c_mm);
    return { light_corners: r.light, gaps_mm: r.gapsMm };
  },
  rest: (i) => {
    const r = restOn(points(i.xy_mm), i.c_mm, point(i.centre_mm), i.weight_N);
    return {
      status: r.status,
      rest_states: r.states.map((s) => ({ contact: s.contact, gaps: s.gapsMm })),
      push_to_rock_N: r.pushToRockN,
    };
  },
  tip_force: (i) => ({
    force_N: tipForceN(points(i.triangle_mm) as Three, point(i.centre_mm), i.weight_N, point(i.push_at_mm)),
  }),
  height_network: heights,
  // The same name in both folders: of the saw, and of what was found at a joint.
  joint_gap: (i) => {
    if (i.width_mm === undefined) return HOLDING.joint_gap?.(i);
    const g = jointGap(i.width_mm, i.error_deg, i.cut_to_axis_deg, i.pieces);
    return { face: g.faceMm, gap: g.gapMm };
  },
  saw_test: (i) => {
    const s = sawTest(i.gap_mm, i.leg_mm, i.placed.replaceAll("_", " "), i.gap_at);
    return {
      included_error_deg: s.includedErrorDeg,
      per_cut_error_deg: s.perCutErrorDeg,
      add_to_saw_setting_deg: s.addToSettingDeg,
    };
  },
  rise_run: (i) => {
    const r = riseRun(i.rise_mm, i.run_mm);
    return { angle_deg: r.angleDeg, length: r.lengthMm, percent: r.percent, mm_per_m: r.mmPerM };
  },
  level_reversal: (i) => {
    const r = levelReversal(i.reading1, i.reading2, i.u, i.sign_from);
    return { zero_error: r.zeroError, true_slope: r.slope, u: r.u };
  },
  slope_chain: stepped,
  straightedge: underEdge,
  table_tube: (i) => {
    const en = en10219Tolerance(Math.max(i.b_mm, i.h_mm), i.wall_mm, i.length_mm);
    const a = a500Tolerance(i.largest_in, i.length_ft);
    return {
      en10219: {
        side: en.sideMm,
        wall: en.wallMm,
        twist: en.twistMm,
        straightness: en.straightnessMm,
        concave_convex: en.concaveConvexMm,
      },
      a500: { side_in: a.sideIn, straightness_in: a.straightnessIn, twist_in: a.twistIn },
      tape_limit_mm: tapeLimitMm(i.tape_class as TapeClass, i.length_mm),
    };
  },
  twist_on_diagonals: (i) => {
    const t = twistOnDiagonals(i.length_mm, i.height_mm, i.twist_mm);
    return {
      flat: t.flatMm,
      symmetric_change: t.symmetricMm,
      one_corner_change: t.oneCornerMm,
      gap_between_crossing_diagonals: t.crossingGapMm,
    };
  },
  yield_joint: (i) => {
    const a = i.A_N_per_mm as number[][];
    const by = (row: number[], x: ArrayLike<number>): number => row.reduce((s, v, j) => s + v * (x[j] ?? 0), 0);
    const free = a.map((row, l) => (i.N0_N[l] as number) + by(row, i.closing_mm as number[]));
    const plastic = yieldOf(a, free, i.limit_N as number[]);
    return {
      N_N: free.map((f, l) => f - by(a[l] ?? [], plastic)),
      plastic_mm: plastic,
      state: plastic.map(Math.sign),
    };
  },
  parse: (i) => ({ mm: (i.texts as string[]).map((t) => toMm(t, i.default_unit)) }),
};

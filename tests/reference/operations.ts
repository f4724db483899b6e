import {
  collimationMmPerM,
  flatness,
  footTurn,
  fourCorners,
  opticalLevel,
  type ShimMode,
  shimStack,
  shims,
} from "@/core/bed";
import { angleLimit, conformity, type FlatClass, flatLimitMm, type LinearClass, linearLimitMm } from "@/core/check";
import { endLengths, mitre } from "@/core/cut";
import type { Corner, Span } from "@/core/frame";
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
} from "@/core/square";
import { fraction, parseLength } from "@/core/units";

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
    i.nominal_length_mm,
    i.nominal_height_mm,
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
    diagonal_after_rack_mm: check.rack?.diagonalMm,
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
  const level = opticalLevel(i.rods_mm, i.u_rod_mm, {
    distancesM: (i.distances_mm as number[]).map((d) => d / 1000),
    collimationMmPerM: c,
    uCollimationMmPerM: i.u_collimation_mm_per_m ?? 0,
  });
  const f = flatness(points(i.xy_mm), level.z, level.cov);
  return { collimation_mm_per_m: c, z_mm: level.z, zone_mm: f.zoneMm, u_zone_mm: f.uZoneMm };
}

/** Every operation that this version computes, by the name that the cases use. */
export const OPERATIONS: Record<string, (inputs: Inputs) => unknown> = {
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
    const s = setUp(quad(i.final_corners_mm), quad(i.weld_move_mm));
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
    const m = mitre(i.included_deg, i.width1_mm, i.width2_mm);
    return m.ok
      ? {
          status: "ok",
          cut_to_axis_deg: m.value.cutToAxisDeg,
          saw_from_square_deg: m.value.sawFromSquareDeg,
          face_length: m.value.faceMm,
        }
      : { status: "error", message: m.message };
  },
  end_lengths: (i) => {
    const e = endLengths(i.outer_mm, i.width_mm, i.saw1_deg, i.saw2_deg);
    return { outer: e.outerMm, inner: e.innerMm, centre: e.centreMm, blank: e.blankMm };
  },
  fractions: (i) => ({ results: (i.values as [number, number][]).map(([x, den]) => fraction(x, den)) }),
  parse: (i) => ({ mm: (i.texts as string[]).map((t) => toMm(t, i.default_unit)) }),
};

/** Operations that the cases know and this version does not compute yet, by name. */
export const NOT_YET = [
  "best_three",
  "combine",
  "flatness_mc",
  "flip_turn",
  "foot_modes",
  "four_foot_loads",
  "four_point_rock",
  "height_network",
  "joint_gap",
  "level_reversal",
  "noise_floor",
  "rest",
  "rise_run",
  "saw_test",
  "slope_chain",
  "split_twist",
  "straightedge",
  "table_tube",
  "tip_force",
  "twist_on_diagonals",
] as const;

import {
  beadAcross,
  beadAlong,
  evenPress,
  footWedge,
  heatSpot,
  heatWedge,
  jackPad,
  momentCurvature,
  nextAmount,
  nextPush,
  planCorrection,
  plasticSection,
  pressesToStraighten,
  pressMidspan,
  pressOverhang,
  rackByDiagonal,
  type Stands,
  threeBar,
  twistFrame,
  twistTube,
  wallClass,
  weldRingMoment,
} from "@/core/check";
import { MATERIALS } from "@/core/frame";
import {
  alongAtOneMm,
  type Belief,
  believed,
  buttAtOneMm,
  type Cell,
  calibration,
  couponFactor,
  coverage,
  drift,
  expected,
  forget,
  frameChi2,
  framesNeeded,
  inCell,
  information,
  learn,
  learnScatter,
  logSd,
  nextPreset,
  pooledBelief,
  type Scatter,
  surprise,
  type Teaching,
  USUAL_SCATTER,
} from "@/core/learn";

/** Inputs as a case file states them; the keys are the cases' own. */
// biome-ignore lint/suspicious/noExplicitAny: case files are data of many shapes, read by one function each
type Inputs = any;
type Numbers = Record<string, number>;

/** The cases' constants: steel of 210 GPa, and the coefficients of variation of their own model. */
const E_MPA = 210_000;
const STEEL = { ...MATERIALS["mild steel"], eMPa: E_MPA };
const MODEL_CV = { muT: 0.25, muL: 0.2, kf: 0.4, tack: 0.4, fitup: 1, ring: 0.2 };
const TABLE = { muT: 0.9, muL: 0.335 };

const section = (s: Numbers) => ({
  widthMm: s.width_mm as number,
  depthMm: s.depth_mm as number,
  wallMm: s.wall_mm,
});
const steel = (i: Inputs) => ({ eMPa: E_MPA, yieldMPa: i.yield_MPa as number });
const rectangle = (i: Inputs) => ({
  lengthMm: i.length_mm,
  heightMm: i.height_mm,
  rail: section(i.rail),
  post: section(i.post),
});
const scatterOf = (i: Inputs): Scatter => ({
  beadCv: i.bead_cv ?? USUAL_SCATTER.beadCv,
  dayCv: i.job_cv ?? USUAL_SCATTER.dayCv,
  modelShare: i.model_rel ?? USUAL_SCATTER.modelShare,
  modelMm: i.model_abs_mm ?? USUAL_SCATTER.modelMm,
});
const job = (j: Inputs): Teaching => ({
  sources: j.sources,
  linear: j.linear ?? {},
  change: j.change ?? [],
  noise: j.cov ? { cov: j.cov } : { u: j.u ?? [] },
});
const sds = (names: readonly string[]): Numbers =>
  Object.fromEntries(names.map((n) => [n, logSd(MODEL_CV[n as keyof typeof MODEL_CV])]));
/** Factors that some jobs name, in the order of the model. */
const named = (jobs: Inputs[]): string[] => {
  const all = new Set(
    jobs.flatMap((j) => [...j.sources.flatMap((s: Inputs) => s.factors), ...Object.keys(j.linear ?? {})]),
  );
  return Object.keys(MODEL_CV).filter((n) => all.has(n));
};
const sdOf = ({ cov }: Belief, i: number): number => Math.sqrt(cov[i]?.[i] ?? Number.NaN);
const half = 1.6448536269514722;
const pairs = (b: Belief): Numbers =>
  Object.fromEntries(
    b.names.flatMap((n, i) =>
      b.names
        .slice(i + 1)
        .map((m, k) => [`${n},${m}`, (b.cov[i]?.[i + 1 + k] ?? 0) / (sdOf(b, i) * sdOf(b, i + 1 + k))]),
    ),
  );
/** Factors as a case states them. */
const given = (factors: Record<string, Numbers>, correlation: Numbers = {}): Belief => {
  const names = Object.keys(factors);
  const sd = names.map((n) => factors[n]?.sd_log ?? 0);
  return {
    names,
    mean: names.map((n) => Math.log(factors[n]?.ratio ?? 1)),
    cov: names.map((n, i) =>
      names.map((m, j) =>
        i === j
          ? (sd[i] ?? 0) ** 2
          : (correlation[`${n},${m}`] ?? correlation[`${m},${n}`] ?? 0) * (sd[i] ?? 0) * (sd[j] ?? 0),
      ),
    ),
  };
};

/** What the cases of corrections and of learning ask, answered by the core. */
export const LEARNING: Record<string, (inputs: Inputs) => unknown> = {
  section_plastic: (i) => {
    const s = plasticSection(section(i.section), steel(i));
    return {
      ...{ area_mm2: s.areaMm2, I_mm4: s.iMm4, J_mm4: s.jMm4, shape_factor: s.shapeFactor },
      ...{ elastic_modulus_mm3: s.elasticModulusMm3, plastic_modulus_mm3: s.plasticModulusMm3 },
      ...{ yield_moment_Nmm: s.yieldMomentNmm, plastic_moment_Nmm: s.plasticMomentNmm },
      ...{ yield_curvature_per_mm: s.yieldCurvaturePerMm, plastic_torque_Nmm: s.plasticTorqueNmm },
    };
  },
  moment_curvature: (i) => {
    const m = momentCurvature(section(i.section), steel(i), i.curvature_over_yield);
    return {
      ...{ moment_Nmm: m.momentNmm, moment_over_yield: m.momentOverYield, outer_strain: m.outerStrain },
      ...{ residual_curvature_per_mm: m.leftPerMm, springback_share: m.springbackShare },
    };
  },
  uniform_press: (i) => {
    const p = evenPress(section(i.section), steel(i), i.remove_bow_mm, i.length_mm);
    return {
      ...{ moment_Nmm: p.momentNmm, moment_over_plastic: p.momentOverPlastic, outer_strain: p.outerStrain },
      ...{ bow_under_load_mm: p.underLoadMm, springback_mm: p.springbackMm },
    };
  },
  press_midspan: (i) => {
    const p = pressMidspan(section(i.section), steel(i), {
      ...{ spanMm: i.span_mm, removeMm: i.remove_bow_mm, lengthMm: i.length_mm },
    });
    return {
      ...{ force_N: p.forceN, first_yield_force_N: p.firstYieldForceN, moment_over_yield: p.momentOverYield },
      ...{ push_beyond_rest_mm: p.pushMm, springback_mm: p.springbackMm, kink_rad: p.kinkRad },
      ...{ hinge_free_rad: p.hingeFreeRad, elastic_travel_at_first_yield_mm: p.travelAtFirstYieldMm },
      ...{ outer_strain: p.outerStrain, left_at_quarter_points_mm: p.leftAtQuartersMm },
    };
  },
  press_overhang: (i) => {
    const p = pressOverhang(section(i.section), steel(i), { armMm: i.arm_mm, moveMm: i.move_tip_mm });
    return {
      ...{ force_N: p.forceN, moment_at_joint_Nmm: p.momentNmm, moment_over_yield: p.momentOverYield },
      ...{ push_tip_mm: p.pushMm, springback_mm: p.springbackMm, kink_rad: p.kinkRad, hinge_free_rad: p.hingeFreeRad },
    };
  },
  rack_by_diagonal: (i) => {
    const r = rackByDiagonal(rectangle(i), steel(i), i.change_ac_minus_bd_mm);
    return {
      ...{ force_N: r.forceN, corner_moment_Nmm: r.cornerMomentNmm, moment_over_yield: r.momentOverYield },
      ...{ racking_rad: r.rackingRad, springback_rad: r.springbackRad, hinge_free_rad: r.hingeFreeRad },
      ...{ pull_diagonal_by_mm: r.pullMm, springback_diagonal_mm: r.springbackMm },
      ...{ first_yield_force_N: r.firstYieldForceN, elastic_diagonal_at_first_yield_mm: r.elasticAtFirstYieldMm },
    };
  },
  twist_tube: (i) => {
    const t = twistTube(section(i.section), steel(i), i.length_mm, i.keep_rad);
    return {
      ...{ plastic_torque_Nmm: t.plasticTorqueNmm, springback_rad: t.springbackRad, twist_to_rad: t.twistToRad },
      lever_force_N_at_1m: t.leverForceAt1mN,
    };
  },
  twist_frame: (i) => {
    const t = twistFrame(rectangle(i), steel(i), i.remove_twist_mm);
    return {
      ...{ corner_force_N_per_mm_twist: t.cornerNPerMm, springback_mm: t.springbackMm, push_to_twist_mm: t.pushMm },
      ...{ rail_end_moment_Nmm_per_mm: t.railEndNmmPerMm, post_end_moment_Nmm_per_mm: t.postEndNmmPerMm },
      corner_force_N: t.cornerForceN,
    };
  },
  foot_wedge: (i) => {
    const w = footWedge(rectangle(i), { eMPa: E_MPA, yieldMPa: 235 }, i.weight_N, i.wedge_mm);
    return {
      ...{ level_rise_at_centre_mm: w.riseAtCentreMm, twist_forced_mm: w.twistForcedMm, all_touch: w.allTouch },
      ...{ tilt_along_mm_per_m: w.tiltAlongMmPerM, tilt_across_mm_per_m: w.tiltAcrossMmPerM },
      ...{ load_moved_per_foot_N: w.loadMovedN, largest_wedge_all_touch_mm: w.largestAllTouchMm },
    };
  },
  wall_class: (i) => {
    const c = wallClass(i.width_mm, i.wall_mm, i.yield_MPa);
    return {
      ...{ slenderness: c.slenderness, epsilon: c.epsilon, cls: c.cls },
      ...{ may_bend_past_yield: c.mayBendPastYield, may_turn: c.mayTurn },
    };
  },
  jack_pad: (i) => {
    const p = jackPad(
      { faceMm: i.face_width_mm, wallMm: i.wall_mm, yieldMPa: i.yield_MPa },
      { padWidthMm: i.pad_width_mm, padLengthMm: i.pad_length_mm },
    );
    return { dent_force_N: p.dentForceN, side_crush_N: p.sideCrushN };
  },
  weld_ring_moment: (i) => {
    const r = weldRingMoment(section(i), i.throat_mm, i.ultimate_MPa);
    return { modulus_mm3: r.modulusMm3, shear_strength_MPa: r.shearMPa, moment_Nmm: r.momentNmm };
  },
  presses_to_straighten: (i) => {
    const p = pressesToStraighten(i.bow_mm, i.allowed_bow_mm);
    return { presses: p.presses, left_mm: p.leftMm, kink_each_times_length_mm: p.kinkTimesLengthMm };
  },
  three_bar: (i) => {
    const b = threeBar({ ...STEEL, yieldMPa: i.yield_MPa }, i.peak_rise_K, i.restraint, i.hot_yield_share);
    return {
      ...{ contraction_strain: b.strain, residual_stress_MPa: b.residualMPa },
      yields_when_cooling: b.yieldsWhenCooling,
    };
  },
  bead_along: (i) => {
    const b = beadAlong(section(i.section), STEEL, i.muL ?? TABLE.muL, {
      ...{ heatJPerMm: i.heat_J_per_mm, beadMm: i.bead_length_mm, memberMm: i.member_length_mm, offsetMm: i.offset_mm },
    });
    return {
      ...{ contraction_volume_mm3: b.contractionMm3, tendon_force_N: b.tendonN, kink_rad: b.kinkRad },
      ...{ shortening_mm: b.shorteningMm, bow_mm: b.bowMm },
    };
  },
  bead_across: (i) => {
    const b = beadAcross(section(i.section), STEEL, i.muT ?? TABLE.muT, {
      ...{ heatJPerMm: i.heat_J_per_mm, lineMm: i.line_length_mm, memberMm: i.member_length_mm, offsetMm: i.offset_mm },
      ...(i.at_mm === undefined ? {} : { atMm: i.at_mm }),
    });
    return {
      ...{ contraction_volume_mm3: b.contractionMm3, kink_rad: b.kinkRad, shortening_mm: b.shorteningMm },
      ...{ bow_mm: b.bowMm, largest_bow_mm: b.largestBowMm },
    };
  },
  heat_spot: (i) => {
    const s = heatSpot(section(i.section), {
      ...{ diameterMm: i.spot_diameter_mm, strain: i.strain, offsetMm: i.offset_mm },
      ...{ memberMm: i.member_length_mm, count: i.count ?? 1 },
    });
    return {
      ...{ contraction_volume_mm3: s.contractionMm3, kink_rad: s.kinkRad },
      ...{ shortening_mm: s.shorteningMm, bow_mm: s.bowMm },
    };
  },
  heat_wedge: (i) => {
    const w = heatWedge(section(i.section), {
      ...{ widthMm: i.wedge_width_mm, depthMm: i.wedge_depth_mm, strain: i.strain, memberMm: i.member_length_mm },
    });
    return { kink_rad: w.kinkRad, bow_mm: w.bowMm, shortening_mm: w.shorteningMm };
  },
  next_amount: (i) => {
    const n = nextAmount(i.wanted, i.gain, i.gain_cv, i.tries ?? []);
    return {
      ...{ gain: n.gain, gain_low: n.gainLow, gain_high: n.gainHigh, left: n.left },
      ...{ amount: n.amount, amount_median: n.amountMedian },
    };
  },
  next_push: (i) => {
    const n = nextPush(i.wanted, i.springback_mm, i.springback_cv, i.tries ?? []);
    return {
      ...{ left: n.left, springback_mm: n.springbackMm, springback_low: n.springbackLow },
      ...{ springback_high: n.springbackHigh, push: n.pushMm },
    };
  },
  plan_correction: (i) => {
    const quantities = Object.fromEntries(
      Object.entries(i.quantities as Record<string, Numbers>).map(([k, q]): [string, Stands] => [
        k,
        { value: q.value ?? 0, u: q.u ?? 0, low: q.low ?? null, high: q.high ?? null },
      ]),
    );
    const c = planCorrection(
      quantities,
      (i.remedies as Inputs[]).map((r) => ({
        ...{ id: r.id, effect: r.effect, max: r.max, cv: r.cv, effortMin: r.effort_min, risk: r.risk },
        ...{ unitSteps: r.unit_steps ?? false, loosens: r.loosens ?? false },
      })),
      10,
    );
    return {
      best: { steps: c.best.steps, chance: c.best.chance, effort: c.best.effortMin },
      ...{ do_nothing_chance: c.doNothing, considered: c.considered, best_chance_any: c.bestChance },
    };
  },
  coupon_factor: (i) => {
    const change = i.kind === "butt" ? i.before_mm - i.after_mm : i.after_mm - i.before_mm;
    const s = i.section && plasticSection(section(i.section), { eMPa: E_MPA, yieldMPa: 235 });
    const atOne =
      i.kind === "butt"
        ? buttAtOneMm(i.heat_J_per_mm, i.wall_mm, STEEL)
        : alongAtOneMm(
            i.heat_J_per_mm,
            {
              ...{ beadMm: i.bead_length_mm, pieceMm: i.member_length_mm, offsetMm: i.offset_mm, iMm4: s.iMm4 },
            },
            STEEL,
          );
    const factor = i.kind === "butt" ? "muT" : "muL";
    const r = couponFactor(change, atOne, i.u_mm, { value: TABLE[factor], cv: MODEL_CV[factor] });
    return r.status === "ok"
      ? {
          ...{ status: "ok", measured: r.measured, factor: r.factor, low: r.low, high: r.high },
          ...{ sd_log: r.sdLog, surprise: r.surprise },
        }
      : { status: "no_shrink", factor: null };
  },
  learn: (i) => {
    const names = named(i.jobs);
    const prior = believed(sds(names));
    const l = learn(prior, (i.jobs as Inputs[]).map(job), scatterOf(i), i.robust ?? true);
    return {
      factors: Object.fromEntries(
        names.map((n, k) => {
          const [m, sd] = [l.mean[k] ?? 0, sdOf(l, k)];
          return [
            n,
            {
              ...{ ratio: Math.exp(m), low: Math.exp(m - half * sd), high: Math.exp(m + half * sd) },
              ...{ sd_log: sd, narrowed_to: sd / sdOf(prior, k) },
            },
          ];
        }),
      ),
      ...{ chi2: l.chi2, readings: l.readings, p: l.p, contradicts: l.contradicts, inflated: l.inflated },
      ...{ job_weight: l.weights, correlation: pairs(l) },
    };
  },
  pooled_learn: (i) => {
    const cells = i.cells as (Cell & { id: string })[];
    const own = Object.fromEntries(Object.entries(i.factors as Numbers).map(([f, cv]) => [f, logSd(cv)]));
    const prior = pooledBelief(cells, own);
    const jobs = (i.jobs as Inputs[]).map((j) => {
      const cell = cells.find((c) => c.id === j.cell) as Cell;
      const t = job(j);
      return { ...t, sources: t.sources.map((s) => ({ ...s, factors: s.factors.map((f) => inCell(cell, f)) })) };
    });
    const l = learn(prior, jobs, scatterOf(i), i.robust ?? true);
    return {
      cells: Object.fromEntries(
        cells.map((c) => [
          c.id,
          Object.fromEntries(
            Object.keys(own).map((f) => {
              const k = prior.names.indexOf(inCell(c, f));
              return [
                f,
                {
                  ...{ ratio: Math.exp(l.mean[k] ?? 0), sd_log: sdOf(l, k) },
                  narrowed_to: sdOf(l, k) / sdOf(prior, k),
                },
              ];
            }),
          ),
        ]),
      ),
    };
  },
  forget: (i) => {
    const before = believed({ f: logSd(i.table_cv) });
    const f = forget({ ...before, mean: [Math.log(i.ratio)], cov: [[i.sd_log ** 2]] }, before, i.days);
    return { ratio: Math.exp(f.mean[0] ?? 0), sd_log: sdOf(f, 0) };
  },
  scatter: (i) => {
    const s = learnScatter(believed(sds(named(i.jobs))), (i.jobs as Inputs[]).map(job), scatterOf(i));
    return {
      ...{ bead_cv: s.beadCv, bead_low: s.beadLow, bead_high: s.beadHigh, job_cv: s.dayCv, job_high: s.dayHigh },
    };
  },
  information: (i) => {
    const x = information(believed(sds(Object.keys(MODEL_CV))), job(i.job), scatterOf(i));
    return { narrowed_to: x.narrowedTo, bits: x.bits };
  },
  job_surprise: (i) => {
    const s = surprise(given(i.factors, i.correlation), job(i.job), scatterOf(i));
    return {
      ...{ d2: s.d2, readings: s.readings, p: s.p, p_heat: s.pHeat, p_reading: s.pReading, cause: s.cause },
      ...{ heat_factor: s.heatFactor, reading: s.reading, slip_mm: s.slipMm, largest_w: s.largestW },
    };
  },
  predict: (i) => {
    const e = expected(given(i.factors, i.correlation), job(i.job), scatterOf(i));
    return {
      ...{ mean: e.mean, sd: e.sd, sd_of_factors: e.factorsSd },
      low: e.mean.map((m, k) => m - half * (e.sd[k] ?? 0)),
      high: e.mean.map((m, k) => m + half * (e.sd[k] ?? 0)),
    };
  },
  next_preset: (i) => {
    const n = nextPreset(
      i.wanted_mm,
      {
        ...{ freeMm: i.free_mm, freeCv: i.free_cv, keeps: i.keeps, keepsSd: i.keeps_sd },
        scatterMm: i.scatter_mm,
      },
      ((i.trials ?? []) as Inputs[]).map((t) => ({ presetMm: t.preset_mm, resultMm: t.result_mm, uMm: t.u_mm ?? 0.3 })),
    );
    return {
      ...{ preset_mm: n.presetMm, expected_result_mm: n.expectedMm, sd_mm: n.sdMm, free_mm: n.freeMm },
      ...{ keeps: n.keeps, keeps_sd: n.keepsSd, chance_within_1mm: n.within1Mm },
    };
  },
  drift: (i) => {
    const d = drift(i.z);
    return { up: d.up, down: d.down, alarm_at: d.alarmAt };
  },
  coverage: (i) => {
    const c = coverage(i.inside, i.of, i.nominal);
    return {
      ...{ share: c.share, low: c.low, high: c.high, expected_from: c.expectedFrom, expected_to: c.expectedTo },
      word: c.word,
    };
  },
  pit: (i) => {
    const c = calibration(i.values);
    return {
      ...{ z: c.z, pit: c.pit, bins: c.bins, ks: c.ks, ks_p: c.ksP, mean_z: c.meanZ, rms_z: c.rmsZ },
    };
  },
  frame_chi2: (i) => frameChi2(i.residual_mm, i.cov),
  frames_needed: (i) => {
    const f = framesNeeded(i.nominal, i.true);
    return { frames: f.frames, reject_at_or_below: f.rejectAtOrBelow };
  },
};

import { risersOver } from "@/core/bed";
import {
  bent,
  type Contact,
  closedGap,
  closure,
  gapAdvice,
  gripped,
  heldByPads,
  keptByHinges,
  keptByPlate,
  located,
  reach,
  trapped,
} from "@/core/fixture";
import { MATERIALS } from "@/core/frame";
import { BoxProblem } from "@/core/mechanics";
import { closingPerGap, FACTORS } from "@/core/weld";
import { fibreRail } from "./fibreRail";

// biome-ignore lint/suspicious/noExplicitAny: case files are data of many shapes, read by one function each
type Inputs = any;

const contact = (c: Inputs): Contact => ({
  id: c.id,
  atMm: c.at_mm,
  push: c.push,
  ...(c.body ? { body: c.body } : {}),
  ...(c.gap_mm === undefined ? {} : { gapMm: c.gap_mm }),
});

const located_ = (found: ReturnType<typeof located>) => ({
  rank: found.rank,
  located: found.isLocated,
  once_only: found.onceOnly,
  surplus: found.surplus,
  could_go: found.couldGo,
  jams: found.jams,
  free_motion: found.free.map((m) =>
    m.kind === "slides" ? { kind: m.kind, direction: m.direction } : { kind: m.kind, about_mm: m.aboutMm },
  ),
});

const bending = (i: Inputs) => ({
  section: { widthMm: i.section.width_mm, heightMm: i.section.height_mm, wallMm: i.section.wall_mm },
  lengthMm: i.length_mm,
  youngMPa: i.E_MPa,
  yieldMPa: i.yield_MPa,
});

/** A gap that is filled, face by face: how much more each closes, and what that turns by the joint's answers to a mm of each. */
function filledFaces(i: Inputs): unknown {
  const perMm = closingPerGap("MAG", MATERIALS["mild steel"], FACTORS.transverse.value);
  const extra = Object.fromEntries(Object.entries(i.gap_mm).map(([face, mm]) => [face, perMm * (mm as number)]));
  const summed = (at: number): number =>
    Object.entries(i.response).reduce((s, [face, r]) => s + ((r as number[])[at] ?? 0) * (extra[face] ?? 0), 0);
  return {
    closing_per_mm: perMm,
    extra_closing_mm: extra,
    shortening_mm: summed(0),
    in_plane_mrad: summed(1),
    out_of_plane_mrad: summed(2),
  };
}

/** A seam that closes against the work and what holds it, as springs, the weld yielding as lines do; then what holds it is cut. */
function heldAndCut(i: Inputs): unknown {
  const [free, work, hold, weld] = [i.free_mm, i.k_work_N_per_mm, i.k_hold_N_per_mm, i.k_weld_N_per_mm];
  const together = (against: number): number => 1 / (1 / weld + 1 / against);
  // One line in the box problem that the simulation solves: its force if nothing yields, and what a mm that it stretches takes off.
  const box = new BoxProblem();
  box.begin(1);
  box.free[0] = free * together(work + hold);
  box.upper[0] = i.weld_limit_N ?? Number.POSITIVE_INFINITY;
  box.lower[0] = -(box.upper[0] as number);
  box.at[0] = 0;
  box.solve(Float64Array.of(together(work + hold)), 1);
  const stretch = box.p[0] as number;
  const forceN = (free - stretch) * together(work + hold);
  const held = forceN / (work + hold);
  const after = ((free - stretch) * together(work)) / work;
  return {
    weld_force_N: forceN,
    weld_stretch_mm: stretch,
    strongback_force_N: hold * held,
    moved_held_mm: held,
    moved_after_cut_mm: after,
    jump_mm: after - held,
    moved_free_mm: (free * together(work)) / work,
    // What the strongback itself was strained by, and what its ends part by.
    energy_released_Nmm: (hold * held * (held + after - held)) / 2,
  };
}

/** What the case files on holding ask for, by this project's functions. */
export const HOLDING: Record<string, (inputs: Inputs) => unknown> = {
  locate: (i) => located_(located(i.contacts.map(contact))),
  locate_set: (i) => {
    const mates = i.mates.map((m: Inputs) => ({ id: m.id, a: m.a, b: m.b, atMm: m.at_mm, push: m.push }));
    const found = located(i.contacts.map(contact), i.bodies, mates);
    return {
      rank: found.rank,
      full: found.full,
      free: found.free.length,
      surplus: found.surplus,
      moving: [...new Set(found.free.flatMap((m) => m.bodies))],
    };
  },
  closure: (i) => {
    const found = closure(
      i.stops.map(contact),
      i.clamps.map((c: Inputs) => ({ atMm: c.at_mm, push: c.push, forceN: c.force_N })),
    );
    return {
      closes: found.closes,
      balanced: found.balances,
      stop_N: i.stops.map((s: Inputs) => found.stopN[s.id]),
      least_stop_N: found.leastN,
    };
  },
  spreader: (i) => {
    // Two springs in closed form: what the frame would shrink by beyond the clearance presses on it.
    const normalN = i.k_N_per_mm * Math.max(0, i.shrink_mm - (i.clearance_mm ?? 0));
    const found = gripped(normalN, i.mu, i.taper_deg ?? 0);
    return {
      normal_N: normalN,
      knock_out_N: found.knockOutN,
      trapped: found.isTrapped,
      ejects_itself: found.ejectsItself,
      self_releasing_taper_deg: found.selfReleasingDeg,
    };
  },
  kept_bow: (i) => {
    const found = keptByPlate({
      factor: i.muL,
      youngMPa: i.E_MPa,
      alphaPerK: i.alpha_per_K,
      heatJPerMm3K: i.rho_c_J_per_mm3K,
      heatJPerMm: i.heat_J_per_mm,
      yieldMPa: i.yield_MPa,
      thicknessMm: i.thickness_mm,
      widthMm: i.width_mm,
      shimMm: i.shim_mm,
      freeMm: i.free_mm,
    });
    return {
      tendon_N: found.tendonN,
      zone_width_mm: found.zoneMm,
      kept_share: found.keptShare,
      final_mm: found.finalMm,
    };
  },
  joint_gap: (i) => {
    if (i.response) return filledFaces(i);
    const gap = Math.max(...(Object.values(i.gap_mm) as number[]));
    const found = closedGap(gap, i.k_frame_N_per_mm, i.k_joint_N_per_mm);
    return {
      close_force_N: found.closeN,
      springs_back_mm: found.springsBackMm,
      left_in_joint_N: found.leftInJointN,
      // Filled, each mm closes by so much more.
      advice: gapAdvice(gap, i.wall_mm, i.limit_mm, found, 0.105 * gap),
    };
  },
  friction_bar: (i) => {
    const bar = { eaN: i.EA_N, lengthMm: i.length_mm };
    const found = heldByPads(bar, i.contraction_mm, i.clamp_N, i.mu, i.pads);
    return { friction_N: found.frictionN, sticks: found.sticks, slip_mm: found.slipMm };
  },
  strongback: heldAndCut,
  fibre_rail: (i) => {
    const rail = {
      ...{ widthMm: i.section.width_mm, heightMm: i.section.height_mm, wallMm: i.section.wall_mm },
      ...{ lengthMm: i.length_mm, youngMPa: i.E_MPa, yieldMPa: i.yield_MPa, uprightsMm: i.uprights_x_mm },
      ...{ hotLengthMm: i.hot_length_mm, hotDepthMm: i.hot_depth_mm, shrink: i.shrink_strain },
    };
    return { final_mm: fibreRail(rail, i.shim_mm), free_mm: fibreRail(rail, null) };
  },
  trapped: (i) => {
    const contacts: Contact[] = i.contacts.map(contact);
    const moved = contacts.map((c) => c.atMm.map((v, k) => -i.shrink * (v - i.centre_mm[k])));
    const found = trapped(contacts, moved);
    return {
      trapped: found.isTrapped,
      interference_mm: found.interferenceMm,
      locked_on: found.lockedOn,
      clearance_mm: found.clearanceMm,
      force_N: (i.stiffness_N_per_mm ?? 0) * found.interferenceMm,
    };
  },
  risers: (i) => {
    const spot = ([x, y, z]: [number, number, number]) => ({ x, y, z });
    const found = risersOver(i.high_spots_mm.map(spot), i.rests_mm.map(spot), i.clearance_mm, i.level ?? true);
    return {
      riser_mm: found?.mm,
      total_mm: found?.mm.reduce((a, b) => a + b, 0),
      highest_point: [found?.highest],
    };
  },
  reach: (i) => {
    const obstacles = i.obstacles.map((o: Inputs) => ({ centreMm: o.centre_mm, radiusMm: o.radius_mm }));
    const found = reach(i.bead_mm, i.axis, i.tilt_deg, i.nozzle_radius_mm, obstacles);
    return {
      reached: found.isReached,
      tilt_needed_deg: found.tiltNeededDeg,
      free_share: found.isReached ? 1 : 0,
    };
  },
  bow_bend: (i) => {
    const found = bent(bending(i), i.shim_mm, i.shape === "uniform" ? "moment" : "shim");
    return {
      shim_force_N: found.shimN,
      end_clamp_N: found.endN,
      moment_Nmm: found.momentNmm,
      yields: found.yields,
      edge_stress_MPa: found.edgeMPa,
      first_yield_mm: found.firstYieldMm,
      residual_mm: found.setMm,
      spring_back_mm: found.springsBackMm,
      energy_back_Nmm: found.energyNmm,
    };
  },
  hinge_rail: (i) => {
    const found = keptByHinges(bending(i), i.uprights_x_mm, i.hot_share, i.free_mm, i.shim_mm);
    return { kept_mm: found.keptMm, final_mm: found.finalMm };
  },
};

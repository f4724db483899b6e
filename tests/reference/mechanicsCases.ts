import { readFileSync } from "node:fs";
import path from "node:path";
import type { FaceLine } from "@/core/frame";
import { flatness } from "@/core/geometry";
import type { BeamSection, MechanicalFrame } from "@/core/mechanics";
import type { Vec3 } from "@/core/numeric";
import { CompileCache, type CompiledSteps, compileLoads, type SimulationStep } from "@/core/shrink";
import { FACTORS, NOMINAL_JOINTS, type WeldedModel, weldedModel } from "@/core/weld";
import { tube } from "../support/beams";

/** One file of cases. */
export interface CaseFile {
  id: string;
  kind: string;
  title: string;
  runs: { run: string; frame: CaseFrame; expected: CaseValue[] }[];
}
export interface CaseValue {
  result: string;
  unit: string;
  expected: number;
  tolerance_abs: number;
  this_model?: number;
}
export interface CaseFrame {
  material: Record<string, number>;
  points: Record<string, [number, number, number]>;
  sections: Record<string, Record<string, unknown>>;
  members: { id: string; section: string; points: string[] }[];
  joints: { id: string; kind: string; a: string; b: string; point: string }[];
  supports?: { member: string; point: string; fix: string[] }[];
  corners?: string[];
  model?: { cap?: boolean; fitup?: number; gap_mm?: number | null };
  steps: Record<string, unknown>[];
}

const KEYS = {
  frame: ["units", "material", "points", "sections", "members", "joints", "supports", "steps", "model", "corners"],
  member: ["id", "section", "points"],
  joint: ["id", "kind", "a", "b", "point"],
  support: ["member", "point", "fix"],
  model: ["cap", "fitup", "gap_mm"],
  section: ["shape", "width_in_plane_mm", "height_out_of_plane_mm", "wall_mm"],
  material: ["E_MPa", "nu", "yield_MPa", "alpha_per_K", "rho_c_J_per_mm3K"],
  step: [
    "do",
    "id",
    "joint",
    "side",
    "member",
    "point",
    "dir",
    "note",
    "length_mm",
    "closing_mm",
    "heat_J_per_mm",
    "corner_share",
    "volume_mm3",
    "stiffness_N_per_mm",
    "wrench_N_Nmm",
    "residual_share",
  ],
} as const;

/** Fails on a key that nothing here reads. */
function known(what: keyof typeof KEYS, thing: object): void {
  const odd = Object.keys(thing).find((k) => !(KEYS[what] as readonly string[]).includes(k));
  if (odd) throw new Error(`unknown key ${odd} in a ${what}`);
}

/** Square corners: the cases compare with strips of walls that have no radius. */
function sharpTube(raw: Record<string, unknown>): BeamSection {
  known("section", raw);
  if (raw.shape !== "square_tube" && raw.shape !== "rectangular_tube") throw new Error(`unknown shape ${raw.shape}`);
  return tube(Number(raw.width_in_plane_mm), Number(raw.height_out_of_plane_mm), Number(raw.wall_mm));
}

export function frameOf(raw: CaseFrame): MechanicalFrame {
  known("frame", raw);
  known("material", raw.material);
  known("model", raw.model ?? {});
  const sections = Object.fromEntries(Object.entries(raw.sections).map(([k, v]) => [k, sharpTube(v)]));
  const m = raw.material;
  return {
    material: {
      eMPa: Number(m.E_MPa),
      nu: Number(m.nu),
      yieldMPa: Number(m.yield_MPa),
      alphaPerK: Number(m.alpha_per_K),
      heatJPerMm3K: Number(m.rho_c_J_per_mm3K),
    },
    points: raw.points,
    members: raw.members.map((member) => {
      known("member", member);
      return { id: member.id, section: sections[member.section] as BeamSection, points: member.points };
    }),
    joints: raw.joints.map((joint) => {
      known("joint", joint);
      const kind = { miter: "mitre", butt: "butt", tee: "tee", lap: "lap" }[joint.kind];
      if (!kind) throw new Error(`unknown joint ${joint.kind}`);
      return { ...joint, kind } as MechanicalFrame["joints"][number];
    }),
    supports: (raw.supports ?? []).map((s) => {
      known("support", s);
      return s as MechanicalFrame["supports"][number];
    }),
  };
}

/** Cases state the volume that acts; the tables hold what share of a contraction that is. */
const CHORD_SHARE = { across: 0.93, along: 0.78 } as const;
const across = (line: FaceLine) => (line === "plus" || line === "minus" ? "across" : "along");

/** A bead's `corner_share` says which strip was contracted: the tables hold that strip, so nothing here asks for it. */
export function stepOf(raw: Record<string, unknown>, i: number): SimulationStep {
  known("step", raw);
  const id = `${i}`;
  const joint = String(raw.joint);
  const line = raw.side as FaceLine;
  const heat =
    raw.closing_mm === undefined ? { heatJPerMm: Number(raw.heat_J_per_mm) } : { closingMm: Number(raw.closing_mm) };
  switch (raw.do) {
    case "tack":
      return { id, do: "tack", joint, line, lengthMm: Number(raw.length_mm), ...heat };
    case "weld":
      return {
        id,
        do: "bead",
        joint,
        line,
        ...heat,
      };
    case "eigen_chord":
      return { id, do: "chord", joint, line, volumeMm3: Number(raw.volume_mm3) / CHORD_SHARE[across(line)] };
    case "clamp":
      return {
        id,
        do: "clamp",
        clamp: String(raw.id),
        member: String(raw.member),
        point: String(raw.point),
        direction: raw.dir as Vec3,
        stiffnessNPerMm: Number(raw.stiffness_N_per_mm),
      };
    case "unclamp":
      return { id, do: "unclamp", clamp: String(raw.id) };
    case "square_up":
      return { id, do: "square up", residualShare: Number(raw.residual_share) };
    case "load":
      return {
        id,
        do: "load",
        member: String(raw.member),
        point: String(raw.point),
        wrench: raw.wrench_N_Nmm as [number, number, number, number, number, number],
      };
    default:
      throw new Error(`unknown step ${raw.do}`);
  }
}

/** The rail with six uprights of the cases. */
export function bananaRail(): CaseFrame {
  const file = path.join(import.meta.dirname, "cases/mechanics/13-banana-rail.json");
  const [run] = (JSON.parse(readFileSync(file, "utf8")) as CaseFile).runs;
  if (!run) throw new Error("no rail");
  return run.frame;
}

/** A case's frame and steps as the core takes them. @param beadHeat replaces the heat of every bead, J/mm. */
export function caseProgramme(
  raw: CaseFrame,
  beadHeat?: number,
): { model: WeldedModel; plan: CompiledSteps; limited: boolean } {
  const steps = raw.steps
    .map(stepOf)
    .map((s) => (beadHeat !== undefined && s.do === "bead" ? ({ ...s, heatJPerMm: beadHeat } as SimulationStep) : s));
  const model = weldedModel(frameOf(raw), {
    ...NOMINAL_JOINTS,
    // The cases hold open faces by springs, both ways.
    fitup: raw.model?.fitup ?? 0.01,
    gapMm: raw.model?.gap_mm ?? null,
  });
  return {
    model,
    plan: compileLoads(new CompileCache(model, FACTORS), steps),
    limited: raw.model?.cap ?? true,
  };
}

/** Largest offset of a member's nodes from the line between its ends, along its local y. */
function camber(model: WeldedModel, nodes: number[], u: Float64Array): number {
  const y = nodes.map((n) => u[6 * n + 1] as number);
  const x = nodes.map((n) => model.nodes[n]?.at[0] as number);
  const [x0, x1, y0, y1] = [x[0], x.at(-1), y[0], y.at(-1)] as [number, number, number, number];
  const off = y.map((v, i) => v - (y0 + ((y1 - y0) * ((x[i] as number) - x0)) / (x1 - x0)));
  return off.reduce((m, v) => (Math.abs(v) > Math.abs(m) ? v : m), 0);
}

/** The values that a case asks for, from the movement of every freedom, mm and rad. */
export function caseResult(raw: CaseFrame, model: WeldedModel, u: Float64Array, result: string): number {
  const [what, ...rest] = result.split("/");
  const at = (i: number): number => u[i] as number;
  const corner = (name: string): Vec3 => {
    const nodes = model.nodes.map((n, i) => ({ ...n, i })).filter((n) => n.point === name);
    const mean = (f: number) => nodes.reduce((s, n) => s + at(6 * n.i + f), 0) / nodes.length;
    return [mean(0), mean(1), mean(2)];
  };
  const corners = raw.corners ?? [];
  const stretch = (a: string, b: string): number => {
    const [pa, pb] = [raw.points[a] as Vec3, raw.points[b] as Vec3];
    const [ua, ub] = [corner(a), corner(b)];
    const d = pb.map((v, i) => v - (pa[i] as number));
    const size = Math.hypot(...d);
    return d.reduce((s, v, i) => s + (v / size) * ((ub[i] as number) - (ua[i] as number)), 0);
  };
  const pick = (i: number): string => corners[i % corners.length] as string;
  const lifts = corners.map((c) => corner(c)[2]);
  switch (what) {
    case "end_displacement_mm_mrad": {
      const [member, point] = (rest[0] as string).split("@") as [string, string];
      const f = Number(rest[1]);
      return at(6 * model.nodeOf(member, point) + f) * (f < 3 ? 1 : 1000);
    }
    case "side_change_mm":
      return stretch(pick(Number(rest[0])), pick(Number(rest[0]) + 1));
    case "diagonal_change_mm":
      return stretch(pick(Number(rest[0])), pick(Number(rest[0]) + 2));
    case "twist_mm":
      return lifts.reduce((s, z, i) => s + (i % 2 === 0 ? z : -z), 0);
    case "flatness_min_zone_mm":
      return (
        flatness(
          corners.map((c) => ({ x: (raw.points[c] as Vec3)[0], y: (raw.points[c] as Vec3)[1] })),
          lifts,
          0.01,
        ).zoneMm ?? Number.NaN
      );
    case "camber": {
      const member = model.members.get(rest[0] as string);
      if (!member || rest[1] !== "in_plane_mm") throw new Error(`unknown result ${result}`);
      return camber(model, member.nodes, u);
    }
    default:
      throw new Error(`unknown result ${what}`);
  }
}

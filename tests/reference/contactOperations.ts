import type { MechanicalFrame } from "@/core/mechanics";
import { condense, LowRankRun, plainRun } from "@/core/mechanics";
import type { Vec3 } from "@/core/numeric";
import { CompileCache, compileLoads, type SimulationStep } from "@/core/shrink";
import { FACTORS, NOMINAL_JOINTS, weldedModel } from "@/core/weld";
import { STEEL } from "../support/beams";
import { frameOf, stepOf } from "./mechanicsCases";

// biome-ignore lint/suspicious/noExplicitAny: case files are data of many shapes, read by one function each
type Inputs = any;

/** What a free frame is kept in place with while nothing pushes it. */
const NOTHING_N = 1e-5;

type StopOn = Extract<SimulationStep, { do: "stop on" }>;

/** Works contacts out both ways, and says what each pushes with and how far it stands off. */
function worked(frame: MechanicalFrame, steps: readonly SimulationStep[]) {
  const model = weldedModel(frame, { ...NOMINAL_JOINTS, gapMm: null });
  const cache = new CompileCache(model, FACTORS, steps);
  const plan = compileLoads(cache, steps);
  const plain = plainRun(plan);
  const rows = Array.from({ length: model.freedoms }, (_, i) => ({ at: [i], value: [1] }));
  const run = new LowRankRun(condense(plan, rows));
  run.forward(plan, 0, plan.actions.length);
  const out = run.gather();
  const u = plain.movements.at(-1) as Float64Array;
  const largest = Math.max(1, ...u.map(Math.abs));
  const apart = Math.max(...u.map((v, i) => Math.abs(v - (out[i] as number)))) / largest;
  // A beam that shall not give way in shear costs the whole matrix digits.
  if (!(apart < 1e-5)) throw new Error(`condensed and plain are ${apart} mm apart`);
  const stops = steps.filter((s): s is StopOn => s.do === "stop on");
  const byRun = new Map(run.contactForces().map((c) => [`${c.post}/${c.at}`, c.forceN]));
  return stops.map((s) => {
    const { spring, at } = cache.contact(s);
    const forceN = byRun.get(`${spring - model.joints.length}/${at}`) ?? Number.NaN;
    const node = 6 * model.nodeOf(s.member, s.point);
    const moved = s.push.reduce((sum, v, i) => sum + v * (u[node + i] as number), 0);
    return { id: s.stop, forceN, gapMm: (s.gapMm ?? 0) + moved };
  });
}

/** A beam that does not give way in shear, on supports that hold both ways and contacts that only push. */
function contactBeam(i: Inputs): unknown {
  const stopAt = (id: string, x: number, up: 1 | -1, gapMm: number): [number, StopOn] => [
    x,
    { id, do: "stop on", stop: id, member: "beam", point: `P${x}`, push: [0, 0, up], gapMm },
  ];
  const pushes: [number, StopOn][] = [
    ...i.contacts.map((c: Inputs, k: number) => stopAt(`c${k}`, c.x_mm, c.side === "below" ? 1 : -1, c.gap_mm ?? 0)),
    // What holds both ways is pressed on here.
    ...(i.fixed_x_mm ?? []).map((x: number, k: number) => stopAt(`f${k}`, x, 1, 0)),
  ];
  const loads = i.loads ?? [];
  const places = [...new Set([0, i.length_mm, ...pushes.map(([x]) => x), ...loads.map((l: Inputs) => l.x_mm)])];
  places.sort((a, b) => a - b);
  const frame: MechanicalFrame = {
    material: STEEL,
    points: Object.fromEntries(places.map((x) => [`P${x}`, [x, 0, 0] as Vec3])),
    members: [
      {
        id: "beam",
        // As long as the beam is: what it gives way in shear is nothing beside that.
        section: {
          shape: "flat",
          widthMm: 1e3,
          heightMm: 1e3,
          wallMm: 1e3,
          areaMm2: 1.5e8,
          iyMm4: i.EI_Nmm2 / STEEL.eMPa,
          izMm4: i.EI_Nmm2 / STEEL.eMPa,
          jMm4: i.EI_Nmm2 / STEEL.eMPa,
        },
        points: places.map((x) => `P${x}`),
      },
    ],
    joints: [],
    supports: [],
    carried: true,
  };
  const steps: SimulationStep[] = [
    // A gap counts from when a contact is put on: what is driven in comes last.
    ...pushes.map(([, s]) => s).sort((a, b) => (b.gapMm ?? 0) - (a.gapMm ?? 0)),
    ...loads.map(
      (l: Inputs, k: number): SimulationStep => ({
        id: `l${k}`,
        do: "load",
        member: "beam",
        point: `P${l.x_mm}`,
        wrench: [0, 0, l.N_up, 0, 0, 0],
      }),
    ),
    ...(i.load_N_per_mm
      ? [{ id: "weight", do: "weight on" as const, nPerMm: { beam: i.load_N_per_mm as number } }]
      : []),
  ];
  const found = worked(frame, steps);
  const own = pushes.flatMap(([, { stop }]) => found.filter((c) => c.id === stop && stop.startsWith("c")));
  return {
    force_N: own.map((c) => c.forceN),
    gap_mm: own.map((c) => c.gapMm),
    closed: own.map((c) => c.forceN > NOTHING_N),
    fixed_N: found.filter((c) => c.id.startsWith("f")).map((c) => c.forceN),
  };
}

/** Steel and the earth as the cases have them: kg/mm3, N/kg. The project's own differ in the fourth digit. */
const CASE_WEIGHT = { densityKgPerMm3: 7.85e-6, nPerKg: 9.81 } as const;
const CASE_STEEL = {
  E_MPa: STEEL.eMPa,
  nu: STEEL.nu,
  alpha_per_K: STEEL.alphaPerK,
  rho_c_J_per_mm3K: STEEL.heatJPerMm3K,
};

/** A frame that is tacked and welded on contacts that only push, and lies on them by its weight. */
function heldFrame(i: Inputs): unknown {
  const { contacts, float: carried, material, sections, steps, points, members, joints } = i.frame;
  const raw = {
    ...{ points, members, joints, steps: [] },
    material: { ...CASE_STEEL, ...material },
    sections: Object.fromEntries(
      Object.entries(sections).map(([name, s]) => [name, { shape: "rectangular_tube", ...(s as object) }]),
    ),
  };
  const frame: MechanicalFrame = { ...frameOf(raw), ...(carried ? { carried: true } : {}) };
  const weight = Object.fromEntries(
    frame.members.map((m) => [m.id, CASE_WEIGHT.densityKgPerMm3 * CASE_WEIGHT.nPerKg * m.section.areaMm2]),
  );
  // A joint gives between its two members here, and what is put under a corner lies under both: each has its own contact, which the case
  // counts as one.
  const under = (c: Inputs): string[] => {
    const joint = frame.joints.find((j) => j.point === c.point);
    return joint ? [joint.a, joint.b] : [c.member];
  };
  const stops = contacts.flatMap((c: Inputs): StopOn[] =>
    under(c).map((member) => ({
      ...{ id: `${c.id}/${member}`, do: "stop on", stop: `${c.id}/${member}`, member, point: c.point, push: c.push },
      gapMm: c.gap_mm ?? 0,
    })),
  );
  const found = worked(frame, [
    ...stops,
    ...steps.map(
      (s: Inputs, k: number): SimulationStep =>
        s.do === "gravity" ? { id: `weight ${k}`, do: "weight on", nPerMm: weight } : stepOf(s, k),
    ),
  ]);
  return {
    contacts: Object.fromEntries(
      contacts.map((c: Inputs) => {
        const own = found.filter((f) => f.id.startsWith(`${c.id}/`));
        const forceN = own.reduce((s, f) => s + f.forceN, 0);
        return [c.id, { force_N: forceN, gap_mm: Math.min(...own.map((f) => f.gapMm)), closed: forceN > NOTHING_N }];
      }),
    ),
  };
}

/** Contacts that only push, by this project's simulation: condensed, and by the whole matrix. */
export const CONTACTS: Record<string, (inputs: Inputs) => unknown> = {
  contact_beam: contactBeam,
  held_frame: heldFrame,
};

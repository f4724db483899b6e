import { memberAxes, shapeProperties } from "../frame";
import { type BeamSection, beamStiffness, extentAlong, relativeRows, toGlobal } from "../mechanics";
import { add3, cross3, luSolve, norm3, type Sparse, scale3, squareTo, sub3, unit3, type Vec3 } from "../numeric";
import {
  chordHeat,
  jointStiffness,
  kinkLoad,
  NOMINAL_JOINTS,
  type ShrinkFactors,
  type WeldedJoint,
  type WeldedModel,
  type WeldState,
  weldedModel,
} from "../weld";
import { chordVolumeMm3, contractionMm } from "./chordContraction";
import type { SimulationStep } from "./simulationSteps";

type StrongbackOn = Extract<SimulationStep, { do: "strongback on" }>;

/** A bar between two nodes as one spring of six ways at its far end. */
export interface StrongbackSpring {
  rows: Sparse[];
  /** 6 x 6. */
  matrix: Float64Array;
  /** What its tacks do to the members that it sits on: loads over the freedoms, for a mm of contraction of a wall. */
  kinks: { key: string; load: () => Sparse; mm: number }[];
}

/** So far a member runs on beside a tacked end, mm: only its way counts. */
const ARM_MM = 300;
/** Tacked on both sides across the member that it sits on. */
const TACKED = ["plus", "minus"] as const;

/** How a wrench at one place is a wrench at another: f the same, m = m + (from - to) x f. */
function carried(from: Vec3, to: Vec3): Float64Array {
  const w = new Float64Array(36);
  for (let i = 0; i < 6; i++) w[7 * i] = 1;
  const r = sub3(from, to);
  for (let j = 0; j < 3; j++) {
    const e: Vec3 = [j === 0 ? 1 : 0, j === 1 ? 1 : 0, j === 2 ? 1 : 0];
    cross3(r, e).forEach((v, i) => {
      w[6 * (3 + i) + j] = v;
    });
  }
  return w;
}

function inverse(m: Float64Array): Float64Array {
  const out = new Float64Array(36);
  for (let i = 0; i < 6; i++) out[7 * i] = 1;
  if (!luSolve(m.slice(), out, 6, 6)) throw new RangeError("A strongback holds nothing that way.");
  return out;
}

/** Adds what gives at `at` to what gives at `seen`: W' C W. */
function addGiving(into: Float64Array, c: Float64Array, seen: Vec3, at: Vec3): void {
  const w = carried(seen, at);
  for (let i = 0; i < 6; i++)
    for (let j = 0; j < 6; j++) {
      let sum = 0;
      for (let p = 0; p < 6; p++) for (let q = 0; q < 6; q++) sum += w[6 * p + i] * c[6 * p + q] * w[6 * q + j];
      into[6 * i + j] = into[6 * i + j] + sum;
    }
}

/** One tacked end: how much it gives, where, and what its tacks do to the member. */
interface TackedEnd {
  at: Vec3;
  /** Where the bar's line ends. */
  barAt: Vec3;
  gives: Float64Array;
  kinks: StrongbackSpring["kinks"];
}

/** An end that is held as fast as the member itself. */
const fast = (at: Vec3): TackedEnd => ({ at, barAt: at, gives: new Float64Array(36), kinks: [] });

/** How an end gives that is tacked over a member, or between two against its side, by the tables of a lap or a tee. */
function tackedEnd(
  model: WeldedModel,
  factors: ShrinkFactors,
  step: StrongbackOn,
  which: "from" | "to",
  bar: BeamSection,
): TackedEnd {
  const [member, point] = step[which];
  const chord = model.members.get(member);
  const node = model.nodeOf(member, point);
  const here = model.nodes[node].at;
  const [farMember, farPoint] = step[which === "from" ? "to" : "from"];
  const there = model.nodes[model.nodeOf(farMember, farPoint)].at;
  const { tacks } = step;
  if (!chord || !tacks) return fast(here);
  const up = unit3(model.frame.up ?? [0, 0, 1]);
  const out = unit3(squareTo(up, chord.axes[0]));
  const over = tacks.lies === "over";
  const rise = over ? (extentAlong(chord.section, chord.axes, out) + bar.heightMm) / 2 : 0;
  const barAt = add3(here, scale3(out, rise));
  const along = unit3(sub3(there, here));
  const joint = { id: "end", kind: over ? ("lap" as const) : ("tee" as const), a: member, b: "bar", point: "P" };
  const { material, up: level } = model.frame;
  const small = weldedModel(
    {
      material,
      ...(level ? { up: level } : {}),
      points: {
        P: here,
        P0: add3(here, scale3(chord.axes[0], -ARM_MM)),
        P1: add3(here, scale3(chord.axes[0], ARM_MM)),
        Q: barAt,
        Q1: add3(barAt, scale3(along, ARM_MM)),
      },
      members: [
        { id: member, section: chord.section, points: ["P0", "P", "P1"], up: chord.axes[2] },
        { id: "bar", section: bar, points: [over ? "Q" : "P", "Q1"] },
      ],
      joints: [over ? { ...joint, pointB: "Q" } : joint],
      supports: [],
    },
    { ...NOMINAL_JOINTS, gapMm: null },
  );
  const [made] = small.joints as [WeldedJoint];
  const state = made.faces.kind.lines.map((l) =>
    (TACKED as readonly string[]).includes(l) ? tacks.lengthMm : 0,
  ) as unknown as WeldState;
  const { k, welds } = jointStiffness(made, state);
  const [wall] = made.chords;
  const heat = wall && chordHeat(wall, welds);
  const contracts = TACKED.map((_, line) => {
    const seam = { line, lengthMm: tacks.lengthMm, heatJPerMm: tacks.heatJPerMm, heatShare: factors.tackHeat.value };
    return wall ? contractionMm(wall, line, chordVolumeMm3(wall, seam, factors, model.frame.material)) : 0;
  });
  return {
    at: made.at,
    barAt: over ? barAt : made.at,
    gives: inverse(k),
    kinks: heat
      ? [0, 1, 2, 3, 4, 5].flatMap((way) => {
          // Both tacks: what their walls contract kinks the member toward the bar.
          const mm = contracts.reduce((sum, by, line) => sum + by * heat.kink[4 * way + line], 0);
          const load = () => kinkLoad(model, { member, node }, way);
          return mm === 0 ? [] : [{ key: `strongback/${node}/${way}`, load, mm }];
        })
      : [],
  };
}

/**
 * A bar between two nodes: the stiffness of a cantilever of its length, in series with its tacked ends where it says how it is tacked, else
 * held as fast as the members themselves.
 */
export function strongbackSpring(model: WeldedModel, factors: ShrinkFactors, step: StrongbackOn): StrongbackSpring {
  const bar: BeamSection = shapeProperties({ shape: "tube", ...step.section });
  const [a, b] = [tackedEnd(model, factors, step, "from", bar), tackedEnd(model, factors, step, "to", bar)];
  const { eMPa, nu } = model.frame.material;
  const axes = memberAxes(a.barAt, b.barAt, undefined, unit3(model.frame.up ?? [0, 0, 1]));
  const k = toGlobal(beamStiffness(bar, norm3(sub3(b.barAt, a.barAt)), eMPa, eMPa / (2 * (1 + nu))), axes);
  const far = new Float64Array(36);
  for (let i = 0; i < 6; i++) for (let q = 0; q < 6; q++) far[i * 6 + q] = k[(6 + i) * 12 + 6 + q];
  const [from, to] = [model.nodeOf(...step.from), model.nodeOf(...step.to)];
  const rows = relativeRows(b.barAt, from, model.nodes[from].at, to, model.nodes[to].at);
  if (!step.tacks) return { rows, matrix: far, kinks: [] };
  const gives = inverse(far);
  addGiving(gives, a.gives, b.barAt, a.at);
  addGiving(gives, b.gives, b.barAt, b.at);
  const matrix = inverse(gives);
  for (let i = 0; i < 6; i++)
    for (let j = 0; j < i; j++) {
      const mean = (matrix[6 * i + j] + matrix[6 * j + i]) / 2;
      matrix[6 * i + j] = mean;
      matrix[6 * j + i] = mean;
    }
  return { rows, matrix, kinks: [...a.kinks, ...b.kinks] };
}

import {
  type BentSection,
  heatWedge,
  type PlainRectangle,
  plasticSection,
  pressMidspan,
  type RemedyId,
  type RemedyOption,
  rackByDiagonal,
  remedyKey,
  type Stands,
  threeBar,
  twistFrame,
  wallClass,
  weldRingMoment,
} from "../check";
import { type FaceLine, MATERIALS, type Structure, type StructureMember } from "../frame";
import { SIDES } from "../geometry";
import { lineOfFace, mechanicalKind } from "../mechanics";
import { norm3, partOf, sub3 } from "../numeric";
import { heldMechanics, loadSteps } from "../plan";
import { KINK_RAD, moreBeads, remedyEffects, type SimulationStep, type UnitDeed } from "../shrink";
import { formatSmall, physical } from "../units";
import { filletOfHeat, type ProcessName } from "../weld";
import { builtOf } from "./built";
import { factorsOf } from "./factorsOf";
import { heldOf } from "./held";
import type { Plan } from "./planSchema";
import { weldOf } from "./settings";

/** One remedy with all that is said of it. */
export interface Remedy {
  id: RemedyId;
  option: RemedyOption;
  /** What its amount is: how far it is pushed, so many beads or wedges, or once over. */
  counts: "mm" | "pieces";
  /** For a push past yield: what comes back, mm, and the force, N; how much of what stays a mm of the quantity is on what is pushed. */
  push: { springbackMm: number; forceN: number; mmPerUnit: number } | null;
  /** Why the amount is unsure, and what to look out for. */
  cautions: string[];
}

/** Minutes that each takes once, and the chance that it spoils something. Source: own judgement. */
const EFFORT = {
  rack: { min: 6, risk: 0.02, cv: 0.1 },
  untwist: { min: 8, risk: 0.03, cv: 0.1 },
  press: { min: 5, risk: 0.02, cv: 0.1 },
  bead: { min: 10, risk: 0.01, cv: 0.4 },
  peen: { min: 8, risk: 0, cv: 0.6 },
  recut: { min: 20, risk: 0.02, cv: 0.4 },
  wedges: { min: 12, risk: 0.01, cv: 0.5 },
} as const;
/** A wall that may be bent but not turned buckles sooner. Source: own judgement. */
const SLENDER_RISK = 0.05;
/** Share of its contraction that peening gives back. Source: own judgement. */
const PEENED = 0.3;
/** A wedge of heat: width as a share of the depth, depth as a share of the member's, how hot, and how held. Source: own judgement. */
const WEDGE = { wide: 0.6, deep: 0.75, riseK: 600, restraint: 0.55 } as const;
/** Yield that a piece is likely to have over what is stated. Source: own judgement (real yield is 1 to 1.4 times nominal, from memory). */
const LIKELY_YIELD = 1.15;
const MOST = { beads: 2, wedges: 6 } as const;
/** What a remedy changes by less is not told, mm. */
const LEAST_EFFECT = 1e-4;

const tubeOf = (m: StructureMember | undefined): { widthMm: number; heightMm: number; wallMm: number } | null =>
  m?.shape.shape === "tube" ? m.shape : null;
const inPlane = (t: { widthMm: number; heightMm: number; wallMm: number }): BentSection => ({
  widthMm: t.heightMm,
  depthMm: t.widthMm,
  wallMm: t.wallMm,
});
const outOfPlane = (t: { widthMm: number; heightMm: number; wallMm: number }): BentSection => ({
  widthMm: t.widthMm,
  depthMm: t.heightMm,
  wallMm: t.wallMm,
});

/** Remedies of a frame, and why others are not among them. */
export interface RemedyChoice {
  remedies: Remedy[];
  refused: string[];
}

/**
 * Remedies for what stands outside its limits, each with what it does to every quantity: in the mechanics of this frame, as it is welded.
 * A generator: yields the share done.
 */
export function* remedyOptions(
  plan: Plan,
  quantities: Readonly<Record<string, Stands>>,
): Generator<number, RemedyChoice> {
  const { structure, order, on } = builtOf(plan);
  if (!structure || !order) throw new RangeError("The frame has errors.");
  const weld = weldOf(plan);
  const { mechanics, by } = heldMechanics(structure, on, heldOf(structure, plan));
  const factors = factorsOf(plan);
  const refused: string[] = [];
  const soft = structure.members.find((m) => MATERIALS[m.material].heatSoftens);
  if (soft) {
    refused.push(
      `${MATERIALS[soft.material].label} loses strength when it is heated, and cracks when it is bent back: no bead, no heat, no press. Soft, aligned and hardened again by whoever may do it, or made anew.`,
    );
    return { remedies: [], refused };
  }
  const wants = (key: string): boolean => quantities[key] !== undefined;
  const steps = loadSteps(structure, weld, order.steps, by);
  const beads = beadDeeds(structure, steps);
  const bowed = structure.members.filter((m) => wants(`straight ${m.id}`) && tubeOf(m));
  const kinks = bowed.flatMap((m): UnitDeed[] =>
    (["bow", "lift"] as const).map((way) => ({
      id: `${m.id} ${way}`,
      do: "kink",
      member: m.id,
      alongMm: norm3(sub3(m.to, m.from)) / 2,
      way,
    })),
  );
  const { quad } = structure;
  const pulls: UnitDeed[] = quad
    ? [
        { id: "AC", do: "pull", from: 0, to: 2 },
        { id: "BD", do: "pull", from: 1, to: 3 },
      ]
    : [];
  const elastic = yield* partOf(
    remedyEffects(structure, mechanics, factors, [...beads, ...kinks, ...pulls]),
    0,
    quad ? 0.35 : 0.6,
  );
  const more = yield* partOf(
    moreBeads(structure, mechanics, factors, steps, beads),
    quad ? 0.35 : 0.6,
    quad ? 0.35 : 0.4,
  );
  const remedies: Remedy[] = [];
  const onLimits = (effect: Readonly<Record<string, number>>, times = 1): Record<string, number> =>
    Object.fromEntries(
      Object.keys(quantities).flatMap((k) => {
        const v = times * (effect[k] ?? 0);
        return Math.abs(v) > LEAST_EFFECT ? [[k, v] as const] : [];
      }),
    );
  const put = (id: RemedyId, own: Omit<Remedy, "id" | "option"> & { option: Omit<RemedyOption, "id"> }): void => {
    remedies.push({ ...own, id, option: { id: remedyKey(id), ...own.option } });
  };

  for (const { id, joint, face: line } of beads) {
    const bead = onLimits(more.get(id) ?? {});
    const { min: effortMin, risk, cv } = EFFORT.bead;
    if (Object.keys(bead).length === 0) continue;
    put(
      { do: "bead", joint, line },
      {
        counts: "pieces",
        push: null,
        cautions: ["Grind the first bead down where the second must not stand proud."],
        option: { effect: bead, max: MOST.beads, unitSteps: true, cv, effortMin, risk },
      },
    );
    put(
      { do: "peen", joint, line },
      {
        counts: "pieces",
        push: null,
        cautions: [
          "Cold, with a round-nosed hammer, not the first and not the last layer of a critical weld. Eyes and ears covered.",
        ],
        option: {
          effect: onLimits(elastic.get(id) ?? {}, -PEENED),
          max: 1,
          unitSteps: true,
          cv: EFFORT.peen.cv,
          effortMin: EFFORT.peen.min,
          risk: EFFORT.peen.risk,
        },
      },
    );
  }

  const { square, twist } = quantities;
  if (quad && (square || twist)) {
    const sides = SIDES.map((s) => structure.members.find((m) => m.id === quad.sides[s]));
    const tubes = sides.map(tubeOf);
    const [ab, bc] = tubes;
    const classes = sides.map((m, i) => {
      const t = tubes[i];
      return m && t ? wallClass(Math.max(t.widthMm, t.heightMm), t.wallMm, MATERIALS[m.material].yieldMPa).cls : 4;
    });
    const worst = Math.max(...classes);
    const rectangle =
      ab && bc ? { ab, bc, of: sides[0] as StructureMember, second: sides[1] as StructureMember } : null;
    if (!rectangle)
      refused.push("Its sides are no square or rectangular tubes: how far to push them past yield is not known here.");
    else if (worst > 2)
      refused.push(
        `Pulled or pressed past yield its thin walls would buckle before they turn (class ${worst}): no racking, no untwisting by force.`,
      );
    else {
      const material = {
        eMPa: MATERIALS[rectangle.of.material].eMPa,
        yieldMPa: LIKELY_YIELD * MATERIALS[rectangle.of.material].yieldMPa,
      };
      const lengthOf = (m: StructureMember): number => norm3(sub3(m.to, m.from));
      const size = { lengthMm: lengthOf(rectangle.of), heightMm: lengthOf(rectangle.second) };
      const weak = filletCorners(structure, beads, weld.process, rectangle);
      const risk = (worst === 2 ? SLENDER_RISK : 0) + (weak ? SLENDER_RISK : 0);
      const slender = [
        ...(worst === 2 ? ["Its walls may be bent, not turned: stop at the first dent."] : []),
        ...(weak
          ? [
              `The fillets at ${weak.joint} bear about ${Math.round(100 * weak.share)} % of what the tube bears before it turns: the seam may tear first. Watch it, and stop.`,
            ]
          : []),
      ];
      if (square && Math.abs(square.value) > LEAST_EFFECT) {
        const long = square.value > 0 ? "AC" : "BD";
        const plain: PlainRectangle = { ...size, rail: inPlane(rectangle.ab), post: inPlane(rectangle.bc) };
        const rack = rackByDiagonal(plain, material, Math.abs(square.value));
        const across = crossing(structure);
        // Each member that joins two sides bends at both ends, as a post does.
        const forceN = (rack.forceN * (across + 2)) / 2;
        const flex = Math.abs(elastic.get(long)?.[long] ?? 0);
        const beyond = tooMuch(forceN * flex, forceN, Math.min(size.lengthMm, size.heightMm));
        if (beyond) refused.push(`Pulling ${long} in past yield ${beyond}.`);
        else
          put(
            { do: "rack", long },
            {
              counts: "mm",
              push: { springbackMm: forceN * flex, forceN, mmPerUnit: 0.5 },
              cautions: ["A strap or chain that parts flies: nobody in line with it. Pad the corners.", ...slender],
              option: {
                effect: rackEffect(elastic.get(long) ?? {}, quantities, square.value),
                max: Math.abs(square.value) * 1.2,
                cv: EFFORT.rack.cv,
                effortMin: EFFORT.rack.min,
                risk: EFFORT.rack.risk + risk,
              },
            },
          );
      }
      if (twist && Math.abs(twist.value) > LEAST_EFFECT) {
        const plain: PlainRectangle = { ...size, rail: outOfPlane(rectangle.ab), post: outOfPlane(rectangle.bc) };
        const found = twistFrame(plain, material, Math.abs(twist.value));
        const beyond = tooMuch(found.springbackMm, found.cornerForceN, Math.min(size.lengthMm, size.heightMm));
        if (beyond) refused.push(`Untwisting it past yield ${beyond}.`);
        else
          put(
            { do: "untwist", high: twist.value > 0 ? "AC" : "BD" },
            {
              counts: "mm",
              push: { springbackMm: found.springbackMm, forceN: found.cornerForceN, mmPerUnit: 1 },
              cautions: [
                "Blocks under the low corners, weight or clamp on the high ones; hands clear of what springs back.",
                ...slender,
              ],
              option: {
                effect: { twist: -Math.sign(twist.value) },
                max: Math.abs(twist.value) * 1.2,
                cv: EFFORT.untwist.cv,
                effortMin: EFFORT.untwist.min,
                risk: EFFORT.untwist.risk + risk,
              },
            },
          );
      }
    }
    if (square && Math.abs(square.value) > LEAST_EFFECT) yield* recuts(square.value);
  }

  for (const m of bowed) {
    const key = `straight ${m.id}`;
    const t = tubeOf(m);
    const q = quantities[key];
    if (!t || !q || Math.abs(q.value) <= LEAST_EFFECT) continue;
    const long = norm3(sub3(m.to, m.from));
    const cls = wallClass(Math.max(t.widthMm, t.heightMm), t.wallMm, MATERIALS[m.material].yieldMPa);
    // Which way it is bowed a gauge does not say: what it takes to press is taken for the deeper way, which begins short.
    const section = t.widthMm >= t.heightMm ? inPlane(t) : outOfPlane(t);
    const way = t.widthMm >= t.heightMm ? "bow" : "lift";
    const perKink = Math.abs(elastic.get(`${m.id} ${way}`)?.[`${way} ${m.id}`] ?? 0);
    const free = (KINK_RAD * long) / 4;
    if (!(perKink > 0)) continue;
    if (cls.mayBendPastYield) {
      const push = pressMidspan(
        section,
        { eMPa: MATERIALS[m.material].eMPa, yieldMPa: LIKELY_YIELD * MATERIALS[m.material].yieldMPa },
        { spanMm: long, removeMm: (Math.abs(q.value) * free) / perKink, lengthMm: long },
      );
      put(
        { do: "press", member: m.id },
        {
          counts: "mm",
          push: { springbackMm: push.springbackMm, forceN: push.forceN, mmPerUnit: free / perKink },
          cautions: ["Bridge from end to end, the jack on a pad as wide as the face. Never under a raised frame."],
          option: {
            effect: { [key]: -1 },
            max: Math.abs(q.value) * 1.2,
            cv: EFFORT.press.cv,
            effortMin: EFFORT.press.min,
            risk: EFFORT.press.risk + (cls.mayTurn ? 0 : SLENDER_RISK),
          },
        },
      );
    } else refused.push(`${m.id} is too thin to be bent past yield (class ${cls.cls}): it would buckle.`);
    const { strain } = threeBar(MATERIALS[m.material], WEDGE.riseK, WEDGE.restraint);
    const wedge = heatWedge(section, {
      widthMm: WEDGE.wide * section.depthMm,
      depthMm: WEDGE.deep * section.depthMm,
      strain,
      memberMm: long,
    });
    put(
      { do: "wedges", member: m.id },
      {
        counts: "pieces",
        push: null,
        cautions: [
          "On the long side, the tip of the wedge towards the short one; dull red, no hotter, and let it cool in air before the next.",
        ],
        option: {
          effect: { [key]: -(wedge.kinkRad / KINK_RAD) * perKink },
          max: MOST.wedges,
          unitSteps: true,
          cv: EFFORT.wedges.cv,
          effortMin: EFFORT.wedges.min,
          risk: EFFORT.wedges.risk,
        },
      },
    );
  }
  return { remedies, refused };

  /** Why a push is more than a shop has, in words; null where it is not. */
  function tooMuch(springbackMm: number, forceN: number, sideMm: number): string | null {
    if (forceN > MOST_N)
      return `takes about ${physical("force", forceN / 1000, plan.units)}: more than a hoist or a screw in a shop gives (${physical("force", MOST_N / 1000, plan.units)}, own judgement)`;
    if (springbackMm > MOST_BACK * sideMm)
      return `means going about ${formatSmall(springbackMm, plan.units, { decimals: 0 })} beyond, all of which comes back: too far to be steered`;
    return null;
  }

  /** A corner cut but for its inside and pulled: what stays of the pull hangs on how soft the rest has become. */
  function* recuts(value: number): Generator<number> {
    const long = value > 0 ? "AC" : "BD";
    const pull = pulls.find((p) => p.id === long);
    const whole = Math.abs(elastic.get(long)?.[long] ?? 0);
    if (!pull || !quad || !(whole > 0)) return;
    const joint = structure?.joints.find((j) => j.id === quad.joints[long[0] as "A"]);
    const lines = joint?.faces.map((f) => f.line).filter((l) => l !== "inside") ?? [];
    if (!structure || !joint || lines.length === 0 || !joint.faces.some((f) => f.line === "inside")) return;
    const cut = yield* partOf(
      remedyEffects(
        structure,
        mechanics,
        factors,
        [pull],
        lines.map((line) => ({ joint: joint.id, line: lineOfFace(joint, line) })),
      ),
      0.7,
      0.3,
    );
    const opened = Math.abs(cut.get(long)?.[long] ?? 0);
    const stays = Math.max(0, 1 - whole / opened);
    const forceN = Math.abs(value) / 2 / stays / opened;
    if (stays < LEAST_STAYS || forceN > MOST_N) return;
    put(
      { do: "recut", joint: joint.id, long },
      {
        counts: "mm",
        // So much is pulled that what springs back leaves what is wanted.
        push: { springbackMm: 0, forceN, mmPerUnit: 0.5 / stays },
        cautions: [
          "Cutting alone gives back almost nothing: what is pulled before it is welded again is what counts.",
          "Guard on, sparks away from people; the frame may spring when the cut goes through.",
        ],
        option: {
          effect: rackEffect(elastic.get(long) ?? {}, quantities, value),
          max: Math.abs(value) * 1.2,
          cv: EFFORT.recut.cv,
          effortMin: EFFORT.recut.min,
          risk: EFFORT.recut.risk,
          loosens: true,
        },
      },
    );
  }
}
/**
 * The corner whose fillets bear least of what the tube beside it bears in bending, where that is less than all of it: butted and mitred
 * seams go through the wall and are taken to bear as much as the tube.
 */
function filletCorners(
  structure: Structure,
  beads: readonly BeadDeed[],
  process: ProcessName,
  { bc, second }: { bc: { widthMm: number; heightMm: number; wallMm: number }; second: StructureMember },
): { joint: string; share: number } | null {
  const { quad } = structure;
  const material = MATERIALS[second.material];
  const { plasticMomentNmm } = plasticSection(inPlane(bc), material);
  let worst: { joint: string; share: number } | null = null;
  for (const id of Object.values(quad?.joints ?? {})) {
    const joint = structure.joints.find((j) => j.id === id);
    if (!joint || mechanicalKind(joint) !== "tee") continue;
    const legs = beads.filter((b) => b.joint === id).map((b) => filletOfHeat(process, b.heatJPerMm));
    const throatMm = legs.length > 0 ? Math.min(...legs) * Math.SQRT1_2 : 0;
    const share = weldRingMoment(inPlane(bc), throatMm, material.ultimateMPa).momentNmm / plasticMomentNmm;
    if (share < 1 && share < (worst?.share ?? 1)) worst = { joint: id, share };
  }
  return worst;
}

/** What a shop pulls or presses with, N; and how far one pushes what springs back, as a share of the shorter side. Source: own judgement. */
const MOST_N = 30_000;
const MOST_BACK = 0.1;

/** A bead over a seam as a deed, with the face that it lies on as the frame names it. */
export type BeadDeed = Extract<UnitDeed, { do: "bead" }> & { face: FaceLine };

/** One more bead over every seam that an order welds, with the heat that it is welded with. */
export function beadDeeds(structure: Structure, steps: readonly SimulationStep[]): BeadDeed[] {
  const heat = new Map(
    steps.flatMap((s) => (s.do === "bead" ? [[`${s.joint}/${s.line}`, s.heatJPerMm] as const] : [])),
  );
  return structure.joints.flatMap((j) =>
    j.faces.flatMap(({ line: face }): BeadDeed[] => {
      const line = lineOfFace(j, face);
      const heatJPerMm = heat.get(`${j.id}/${line}`);
      return heatJPerMm === undefined
        ? []
        : [{ id: `${j.id}/${face}`, do: "bead", joint: j.id, line, face, heatJPerMm }];
    }),
  );
}

/** Where less of a pull stays, cutting is no remedy. */
const LEAST_STAYS = 0.1;

/** What racking by one mm of AC less BD does to every quantity, in the shape of a pull along the long diagonal. */
function rackEffect(
  pull: Readonly<Record<string, number>>,
  quantities: Readonly<Record<string, Stands>>,
  value: number,
): Record<string, number> {
  const per = pull.square ?? 0;
  if (per === 0) return { square: -Math.sign(value) };
  const times = -Math.sign(value) / per;
  return Object.fromEntries(
    Object.keys(quantities).flatMap((k) => {
      // Axial give of a pull goes back when it is let go: only the shear stays.
      const isShear = k === "square" || k.startsWith("angle");
      return isShear && pull[k] !== undefined ? [[k, times * pull[k]] as const] : [];
    }),
  );
}

/** Members besides the sides that join two of them. */
function crossing({ quad, members, joints }: Structure): number {
  if (!quad) return 0;
  const sides = new Set(Object.values(quad.sides));
  return members.filter(
    (m) =>
      !sides.has(m.id) &&
      joints.filter((j) => (j.b === m.id && sides.has(j.a)) || (j.a === m.id && sides.has(j.b))).length >= 2,
  ).length;
}

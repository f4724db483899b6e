import type { FaceLine, Structure, StructureJoint } from "../frame";
import { lineOfFace } from "../mechanics";
import type { SimulationStep } from "../shrink";
import { heatFromFillet, heatJPerMm, heatOfFilling, processOf, seamShare, settingsBy, type Weld } from "../weld";
import { HELD_BY_NOTHING, type HeldBy } from "./held";
import { putBackAt } from "./pieces";
import { seamKind, seamPosition } from "./seam";
import type { Step } from "./step";

/** Wall that a gap at a joint is filled across, mm: the thinner. */
const wallAt = ({ members }: Structure, { a, b }: StructureJoint): number =>
  Math.min(...members.filter((m) => m.id === a || m.id === b).map((m) => m.properties.wallMm));

/** How wide a gap is that a bead fills besides what was planned, mm. */
const filledMm = ({ rootGapMm }: Structure, { found }: StructureJoint, line: FaceLine): number =>
  found ? Math.max(0, ("round" in found ? found.round : (found.faces[line] ?? 0)) - rootGapMm) : 0;

/** A clamp with its share of a bar bent over the bed, N/mm (own judgement; it matters only through tacks that yield). */
const CLAMP_N_PER_MM = 2e4;

/**
 * What is left of a shape whose tacks are cut at one corner of four, set and tacked again: those of that corner pull anew (own judgement).
 */
const RETACKED_SHARE = 0.25;

const pressed = (id: string, { clamps }: HeldBy): SimulationStep[] =>
  clamps.map(({ member, point }) => ({
    id,
    do: "clamp",
    clamp: `${member} ${point}`,
    member,
    point,
    direction: [0, 0, 1],
    stiffnessNPerMm: CLAMP_N_PER_MM,
    toMm: 0,
  }));

const unpressed = (id: string, { clamps }: HeldBy): SimulationStep[] =>
  clamps.map(({ member, point }) => ({ id, do: "unclamp", clamp: `${member} ${point}` }));

/** Pieces against their stops, clamps snug across from them: a clamp gives as far as it is bent. */
const laidAgainst = (id: string, { stops }: HeldBy): SimulationStep[] =>
  stops.map(({ id: stop, kind, member, point, push, gapMm }) => ({
    id,
    do: "stop on",
    stop,
    member,
    point,
    push,
    gapMm,
    givesMmPerN: kind === "clamp" ? 1 / CLAMP_N_PER_MM : 0,
  }));

/** Clamps first, then the stops. */
const letGo = (id: string, { stops }: HeldBy): SimulationStep[] =>
  [...stops]
    .sort((a, b) => Number(a.kind === "stop") - Number(b.kind === "stop"))
    .map(({ id: stop }) => ({ id, do: "stop off", stop }));

const restId = ({ member, point }: HeldBy["rests"][number]): string => `rest ${member} ${point}`;

/** On its rests by its weight, whichever side is up. */
const lying = (id: string, { rests, weightNPerMm }: HeldBy, up: Step["up"]): SimulationStep[] => {
  const sign = up === "top" ? 1 : -1;
  const nPerMm = Object.fromEntries(Object.entries(weightNPerMm).map(([m, n]) => [m, sign * n]));
  return rests.length === 0
    ? []
    : [
        ...rests.map(
          (r): SimulationStep => ({
            id,
            do: "stop on",
            stop: restId(r),
            ...r,
            push: [0, 0, sign],
          }),
        ),
        { id, do: "weight on", nPerMm },
      ];
};

/** Taken up from its rests. */
const taken = (id: string, { rests }: HeldBy): SimulationStep[] =>
  rests.length === 0
    ? []
    : [{ id, do: "weight off" }, ...rests.map((r): SimulationStep => ({ id, do: "stop off", stop: restId(r) }))];

/** A bar or block goes on, or comes off. */
function barStep(id: string, bar: HeldBy["bars"][number], on: boolean, weld: Weld): SimulationStep[] {
  const { id: name, kind, from, to, section, way } = bar;
  if (kind === "block")
    return [
      on
        ? {
            id,
            do: "stop on",
            stop: name,
            member: to.member,
            point: to.point,
            push: way,
            against: [from.member, from.point],
          }
        : { id, do: "stop off", stop: name },
    ];
  if (!on) return [{ id, do: "strongback off", strongback: name }];
  const tacks = weld.tackProcess ? settingsBy(weld, weld.tackProcess) : weld;
  return [
    {
      id,
      do: "strongback on",
      strongback: name,
      from: [from.member, from.point],
      to: [to.member, to.point],
      section,
      tacks: {
        lies: kind === "side" ? "between" : "over",
        lengthMm: weld.tackLength.mm,
        heatJPerMm: heatJPerMm(tacks),
      },
    },
  ];
}

/** What is put back at each step of an order at which an error is closed, by its key, where that is not all of the frame. */
export const putBackIn = (structure: Structure, steps: readonly Step[]): Map<string, string[]> =>
  new Map(
    steps.flatMap(({ key, closes, id }, i) => {
      const before = closes ? steps.slice(0, i).map((s) => s.id) : [];
      const members = closes ? putBackAt(structure, before, id.do === "measure" && id.cut === true) : null;
      return members ? [[key, members] as const] : [];
    }),
  );

/**
 * An order of work as the mechanics sees it. Each step keeps its key, so that movement can be told by step; one step may
 * become several. Clamps press what lies on the bed down; measuring while the joints turn puts the shape back; waiting
 * changes nothing in the model. A tack has the heat of the settings (its share is a factor of the model), and so has a bead
 * whose size nobody gave.
 * @param by what holds the frame meanwhile. @param putBack what is put back where an error is closed, if these are some steps of an order.
 */
export function loadSteps(
  structure: Structure,
  weld: Weld,
  steps: readonly Step[],
  by: HeldBy = HELD_BY_NOTHING,
  putBack: ReadonlyMap<string, string[]> = putBackIn(structure, steps),
): SimulationStep[] {
  const one = ({ id: what, key: id, closes, up }: Step): SimulationStep[] => {
    switch (what.do) {
      case "hold":
        return [...pressed(id, by), ...laidAgainst(id, by), ...lying(id, by, up)];
      case "release":
        return [...unpressed(id, by), ...letGo(id, by), ...taken(id, by)];
      case "flip":
        // Stops are where the frame was laid: turned over it no longer fits them.
        return [...letGo(id, by), ...taken(id, by), { id, do: "flip" }, ...lying(id, by, up)];
      case "brace":
      case "unbrace":
        return by.bars.filter((b) => b.id === what.bar).flatMap((b) => barStep(id, b, what.do === "brace", weld));
      case "tack":
      case "bead": {
        const joint = structure.joints.find((j) => j.id === what.joint);
        if (!joint) return [];
        const line = lineOfFace(joint, what.line);
        const arc = settingsBy(weld, processOf(weld, what));
        const heat = heatJPerMm(arc);
        if (what.do === "tack")
          return [{ id, do: "tack", joint: joint.id, line, lengthMm: weld.tackLength.mm, heatJPerMm: heat }];
        const face = joint.faces.find((f) => f.line === what.line);
        const legMm = face?.legMm ?? null;
        // What was read on a machine holds for every bead; what one begins with goes by the joint and how it lies.
        const share =
          face && arc.from === "starting"
            ? seamShare(seamKind(joint, face), seamPosition(structure, joint, face, up))
            : 1;
        const laid = legMm === null ? share * heat : heatFromFillet(arc.process, legMm);
        const heatJPerMmOfBead =
          laid + heatOfFilling(arc.process, filledMm(structure, joint, what.line), wallAt(structure, joint));
        return [{ id, do: "bead", joint: joint.id, line, share: face?.share ?? 1, heatJPerMm: heatJPerMmOfBead }];
      }
      case "measure": {
        if (!closes) return [{ id, do: "wait" }];
        const members = putBack.get(id);
        return [
          {
            id,
            do: "square up",
            ...(what.cut ? { residualShare: RETACKED_SHARE, holds: true } : { residualShare: 0 }),
            ...(members ? { members } : {}),
          },
        ];
      }
      case "wait":
        return [{ id, do: "wait" }];
    }
  };
  return steps.flatMap(one);
}

import type { Structure, StructureFace } from "../frame";
import type { Problem } from "../units";
import { somethingTurns } from "./pieces";
import { seamPosition } from "./seam";
import type { LiesOn, Step, Up } from "./step";
import { stepKey } from "./step";
import type { StepId } from "./stepSchema";
import { faceWords, jointWords } from "./stepWords";
import { liesFirst } from "./usualOrder";
import { allJoints, upWhenFacing, workpiece } from "./workpiece";

const faceOf = (structure: Structure, id: StepId): StructureFace | null =>
  id.do === "tack" || id.do === "bead"
    ? (structure.joints.find((j) => j.id === id.joint)?.faces.find((f) => f.line === id.line) ?? null)
    : null;

const isWeld = (id: StepId): id is Extract<StepId, { joint: string }> => id.do === "tack" || id.do === "bead";

/** The part of the work that a step belongs to. */
function partOf(id: StepId): Step["part"] {
  switch (id.do) {
    case "flip":
      return id.part;
    case "measure":
      return ["hot", "cold"].includes(id.gate) ? "weld" : "tack";
    default:
      return id.do === "tack" || id.do === "hold" || id.do === "brace" ? "tack" : "weld";
  }
}

/** Whether an error can be closed. @param before what was done by then. @param cut whether what is tacked is cut for it. */
const closesAt = (structure: Structure, before: readonly StepId[], cut: boolean): boolean =>
  cut
    ? before.some((id) => id.do === "tack") && !before.some((id) => id.do === "bead")
    : somethingTurns(structure, before);

/**
 * An order that was laid step by step, on the frame as it is: how the frame lies follows from the turns; an error is closed where one
 * measures while something that has no bead and no second tack still turns. Steps at joints or faces that the frame no longer has, and faces that get no
 * bead, are left out (see `ownOrderProblems`).
 * @param lies how it lies to begin with.
 */
export function ownOrder(structure: Structure, on: LiesOn, ids: readonly StepId[], lies: Up = "top"): Step[] {
  const seen = new Set<string>();
  const done: StepId[] = [];
  let up = lies;
  return ids.flatMap((id): Step[] => {
    const key = stepKey(id);
    if (seen.has(key) || (isWeld(id) && !faceOf(structure, id)?.bead)) return [];
    seen.add(key);
    if (id.do === "flip") up = up === "top" ? "bottom" : "top";
    const part = partOf(id);
    const closes = id.do === "measure" && part === "tack" && closesAt(structure, done, id.cut === true);
    done.push(id);
    return [
      {
        id,
        key,
        part,
        joint: isWeld(id) ? id.joint : null,
        line: isWeld(id) ? id.line : null,
        up,
        gate: id.do === "measure" ? id.gate : null,
        waitsFor: id.do === "wait" ? id.until : null,
        closes,
        why: { kind: closes ? (id.do === "measure" && id.cut ? "cut and set" : "close while it turns") : "own" },
        on,
      },
    ];
  });
}

/** Faces of a frame that get a bead and have none in an order. */
export function facesLeft(structure: Structure, ids: readonly StepId[]): Extract<StepId, { do: "bead" }>[] {
  const there = new Set(ids.map(stepKey));
  return allJoints(workpiece(structure)).flatMap(({ joint }) =>
    joint.faces.flatMap((f) => {
      const id = { do: "bead", joint: joint.id, line: f.line } as const;
      return f.bead && !there.has(stepKey(id)) ? [id] : [];
    }),
  );
}

const MOST_NAMED = 3;
const named = (words: readonly string[]): string =>
  words.length <= MOST_NAMED
    ? words.join("; ")
    : `${words.slice(0, MOST_NAMED).join("; ")} and ${words.length - MOST_NAMED} more`;

/** Welds that stand upright while the frame lies, named, for whoever does not weld upright. */
export function uprightProblems(structure: Structure, steps: readonly Step[]): Problem[] {
  const upright = steps.flatMap((s) => {
    const joint = structure.joints.find((j) => j.id === s.joint);
    const face = joint?.faces.find((f) => f.line === s.line);
    return joint && face && s.id.do === "bead" && seamPosition(structure, joint, face, s.up) === "vertical"
      ? [faceWords(structure, joint, face)]
      : [];
  });
  return upright.length === 0
    ? []
    : [
        {
          path: "order",
          message: `Upright as the frame lies, and not welded so here: ${named(upright)}. Stand the frame on its side for them, or have somebody else lay them.`,
          severity: "warning",
        },
      ];
}

/**
 * What is wrong with an order that was laid step by step, each named. Nothing of it keeps it from being worked through.
 * @param how whether it lies bottom up to begin with, and whether whoever welds welds overhead.
 */
export function ownOrderProblems(
  structure: Structure,
  ids: readonly StepId[],
  { bottomUp, overhead = false }: { bottomUp?: true | undefined; overhead?: boolean | undefined } = {},
): Problem[] {
  const found: Problem[] = [];
  const say = (message: string): void => void found.push({ path: "order", message, severity: "warning" });
  const keys = ids.map(stepKey);
  const twice = [...new Set(keys.filter((k, i) => keys.indexOf(k) !== i))];
  if (twice.length > 0) say(`Twice in the order, and worked once: ${named(twice)}.`);
  const gone = ids.filter((id) => isWeld(id) && !faceOf(structure, id));
  if (gone.length > 0) say(`No longer in the frame, and left out: ${named(gone.map(stepKey))}.`);
  const words = (id: StepId): string => {
    const joint = isWeld(id) ? structure.joints.find((j) => j.id === id.joint) : undefined;
    const face = faceOf(structure, id);
    return joint && face ? faceWords(structure, joint, face) : stepKey(id);
  };
  const clear = ids.filter((id) => isWeld(id) && faceOf(structure, id)?.bead === false);
  if (clear.length > 0) say(`Kept clear, and left out: ${named(clear.map(words))}.`);
  const left = facesLeft(structure, ids);
  if (left.length > 0) say(`Not welded in this order: ${named(left.map(words))}.`);
  const steps = ownOrder(structure, "surface", ids, liesFirst(bottomUp));
  const beads = steps.filter((s) => s.id.do === "bead");
  const loose = new Set(
    beads.flatMap((b) => {
      const tack = steps.findIndex((s) => s.id.do === "tack" && s.joint === b.joint);
      return tack < 0 || tack > steps.indexOf(b) ? [b.joint as string] : [];
    }),
  );
  if (loose.size > 0)
    say(
      `Welded before a tack holds it: ${named([...loose].map((id) => jointWords(structure, structure.joints.find((j) => j.id === id) as never)))}. It will pull far.`,
    );
  const under = steps.filter((s) => {
    const face = faceOf(structure, s.id);
    const wants = face && upWhenFacing(face.toward);
    return wants !== null && wants !== s.up;
  });
  if (under.length > 0 && !overhead)
    say(`Overhead as the frame lies then: ${named(under.map((s) => words(s.id)))}. Turn it first.`);
  const last = steps.findLastIndex((s) => s.id.do === "bead");
  for (const [key, what] of [
    ["release", "The clamps come off"],
    ["measure/cold", "The cold frame is measured"],
  ] as const) {
    const at = steps.findIndex((s) => s.key === key);
    if (at >= 0 && at < last) say(`${what} before the last bead.`);
  }
  return found;
}

/** Welds that another member covers by the time they are laid, named. */
export function coveredProblems(structure: Structure, steps: readonly Step[]): Problem[] {
  const isWeld = ({ id }: Step): boolean => id.do === "tack" || id.do === "bead";
  const late = steps.flatMap((s, i) => {
    const joint = structure.joints.find((j) => j.id === s.joint);
    const face = joint?.faces.find((f) => f.line === s.line);
    if (!joint || !face?.under || !isWeld(s)) return [];
    const isOn = steps.slice(0, i).some((before) => {
      const there = structure.joints.find((j) => j.id === before.joint);
      return isWeld(before) && (there?.a === face.under || there?.b === face.under);
    });
    return isOn ? [`${faceWords(structure, joint, face)}, under ${face.under}`] : [];
  });
  return late.length === 0
    ? []
    : [
        {
          path: "order",
          message: `No torch comes there any more by then: ${named(late)}. Lay them before what covers them is tacked, or give them no bead.`,
          severity: "warning",
        },
      ];
}

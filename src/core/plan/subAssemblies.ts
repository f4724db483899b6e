import { joiningOrder, quadrilateralOf, type Structure, type StructureJoint } from "../frame";
import { CORNERS } from "../geometry";
import { type LiesOn, type Step, stepKey, type Up } from "./step";
import type { StepId } from "./stepSchema";
import { hangingTogether } from "./stillTurns";
import { type Workpiece, workpiece } from "./workpiece";

/** What is tacked and welded as one before anything else is touched. */
interface Stage {
  work: Workpiece;
  /** The sub-assembly that has to be cold afterwards; null where nothing follows it. */
  coolsAs: string | null;
  /** Whether its error is closed: not where what is welded already is joined. */
  sets: boolean;
}

/**
 * The stages of a frame's work: sub-assemblies in their order, each by itself and then joined to what is together by then; one stage for a
 * frame without them.
 */
export function stagesOf(structure: Structure, on: LiesOn): Stage[] {
  if (structure.groups.length === 0) return [{ work: workpiece(structure, on), coolsAs: null, sets: true }];
  const together: string[] = [];
  const left = new Set(structure.joints.map((j) => j.id));
  const stages: Planned[] = [];
  const welded: StructureJoint[] = [];
  for (const { name, own, toRest, members } of joiningOrder(structure)) {
    for (const ids of [own, toRest]) {
      const joints = structure.joints.filter((j) => ids.includes(j.id) && left.delete(j.id));
      if (joints.some((j) => j.faces.some((f) => f.bead)))
        stages.push({
          joints,
          members: [...together, ...members],
          held: [...together],
          name,
          rigid: hangingTogether([...together, ...members], welded),
          sets: ids === own || stages.length === 0,
        });
      welded.push(...joints);
    }
    together.push(...members);
  }
  return stages.map(({ joints, members: ids, held, name, rigid, sets }, i) => {
    const members = structure.members.filter((m) => ids.includes(m.id));
    // A ring of its own is worked as one, whichever of the frame's is measured as its corners.
    const joined = members.filter((m) => joints.some((j) => j.a === m.id || j.b === m.id));
    const quad = isRing(structure, joints) ? structure.quad : quadrilateralOf({ members: joined, joints });
    return {
      work: { ...workpiece({ ...structure, joints, members, quad }, on, held), rigid },
      coolsAs: i < stages.length - 1 ? name : null,
      sets,
    };
  });
}

/** What a stage is made of. */
interface Planned {
  joints: StructureJoint[];
  members: readonly string[];
  held: string[];
  name: string;
  rigid: string[][];
  sets: boolean;
}

/** Whether all corners of the frame's own ring are among these joints. */
const isRing = ({ quad }: Structure, joints: readonly StructureJoint[]): boolean =>
  quad !== null && CORNERS.every((c) => joints.some((j) => j.id === quad.joints[c]));

/** Numbers given so far, by what is numbered. */
class Numbers {
  private readonly last = new Map<string, number>();

  next(what: string): number {
    const n = (this.last.get(what) ?? 0) + 1;
    this.last.set(what, n);
    return n;
  }
}

/** The frame turned back, before a stage that begins from above. */
const turnedBack = (before: Step): Step => ({
  ...before,
  id: { do: "flip", part: "weld", nth: 1 },
  part: "weld",
  joint: null,
  line: null,
  up: "top",
  gate: null,
  waitsFor: null,
  closes: false,
  why: { kind: "back on its bottom" },
});

/**
 * Steps of stages, one stage after the other: clamped once, let go and measured cold at the end, cold between, turned back to where the
 * next begins.
 * @param parts steps of each stage, every one by itself from the top face up.
 */
export function inTurn(parts: readonly (Omit<Stage, "work"> & { steps: readonly Step[] })[]): Step[] {
  const numbers = new Numbers();
  const numbered = (id: StepId): StepId => {
    switch (id.do) {
      case "measure":
        return { ...id, nth: numbers.next(`measure ${id.gate}`) };
      case "flip":
        return { ...id, nth: numbers.next(`flip ${id.part}`) };
      case "wait": {
        const nth = numbers.next(`wait ${id.until}`);
        return nth === 1 ? { do: "wait", until: id.until } : { ...id, nth };
      }
      default:
        return id;
    }
  };
  let up: Up = "top";
  return parts.flatMap(({ steps, coolsAs, sets }, i): Step[] => {
    const last = i === parts.length - 1;
    const kept = steps.filter(({ id }) => {
      if (id.do === "hold") return i === 0;
      return last || (id.do !== "release" && !(id.do === "measure" && id.gate === "cold"));
    });
    const [first] = kept;
    const whole = first && up !== "top" ? [turnedBack(first), ...kept] : kept;
    up = kept.at(-1)?.up ?? up;
    return whole.map((s): Step => {
      const id = numbered(s.id);
      const isHold = coolsAs !== null && id.do === "wait" && id.until === "cold";
      return {
        ...s,
        id,
        key: stepKey(id),
        closes: s.closes && sets,
        why: isHold ? { kind: "sub-assembly cold", name: coolsAs } : s.why,
      };
    });
  });
}

import { joiningOrder, type Structure } from "../frame";
import { Groups } from "../numeric";
import type { Step } from "./step";

/** What is turned over as one: the frame, or those of its sub-assemblies that are joined by then. */
export interface TurnedOver {
  what: string;
  massKg: number;
}

export const theFrame = ({ massKg }: Pick<Structure, "massKg">): TurnedOver => ({ what: "the frame", massKg });

/**
 * What each turn of an order turns over, by its step's key: of a frame with sub-assemblies the one that was worked last, with what it is
 * joined to by then; the first where nothing was worked yet.
 */
export function turnedOverIn(structure: Structure, steps: readonly Step[]): Map<string, TurnedOver> {
  const turns = new Map<string, TurnedOver>();
  const parts = joiningOrder(structure);
  const whole = theFrame(structure);
  if (parts.length === 0) return new Map(steps.flatMap((s) => (s.id.do === "flip" ? [[s.key, whole] as const] : [])));
  const together = new Groups(structure.members.map((m) => m.id));
  for (const { members } of parts) for (const m of members) together.join(members[0] ?? m, m);
  const joints = new Map(structure.joints.map((j) => [j.id, j]));
  let at = parts[0]?.members[0] ?? "";
  for (const step of steps) {
    const joint = step.joint === null ? undefined : joints.get(step.joint);
    if (joint) {
      together.join(joint.a, joint.b);
      at = joint.a;
    }
    if (step.id.do !== "flip") continue;
    const turned = parts.filter(({ members }) => together.of(members[0] ?? "") === together.of(at));
    const massKg = turned.reduce((sum, part) => sum + part.massKg, 0);
    turns.set(
      step.key,
      turned.length === parts.length ? whole : { what: turned.map((p) => p.name).join(" and "), massKg },
    );
  }
  return turns;
}

import type { StructureFace } from "../frame";
import { allJoints, type StepId, stepKey, upWhenFacing, type Workpiece } from "../plan";

/** A bead of an order. */
export type Bead = Extract<StepId, { do: "bead" }>;

/** The first bead of its face, which stands for all that are laid over it. */
const faceKey = ({ joint, line }: Bead): string => stepKey({ do: "bead", joint, line });

/** The face class of every bead: outsides, insides, sides, tops, undersides, of corners and of what lies between. */
export function classesOf(work: Workpiece): Map<string, string> {
  const classes = new Map<string, string>();
  for (const w of allJoints(work)) {
    const put = (face: StructureFace | null, name: string): void => {
      if (face)
        classes.set(
          stepKey({ do: "bead", joint: w.joint.id, line: face.line }),
          `${w.corner ? "corner" : "between"} ${name}`,
        );
    };
    put(w.first, "first");
    put(w.second, "second");
    put(w.up, "up");
    put(w.down, "down");
    for (const f of w.more) put(f, "more");
  }
  return classes;
}

/** Which way up a bead must lie, so that nobody welds overhead; null where either will do. */
export function liesUp(work: Workpiece): (bead: Bead) => "top" | "bottom" | null {
  const up = new Map(
    work.structure.joints.flatMap((j) =>
      j.faces.map((f) => [stepKey({ do: "bead", joint: j.id, line: f.line }), upWhenFacing(f.toward)] as const),
    ),
  );
  return (bead) => up.get(faceKey(bead)) ?? null;
}

/** Beads of a class together, at the place of the class in a row of them; within, as they were. */
export const byClass = (beads: readonly Bead[], classes: ReadonlyMap<string, string>, row: readonly string[]): Bead[] =>
  row.flatMap((name) => beads.filter((b) => classes.get(faceKey(b)) === name));

/** A random change of an order of beads. @param random 0 to 1. */
export function moved(beads: readonly Bead[], classes: ReadonlyMap<string, string>, random: () => number): Bead[] {
  const n = beads.length;
  const at = (most: number): number => Math.floor(random() * most);
  const out = [...beads];
  const kind = random();
  if (kind < 0.35) {
    // All beads of one class to one place.
    const name = classes.get(faceKey(out[at(n)] as Bead));
    const taken = out.filter((b) => classes.get(faceKey(b)) === name);
    const rest = out.filter((b) => classes.get(faceKey(b)) !== name);
    const to = at(rest.length + 1);
    return [...rest.slice(0, to), ...taken, ...rest.slice(to)];
  }
  if (kind < 0.55) {
    const [i, j] = [at(n), at(n)];
    [out[i], out[j]] = [out[j] as Bead, out[i] as Bead];
    return out;
  }
  if (kind < 0.9) {
    // A bead, or a few that follow each other, to another place.
    const length = kind < 0.75 ? 1 : 2 + at(4);
    const taken = out.splice(at(n), length);
    out.splice(at(out.length + 1), 0, ...taken);
    return out;
  }
  const [i, j] = [at(n), at(n)].sort((a, b) => a - b) as [number, number];
  return [...out.slice(0, i), ...out.slice(i, j + 1).reverse(), ...out.slice(j + 1)];
}

import type { StructureFace } from "../frame";
import { allJoints, stepKey, upWhenFacing, type WeldId, type Workpiece } from "../plan";

/** The first bead of its face, which stands for every weld on it. */
const faceKey = ({ joint, line }: WeldId): string => stepKey({ do: "bead", joint, line });

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

/** Which way up a weld must lie, so that nobody welds overhead; null where either will do. */
export function liesUp(work: Workpiece): (weld: WeldId) => "top" | "bottom" | null {
  const up = new Map(
    work.structure.joints.flatMap((j) =>
      j.faces.map((f) => [stepKey({ do: "bead", joint: j.id, line: f.line }), upWhenFacing(f.toward)] as const),
    ),
  );
  return (weld) => up.get(faceKey(weld)) ?? null;
}

/** Beads of a class together, at the place of the class in a row of them; within, as they were. */
export const byClass = (
  beads: readonly WeldId[],
  classes: ReadonlyMap<string, string>,
  row: readonly string[],
): WeldId[] => row.flatMap((name) => beads.filter((b) => classes.get(faceKey(b)) === name));

/** A random change of an order of beads, or of tacks. @param random 0 to 1. */
export function moved(beads: readonly WeldId[], classes: ReadonlyMap<string, string>, random: () => number): WeldId[] {
  const n = beads.length;
  const at = (most: number): number => Math.floor(random() * most);
  const out = [...beads];
  const kind = random();
  if (kind < 0.35) {
    // All beads of one class to one place.
    const name = classes.get(faceKey(out[at(n)] as WeldId));
    const taken = out.filter((b) => classes.get(faceKey(b)) === name);
    const rest = out.filter((b) => classes.get(faceKey(b)) !== name);
    const to = at(rest.length + 1);
    return [...rest.slice(0, to), ...taken, ...rest.slice(to)];
  }
  if (kind < 0.55) {
    const [i, j] = [at(n), at(n)];
    [out[i], out[j]] = [out[j] as WeldId, out[i] as WeldId];
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

/** Fewer tacks than this hold no joint. */
const LEAST_TACKS = 2;

/**
 * One tack more or less, at random: a joint keeps two at least, and a face has one at most.
 * @param places tacks that there may be. @param kept how many of each joint stay besides. @param random 0 to 1.
 */
export function retacked(
  tacks: readonly WeldId[],
  places: readonly WeldId[],
  kept: ReadonlyMap<string, number>,
  random: () => number,
): WeldId[] {
  const there = new Set(tacks.map(faceKey));
  const place = places[Math.floor(random() * places.length)];
  if (!place) return [...tacks];
  if (!there.has(faceKey(place))) {
    const at = Math.floor(random() * (tacks.length + 1));
    return [...tacks.slice(0, at), place, ...tacks.slice(at)];
  }
  const held = (kept.get(place.joint) ?? 0) + tacks.filter((t) => t.joint === place.joint).length;
  return held > LEAST_TACKS ? tacks.filter((t) => faceKey(t) !== faceKey(place)) : [...tacks];
}

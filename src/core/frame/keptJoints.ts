import type { DrawnFrame, DrawnJoint } from "./drawnSchema";
import { resolveStructure } from "./resolveStructure";
import type { Structure, StructureJoint } from "./structure";

/** Joints of a structure by their two members. */
export const byPair = (joints: readonly StructureJoint[]): Map<string, StructureJoint> =>
  new Map(joints.map((j) => [[j.a, j.b].sort().join(" "), j]));

/** What was said of a joint, with what is found there said too where it would be found otherwise. */
function keptJoint(
  a: string,
  b: string,
  said: DrawnJoint | undefined,
  was: StructureJoint | undefined,
  found: StructureJoint | undefined,
): DrawnJoint | null {
  const as = (kind: DrawnJoint["kind"], through: string | null): DrawnJoint => ({
    between: said?.between ?? [a, b],
    kind,
    through,
    ...(said?.stitches ? { stitches: said.stitches } : {}),
    faces: said?.faces ?? [],
  });
  if (!was) return said ?? (found ? as("none", null) : null);
  const isFound = found?.kind === was.kind && found.a === was.a;
  return isFound ? (said ?? null) : as(was.kind, was.a);
}

/** What is said of one joint may change what its neighbours are found as: so often at most it is looked again. */
const ROUNDS = 6;

/** What was said of the joints of a frame, so that each is what it was after the frame was turned or taken apart. */
export function keptJoints(frame: DrawnFrame, was: Structure, moved: DrawnFrame): DrawnJoint[] {
  const has = new Set(moved.members.map((m) => m.id));
  const before = byPair(was.joints);
  let joints = frame.joints;
  for (let round = 0; round < ROUNDS; round++) {
    const said = new Map(joints.map((j) => [[...j.between].sort().join(" "), j]));
    const found = byPair(resolveStructure({ ...moved, joints }).structure.joints);
    const pairs = new Set([...said.keys(), ...before.keys(), ...found.keys()]);
    let isSame = true;
    joints = [...pairs].flatMap((pair) => {
      const [a, b] = pair.split(" ") as [string, string];
      if (!has.has(a) || !has.has(b)) return [];
      const own = keptJoint(a, b, said.get(pair), before.get(pair), found.get(pair));
      isSame &&= own === (said.get(pair) ?? null);
      return own ?? [];
    });
    if (isSame) break;
  }
  return joints;
}

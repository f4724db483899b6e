import { entry, norm3, sub3, type Vec3 } from "../numeric";
import { bodyPoints } from "./resolveStructure";
import type { Structure, StructureMember } from "./structure";

/** What a declared left and right turn out to be. */
interface Handedness {
  left: string[];
  right: string[];
  verdict: "mirrored" | "two of one hand" | "different";
  why: string;
}

/** Points nearer than this are the same, mm. */
const SAME_MM = 0.5;

/** Corners of a set of members about their middle. */
function cloud(members: readonly StructureMember[]): Vec3[] {
  const points = members.flatMap(bodyPoints);
  const low = [0, 1, 2].map((i) => Math.min(...points.map((p) => entry(p, i))));
  const high = [0, 1, 2].map((i) => Math.max(...points.map((p) => entry(p, i))));
  const middle = low.map((v, i) => (v + entry(high, i)) / 2) as unknown as Vec3;
  return points.map((p) => sub3(p, middle));
}

/** The eight ways to stand in the axes: each sign flipped or not, with or without a quarter turn about z. */
const WAYS: { move: (p: Vec3) => Vec3; mirrors: boolean }[] = [false, true].flatMap((turned) =>
  [1, -1].flatMap((sx) =>
    [1, -1].flatMap((sy) =>
      [1, -1].map((sz) => ({
        move: ([x, y, z]: Vec3): Vec3 => (turned ? [sx * y, sy * x, sz * z] : [sx * x, sy * y, sz * z]),
        // Changing x and y for each other is a mirror of its own.
        mirrors: sx * sy * sz * (turned ? -1 : 1) < 0,
      })),
    ),
  ),
);

const sameCloud = (a: readonly Vec3[], b: readonly Vec3[]): boolean =>
  a.length === b.length && a.every((p) => b.some((q) => norm3(sub3(p, q)) < SAME_MM));

/**
 * Whether two sets of members are mirror images. Compared by the corners of their bodies, in the ways that a person lays
 * them over each other: slid, turned by halves and quarters, or mirrored.
 * A set that is its own mirror image counts as mirrored: it fits either side.
 */
export function handedness(structure: Structure, left: readonly string[], right: readonly string[]): Handedness {
  const of = (ids: readonly string[]) => structure.members.filter((m) => ids.includes(m.id));
  const [a, b] = [cloud(of(left)), cloud(of(right))];
  const ways = WAYS.filter((w) => sameCloud(a.map(w.move), b));
  const names = `${left.join(", ")} and ${right.join(", ")}`;
  const base = { left: [...left], right: [...right] };
  if (ways.some((w) => w.mirrors)) return { ...base, verdict: "mirrored", why: `${names} are mirror images.` };
  if (ways.length > 0)
    return {
      ...base,
      verdict: "two of one hand",
      why: `${names} are two of one hand: turned over or slid, one is the other. Mirror one of them instead of copying it.`,
    };
  return { ...base, verdict: "different", why: `${names} differ in size or place.` };
}

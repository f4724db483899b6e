import { crossings, fixtureElements, isCarried, lyingMembers, lyingOn, pushesOf } from "../fixture";
import { MATERIALS, type Structure, type StructureMember, tubeBeginsMm } from "../frame";
import { add3, norm3, scale3, sub3, unit3, type Vec3 } from "../numeric";
import { type Bar, type Held, type HeldStop, type Lies, USUALLY_HELD } from "../plan";
import { type Problem, plainLength, rangeWords } from "../units";
import type { Weld } from "../weld";
import { bedKindOf, fixtureWish } from "./fixtureWish";
import type { Plan } from "./planSchema";

type HeldPlan = Pick<Plan, "held" | "fixture" | "units">;
/** A bar as a plan keeps it. */
export type PlannedBar = NonNullable<NonNullable<Plan["held"]>["bars"]>[number];

/** A bar as thin as this, or as wide, is a slip of the unit, mm. */
const BAR_MM = { least: 2, most: 300 } as const;
/** Ends of a bar nearer to each other than this hold nothing apart, mm. */
const LEAST_BAR_MM = 20;

const along = (m: StructureMember, mm: number): Vec3 => add3(m.from, scale3(unit3(sub3(m.to, m.from)), mm));
const lengthOf = (m: StructureMember): number => norm3(sub3(m.to, m.from));

/** What is wrong with a bar on this frame; null where it can be put on. */
function wrongWith(
  structure: Structure,
  bar: PlannedBar,
  units: Plan["units"],
): { at: string; message: string } | null {
  const ends = (["from", "to"] as const).map((which) => ({
    which,
    end: bar[which],
    member: structure.members.find((m) => m.id === bar[which].member),
  }));
  for (const { which, end, member } of ends) {
    if (!member)
      return {
        at: which,
        message: `The frame has no ${end.member}: ${bar.id} is left out until it goes somewhere else.`,
      };
    const begins = tubeBeginsMm(member);
    const taped = end.along.mm - begins;
    if (end.along.mm < 0 || end.along.mm > lengthOf(member))
      return {
        at: `${which}.along`,
        message: `${end.member} is ${plainLength(member.longMm, units)} long, and ${bar.id} sits between the middles of its ends: from ${plainLength(-begins, units)} to ${plainLength(lengthOf(member) - begins, units)} along, not at ${plainLength(taped, units)}.`,
      };
  }
  if (bar.from.member === bar.to.member)
    return {
      at: "to",
      message: `${bar.id} goes from ${bar.from.member} to itself: it holds nothing. Choose another member.`,
    };
  const [a, b] = ends.map(({ member, end }) => along(member as StructureMember, end.along.mm)) as [Vec3, Vec3];
  if (norm3(sub3(a, b)) < LEAST_BAR_MM)
    return { at: "to.along", message: `Both ends of ${bar.id} are at one place: it holds nothing apart.` };
  for (const [key, size] of Object.entries(bar.size ?? {}))
    if (key !== "wall" && (size.mm < BAR_MM.least || size.mm > BAR_MM.most))
      return {
        at: `size.${key}`,
        message: `A bar is ${rangeWords(BAR_MM.least, BAR_MM.most, units)} across. Check the unit.`,
      };
  if (bar.size && !(bar.size.wall.mm > 0 && 2 * bar.size.wall.mm < Math.min(bar.size.width.mm, bar.size.height.mm)))
    return { at: "size.wall", message: `The wall of ${bar.id} leaves no tube: it must be less than half its size.` };
  return null;
}

/** What of a plan's bars cannot be put on, each at its field: they are left out. */
export const heldProblems = (structure: Structure | null, { held, units }: Plan): Problem[] =>
  structure
    ? (held?.bars ?? []).flatMap((bar): Problem[] => {
        const wrong = wrongWith(structure, bar, units);
        return wrong ? [{ path: `held.bars.${bar.id}.${wrong.at}`, message: wrong.message, severity: "warning" }] : [];
      })
    : [];

/** Solid stock has more wall than a tube of its size has room for: it is taken as the thickest that there could be. */
const MOST_WALL = 0.45;

const likeTube = ({ widthMm, heightMm, wallMm }: StructureMember["properties"]): Bar["section"] => ({
  widthMm,
  heightMm,
  wallMm: Math.min(wallMm, MOST_WALL * Math.min(widthMm, heightMm)),
});

function barOf(structure: Structure, bar: PlannedBar): Bar {
  const end = (which: "from" | "to") => {
    const member = structure.members.find((m) => m.id === bar[which].member) as StructureMember;
    return { member: member.id, at: along(member, bar[which].along.mm) };
  };
  const { properties } = structure.members.find((m) => m.id === bar.from.member) as StructureMember;
  return {
    id: bar.id,
    kind: bar.kind,
    from: end("from"),
    to: end("to"),
    section: bar.size
      ? { widthMm: bar.size.width.mm, heightMm: bar.size.height.mm, wallMm: bar.size.wall.mm }
      : likeTube(properties),
    putOn: bar.putOn,
    takenOff: bar.takenOff,
  };
}

/** Bars and blocks of a plan that can be put on. */
export const barsOf = (structure: Structure, { held, units }: Pick<Plan, "held" | "units">): Bar[] =>
  (held?.bars ?? []).filter((b) => wrongWith(structure, b, units) === null).map((b) => barOf(structure, b));

/** Stops and clamps of the lay-out, as they hold the frame in its plane. */
function stopsOf(structure: Structure, plan: HeldPlan): HeldStop[] {
  return fixtureElements(structure, fixtureWish(plan, structure)).flatMap((e): HeldStop[] => {
    const member = structure.members.find((m) => m.id === e.member) as StructureMember;
    // A square comes off when its piece is tacked; a riser holds nothing in the plane.
    if (e.kind === "square" || e.kind === "riser") return [];
    return pushesOf(e).map((push, i) => ({
      id: i === 0 ? e.id : `${e.id}, other side`,
      kind: e.kind === "clamp" ? "clamp" : "stop",
      member: e.member,
      at: along(member, e.alongMm),
      push: [push.x, push.y, 0],
      gapMm: e.playMm,
    }));
  });
}

/** Where members lie on the trestles or bars of a plan, along each, mm: nowhere where it would tip; null where they lie on a plate or a floor. */
function carriedAt(structure: Structure, plan: HeldPlan): Held["carriedAtMm"] {
  const { bearers, side } = fixtureWish(plan, structure);
  if (bearers.length === 0) return null;
  return Object.fromEntries(
    lyingMembers(structure).map((m) => {
      const lying = lyingOn(structure, m, side);
      return [m.id, isCarried(lying, bearers) ? crossings(lying, bearers).map((c) => c.alongMm) : []];
    }),
  );
}

/** How a plan's frame lies where nobody said otherwise: to a floor nothing is clamped. */
export const usuallyLies = (plan: Pick<Plan, "fixture">): Lies =>
  bedKindOf(plan) === "floor" ? "weight" : USUALLY_HELD.lies;

/** What holds a plan's frame while it is welded. */
export function heldOf(structure: Structure, plan: HeldPlan): Held {
  const { held } = plan;
  const carriedAtMm = carriedAt(structure, plan);
  const lies = held?.lies ?? usuallyLies(plan);
  if (!held) return { ...USUALLY_HELD, lies, carriedAtMm };
  return {
    lies,
    stops: held.stops ? stopsOf(structure, plan) : [],
    bars: barsOf(structure, plan),
    carriedAtMm,
  };
}

/** Tacks at one end of a bar. */
const TACKS_AN_END = 2;

/** What the tacks at one end of a bar bear in shear before they tear, N: yield stress over the root of three, on wall times length. */
export function tacksBearN(structure: Structure, { tackLength }: Pick<Weld, "tackLength">): number {
  const wallMm = Math.min(...structure.members.map((m) => m.properties.wallMm));
  const yieldMPa = Math.min(...structure.members.map((m) => MATERIALS[m.material].yieldMPa));
  return (TACKS_AN_END * tackLength.mm * wallMm * yieldMPa) / Math.sqrt(3);
}

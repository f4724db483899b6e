import type { BedVerdict } from "../check";
import {
  type BedKind,
  type Fixture,
  type FreeMotion,
  lyingTurnedOver,
  type OwnThing,
  type ShelfThing,
  usualThing,
} from "../fixture";
import { isFlatUpright, type Structure } from "../frame";
import { faceWords } from "../plan";
import { formatLength, formatSmall, MM_PER, physical, tapeStepMm, type UnitPreference } from "../units";
import { type LaidElement, type LaidOut, roleOf } from "./layOut";
import { COMES_FREE_WORDS } from "./placedAs";
import type { Plan } from "./planSchema";

/** One thing that a fixture is asked, with the answer. */
export interface FixtureCheck {
  id: "carried" | "raised" | "located" | "more" | "clamped" | "free" | "reach" | "standing" | "laid on" | "propped";
  isGood: boolean;
  say: string;
}

/** Packing thinner than this nobody lays, and a tube that hangs by less lies straight, mm. */
const SEEN_MM = 0.05;
/** Things that are named one by one; of more the number. */
const MOST_NAMED = 4;
const named = (words: readonly string[]): string =>
  words.length <= MOST_NAMED
    ? words.join(", ")
    : `${words.slice(0, MOST_NAMED).join(", ")} and ${words.length - MOST_NAMED} more`;

/** A motion that is left, in words. */
function motionWords(motion: FreeMotion): string {
  const who = named(motion.bodies);
  if (motion.kind === "turns") return `${who} can still turn`;
  const [x = 0, y = 0] = motion.direction;
  const way =
    Math.abs(x) > 3 * Math.abs(y) ? "left and right" : Math.abs(y) > 3 * Math.abs(x) ? "near and far" : "aslant";
  return `${who} can still slide ${way}`;
}

function locatedCheck({ located, lying }: Fixture): FixtureCheck {
  const { rank, full } = located;
  if (lying.length === 0)
    return {
      id: "located",
      isGood: false,
      say: "No member lies level, so nothing is laid out here: it stands on its ends.",
    };
  return {
    id: "located",
    isGood: located.isLocated,
    say: located.isLocated
      ? `Nothing moves any more: all ${full} motions of ${lying.length} ${lying.length === 1 ? "member" : "members"} are stopped, joints pushed together.`
      : `${rank} of ${full} motions are stopped: ${[...new Set(located.free.map(motionWords))].join("; ")}. A stop is missing.`,
  };
}

/** Whether what it lies on carries every member, on trestles and on a floor; on a plate nobody asks. */
function carriedCheck(
  bed: BedKind,
  { uncarried, lying, sags }: Fixture,
  read: BedVerdict | null,
  size: (mm: number) => string,
): FixtureCheck[] {
  if (bed === "bearers") {
    const most = sags.reduce<(typeof sags)[number] | null>((a, b) => (a && a.sagMm >= b.sagMm ? a : b), null);
    const hangs =
      most && most.sagMm >= SEEN_MM
        ? ` ${most.member} hangs by ${size(most.sagMm)} at most ${most.isOverhang ? "at its end" : "between two"}, of its own weight.`
        : "";
    return [
      {
        id: "carried",
        isGood: uncarried.length === 0,
        say:
          uncarried.length === 0
            ? `Trestles or bars carry every member, ${lying.length} of ${lying.length}, on either side of its middle.${hangs}`
            : `Not carried on either side of its middle, so it tips or lies in the air: ${named(uncarried)}. Lay a bar under it across two others, move a trestle, or prop it until it is tacked.${hangs}`,
      },
    ];
  }
  if (bed !== "floor") return [];
  const isRead = read !== null && read.word !== "not measured";
  return [
    {
      id: "carried",
      isGood: isRead && read.word === "good as it is",
      say: isRead
        ? `The floor under the rests, as read: ${read.word}. ${read.why}`
        : "A floor is neither flat nor level: read it under every rest on the stage Bed, and set a riser on each.",
    },
  ];
}

/** Whether what lies higher than the bed has risers under it. */
function raisedCheck(structure: Structure, { raised, elements }: Fixture, units: UnitPreference): FixtureCheck[] {
  const risersUnder = (member: string): number =>
    elements.filter((e) => e.kind === "riser" && e.member === member).length;
  const hanging = raised.filter(({ member }) => risersUnder(member) < 2);
  const words = (all: Fixture["raised"]): string =>
    named(all.map(({ member, byMm }) => `${member} by ${formatLength(byMm, units, { trim: true }).text}`));
  if (raised.length === 0) return [];
  const over = lyingTurnedOver(structure).map((m) => m.id);
  const isAll = over.length === structure.members.length;
  const instead =
    over.length > 0
      ? ` Turned upside down on the stage Frame, ${isAll ? "all of it" : named(over)} would lie on the bed${isAll ? "" : ", and the rest be stood on them"}.`
      : "";
  return [
    {
      id: "raised",
      isGood: hanging.length === 0,
      say:
        hanging.length === 0
          ? `Higher than the bed, since something of the frame reaches lower, and on two risers each: ${words(raised)}.${instead}`
          : `Hangs over the bed with less than two risers under it: ${words(hanging)}.${instead}`,
    },
  ];
}

/** What is in the air until it is tacked: on risers, by what runs out to it, or in somebody's hands. */
function inTheAirCheck(structure: Structure, { inTheAir, elements }: Fixture, units: UnitPreference): FixtureCheck[] {
  if (inTheAir.length === 0) return [];
  const high = (mm: number): string => formatLength(mm, units, { denominator: 64, trim: true }).text;
  const under = inTheAir.map((a) => ({
    ...a,
    highs: [...new Set(elements.filter((e) => e.kind === "riser" && e.member === a.member).map((e) => high(e.highMm)))],
    count: elements.filter((e) => e.kind === "riser" && e.member === a.member).length,
  }));
  const onRisers = under.filter((a) => a.risers > 0 && a.count === a.risers);
  const raised = new Set(onRisers.map((a) => a.member));
  const between = under.filter((a) => a.risers === 0 && a.by.some((id) => raised.has(id)));
  const byHand = under.filter((a) => !onRisers.includes(a) && !between.includes(a));
  const parts = [
    ...(onRisers.length > 0
      ? [
          `In the air until it is tacked, on risers so high over the bed: ${named(
            onRisers.map((a) => `${a.member} on ${a.count === 1 ? "one" : "two"} of ${a.highs.join(" and ")}`),
          )}.`,
        ]
      : []),
    ...between.map((a) => `${a.member} lies between ${a.by.join(" and ")} and needs none.`),
    ...(byHand.length > 0
      ? [
          `Neither lies on the bed nor stands on what lies, so it is held by hand or a prop until it is tacked: ${named(byHand.map((a) => a.member))}.`,
        ]
      : []),
  ];
  const instead = isFlatUpright(structure)
    ? " All of it lies in one upright plane: tip it down on the stage Frame (How it lies on the bed), and the bed carries it."
    : inTheAir.length > MANY_SHARE * structure.members.length
      ? " So much in the air is easier built as flat frames, each laid out as a job of its own (made of a sub-assembly on the stage Frame), which are stood up and joined."
      : "";
  return [{ id: "propped", isGood: byHand.length === 0, say: `${parts.join(" ")}${instead}` }];
}

/** Where more of a frame than this share hangs in the air, it is not laid out in one go (own judgement). */
const MANY_SHARE = 0.5;

/**
 * What a fixture is asked, with the answers: whether it holds everything once, presses, lets go, and lets the torch in.
 * @param read how the bed was found when it was read last.
 */
export function fixtureChecks(
  structure: Structure,
  { fixture, placed, bed }: LaidOut,
  units: UnitPreference,
  read: BedVerdict | null,
): FixtureCheck[] {
  const { closures, elements, located, standing, tooMany, trapped, unreached } = fixture;
  const size = (mm: number): string => formatSmall(mm, units, { decimals: 2 });
  const squared = standing.filter((m) => elements.some((e) => e.kind === "square" && e.member === m));
  const inAir = fixture.inTheAir.map((a) => a.member);
  const on = standing.filter((m) => !squared.includes(m) && !inAir.includes(m));
  const inV = [...new Set(elements.filter((e) => e.kind === "V-block").map((e) => e.member))];
  const loose = closures.filter((c) => !c.closure.closes);
  const faces = unreached.map(({ joint, line, by }) => {
    const j = structure.joints.find((x) => x.id === joint);
    const f = j?.faces.find((x) => x.line === line);
    return `${j && f ? faceWords(structure, j, f) : joint}${by.length > 0 ? ` (${by.join(", ")})` : ""}`;
  });
  const more = [
    ...(tooMany.length > 0 ? [`More than it takes, any one of these could go: ${named(tooMany)}.`] : []),
    ...(located.jams
      ? ["Put in tight, stops and joints press against each other: leave a little play on one side."]
      : []),
  ];
  return [
    ...carriedCheck(bed, fixture, read, size),
    ...raisedCheck(structure, fixture, units),
    locatedCheck(fixture),
    ...(more.length > 0 ? [{ id: "more" as const, isGood: false, say: more.join(" ") }] : []),
    {
      id: "clamped",
      isGood: loose.length === 0 && (closures.length > 0 || inV.length > 0),
      say:
        closures.length === 0
          ? inV.length === 0
            ? "Nothing is clamped."
            : `Nothing is clamped sideways: a strap over each V-block holds ${named(inV)} down into it.`
          : loose.length === 0
            ? "Every clamp presses its member onto both of its stops."
            : `Not pressed onto both of its stops: ${named(loose.map((c) => c.member))}. Put the clamp between them.`,
    },
    {
      id: "free",
      isGood: !trapped.isTrapped,
      say: trapped.isTrapped
        ? `When it has shrunk it locks onto ${named(trapped.lockedOn)} by ${size(trapped.interferenceMm)}: stand them outside, or set them back by more than that.`
        : COMES_FREE_WORDS[placed],
    },
    {
      id: "reach",
      isGood: unreached.length === 0,
      say:
        unreached.length === 0
          ? "A torch comes at every bead that looks up or aside past all of it."
          : `In the torch's way, so it comes off before that bead, when all is tacked: ${named(faces)}.`,
    },
    ...(squared.length > 0
      ? [
          {
            id: "standing" as const,
            isGood: true,
            say: `${squared.length === 1 ? "One stands" : `${squared.length} stand`} up, each with a square of its own until it is tacked: ${named(squared)}.`,
          },
        ]
      : []),
    ...(on.length > 0
      ? [
          {
            id: "laid on" as const,
            isGood: true,
            say: `Laid on what lies on the bed, set to it and clamped until tacked: ${named(on)}.`,
          },
        ]
      : []),
    ...inTheAirCheck(structure, fixture, units),
  ];
}

/** A thing of the shelf that stands in for another, or is made fast in a way of its own. */
const THING_WORDS: Record<ShelfThing, string> = {
  stops: "a stop",
  angles: "an angle plate, clamped down",
  blocks: "a block, clamped or tacked down",
  squares: "a square",
  magnets: "a magnet: off before an arc comes near, which it blows aside",
  vBlocks: "a V-block",
  clamps: "a screw clamp",
  toggles: "a toggle clamp, set to this tube: it presses no more than it was set to",
  risers: "a riser",
  spreaders: "a spreader",
  strings: "a string",
};

/** What a thing of somebody's own is called: as it is named on the shelf. */
const ownName = ({ name, id }: OwnThing): string => name.trim() || `${id}, of your own`;

/** What an element is where that is not what everybody would take, in a line; null else. */
export function thingWords({ element: { kind }, thing, bed }: LaidElement): string | null {
  const role = roleOf(kind);
  if (thing === null) return "Nothing is left on the shelf for it.";
  if (typeof thing === "object") return `Here ${ownName(thing)}.`;
  if (bed === "floor" && role === "stop")
    return thing === "blocks" ? "A block with a weight on it, or braced." : "An angle plate with a weight on it.";
  if (bed === "floor" && role === "clamp") return "A bar clamp over the frame: the floor holds none.";
  return thing === usualThing(role, bed) ? null : `In its place ${THING_WORDS[thing]}.`;
}

/** Where an element goes, in a line: its hole or slot and packer, its trestle, or its place from two edges, else from corner A. */
export function laidWords(
  { element, from, isFromA, fromEdges, hole, slot, bearer, bed }: LaidElement,
  units: UnitPreference,
): string {
  const mm = (v: number): string => formatSmall(v, units, { decimals: units === "mm" ? 1 : 0 });
  // Taped as everything else in the job; what is a little off a mark, less than an inch from an edge, or nearer than a tape's step, is set by
  // a rule or a feeler.
  const taped = (v: number): string => {
    const marked = formatLength(v, units, { denominator: 64, trim: Math.abs(v) < SEEN_MM });
    const isOffMark =
      Math.abs(v) < tapeStepMm(units) || (Math.abs(v) < MM_PER.in && Math.abs(marked.roundingMm) > SEEN_MM);
    return isOffMark && mm(Math.abs(v)) !== mm(0) ? mm(v) : marked.text;
  };
  const high = element.highMm > 0 ? `${taped(element.highMm)} high, ` : "";
  const play = element.playMm > 0 ? `, ${mm(element.playMm)} off` : "";
  const packed = (packMm: number): string => (packMm > SEEN_MM ? ` with ${mm(packMm)} of packing` : "");
  if (hole) return `hole ${hole.along}, ${hole.across}${packed(hole.packMm)}${play}`;
  if (slot) return `slot ${slot.slot}, ${taped(slot.alongMm)} along it${packed(slot.packMm)}${play}`;
  const place = fromEdges ?? from;
  const on = bed === "bearers" ? `${bearer ? `on ${bearer}` : "on a bar laid across"}, ` : "";
  return `${high}${on}${fromEdges ? "from the edges" : isFromA ? "from A" : "from the lower left"} ${taped(place.x)} along, ${taped(place.y)} across${play}`;
}

/** What counts of the shelf are called, in the order in which they are asked. */
export const SHELF_WORDS: Record<ShelfThing, string> = {
  stops: "stops",
  angles: "angle plates",
  blocks: "blocks",
  squares: "squares",
  magnets: "magnets",
  vBlocks: "V-blocks",
  clamps: "screw clamps",
  toggles: "toggle clamps",
  risers: "risers",
  spreaders: "spreaders",
  strings: "strings",
};

/** What is asked of a thing of somebody's own. */
export const OWN_ROLE_WORDS: Record<OwnThing["does"], string> = {
  stop: "a stop",
  clamp: "a clamp",
  square: "a square",
  "V-block": "a V-block",
  riser: "a riser",
  spreader: "a spreader",
};

/** What is taken from the shelf: how many of what, and how many packers with it. */
export function pickedWords({ elements, bed, beside }: LaidOut): { count: number; what: string }[] {
  const things = Object.keys(SHELF_WORDS) as ShelfThing[];
  const ofThing = (thing: ShelfThing): string =>
    bed === "floor" && thing === "clamps" ? "bar clamps, over the frame" : SHELF_WORDS[thing];
  const taken = [...elements.map((e) => e.thing), ...beside];
  const own = [...new Set(taken.filter((t) => t !== null && typeof t === "object"))];
  const packers = elements.filter((e) => ((e.hole ?? e.slot)?.packMm ?? 0) > SEEN_MM).length;
  return [
    ...own.map((o) => ({
      count: taken.filter((t) => t === o).length,
      what: `${ownName(o)}, as ${OWN_ROLE_WORDS[o.does]}`,
    })),
    ...things.map((thing) => ({ count: taken.filter((t) => t === thing).length, what: ofThing(thing) })),
    { count: elements.filter((e) => e.element.kind === "V-block").length, what: "straps or clamps, over the V-blocks" },
    { count: packers, what: "packers, by the list below" },
    { count: taken.filter((t) => t === null).length, what: "places for which nothing is left" },
  ].filter((p) => p.count > 0);
}

/** All that is brought to the bed before anything is laid down: from the shelf, and what else it lies on or is held by. */
export function pickList(
  { bed, fixture = {} }: Plan,
  laid: LaidOut,
  bars: readonly { kind: string }[],
): { count: number; what: string }[] {
  const blocks = bars.filter((b) => b.kind === "block").length;
  return [
    ...pickedWords(laid),
    { count: fixture.bearers?.length ?? 0, what: "trestles or bars that it lies on" },
    { count: bars.length - blocks, what: "bars to tack across" },
    { count: bed.rests.length, what: "rests, with their shims" },
  ].filter((p) => p.count > 0);
}

/** What of the clamps' force is asked of whoever screws them. */
export const clampCaution = (units: UnitPreference): string =>
  `Clamp no harder than it takes: a clamp of ${physical("force", 2, units)} bends a rail that lies hollow. Clamps come off from the clamp side, slowly; stops stay until all is tacked.`;

import type { Fixture, FreeMotion } from "../fixture";
import type { Structure } from "../frame";
import { faceWords } from "../plan";
import { formatSmall, physical, type UnitPreference } from "../units";
import type { LaidElement, LaidOut } from "./layOut";

/** One thing that a fixture is asked, with the answer. */
export interface FixtureCheck {
  id: "located" | "more" | "clamped" | "free" | "reach" | "standing" | "propped";
  isGood: boolean;
  say: string;
}

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

/** What a fixture is asked, with the answers: whether it holds everything once, presses, lets go, and lets the torch in. */
export function fixtureChecks(
  structure: Structure,
  { fixture, isSetOff }: LaidOut,
  units: UnitPreference,
): FixtureCheck[] {
  const { closures, elements, located, standing, tooMany, trapped, unreached } = fixture;
  const size = (mm: number): string => formatSmall(mm, units, { decimals: 2 });
  const squared = standing.filter((m) => elements.some((e) => e.kind === "square" && e.member === m));
  const propped = standing.filter((m) => !squared.includes(m));
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
    locatedCheck(fixture),
    ...(more.length > 0 ? [{ id: "more" as const, isGood: false, say: more.join(" ") }] : []),
    {
      id: "clamped",
      isGood: loose.length === 0 && closures.length > 0,
      say:
        closures.length === 0
          ? "Nothing is clamped."
          : loose.length === 0
            ? "Every clamp presses its member onto both of its stops."
            : `Not pressed onto both of its stops: ${named(loose.map((c) => c.member))}. Put the clamp between them.`,
    },
    {
      id: "free",
      isGood: !trapped.isTrapped,
      say: trapped.isTrapped
        ? `When it has shrunk it locks onto ${named(trapped.lockedOn)} by ${size(trapped.interferenceMm)}: stand them outside, or set them back by more than that.`
        : isSetOff
          ? "When it has shrunk it comes free of every stop."
          : "Comes free as drawn; what it shrinks by is not predicted.",
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
    ...(propped.length > 0
      ? [
          {
            id: "propped" as const,
            isGood: true,
            say: `Neither lies on the bed nor stands on what lies, so it is held by hand or a prop until it is tacked: ${named(propped)}.`,
          },
        ]
      : []),
  ];
}

/** Where an element goes, in a line: its hole and packer, or its place from two edges, else from corner A. */
export function laidWords({ element, from, isFromA, fromEdges, hole }: LaidElement, units: UnitPreference): string {
  const mm = (v: number): string => formatSmall(v, units, { decimals: units === "mm" ? 1 : 0 });
  const play = element.playMm > 0 ? `, ${mm(element.playMm)} off` : "";
  if (hole)
    return `hole ${hole.along}, ${hole.across}${hole.packMm > 0.05 ? ` with ${mm(hole.packMm)} of packing` : ""}${play}`;
  const place = fromEdges ?? from;
  return `${fromEdges ? "from the edges" : isFromA ? "from A" : "from the lower left"} ${mm(place.x)} along, ${mm(place.y)} across${play}`;
}

/** What of the clamps' force is asked of whoever screws them. */
export const clampCaution = (units: UnitPreference): string =>
  `Clamp no harder than it takes: a clamp of ${physical("force", 2, units)} bends a rail that lies hollow. Clamps come off from the clamp side, slowly; stops stay until all is tacked.`;

import {
  type BedKind,
  bearerUnder,
  type Fixture,
  type FixtureElement,
  type FromShelf,
  fromShelf,
  holeFor,
  type InHole,
  type InSlot,
  isFromCorner,
  measuredFrom,
  proposeFixture,
  type SetOff,
  type ShelfRole,
  slotFor,
  type Taken,
  usualThing,
  type Wanted,
} from "../fixture";
import { MATERIALS, type Structure } from "../frame";
import { dot3, norm3, scale3, sub3, type Vec2 } from "../numeric";
import type { Prediction } from "../shrink";
import { placesOf } from "../square";
import type { Problem } from "../units";
import { bedKindOf, fixtureWish } from "./fixtureWish";
import { barsOf } from "./held";
import { type PlacedAs, placedAs } from "./placedAs";
import type { Plan } from "./planSchema";

/** An element with where to put it. */
export interface LaidElement {
  element: FixtureElement;
  /** From corner A, or the lower left of a frame without one, mm: how the frame is set up. */
  from: Vec2;
  /** Whether that is corner A. */
  isFromA: boolean;
  /** From the edges of the bed, mm; null where nobody said where the frame lies on it. */
  fromEdges: Vec2 | null;
  /** Null without holes, and for a piece that lies askew to them. */
  hole: InHole | null;
  /** Null without slots, and for a piece that lies askew to them. */
  slot: InSlot | null;
  /** The trestle or bar that it stands on; null where it stands beside them all, or there are none. */
  bearer: string | null;
  /** What the frame lies on. */
  bed: BedKind;
  /** What of the shelf it is; null where nothing is left for it. */
  thing: Taken | null;
}

/** The fixture of a plan, with what it asks for. */
export interface LaidOut {
  fixture: Fixture;
  elements: LaidElement[];
  bed: BedKind;
  /** What its places are taken from. */
  placed: PlacedAs;
  /** What else is taken from the shelf: what stands between members, and a string for the outline; null where nothing is left. */
  beside: (Taken | null)[];
  /** What of the shelf is short, and what does not fit on the bed. */
  problems: Problem[];
}

/** Set-up movement of the places of a structure: between joints, and free ends that are measured, in proportion; beyond them as the nearest. */
export function setOffBy(structure: Structure, offsetsMm: Prediction["setUp"]["offsetsMm"]): SetOff {
  const freeEnds = Object.entries(placesOf(structure).freeEnds);
  const known = new Map(
    structure.members.map((m) => {
      const long = norm3(sub3(m.to, m.from)) || 1;
      const way = scale3(sub3(m.to, m.from), 1 / long);
      const offOf = (id: string): Vec2 => ({ x: offsetsMm[id]?.[0] ?? 0, y: offsetsMm[id]?.[1] ?? 0 });
      const places = [
        ...structure.joints
          .filter((j) => j.a === m.id || j.b === m.id)
          .map((j) => ({ at: dot3(sub3(j.a === m.id ? j.at : j.atB, m.from), way), off: offOf(j.id) })),
        ...freeEnds
          .filter(([name, { member }]) => member === m.id && offsetsMm[name] !== undefined)
          .map(([name, { end }]) => ({ at: end === "from" ? 0 : long, off: offOf(name) })),
      ].sort((a, b) => a.at - b.at);
      return [m.id, places] as const;
    }),
  );
  return (member, alongMm) => {
    const places = known.get(member) ?? [];
    const next = places.findIndex((p) => p.at >= alongMm);
    const high = places[next < 0 ? places.length - 1 : next];
    const low = places[Math.max(0, (next < 0 ? places.length : next) - 1)];
    if (!high || !low) return { x: 0, y: 0 };
    const share = high.at === low.at ? 0 : Math.min(1, Math.max(0, (alongMm - low.at) / (high.at - low.at)));
    return {
      x: low.off.x + share * (high.off.x - low.off.x),
      y: low.off.y + share * (high.off.y - low.off.y),
    };
  };
}

/** How places are moved as a frame is set up, off nominal; null where it is set up as drawn, or that is not known. */
export const setOffOf = (plan: Plan, structure: Structure, prediction: Prediction | null): SetOff | null =>
  prediction !== null && placedAs(plan, prediction) === "set up"
    ? setOffBy(structure, prediction.setUp.offsetsMm)
    : null;

/**
 * Stops, end stops and clamps of a plan, where to put them and whether they do what they are there for.
 * @param prediction aimed as the frame is set up; null while there is none, and then places are as drawn.
 */
export function layOut(plan: Plan, structure: Structure, prediction: Prediction | null): LaidOut {
  const { holes, slots, at, have = {}, own = [] } = plan.fixture ?? {};
  const off = setOffOf(plan, structure, prediction);
  const wish = fixtureWish(plan, structure);
  const bed = bedKindOf(plan);
  // A bed that has edges: trestles and a floor have none to measure from.
  const hasEdges = bed !== "bearers" && bed !== "floor";
  const fixture = proposeFixture(structure, wish, off ?? (() => ({ x: 0, y: 0 })));
  const zero = measuredFrom(structure);
  const beside = [...spreadersOf(plan, structure), ...stringFor(bed)];
  const shelf = fromShelf([...fixture.elements.map(({ id, kind }) => ({ id, role: roleOf(kind) })), ...beside], have, {
    bed,
    isMagnetic: structure.members.every((m) => MATERIALS[m.material].isMagnetic),
    own,
  });
  const elements = fixture.elements.map((element): LaidElement => {
    const from = { x: element.at.x - zero.x, y: element.at.y - zero.y };
    const isPinned = element.kind === "stop" || element.kind === "end stop";
    return {
      element,
      from,
      isFromA: isFromCorner(structure),
      fromEdges: at && hasEdges ? { x: from.x + at.x.mm, y: from.y + at.y.mm } : null,
      hole:
        bed === "holes" && holes && isPinned
          ? holeFor(from, element.push, { pitchMm: holes.pitch.mm, first: { x: holes.x.mm, y: holes.y.mm } })
          : null,
      slot:
        bed === "slots" && slots && isPinned
          ? slotFor(from, element.push, { run: slots.run, pitchMm: slots.pitch.mm, firstMm: slots.first.mm })
          : null,
      bearer: bed === "bearers" ? bearerUnder(element.at, wish.bearers) : null,
      bed,
      thing: shelf.by.get(element.id) ?? null,
    };
  });
  return {
    fixture,
    elements,
    bed,
    placed: placedAs(plan, prediction),
    beside: beside.map(({ id }) => shelf.by.get(id) ?? null),
    problems: [...shelfProblems(shelf, bed), ...offBed(plan, elements)],
  };
}

/** Blocks that stand between two members, as the shelf is asked for them. */
const spreadersOf = (plan: Plan, structure: Structure): Wanted[] =>
  barsOf(structure, plan).flatMap(({ id, kind }) =>
    kind === "block" ? [{ id: `between ${id}`, role: "spreader" }] : [],
  );

/** On a bare floor its outline is strung before anything is set down: there is no edge and no hole to measure from. */
const stringFor = (bed: BedKind): Wanted[] => (bed === "floor" ? [{ id: "string", role: "string" }] : []);

/** What is asked of an element. */
export const roleOf = (kind: FixtureElement["kind"]): ShelfRole => (kind === "end stop" ? "stop" : kind);

/** What is asked of a shelf, and what is done where it runs out. */
const ROLE_WORDS: Record<ShelfRole, { many: string; instead: string }> = {
  stop: {
    many: "stops",
    instead: "leave some out where the list says that nothing moves without them, or lay it out in two goes",
  },
  clamp: { many: "clamps", instead: "clamp the sides that it is set by first, then the rest" },
  square: { many: "squares", instead: "stand the pieces up one after the other" },
  "V-block": { many: "V-blocks", instead: "chock the tube on both sides" },
  riser: { many: "risers", instead: "cut some of scrap tube, in pairs of one height" },
  spreader: { many: "spreaders", instead: "cut some of scrap tube, square and to the length between" },
  string: {
    many: "string",
    instead: "draw the outline with chalk along a straight tube",
  },
};

/** What is short on the shelf. */
const shelfProblems = ({ short }: FromShelf, bed: BedKind): Problem[] =>
  short.map(({ role, wanted, others, missing }): Problem => {
    const { many, instead } = ROLE_WORDS[role];
    const what = wanted === 1 ? many.replace(/s$/, "") : many;
    const stands = others > 0 ? `, ${others} of them something else in their place` : "";
    return {
      path: `fixture.have.${usualThing(role, bed)}`,
      message: `${wanted} ${what} ${wanted === 1 ? "is" : "are"} wanted here, ${wanted - missing} ${wanted - missing === 1 ? "is" : "are"} there${stands}: ${instead}.`,
      severity: "warning",
    };
  });

/** What does not fit on the bed. */
function offBed({ fixture = {} }: Plan, elements: readonly LaidElement[]): Problem[] {
  const { bed } = fixture;
  const off = elements.filter(
    ({ fromEdges: p }) =>
      p !== null && bed !== undefined && (p.x < 0 || p.y < 0 || p.x > bed.length.mm || p.y > bed.width.mm),
  );
  if (off.length === 0) return [];
  const names = off.slice(0, 3).map((e) => e.element.id);
  return [
    {
      path: "fixture.at.x",
      message: `Off the bed as the frame lies on it: ${names.join(", ")}${off.length > 3 ? ` and ${off.length - 3} more` : ""}. Move the frame, or turn it.`,
      severity: "warning",
    },
  ];
}

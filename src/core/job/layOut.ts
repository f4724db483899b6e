import {
  type Fixture,
  type FixtureElement,
  holeFor,
  type InHole,
  measuredFrom,
  proposeFixture,
  type SetOff,
} from "../fixture";
import type { Structure } from "../frame";
import { dot3, norm3, scale3, sub3, type Vec2 } from "../numeric";
import type { Prediction } from "../shrink";
import type { Problem } from "../units";
import { fixtureWish } from "./fixtureWish";
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
}

/** The fixture of a plan, with what it asks for. */
export interface LaidOut {
  fixture: Fixture;
  elements: LaidElement[];
  /** Whether places are those of the set-up, off where it is drawn. */
  isSetOff: boolean;
  /** What of the shelf is short, and what does not fit on the bed. */
  problems: Problem[];
}

/** Set-up movement of the places of a structure: between joints in proportion, beyond them as the nearest. */
export function setOffBy(structure: Structure, offsetsMm: Prediction["setUp"]["offsetsMm"]): SetOff {
  const known = new Map(
    structure.members.map((m) => {
      const long = norm3(sub3(m.to, m.from)) || 1;
      const way = scale3(sub3(m.to, m.from), 1 / long);
      const places = structure.joints
        .filter((j) => j.a === m.id || j.b === m.id)
        .map((j) => {
          const [x = 0, y = 0] = offsetsMm[j.id] ?? [];
          return { at: dot3(sub3(j.a === m.id ? j.at : j.atB, m.from), way), off: { x, y } };
        })
        .sort((a, b) => a.at - b.at);
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
  plan.aim === "set-up" && prediction !== null && prediction.setUp.beyondMm === null
    ? setOffBy(structure, prediction.setUp.offsetsMm)
    : null;

/**
 * Stops, end stops and clamps of a plan, where to put them and whether they do what they are there for.
 * @param prediction aimed as the frame is set up; null while there is none, and then places are as drawn.
 */
export function layOut(plan: Plan, structure: Structure, prediction: Prediction | null): LaidOut {
  const wish = plan.fixture ?? {};
  const off = setOffOf(plan, structure, prediction);
  const fixture = proposeFixture(structure, fixtureWish(plan), off ?? (() => ({ x: 0, y: 0 })));
  const zero = measuredFrom(structure);
  const { holes, at } = wish;
  const elements = fixture.elements.map((element): LaidElement => {
    const from = { x: element.at.x - zero.x, y: element.at.y - zero.y };
    return {
      element,
      from,
      isFromA: structure.quad !== null,
      fromEdges: at ? { x: from.x + at.x.mm, y: from.y + at.y.mm } : null,
      hole:
        holes && (element.kind === "stop" || element.kind === "end stop")
          ? holeFor(from, element.push, { pitchMm: holes.pitch.mm, first: { x: holes.x.mm, y: holes.y.mm } })
          : null,
    };
  });
  return { fixture, elements, isSetOff: off !== null, problems: shelfProblems(plan, elements) };
}

/** What is short on the shelf, or does not fit on the bed. */
function shelfProblems({ fixture = {} }: Plan, elements: readonly LaidElement[]): Problem[] {
  const found: Problem[] = [];
  const count = (...kinds: FixtureElement["kind"][]): number =>
    elements.filter((e) => kinds.includes(e.element.kind)).length;
  const clamps = count("clamp");
  const stops = count("stop", "end stop");
  const short = (path: "stops" | "clamps", wanted: number, have: number | undefined): void => {
    if (have !== undefined && wanted > have)
      found.push({
        path: `fixture.have.${path}`,
        message: `${wanted} ${path} are wanted here, ${have} are there: leave some out where the list says that nothing moves without them, or lay it out in two goes.`,
        severity: "warning",
      });
  };
  short("stops", stops, fixture.have?.stops);
  short("clamps", clamps, fixture.have?.clamps);
  const off = elements.filter(
    ({ fromEdges: p }) =>
      p !== null &&
      fixture.bed !== undefined &&
      (p.x < 0 || p.y < 0 || p.x > fixture.bed.length.mm || p.y > fixture.bed.width.mm),
  );
  if (off.length > 0)
    found.push({
      path: "fixture.at.x",
      message: `Off the bed as the frame lies on it: ${off
        .slice(0, 3)
        .map((e) => e.element.id)
        .join(", ")}${off.length > 3 ? ` and ${off.length - 3} more` : ""}. Move the frame, or turn it.`,
      severity: "warning",
    });
  return found;
}

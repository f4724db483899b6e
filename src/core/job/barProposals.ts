import { type Structure, type StructureMember, tubeBeginsMm } from "../frame";
import { CORNERS, type Corner, SIDES, type Side } from "../geometry";
import { norm3, sub3, type Vec3 } from "../numeric";
import type { BarKind, PutOn } from "../plan";
import { mouthsOf, placesOf } from "../square";
import { stated, tapeStepMm, type UnitPreference } from "../units";
import { alongLine } from "./alongTube";
import type { PlannedBar } from "./held";

/** Bars that cross stand off the corners by this share of their side: room for torch and hand (own judgement). */
const CROSSED_SHARE = 0.18;
/** A bar across a corner meets its sides at this share of the shorter one, and no farther than so many mm (own judgement). */
const CORNER_SHARE = 0.3;
const CORNER_MM = 400;

const lengthOf = (m: StructureMember): number => norm3(sub3(m.to, m.from));

/** How far along a member lies so far from a corner. */
function alongFrom(m: StructureMember, corner: Vec3, mm: number): number {
  const long = lengthOf(m);
  const fromStart = norm3(sub3(m.from, corner)) <= norm3(sub3(m.to, corner));
  return fromStart ? Math.min(long, mm) : Math.max(0, long - mm);
}

/** Whether one of two members stands on the other, which runs on past it: between their ends nothing opens that a block would fit. */
const standsOn = ({ joints }: Structure, m: StructureMember, n: StructureMember): boolean =>
  joints.some((j) => j.endA === null && ((j.a === m.id && j.b === n.id) || (j.a === n.id && j.b === m.id)));

/** Sides that meet at a corner. */
const SIDES_AT: Record<Corner, [Side, Side]> = { A: ["AB", "DA"], B: ["AB", "BC"], C: ["BC", "CD"], D: ["CD", "DA"] };

/** Bars that a frame could be held by, ready to be put on: crossed between two sides, across its corners, or over its open mouths. */
export function barProposals(
  structure: Structure,
  units: UnitPreference,
): { crossed: PlannedBar[]; corners: PlannedBar[]; sides: PlannedBar[]; blocks: PlannedBar[] } {
  const bar = (
    id: string,
    kind: BarKind,
    putOn: PutOn,
    ...[from, to]: readonly (readonly [StructureMember, number])[]
  ): PlannedBar[] => {
    if (!from || !to) return [];
    const step = tapeStepMm(units);
    const end = ([m, mm]: readonly [StructureMember, number]) => {
      const begins = tubeBeginsMm(m);
      // On its line, the middles of whose ends need not lie on a whole step.
      const [first, last] = [Math.ceil(-begins / step - 1e-9), Math.floor((lengthOf(m) - begins) / step + 1e-9)];
      const nth = Math.min(last, Math.max(first, Math.round((mm - begins) / step)));
      return { member: m.id, along: alongLine(m, stated(step * nth, units), units) };
    };
    return [{ id, kind, from: end(from), to: end(to), putOn, takenOff: "cold" }];
  };
  const { quad } = structure;
  const sideOf = (s: Side): StructureMember | undefined =>
    quad ? structure.members.find((m) => m.id === quad.sides[s]) : undefined;
  const [ab, bc, cd, da] = SIDES.map(sideOf);
  const lies = quad !== null && quad.view.depth === 2;
  const places = placesOf(structure);
  const mouths = mouthsOf(places).flatMap(([from, to], i) => {
    const [p, q] = [from, to].map((name) => {
      const { member, end } = places.freeEnds[name] ?? {};
      const m = structure.members.find((x) => x.id === member);
      return m ? ([m, end === "from" ? 0 : lengthOf(m)] as const) : undefined;
    });
    return p && q && !standsOn(structure, p[0], q[0]) ? [{ nth: i + 1, p, q }] : [];
  });
  return {
    crossed:
      lies && ab && cd && quad
        ? (
            [
              ["S1", "A", "C"],
              ["S2", "B", "D"],
            ] as const
          ).flatMap(([id, p, q]) =>
            bar(
              id,
              "strongback",
              "square",
              [ab, alongFrom(ab, quad.at[p], CROSSED_SHARE * lengthOf(ab))],
              [cd, alongFrom(cd, quad.at[q], CROSSED_SHARE * lengthOf(cd))],
            ),
          )
        : [],
    corners:
      lies && ab && bc && cd && da && quad
        ? CORNERS.flatMap((c, i) => {
            const [m, n] = SIDES_AT[c].map(sideOf) as [StructureMember, StructureMember];
            const mm = Math.min(CORNER_MM, CORNER_SHARE * Math.min(lengthOf(m), lengthOf(n)));
            const at = quad.at[c];
            return bar(`K${i + 1}`, "strongback", "square", [m, alongFrom(m, at, mm)], [n, alongFrom(n, at, mm)]);
          })
        : [],
    sides: mouths.flatMap(({ nth, p, q }) => bar(`T${nth}`, "side", "laid", p, q)),
    blocks: mouths.flatMap(({ nth, p, q }) => bar(`B${nth}`, "block", "laid", p, q)),
  };
}

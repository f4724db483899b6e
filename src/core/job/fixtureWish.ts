import { type BedKind, type FixtureWish, measuredFrom } from "../fixture";
import type { Structure } from "../frame";
import { add } from "../numeric";
import { bareUnit } from "../units";
import type { Plan } from "./planSchema";

/** What places of elements are marked to, mm: nobody looks for the sixty-fourth that a share of a length comes to. */
const STEP_MM = { mm: 5, in: 25.4 / 4 } as const;

/** What a plan's frame lies on. */
export function bedKindOf({ fixture = {} }: Pick<Plan, "fixture">): BedKind {
  if (fixture.bearers) return "bearers";
  if (fixture.floor) return "floor";
  if (fixture.slots) return "slots";
  return fixture.holes ? "holes" : "plate";
}

/** What a plan wants of its fixture. */
export function fixtureWish(
  { fixture = {}, units }: Pick<Plan, "fixture" | "units">,
  structure: Structure,
): FixtureWish {
  const zero = measuredFrom(structure);
  const place = ({ x, y }: { x: { mm: number }; y: { mm: number } }) => add(zero, { x: x.mm, y: y.mm });
  return {
    side: fixture.side ?? "outside",
    alongMm: new Map((fixture.moved ?? []).map((m) => [m.id, m.along.mm])),
    without: new Set(fixture.without ?? []),
    stepMm: STEP_MM[bareUnit(units)],
    bearers: (fixture.bearers ?? []).map(({ id, from, to }) => ({ id, from: place(from), to: place(to) })),
  };
}

import { type BedKind, type FixtureWish, measuredFrom } from "../fixture";
import type { Structure } from "../frame";
import { add } from "../numeric";
import type { Plan } from "./planSchema";

/** What a plan's frame lies on. */
export function bedKindOf({ fixture = {} }: Pick<Plan, "fixture">): BedKind {
  if (fixture.bearers) return "bearers";
  if (fixture.floor) return "floor";
  if (fixture.slots) return "slots";
  return fixture.holes ? "holes" : "plate";
}

/** What a plan wants of its fixture. */
export function fixtureWish({ fixture = {} }: Pick<Plan, "fixture">, structure: Structure): FixtureWish {
  const zero = measuredFrom(structure);
  const place = ({ x, y }: { x: { mm: number }; y: { mm: number } }) => add(zero, { x: x.mm, y: y.mm });
  return {
    side: fixture.side ?? "outside",
    alongMm: new Map((fixture.moved ?? []).map((m) => [m.id, m.along.mm])),
    without: new Set(fixture.without ?? []),
    bearers: (fixture.bearers ?? []).map(({ id, from, to }) => ({ id, from: place(from), to: place(to) })),
  };
}

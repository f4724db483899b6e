import type { FixtureWish } from "../fixture";
import type { Plan } from "./planSchema";

/** What a plan wants of its fixture. */
export const fixtureWish = ({ fixture = {} }: Pick<Plan, "fixture">): FixtureWish => ({
  side: fixture.side ?? "outside",
  alongMm: new Map((fixture.moved ?? []).map((m) => [m.id, m.along.mm])),
  without: new Set(fixture.without ?? []),
});

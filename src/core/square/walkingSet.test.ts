import { describe, expect, it } from "vitest";
import { built } from "../../../tests/support/ladder";
import { rectangle } from "../../../tests/support/plans";
import { length } from "../units";
import { placesOf } from "./places";
import { walkingSet } from "./walkingSet";

describe("tapes along members and across", () => {
  it("name every place, each pair once, none twice the same way", () => {
    const places = placesOf(built(rectangle({ cross: [{ id: "M1", at: length("400") }] })));
    const set = walkingSet(places);
    const pairs = set.map(([p, q]) => [p, q].sort().join());
    expect(new Set(pairs).size).toBe(pairs.length);
    expect(new Set(set.flat())).toEqual(new Set(Object.keys(places.nodes)));
    // As many as fix the shape: two for every place but three of the whole.
    expect(set.length).toBeGreaterThanOrEqual(2 * Object.keys(places.nodes).length - 3);
  });
});

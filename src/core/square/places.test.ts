import { describe, expect, it } from "vitest";
import { started } from "../../../tests/support/drawnFrames";
import { built } from "../../../tests/support/ladder";
import { readOff, tape } from "../../../tests/support/networks";
import { rectangle } from "../../../tests/support/plans";
import { resolveStructure, STARTERS } from "../frame";
import { length } from "../units";
import { generalCheck } from "./generalCheck";
import { placesOf } from "./places";
import { walkingSet } from "./walkingSet";

describe("places between which one measures", () => {
  it("are outside corners and the branches' middles on a rectangle", () => {
    const places = placesOf(built(rectangle({ cross: [{ id: "M1", at: length("500") }] })));
    expect(Object.keys(places.nodes).sort()).toEqual(["A", "B", "C", "D", "M1AB", "M1CD"]);
    expect(places.nodes.M1AB).toEqual({ x: places.nodes.M1CD?.x, y: 0 });
    expect(places.nodes.M1CD?.y).toBe(600);
    expect(places.along).toContainEqual(["A", "M1AB"]);
  });
  it("are there for every starter, and taped along members and across they fix its shape", () => {
    for (const { name } of STARTERS) {
      const { structure } = resolveStructure(started(name));
      const places = placesOf(structure);
      const { nodes } = places;
      const names = Object.keys(nodes);
      expect(names.length, name).toBeGreaterThanOrEqual(3);
      for (const n of names) expect(n, name).toMatch(/^[A-Z][A-Z0-9]{0,9}$/);
      const set = walkingSet(places).map(([p, q]) => tape(p, q));
      const check = generalCheck(nodes, readOff(nodes, set));
      expect(check.fit.status, name).toBe("ok");
      expect(check.untied, name).toEqual([]);
      expect(check.farthest?.value, name).toBeLessThan(1e-6);
      expect(set.length, name).toBeLessThan(3 * names.length + 2);
    }
  });
});

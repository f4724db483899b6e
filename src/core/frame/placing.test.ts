import { describe, expect, it } from "vitest";
import { drawn, squareTube } from "../../../tests/support/drawnFrames";
import { length } from "../units";
import { directionWord, placeMembers, shapeOf } from "./placing";

describe("members in their place", () => {
  const sections = [squareTube(40, 3), squareTube(60, 3, "L")];
  const frame = () =>
    drawn(
      {
        R: [[0, 0, 0], [1000, 0, 0], "L"],
        P: [
          [500, 0, 0],
          [500, 600, 0],
        ],
        Q: [
          [500, 600, 0],
          [900, 600, 0],
        ],
      },
      sections,
    );
  it("lies flush with the face of another, and what lies flush with that one follows", () => {
    const f = frame();
    const members = f.members.map((m) =>
      m.id === "P"
        ? { ...m, flush: { to: "R", side: "up" as const } }
        : m.id === "Q"
          ? { ...m, flush: { to: "P", side: "up" as const } }
          : m,
    );
    const placed = placeMembers({ ...f, members });
    // Tops at 30: a tube of 40 has its line 10 above that of one of 60.
    expect(placed.get("P")?.from[2]).toBeCloseTo(10, 9);
    expect(placed.get("Q")?.to[2]).toBeCloseTo(10, 9);
    expect(placed.get("P")?.lengthMm).toBeCloseTo(600, 9);
  });
  it("stays where it was drawn in a ring of members that each lie flush with the next", () => {
    const f = frame();
    const ring: Record<string, string> = { R: "P", P: "Q", Q: "R" };
    const members = f.members.map((m) => ({ ...m, flush: { to: ring[m.id] ?? "", side: "up" as const } }));
    const placed = placeMembers({ ...f, members });
    for (const id of ["R", "P", "Q"]) expect(Number.isFinite(placed.get(id)?.from[2])).toBe(true);
  });
  it("is moved off its line across and up by its offset, and left out when it has no length", () => {
    const f = frame();
    const members = f.members.map((m) =>
      m.id === "P"
        ? { ...m, offset: { across: length("0"), up: length("12") } }
        : m.id === "Q"
          ? { ...m, to: m.from }
          : m,
    );
    const placed = placeMembers({ ...f, members });
    expect(placed.get("P")?.from[2]).toBeCloseTo(12, 9);
    expect(placed.has("Q")).toBe(false);
  });
  it("names the direction that a vector points to most", () => {
    expect(directionWord([0.2, -0.9, 0.1])).toBe("front");
    expect(directionWord([-1, 0.5, 0])).toBe("left");
    expect(directionWord([1, 1, 1])).toBe("up");
    expect(directionWord([0, 0, -0.1])).toBe("down");
  });
  it("gives a rolled angle the root of its own thickness", () => {
    expect(shapeOf({ ...squareTube(50, 5), shape: "angle" })).toMatchObject({ shape: "angle", rootMm: 5 });
  });
});

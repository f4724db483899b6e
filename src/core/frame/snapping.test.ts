import { describe, expect, it } from "vitest";
import { drawn } from "../../../tests/support/drawnFrames";
import { placeMembers } from "./placing";
import { snap } from "./snapping";

describe("snapping", () => {
  const placed = placeMembers(
    drawn({
      A1: [
        [0, 0, 20],
        [1000, 0, 20],
      ],
      A2: [
        [0, 400, 20],
        [1000, 400, 20],
      ],
    }),
  );
  const plan = { right: 0, up: 1, depth: 2 } as const;
  const near = (p: [number, number, number]) => snap(placed.values(), p, plan, 12, 5);
  it("goes to ends, middles, faces and lines before the grid, and takes the depth of what it finds", () => {
    expect(near([4, 6, 0])).toEqual({ at: [0, 0, 20], what: "end", of: "A1" });
    expect(near([506, -5, 0])).toMatchObject({ at: [500, 0, 20], what: "middle" });
    expect(near([300, 3, 0])).toMatchObject({ at: [300, 0, 20], what: "on the line" });
    expect(near([300, 22, 0])).toMatchObject({ at: [300, 20, 20], what: "face" });
    expect(near([303, 205, 7]).what).toBe("equal gap");
    expect(near([303, 205, 7]).at[1]).toBe(200);
    expect(near([303, 102, 7])).toEqual({ at: [305, 100, 7], what: "grid", of: null });
  });
});

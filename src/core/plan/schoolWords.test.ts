import { describe, expect, it } from "vitest";
import { started } from "../../../tests/support/drawnFrames";
import { resolveStructure, STARTERS } from "../frame";
import { orderOfWork } from "./schools";
import { schoolWords } from "./schoolWords";

describe("a school's words", () => {
  const orders = STARTERS.map(({ name }) => {
    const { structure } = resolveStructure(started(name));
    return { name, steps: orderOfWork(structure).steps };
  });
  it("claim only what stands in the order that they are said of", () => {
    for (const { name, steps } of orders) {
      const tack = schoolWords("hinge first", steps);
      const weld = schoolWords("across and around", steps);
      expect(/lock on the opposite side/.test(tack.says), name).toBe(steps.some((s) => s.why.kind === "locks"));
      expect(/insides last/.test(weld.says), name).toBe(steps.some((s) => s.why.kind === "inside last"));
      expect(/before the turn/.test(weld.why), name).toBe(steps.some((s) => s.part === "weld" && s.id.do === "flip"));
      // Nothing to turn is said of a frame of which nothing is closed by turning, and of no other.
      const turns = steps.some((s) => s.closes);
      expect(/nothing to turn/.test(tack.why), name).toBe(!turns && steps.some((s) => s.why.kind === "stiff already"));
      expect(/cheap correction/.test(tack.why), name).toBe(steps.some((s) => s.why.kind === "close while it turns"));
      expect(tack.says, name).toMatch(/^[A-Z].*\.$/);
    }
  });
  it("differ between frames that have different joints", () => {
    const said = new Set(orders.map(({ steps }) => schoolWords("across and around", steps).says));
    expect(said.size).toBeGreaterThan(1);
  });
  it("are empty over an order without steps", () => {
    expect(schoolWords("hinge first", [])).toEqual({ name: "Hinge first", says: "", why: "" });
  });
});

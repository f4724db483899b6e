import { describe, expect, it } from "vitest";
import { started } from "../../../tests/support/drawnFrames";
import { resolveStructure, STARTERS } from "../frame";
import { orderOfWork } from "./schools";
import { schoolWords } from "./schoolWords";

describe("a school's words", () => {
  const rectangle = started("rectangle");
  const ids = rectangle.members.map((m) => m.id);
  const halved = {
    ...rectangle,
    groups: [
      { id: "U1", name: "near half", members: ids.slice(0, 2) },
      { id: "U2", name: "far half", members: ids.slice(2) },
    ],
  };
  const orders = [
    ...STARTERS.map(({ name }) => ({ name, drawn: started(name) })),
    { name: "halves", drawn: halved },
  ].map(({ name, drawn }) => ({ name, steps: orderOfWork(resolveStructure(drawn).structure).steps }));
  it("claim only what stands in the order that they are said of", () => {
    for (const { name, steps } of orders) {
      const tack = schoolWords("hinge first", steps);
      const weld = schoolWords("across and around", steps);
      expect(/lock on the opposite side/.test(tack.says), name).toBe(steps.some((s) => s.why.kind === "locks"));
      expect(/insides last/.test(weld.says), name).toBe(steps.some((s) => s.why.kind === "inside last"));
      expect(/before the turn/.test(weld.why), name).toBe(steps.some((s) => s.part === "weld" && s.id.do === "flip"));
      expect(new Set(tack.says.split(", ")).size, name).toBe(tack.says.split(", ").length);
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

import { describe, expect, it } from "vitest";
import { isVisible } from "./visible";
import { visibleName } from "./visibleName";

describe("a name", () => {
  const schema = visibleName("Give it a name.", 10);
  it("is anything that shows, in any writing", () => {
    for (const name of ["A", "7", "木", "№", "ö", "🙂", " x "]) expect(schema.safeParse(name).success, name).toBe(true);
    expect(schema.parse(" x ")).toBe("x");
  });
  it("is not what nobody sees: blanks, control characters, marks of direction", () => {
    for (const name of ["", "  ", "\u0007", "\u202e\u202d", "\u200b\u200f", "\u00ad"]) {
      expect(schema.safeParse(name).success).toBe(false);
      expect(isVisible(name)).toBe(false);
    }
    expect(schema.safeParse("\u202e").error?.issues[0]?.message).toMatch(/can be seen/);
    expect(schema.safeParse("12345678901").error?.issues[0]?.message).toBe("At most 10 characters.");
  });
});

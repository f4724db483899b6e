import { createElement } from "react";
import { renderToStaticMarkup } from "react-dom/server";
import { describe, expect, it } from "vitest";
import { allHeldTogether, heldTogether } from "./figures";
import { jsx, jsxs } from "./jsx-runtime";

const spaced = (text: string) => text.replaceAll("\u00a0", "~");

describe("a figure and its unit", () => {
  it("stay on one line, with sign and fraction, in every unit in use", () => {
    expect(spaced(heldTogether("Read 2.63 mm ± 0.80 mm (95 %); limit −3.00 mm"))).toBe(
      "Read 2.63~mm ±~0.80~mm (95~%); limit −3.00~mm",
    );
    expect(spaced(heldTogether("47 1/4 in, 3 lb, 0.9 kJ/in and 16 ga at 20 °C"))).toBe(
      "47~1/4~in, 3~lb, 0.9~kJ/in and 16~ga at 20~°C",
    );
    expect(spaced(heldTogether("5 thou/ft or 0.4 mm/m"))).toBe("5~thou/ft or 0.4~mm/m");
  });
  it("keep a date together, and nothing that only looks like one", () => {
    expect(heldTogether("up to 2026-11-30.")).toBe("up to 2026-\u206011-\u206030.");
    for (const text of ["2026-11-305", "11-30", "12345-6-7"]) expect(heldTogether(text)).toBe(text);
  });
  it("leave other words free to break", () => {
    for (const text of ["4 members", "Step 7 of 42", "2 minutes", "mm each", "12 mmx", "side AB is long"])
      expect(heldTogether(text)).toBe(text);
  });
  it("stay together where one text ends with the figure and the next begins with the unit", () => {
    expect((allHeldTogether(["It is ± ", 3, " mm, or ", "4", " in"]) as string[]).join("")).toBe(
      "It is ±\u00a03\u00a0mm, or 4\u00a0in",
    );
  });
  it("are set in every element, but not where text is a choice or a drawing's label", () => {
    expect(renderToStaticMarkup(jsx("p", { children: "1 mm" }))).toBe("<p>1\u00a0mm</p>");
    expect(renderToStaticMarkup(jsxs("p", { children: ["by ", 1, " mm"] }))).toBe("<p>by 1\u00a0mm</p>");
    expect(renderToStaticMarkup(jsxs("p", { children: [["1 mm, ", "2 mm"], " 3"] }))).toBe(
      "<p>1\u00a0mm, 2\u00a0mm 3</p>",
    );
    expect(renderToStaticMarkup(jsx("option", { children: "1 mm" }))).toBe("<option>1 mm</option>");
    const Named = ({ children }: { children: string }) => createElement("b", null, children);
    expect(renderToStaticMarkup(jsx(Named, { children: "1 mm" }))).toBe("<b>1 mm</b>");
  });
});

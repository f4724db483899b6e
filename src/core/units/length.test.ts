import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { length, parseLength } from "./length";
import { lengthSchema } from "./lengthSchema";

const mm = (text: string, bare: "mm" | "in" = "mm"): number => {
  const parsed = parseLength(text, bare);
  if (!parsed.ok) throw new Error(parsed.message);
  return parsed.value.mm;
};

describe("reading lengths as people write them", () => {
  it.each([
    ["1200", "mm", 1200],
    ["47 1/4", "in", 1200.15],
    ["3' 11 1/4\"", "mm", 1200.15],
    ["3’ 11 ¼”", "mm", 1200.15],
    ["1.2 m", "mm", 1200],
    ["60 thou", "mm", 1.524],
    ["0.060in", "mm", 1.524],
    ["12.5+3", "mm", 15.5],
    ["12.5+3", "in", 393.7],
    ["4'6-1/2", "in", 1384.3],
    ["4'-6 1/2\"", "mm", 1384.3],
    ["106,5 cm", "mm", 1065],
    [",5", "mm", 0.5],
    ["2 ft + 10 mm", "mm", 619.6],
    ['-3/8"', "mm", -9.525],
    ["250 µm", "mm", 0.25],
    ["1200MM", "in", 1200],
    ["20 + 25 thou", "in", 1.143],
    ["20 thou + 25", "in", 1.143],
    ["20 + 25 thou", "mm", 1.143],
    ["0.5 + 0.05 mm leaves", "in", 0.55],
    ["1200 plus 25.4 block", "mm", 1225.4],
    ["12 + 1 1/2 in", "mm", 342.9],
  ] as const)("%s (%s) is %d mm", (text, bare, expected) => {
    expect(mm(text, bare)).toBeCloseTo(expected, 9);
  });

  it.each([
    ["", /Nothing typed/],
    ["abc", /Cannot read "abc"/],
    ["12 kg", /"kg" is not a unit/],
    ["12 mm 5", /needs a unit/],
    ["1/0", /divides by zero/],
    ["12 +", /missing/],
    ["1e5", /"e" is not a unit/],
    ["1.2.3", /Cannot read|needs a unit/],
    ["9".repeat(70), /Too long/],
    ["<b>12</b>", /Cannot read/],
    ["--5", /Cannot read/],
  ])("refuses %j and says why", (text, why) => {
    const parsed = parseLength(text);
    expect(parsed.ok).toBe(false);
    if (!parsed.ok) expect(parsed.message).toMatch(why);
  });

  it("says how it took a comma that could be a thousands mark", () => {
    const parsed = parseLength("1,200");
    expect(parsed).toMatchObject({ ok: true, value: { mm: 1.2, note: expect.stringMatching(/decimal comma/) } });
    expect(parseLength("0,012 in")).toEqual({ ok: true, value: { mm: expect.closeTo(0.3048, 9) } });
  });

  it("says which unit the numbers of a sum were taken in", () => {
    expect(parseLength("20 + 25 thou", "in")).toMatchObject({
      ok: true,
      value: { note: expect.stringMatching(/in thou/) },
    });
    expect(parseLength("12.5 + 3", "in")).toEqual({ ok: true, value: { mm: expect.closeTo(393.7, 9) } });
  });

  it("never throws and never gives a number that is not one, whatever is typed", () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 80 }), (text) => {
        const parsed = parseLength(text);
        if (parsed.ok) expect(Number.isFinite(parsed.value.mm)).toBe(true);
        else expect(parsed.message.length).toBeGreaterThan(5);
      }),
    );
  });

  it("means the same in any mixture of units", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 50 }),
        fc.integer({ min: 0, max: 11 }),
        fc.integer({ min: 1, max: 15 }),
        (f, i, n) => {
          expect(mm(`${f}' ${i} ${n}/16"`)).toBeCloseTo((f * 12 + i + n / 16) * 25.4, 8);
        },
      ),
    );
  });
});

describe("a stated length", () => {
  it("is refused when its value is not what its text says", () => {
    expect(lengthSchema.safeParse({ mm: 1200, text: "1200", unit: "mm" }).success).toBe(true);
    expect(lengthSchema.safeParse({ mm: 1200, text: "1300", unit: "mm" }).success).toBe(false);
    expect(lengthSchema.safeParse({ mm: Number.NaN, text: "1300", unit: "mm" }).success).toBe(false);
  });
  it("keeps the text as typed", () => {
    expect(length("47 1/4", "in")).toEqual({ mm: expect.closeTo(1200.15, 9), text: "47 1/4", unit: "in" });
  });
});

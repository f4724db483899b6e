import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { readLength } from "./length";
import { readSlant } from "./slant";
import { spokenText } from "./spoken";

const ONES =
  "zero one two three four five six seven eight nine ten eleven twelve thirteen fourteen fifteen sixteen seventeen eighteen nineteen".split(
    " ",
  );
const TENS = "twenty thirty forty fifty sixty seventy eighty ninety".split(" ");
/** A whole number under ten thousand as it is said (common practice, no source). */
function words(n: number): string {
  if (n < 20) return ONES[n] as string;
  if (n < 100) return `${TENS[Math.floor(n / 10) - 2]}${n % 10 ? ` ${ONES[n % 10]}` : ""}`;
  if (n < 1000) return `${ONES[Math.floor(n / 100)]} hundred${n % 100 ? ` and ${words(n % 100)}` : ""}`;
  const rest = n % 1000;
  return `${words(Math.floor(n / 1000))} thousand${rest ? `${rest < 100 ? " and" : ""} ${words(rest)}` : ""}`;
}
const PARTS: Record<number, string> = {
  2: "half",
  4: "quarter",
  8: "eighth",
  16: "sixteenth",
  32: "thirty-second",
  64: "sixty-fourth",
};

describe("a reading that is said", () => {
  it("is what would have been typed, in millimetres", () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 9999 }), fc.option(fc.integer({ min: 1, max: 9 })), (n, tenth) => {
        expect(spokenText(`${words(n)}${tenth ? ` point ${ONES[tenth]}` : ""}`)).toBe(tenth ? `${n}.${tenth}` : `${n}`);
        expect(spokenText(`${n}${tenth ? `.${tenth}` : ""}`)).toBe(tenth ? `${n}.${tenth}` : `${n}`);
      }),
    );
  });
  it("is what would have been typed, in inches and their parts", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 99 }), fc.constantFrom(2, 4, 8, 16, 32, 64), fc.nat(), (n, of, seed) => {
        const over = 1 + 2 * (seed % (of / 2));
        const part = over === 1 ? `a ${PARTS[of]}` : `${words(over)} ${PARTS[of]}s`;
        expect(spokenText(`${words(n)} and ${part}`)).toBe(`${n} ${over}/${of}`);
        expect(spokenText(`${n} ${over}/${of} inches`)).toBe(`${n} ${over}/${of} in`);
        expect(spokenText(part)).toBe(`${over}/${of}`);
      }),
    );
  });
  it("goes by how people say it", () => {
    for (const [said, text] of [
      ["twelve hundred and three point five", "1203.5"],
      ["one two oh three point five", "1203.5"],
      ["twelve fifty", "1250"],
      ["Forty-seven and fifteen sixteenths.", "47 15/16"],
      ["forty seven fifteen sixteenths", "47 15/16"],
      ["four foot seven and a half", "4 ft 7 1/2"],
      ["3/8 of an inch", "3/8 in"],
      ["half an inch", "1/2 in"],
      ["half a millimetre", "1/2 mm"],
      ["an inch", "1 in"],
      ["zero point five degrees", "0.5°"],
      ["47½", "47 1/2"],
      ["1,203.5 millimetres", "1203.5 mm"],
      ["minus zero point three", "-0.3"],
      ["sixty thou", "60 thou"],
      ["fifty five thousandths", "55 thou"],
      ["two point two five", "2.25"],
    ] as const)
      expect(spokenText(said), said).toBe(text);
  });
  it("keeps its unit where a bare number means another one", () => {
    const heard = readSlant(spokenText("zero point five degrees") ?? "", "mm/m");
    expect(heard.ok && heard.value).toMatchObject({ value: 0.5, slant: "deg" });
  });
  it("takes nothing else for a number, and what it takes can be read", () => {
    for (const said of [
      "",
      "hello",
      "banana",
      "forty seven and",
      "one hundred banana",
      "point",
      "seventeen sixteenths",
      "and a",
      "five forty seven twelve",
    ])
      expect(spokenText(said), said).toBeNull();
    fc.assert(
      fc.property(
        fc.array(
          fc.constantFrom(
            "one",
            "forty",
            "hundred",
            "thousand",
            "and",
            "a",
            "half",
            "sixteenths",
            "point",
            "3",
            "47",
            "15/16",
            "inches",
            "foot",
            "mm",
            "oh",
            "minus",
          ),
          { maxLength: 7 },
        ),
        (said) => {
          const text = spokenText(said.join(" "));
          if (text !== null && !/foot|ft|minus|-/.test(`${text}`) && /^[\d./ ]+( (in|mm))?$/.test(text))
            expect(readLength(text).ok, `${said.join(" ")}: ${text}`).toBe(true);
        },
      ),
    );
  });
});

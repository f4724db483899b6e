import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { ladder } from "../../../tests/support/ladder";
import { withBars } from "./bars";
import { type Bar, PUT_ON, TAKEN_OFF } from "./held";
import { TACK_SCHOOLS, WELD_SCHOOLS } from "./schoolIds";
import { chosenOrder, ownChoice } from "./schools";
import { stepWords } from "./stepWords";

const structure = ladder(1);
const end = (member: string) => ({
  member,
  at: structure.members.find((m) => m.id === member)?.from ?? ([0, 0, 0] as const),
});
const bar = (id: string, more: Partial<Bar> = {}): Bar => ({
  id,
  kind: "strongback",
  from: end("AB"),
  to: end("CD"),
  section: { widthMm: 40, heightMm: 40, wallMm: 3 },
  putOn: "square",
  takenOff: "cold",
  ...more,
});
const keysOf = (order: ReturnType<typeof chosenOrder>): string[] => order.steps.map((s) => s.key);

describe("an order with bars", () => {
  it("has each on once and off once after it, whatever the school, and everything else as it was", () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...TACK_SCHOOLS),
        fc.constantFrom(...WELD_SCHOOLS),
        fc.array(fc.record({ putOn: fc.constantFrom(...PUT_ON), takenOff: fc.constantFrom(...TAKEN_OFF) }), {
          minLength: 1,
          maxLength: 4,
        }),
        (tack, weld, times) => {
          const plain = chosenOrder(structure, "surface", { by: "schools", tack, weld });
          const bars = times.map((t, i) => bar(`S${i}`, t));
          const order = withBars(plain, bars);
          const keys = keysOf(order);
          expect(keys.filter((k) => !/^(un)?brace\//.test(k))).toEqual(keysOf(plain));
          for (const b of bars) {
            const [on, off] = [keys.indexOf(`brace/${b.id}`), keys.indexOf(`unbrace/${b.id}`)];
            expect(keys.filter((k) => k === `brace/${b.id}`)).toHaveLength(1);
            expect(off).toBeGreaterThan(on);
            const firstBead = keys.findIndex((k) => k.startsWith("bead/"));
            expect(on).toBeLessThan(firstBead);
            if (b.takenOff === "cold") {
              expect(off).toBeGreaterThan(keys.findLastIndex((k) => k.startsWith("bead/")));
              // Out of its clamps first, and measured when all is off.
              expect(off).toBeGreaterThan(keys.indexOf("release"));
              expect(off).toBeLessThan(keys.indexOf("measure/cold"));
            } else expect(off).toBeLessThan(firstBead);
          }
        },
      ),
      { numRuns: 40, seed: 4 },
    );
  });
  it("goes on when it was set square, and again the same when it is laid twice", () => {
    const order = withBars(chosenOrder(structure, "surface"), [bar("S1")]);
    const at = order.steps.findIndex((s) => s.key === "brace/S1");
    expect(order.steps[at - 1]?.closes).toBe(true);
    expect(keysOf(withBars(order, [bar("S1")]))).toEqual(keysOf(order));
  });
  it("keeps a bar where somebody put it in an own order, and drops one that is no more", () => {
    const order = withBars(chosenOrder(structure, "surface"), [bar("S1")]);
    const ids = order.steps.map((s) => s.id);
    const moved = [
      ...ids.slice(0, 1),
      { do: "brace" as const, bar: "S1" },
      ...ids.slice(1).filter((s) => s.do !== "brace"),
    ];
    const own = chosenOrder(structure, "surface", ownChoice(order, moved));
    expect(keysOf(withBars(own, [bar("S1")]))[1]).toBe("brace/S1");
    expect(keysOf(withBars(own, [])).some((k) => k.includes("brace"))).toBe(false);
  });
  it("says what goes where, in the job's units", () => {
    const order = withBars(chosenOrder(structure, "surface"), [bar("S1", { kind: "block" }), bar("S2")]);
    const say = (key: string, units: "mm" | "inch-fraction") => {
      const step = order.steps.find((s) => s.key === key);
      return step ? stepWords(structure, step, units).say : "";
    };
    expect(say("brace/S1", "mm")).toMatch(/^Put block S1 between AB, 25 mm along, to CD/);
    expect(say("brace/S2", "inch-fraction")).toMatch(/^Tack strongback S2 on: AB, 0.984 in along/);
    expect(say("unbrace/S2", "mm")).toMatch(/^Cut strongback S2 off/);
  });
});

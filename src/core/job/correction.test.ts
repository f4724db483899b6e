import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { drawn, onPosts, roundTube, squareTube, started } from "../../../tests/support/drawnFrames";
import { job, read, round } from "../../../tests/support/jobs";
import { sized, withDrawn } from "../../../tests/support/plans";
import { remedyKey } from "../check";
import { drain } from "../numeric";
import { length } from "../units";
import { correcting, firstGo } from "./correction";
import { besidesWords, correctionAdvice, correctionWayWords, goWords, leavesNow } from "./correctionWords";
import type { Entry } from "./entrySchema";
import type { Job } from "./jobSchema";
import type { Plan } from "./planSchema";

/** A frame of these sizes read cold, its diagonals apart by so much and B, D above A, C by a twist. */
function cold({
  long = 1000,
  wide = 600,
  apart = 0,
  twist = 0,
  change = (p: Plan) => p,
  more = [] as Entry[],
} = {}): Job {
  const diagonal = Math.hypot(long, wide);
  const text = (mm: number): string => mm.toFixed(2);
  const readings = round("cold", {
    ...{ AB: text(long), BC: text(wide), CD: text(long), DA: text(wide) },
    ...{ AC: text(diagonal + apart / 2), BD: text(diagonal - apart / 2) },
    ...{ zA: "0", zB: text(Math.max(0, -twist / 2)), zC: text(Math.max(0, twist)), zD: text(Math.max(0, -twist / 2)) },
  });
  return job([...readings, ...more], (p) =>
    change(sized(p, { length: length(text(long)), width: length(text(wide)), cross: [] })),
  );
}
const roundOf = (j: Job): string => j.entries.find((e) => e.kind === "round")?.id ?? "";
const level = (p: Plan): Plan => ({ ...p, limits: { ...p.limits, levelMmPerM: 1 } }) as Plan;
/** The same with slopes read along its members, mm/m. */
const tilted = (j: Job, slopes: Record<string, number>): Job => ({
  ...j,
  entries: [
    ...j.entries,
    ...Object.entries(slopes).map(
      ([at, value]): Entry => ({
        ...read(roundOf(j), { kind: "level", at }, null, {}, "spirit-level"),
        value: { value, text: `${value}`, slant: "mm/m" },
      }),
    ),
  ],
});
const found = (j: Job) => drain(correcting(j));
const thin = (p: Plan): Plan =>
  sized(p, { section: { ...p.frame.sizes.section, profile: null, wall: length("1") } } as never);

describe("a frame on posts that is out of square", () => {
  const racked = (levelsMm: number[]) => {
    const diagonal = Math.hypot(1240, 740);
    const spans = { AB: 1240, BC: 740, CD: 1240, DA: 740, AC: diagonal + 3, BD: diagonal - 3 };
    const texts = Object.fromEntries(Object.entries(spans).map(([span, mm]) => [span, mm.toFixed(2)]));
    const frame = onPosts(1200, 700, levelsMm, [squareTube(40, 2)]);
    const c = found(job(round("cold", texts), (p) => withDrawn(p, frame)));
    if (!c) throw new Error("nothing to judge");
    return c;
  };
  it("is pulled past yield at its four corners; what goes round on another level yields with them, and is pulled too", () => {
    const one = racked([780]);
    const rack = one.remedies.find((r) => r.id.do === "rack");
    const forceN = rack?.push?.forceN ?? 0;
    // Four hinges of the tube's full plastic moment, by the work of a lozenge: 4 M over what the diagonal gets shorter by.
    const zMm3 = (40 ** 3 - 36 ** 3) / 4;
    const perLean = (1200 * 700) / Math.hypot(1200, 700);
    const closedFormN = (4 * zMm3 * 235) / perLean;
    expect(forceN / closedFormN).toBeGreaterThan(1);
    expect(forceN / closedFormN).toBeLessThan(2);
    // Twice as much of twice the corners, and of what comes back more than can be steered.
    expect(racked([200, 780]).refused.join(" ")).toMatch(/^Pulling AC in past yield means going about \d+ mm beyond/);
    expect(racked([200, 400, 600, 780]).refused.join(" ")).toMatch(
      new RegExp(`^Pulling AC in past yield takes about ${((4 * forceN) / 1000).toFixed(1)} kN`),
    );
  });
  it("is not brought square by one joint cut: a post holds its corner by two", () => {
    expect(racked([780]).remedies.map((r) => r.id.do)).not.toContain("recut");
  });
});

describe("what to do about a cold frame", () => {
  it("says nothing before it is read, and leaves what is inside", () => {
    expect(found(job([]))).toBeNull();
    const inside = found(cold({ apart: 0.5 }));
    expect(inside?.advice).toBe("leave it");
    expect(inside && correctionAdvice(inside, "mm").say).toBe("Leave it.");
  });
  it("finds a way that raises the chance, for frames of any size racked either way, and its mirror image the same", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 400, max: 3000 }),
        fc.integer({ min: 300, max: 1500 }),
        fc.double({ min: 4.5, max: 9, noNaN: true }),
        (long, wide, apart) => {
          const [a, b] = [found(cold({ long, wide, apart })), found(cold({ long, wide, apart: -apart }))];
          for (const c of [a, b]) {
            expect(c?.doNothing).toBeLessThan(0.1);
            const [best] = c?.ways ?? [];
            expect(best?.chance).toBeGreaterThan(c?.doNothing ?? 1);
            for (const w of c?.ways ?? [])
              if (w.steps.length > 0) expect(Math.abs(w.leaves.square?.value ?? 99)).toBeLessThan(apart);
          }
          expect(a?.ways[0]?.chance).toBeCloseTo(b?.ways[0]?.chance ?? 0, 2);
        },
      ),
      { numRuns: 4 },
    );
  });
  it("tells in words only what its numbers bear: limits, what comes back, and a force", () => {
    const c = found(cold({ apart: 5 }));
    if (!c) throw new Error("nothing to judge");
    const advice = correctionAdvice(c, "mm");
    const [best] = c.ways;
    expect(advice.say).toContain(best ? correctionWayWords(c, best, "mm") : "nothing");
    const words = c.ways.flatMap((w) => leavesNow(c, w, "mm")).join(" ");
    expect(words).toContain("AC less BD: 5.0 mm");
    const rack = c.remedies.find((r) => r.id.do === "rack");
    const go = rack && firstGo(c, rack.id, 4);
    if (!go?.springback) throw new Error("no push");
    // A push past yield springs back by most of it: no first push may count on the likely spring-back.
    expect(go.amount).toBeLessThan(go.springback.likely + 2);
    expect(go.amount).toBeGreaterThan(go.springback.low);
    expect(goWords(go, "mm").join(" ")).toMatch(/kN/);
    expect(goWords(go, "inch-fraction").join(" ")).not.toMatch(/mm|kN/);
  });
  it("goes further after a push that left nothing, and less far after one that left much", () => {
    const push = (mm: string, at: string): Entry => ({
      kind: "corrected",
      id: "00000000-0000-4000-9100-000000000001",
      at,
      origin: "test",
      remedy: { do: "rack", long: "AC" },
      amount: length(mm),
    });
    const first = found(cold({ apart: 6 }));
    const rack = first?.remedies.find((r) => r.id.do === "rack");
    if (!first || !rack) throw new Error("no rack");
    const before = firstGo(first, rack.id, 4)?.amount ?? 0;
    const again = (apart: number): number => {
      const after = round("cold", {
        ...{ AB: "1000", BC: "600", CD: "1000", DA: "600" },
        ...{ AC: (Math.hypot(1000, 600) + apart / 2).toFixed(2), BD: (Math.hypot(1000, 600) - apart / 2).toFixed(2) },
      }).map((e) => ({ ...e, at: "2026-11-24T10:00:00.000Z" }));
      const c = found(cold({ apart: 6, more: [push(before.toFixed(1), "2026-11-24T09:00:00.000Z"), ...after] }));
      if (!c) throw new Error("nothing to judge");
      expect(c.unread).toBeNull();
      return firstGo(c, rack.id, 4)?.amount ?? 0;
    };
    expect(again(6)).toBeGreaterThan(before);
    expect(again(4)).toBeLessThan(again(6));
    const unread = found(cold({ apart: 6, more: [push("12", "2026-11-24T09:00:00.000Z")] }));
    expect(unread?.unread?.entry.amount).toEqual(length("12"));
    // What a worker hands over must be plain data.
    expect(structuredClone(unread)).toEqual(unread);
  });
  it("neither heats nor bends a hardened alloy, and pushes no wall that would buckle", () => {
    const alloy = found(cold({ apart: 6, change: (p) => sized(p, { material: "aluminium 6061" }) }));
    expect(alloy?.remedies).toEqual([]);
    expect(alloy?.refused.join(" ")).toMatch(/loses strength/);
    expect(alloy?.advice).toBe("make it anew");
    const foil = found(cold({ apart: 6, change: thin }));
    expect(foil?.remedies.map((r) => r.id.do)).not.toContain("rack");
    expect(foil?.refused.join(" ")).toMatch(/buckle/);
  });
  it("never says to leave what is outside a limit that no remedy here moves", () => {
    const close = (p: Plan): Plan => ({ ...p, limits: { ...p.limits, gap: length("1") } }) as Plan;
    const j = cold({ apart: 0.3, change: close });
    const c = found({ ...j, entries: [...j.entries, read(roundOf(j), { kind: "gap", at: "A" }, "3", {}, "feeler")] });
    expect(c?.aside.join()).toMatch(/[Gg]ap/);
    if (!c) throw new Error("nothing to judge");
    const words = correctionAdvice(c, "mm");
    expect(words.say).not.toBe("Leave it.");
    expect(`${words.say} ${words.why}`).not.toContain("all limits that were read are kept");
  });
  it("shims a tilted frame level, whatever its sides and its tilt, and moves nothing else", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 400, max: 5000 }),
        fc.integer({ min: 300, max: 2200 }),
        fc.double({ min: -9, max: 9, noNaN: true }),
        fc.double({ min: 2, max: 9, noNaN: true }),
        (long, wide, along, across) => {
          const c = found(tilted(cold({ long, wide, change: level }), { AB: along, DA: -across }));
          const shim = c?.remedies.find((r) => r.id.do === "shim");
          if (!shim?.places) throw new Error("no shims");
          // Shims of these heights make the plane that the slopes were read on horizontal: corner by corner by hand.
          const most = shim.option.max / 1.2;
          const rise = Object.fromEntries(shim.places.map(({ at, share }) => [at, share * most]));
          expect(Object.keys(rise).sort()).toEqual(["A", "B", "C", "D"]);
          const [a = 0, b = 0, d = 0] = [rise.A, rise.B, rise.D];
          const inner = { long: long - 40, wide: wide - 40 };
          expect((b - a) / inner.long).toBeCloseTo(-along / 1000, 6);
          expect((d - a) / inner.wide).toBeCloseTo(-across / 1000, 6);
          expect(Math.min(...Object.values(rise))).toBe(0);
          expect(Object.keys(shim.option.effect).every((k) => k.startsWith("level "))).toBe(true);
          const [best] = c?.ways ?? [];
          expect(best?.chance).toBeGreaterThan(c?.doNothing ?? 1);
          for (const k of ["level AB", "level DA"]) expect(Math.abs(best?.leaves[k]?.value ?? 9)).toBeLessThan(1);
        },
      ),
      { numRuns: 6 },
    );
  });
  it("says where each shim goes, in the job's own units, and that a shim takes no twist out", () => {
    const c = found(tilted(cold({ twist: 3, change: level }), { AB: 4, DA: 0 }));
    const shim = c?.remedies.find((r) => r.id.do === "shim");
    const go = c && shim && firstGo(c, shim.id, shim.option.max / 1.2);
    if (!go) throw new Error("no shims");
    // B stands high by 4 mm/m of 960 mm: A and D are raised by as much, less what may be too much.
    expect(goWords(go, "mm").join(" ")).toMatch(/^First: 3\.[0-9] mm under A, 3\.[0-9] mm under D\. Read the level/);
    expect(goWords(go, "inch-fraction").join(" ")).not.toMatch(/mm/);
    expect(shim.cautions.join(" ")).toMatch(/take no twist out/);
  });
  it("levels and grinds a hardened alloy, which it neither heats nor bends", () => {
    const alloy = (p: Plan): Plan => level(sized(p, { material: "aluminium 6061" }));
    const c = found(tilted(cold({ change: alloy }), { AB: 6, DA: 2 }));
    expect(c?.remedies.map((r) => r.id.do)).toEqual(["shim"]);
    expect(c?.advice).toBe("correct it");
  });
  it("spreads a mouth that closed, or draws one together that opened, on open frames of any legs", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 400, max: 600 }),
        fc.integer({ min: 300, max: 450 }),
        fc.constantFrom(-6, 6),
        (leg, wide, off) => {
          const frame = drawn(
            {
              AB: [
                [0, 0, 30],
                [leg, 0, 30],
              ],
              BC: [
                [leg, 0, 30],
                [leg, wide, 30],
              ],
              CD: [
                [leg, wide, 30],
                [0, wide, 30],
              ],
            },
            [squareTube(60, 4)],
          );
          const open = (p: Plan): Plan => withDrawn(p, frame);
          const [own] = round("cold", {});
          if (own?.kind !== "round") throw new Error("no round");
          // Taped the other way round than it is named.
          const what = { kind: "distance", from: "CDE", to: "ABS" } as const;
          const j = job([own, read(own.id, what, (wide + off).toFixed(1))], open);
          const c = found(j);
          const key = "mouth ABS-CDE";
          expect(c?.quantities[key]?.value).toBeCloseTo(wide + off, 6);
          const spread = c?.remedies.find((r) => r.id.do === "spread");
          expect(spread?.id).toMatchObject({ way: off < 0 ? "apart" : "together" });
          expect(Math.sign(spread?.option.effect[key] ?? 0)).toBe(-Math.sign(off));
          // What springs back is what a portal of two legs gives: F (2 l³/3 + l² w) / EI, corners a little softer than stiff.
          const iMm4 = (60 ** 4 - 52 ** 4) / 12;
          const perN = ((2 * leg ** 3) / 3 + leg ** 2 * wide) / (210_000 * iMm4);
          const { springbackMm = 0, forceN = 1 } = spread?.push ?? {};
          expect(springbackMm / forceN / perN).toBeGreaterThan(0.9);
          expect(springbackMm / forceN / perN).toBeLessThan(1.5);
          const [best] = c?.ways ?? [];
          expect(best?.chance).toBeGreaterThan(c?.doNothing ?? 1);
          expect(Math.abs((best?.leaves[key]?.value ?? 0) - wide)).toBeLessThan(Math.abs(off));
        },
      ),
      { numRuns: 4 },
    );
  });
  it("grinds a step, but not through the wall", () => {
    const flush = (p: Plan): Plan => ({ ...p, limits: { ...p.limits, flush: length("0.3") } }) as Plan;
    const step = (mm: string) => {
      const j = cold({ change: flush });
      return found({ ...j, entries: [...j.entries, read(roundOf(j), { kind: "flush", at: "C" }, mm, {}, "feeler")] });
    };
    const low = step("0.6");
    expect(low?.remedies.map((r) => r.id)).toContainEqual({ do: "grind", joint: "C" });
    expect(low?.ways[0]?.leaves["flush C"]?.value).toBeLessThan(0.3);
    const high = step("2");
    expect(high?.remedies.map((r) => r.id.do)).not.toContain("grind");
    expect(high?.refused.join(" ")).toMatch(/step at C is 2\.0 mm/);
    // A round tube has a wall like any other.
    const round1 = round("cold", {});
    const [own] = round1;
    const frame = started("rectangle", {}, roundTube(40, 2));
    const c = found(
      job([...round1, read(own?.id ?? "", { kind: "flush", at: "A" }, "1.5", {}, "feeler")], (p) =>
        flush(withDrawn(p, frame)),
      ),
    );
    expect(c?.quantities["flush A"]?.value).toBeCloseTo(1.5, 6);
    expect(c?.remedies.map((r) => r.id.do)).not.toContain("grind");
    expect(c?.refused.join(" ")).toMatch(/step at A is 1\.5 mm.* of a wall of 2\.0 mm/);
  });
  it("mends three faults at once, and pushes nothing that no shop can push", () => {
    const cross = Array.from({ length: 3 }, (_, i) => ({ id: `M${i + 1}`, at: length(String(250 * (i + 1))) }));
    const both = (p: Plan): Plan =>
      ({ ...sized(p, { cross }), limits: { ...p.limits, straight: length("1") } }) as Plan;
    const j = cold({ apart: 6, twist: 3, change: both });
    const round1 = j.entries.find((e) => e.kind === "round");
    const c = found({ ...j, entries: [...j.entries, read(round1?.id ?? "", "sAB", "3", {}, "feeler")] });
    expect(c?.doNothing).toBeLessThan(0.01);
    expect(c?.ways[0]?.chance).toBeGreaterThan(0.3);
    // Five members between two rails shear far harder than a hoist pulls.
    expect(c?.refused.join(" ")).toMatch(/Pulling AC in past yield takes about [\d.]+ kN/);
    expect(c?.remedies.every((r) => (r.push?.forceN ?? 0) <= 30_000)).toBe(true);
  });
  it("takes a bow out of a member of a frame without corners, and says what no remedy moves", () => {
    const frame = started("rails with a kink");
    const name = frame.members[0]?.id ?? "";
    const j = job(
      [...round("cold", {})].flatMap((r): Entry[] =>
        r.kind === "round" ? [r, read(r.id, `s${name}`, "4", {}, "feeler")] : [r],
      ),
      (p) => ({ ...withDrawn(p, frame), limits: { ...p.limits, straight: length("1") } as Plan["limits"] }),
    );
    const c = found(j);
    expect(c?.quantities[`straight ${name}`]?.value).toBeCloseTo(4, 6);
    const kinds = new Set(c?.remedies.map((r) => r.id.do));
    expect(kinds).toContain("press");
    expect(kinds).toContain("wedges");
    expect(c?.ways[0]?.chance).toBeGreaterThan(c?.doNothing ?? 1);
    expect(c?.remedies.map((r) => remedyKey(r.id)).every((k, i, all) => all.indexOf(k) === i)).toBe(true);
    if (c) expect(besidesWords(c, { ...j.plan, carries: "people" }).join(" ")).toMatch(/decided by whoever/);
  });
});

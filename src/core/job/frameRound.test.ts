import { describe, expect, it } from "vitest";
import {
  aroundMiddle,
  FREE_FRAMES,
  flatTube,
  onPosts,
  ring,
  started,
  twoTubes,
} from "../../../tests/support/drawnFrames";
import { angle, evaluate, job, opened, read, slope } from "../../../tests/support/jobs";
import { withDrawn } from "../../../tests/support/plans";
import { type DrawnFrame, resolveStructure, setJoint } from "../frame";
import { SIDES, type Side } from "../geometry";
import { distance, type Vec2 } from "../numeric";
import { type Places, placesOf, walkingSet } from "../square";
import { length } from "../units";
import { coldSet } from "./coldSet";
import type { Entry } from "./entrySchema";
import { evaluate as evaluateWith } from "./evaluate";
import { wantedPlaces } from "./frameRound";
import type { Plan } from "./planSchema";
import { predict } from "./predict";
import { checkSheet } from "./sheets/checkSheet";
import { heldWords, misreadWords, placeWords, setUpWords, twistWords } from "./words";

describe("a misread that six tapes cannot name", () => {
  const SIX = { AB: "1000", BC: "600", CD: "1000", DA: "600", AC: "1166", BD: "1186" };
  const taped = (): Entry[] => {
    const r = opened("dry fit");
    return [r, ...Object.entries(SIX).map(([w, t]) => read(r.id, w, t))];
  };
  it("is named by nobody, and what else would name it is asked for", () => {
    const [round] = evaluate(job(taped())).frameRounds;
    if (!round?.square) throw new Error("a check expected");
    const words = misreadWords(round.square, "mm", round.help);
    expect(words).toMatch(/cannot say which/);
    expect(words).toMatch(/lengths of AB, BC, CD and DA as they were cut.*angle at [A-D] with a gauge/);
  });
  it("is named once that is measured", () => {
    const cut = opened("cut");
    const entries = taped();
    const pieces = (["AB", "BC", "CD", "DA"] as const).map((member) =>
      read(cut.id, { kind: "piece", member }, SIX[member]),
    );
    const gauge = read((entries[0] as Entry).id, "D^A^B", null, { value: angle("90") }, "angle-gauge");
    const [round] = evaluate(job([cut, ...pieces, ...entries, gauge])).frameRounds;
    if (!round?.square) throw new Error("a check expected");
    const named =
      round.help?.byCut?.id ??
      (round.square.fit.diagnosis.status === "located" ? round.square.fit.diagnosis.candidates[0]?.id : null);
    expect(named).toBe("BD");
  });
});

describe("a frame of three places", () => {
  const triangle = (p: Plan): Plan => withDrawn(p, ring(aroundMiddle([500, 500, 500])));
  const heights = (lift: Record<string, string>) => {
    const r = opened("cold");
    const asked = coldSet(evaluate(job([r], triangle))).flatMap((q) => (q.kind === "height" ? [q.at] : []));
    const one = job([r, ...asked.map((at) => read(r.id, `z${at}`, lift[at] ?? "0"))], triangle);
    return { asked, round: evaluate(one).frameRounds[0] };
  };
  it("is read at the middles of its members too, for three heights are flat however they stand", () => {
    const { asked, round } = heights({ S2S1: "4", S1M: "2", S2M: "2" });
    expect(asked.filter((at) => at.endsWith("M"))).toHaveLength(3);
    const empty = job([], triangle);
    const paper = JSON.stringify(checkSheet(empty, evaluate(empty)));
    expect(paper).toContain("Heights: S1M the middle of S1, S2M the middle of S2, S3M the middle of S3.");
    // Lifted at one corner, with the middles of its two sides half as far: a plane.
    expect(round?.flatMm?.value).toBeLessThan(0.05);
    expect(round?.verdicts.find((v) => v.limit.kind === "flat")?.result?.verdict).toBe("pass");
    // A middle that stands 3 mm proud of what lies level else.
    expect(heights({ S3M: "3" }).round?.flatMm?.value).toBeGreaterThan(1);
  });
});

describe("heights of a frame that is not drawn level", () => {
  it("are what stands off the drawing: a rail that rises by its drawing is no want of flatness, nor is a corner of a lower tube", () => {
    const open = (rise: number): DrawnFrame => {
      const foot = FREE_FRAMES.foot;
      const up = (p: DrawnFrame["members"][number]["to"], mm: number) => ({ ...p, z: length(String(p.z.mm + mm)) });
      return { ...foot, members: foot.members.map((m) => (m.id === "A" ? m : { ...m, to: up(m.to, rise) })) };
    };
    for (const frame of [open(8), twoTubes(flatTube(40, 60), flatTube(40, 40), "above"), open(0)]) {
      const put = (p: Plan): Plan => withDrawn(p, frame);
      const r = opened("cold");
      const { places } = evaluate(job([r], put));
      const asked = coldSet(evaluate(job([r], put))).flatMap((q) => (q.kind === "height" ? [q.at] : []));
      const flat = (lifted: string | null): number => {
        const heightOf = (at: string): string => String((places?.heights[at] ?? 0) + (at === lifted ? 3 : 0));
        const one = job([r, ...asked.map((at) => read(r.id, `z${at}`, heightOf(at)))], put);
        return evaluate(one).frameRounds[0]?.flatMm?.value ?? Number.NaN;
      };
      expect(asked.length).toBeGreaterThan(3);
      expect(flat(null)).toBeLessThan(1e-6);
      expect(flat(asked[0] ?? "")).toBeGreaterThan(1);
    }
    // Drawn 8 up over its length, the ends of both arms are drawn as much higher than the corners (plane geometry).
    const { heights } = placesOf(resolveStructure(open(8)).structure);
    expect(
      Object.values(heights)
        .map((h) => Math.round(h))
        .sort(),
    ).toEqual([0, 0, 8, 8]);
  });
});

describe("sides that were not taped", () => {
  const frames: Record<string, DrawnFrame> = {
    mitred: started("rectangle", { length: 1000, width: 600 }),
    butted: SIDES.reduce(
      (f, through, i) => setJoint(f, through, SIDES[(i + 1) % 4] as Side, { kind: "butt", through }),
      started("rectangle", { length: 1000, width: 600 }),
    ),
    "long tubes through": (["AB", "CD"] as const).reduce(
      (f, through) =>
        (["BC", "DA"] as const).reduce((g, branch) => setJoint(g, through, branch, { kind: "butt", through }), f),
      started("rectangle", { length: 1000, width: 600 }),
    ),
    "on posts": onPosts(960, 560, [780]),
  };
  it("are as long as their pieces make them, whether those run through, stand between others, or land on posts", () => {
    for (const [name, frame] of Object.entries(frames)) {
      const { quad, members } = resolveStructure(frame).structure;
      if (!quad) throw new Error(`no corners: ${name}`);
      const [cut, tacked] = [opened("cut"), opened("tacked")];
      const pieces = SIDES.map((side) => {
        const member = quad.sides[side];
        const longMm = members.find((m) => m.id === member)?.longMm ?? 0;
        // Two of one pair, five longer than they are drawn.
        const mm = longMm + (side === "AB" || side === "CD" ? 5 : 0);
        return read(cut.id, { kind: "piece", member }, mm.toFixed(1));
      });
      const diagonal = Math.hypot(1005, 600).toFixed(1);
      const entries = [cut, ...pieces, tacked, read(tacked.id, "AC", diagonal), read(tacked.id, "BD", diagonal)];
      const found = evaluate(job(entries, (p) => withDrawn(p, frame))).frameRounds.find(
        ({ round }) => round.gate === "tacked",
      );
      const at = found?.square?.corners;
      if (!at) throw new Error(`no shape: ${name}`);
      expect(distance(at.A, at.B), name).toBeCloseTo(1005, 0);
      expect(distance(at.B, at.C), name).toBeCloseTo(600, 0);
    }
  });
});

describe("bringing it square by how it is held", () => {
  const r = opened("tacked");
  const [round] = evaluate(
    job([
      r,
      ...Object.entries({ AB: "1000", BC: "600", CD: "1000", DA: "600", AC: "1170", BD: "1162" }).map(([w, t]) =>
        read(r.id, w, t),
      ),
    ]),
  ).frameRounds;
  if (!round) throw new Error("a round expected");
  it("slides a side, racks its corners, or pulls the long diagonal", () => {
    expect(heldWords(round, "slides", 0, "mm").say).toMatch(/^Slide side CD: push corner C toward D by 4\.7 mm/);
    expect(heldWords(round, "hinges", 0, "mm").say).toMatch(/^Hold AB\. Push corner C toward D by 4\.7 mm/);
    // Parallelogram, closed form: until it reads the root of the mean of the squares.
    const until = Number(
      /strap across AC and pull until it reads ([\d.]+) mm/.exec(heldWords(round, "strap", 0, "mm").say)?.[1],
    );
    expect(Math.abs(until - Math.sqrt((1170 ** 2 + 1162 ** 2) / 2))).toBeLessThan(0.3);
  });
});

describe("a frame without corners A to D", () => {
  const free = (p: Plan): Plan => withDrawn(p, started("A-shaped drawbar"));
  it("is judged by where its places lie, and told which to tap", () => {
    const j = job([], free);
    const { places, limits } = evaluate(j);
    if (!places) throw new Error("places expected");
    expect(limits.map((l) => l.id)).toEqual(["place", "flat"]);
    const r = opened("cold");
    const names = Object.keys(places.nodes);
    const far = (p: string, q: string, off: number): string => {
      const [a, b] = [places.nodes[p], places.nodes[q]] as [{ x: number; y: number }, { x: number; y: number }];
      const shift = { [names[0] as string]: off };
      return Math.hypot(a.x + (shift[p] ?? 0) - b.x - (shift[q] ?? 0), a.y - b.y).toFixed(2);
    };
    const all = (off: number) =>
      names.flatMap((p, i) => names.slice(i + 1).map((q) => read(r.id, `${p}-${q}`, far(p, q, off))));
    const flat = names.map((p) => read(r.id, `z${p}`, "0", {}, "feeler"));
    const good = evaluate(job([r, ...all(0), ...flat], free));
    expect(good.cold?.overall).toBe("pass");
    expect(good.summary).toMatchObject({ stage: "check", verdict: "pass" });
    const bad = evaluate(job([r, ...all(9), ...flat], free));
    expect(bad.cold?.overall).toBe("fail");
    expect(bad.cold?.general?.farthest?.place).toBe(names[0]);
    // Without diagonals of its own it says what shows anywhere.
    expect(misreadWords(bad.cold?.general as NonNullable<typeof bad.cold>["general"] & object, "mm")).toMatch(
      /^No sign of a misread tape\. A slip shows from about \d/,
    );
  });
});

describe("a frame that is drawn anew after it was measured", () => {
  it("keeps its readings, and none of them counts for places that are gone", () => {
    const r = opened("dry fit");
    const entries = [
      r,
      ...Object.entries({ AB: "1000", BC: "600", CD: "1000", DA: "600", AC: "1166", BD: "1166" }).map(([w, t]) =>
        read(r.id, w, t),
      ),
      read(r.id, "D^A^B", null, { value: angle("90") }, "angle-gauge"),
      read(r.id, "A-M1AB", "400"),
      read(r.id, "M1AB|A-B", "0"),
    ];
    for (const name of ["A-shaped drawbar", "rack", "rails with a kink", "table base"]) {
      const { frameRounds, structure } = evaluate(job(entries, (p) => withDrawn(p, started(name))));
      expect(frameRounds[0]?.readings.size, name).toBe(8);
      expect(frameRounds[0]?.square === null, name).toBe(structure?.quad === null);
    }
    const bed = opened("bed");
    const gone = evaluate(job([bed, read(bed.id, "R77", "1", {}, "height-gauge")])).bedRounds[0];
    expect(gone?.orphaned).toEqual(["R77"]);
  });
});

describe("a cold frame by what else there is", () => {
  const r = opened("cold");
  it("is as flat as half of its rock, or as far as edges across the diagonals pass each other", () => {
    const rock = evaluate(job([r, read(r.id, "rA", "1.2", {}, "feeler")])).cold;
    expect(rock?.flatMm?.value).toBeCloseTo(0.6, 9);
    const edges = evaluate(
      job([r, read(r.id, "eAC", "0.9", {}, "feeler"), read(r.id, "eBD", "0.2", {}, "feeler")]),
    ).cold;
    expect(edges?.flatMm?.value).toBeCloseTo(0.7, 9);
    const heights = ["zA", "zB", "zC", "zD"].map((w, i) => read(r.id, w, i === 0 ? "1.4" : "0", {}, "feeler"));
    const four = evaluate(job([r, ...heights, read(r.id, "rA", "9", {}, "feeler")])).cold;
    expect(four?.flatMm).toMatchObject({ by: "4 heights" });
    expect(four?.flatMm?.value).toBeCloseTo(0.7, 5);
  });
  it("tells its twist, which pair is high, or that the readings cannot tell", () => {
    const twist = (a: string): string => {
      const found = evaluate(
        job([r, ...["zA", "zB", "zC", "zD"].map((w) => read(r.id, w, w === "zA" ? a : "0", {}, "feeler"))]),
      ).cold?.twist;
      if (!found) throw new Error("a twist expected");
      return twistWords(found, "mm");
    };
    expect(twist("1.5")).toMatch(/Twist 1\.50 ± 0\.13 mm: A and C stand high/);
    expect(twist("0.05")).toMatch(/no more than the readings can tell/);
  });
  const limits = (p: Plan): Plan => ({
    ...p,
    limits: {
      ...p.limits,
      levelMmPerM: 1,
      straight: length("2"),
      gap: length("1"),
      flush: length("0.5"),
    } as Plan["limits"],
  });
  it("names every limit of the job that is not read yet, and passes none while one is open", () => {
    const all = [
      ...Object.entries({ AB: "1000", BC: "600", CD: "1000", DA: "600", AC: "1166.2", BD: "1166.2" }).map(([w, t]) =>
        read(r.id, w, t),
      ),
      ...["zA", "zB", "zC", "zD"].map((w) => read(r.id, w, "0", {}, "feeler")),
    ];
    const plain = evaluate(job([r, ...all])).cold;
    expect(plain?.verdicts.every((v) => v.result !== null)).toBe(true);
    const more = evaluate(job([r, ...all], limits));
    expect(more.cold?.verdicts.flatMap((v) => (v.result ? [] : [v.limit.id]))).toEqual(["straight", "gap", "flush"]);
    expect([more.cold?.overall, more.summary.verdict]).toEqual(["not measured", "not measured"]);
    // A bow is judged by its own limit alone, never by that of flatness.
    expect(evaluate(job([r, read(r.id, "sAB", "5", {}, "feeler")])).limits.some((l) => l.kind === "straight")).toBe(
      false,
    );
  });
  it("keeps what failed at an earlier gate in sight until it is read again", () => {
    const dry = opened("dry fit");
    const wide = read(dry.id, "gA", "1.8", {}, "feeler");
    const gap = (entries: Entry[]) => {
      const e = evaluate(job(entries, limits));
      const round = e.frameRounds.at(-1);
      return [round?.verdicts.find((v) => v.limit.id === "gap")?.result?.verdict, round?.overall, e.summary.verdict];
    };
    expect(gap([dry, wide])).toEqual(["fail", "fail", "fail"]);
    const cold = read(r.id, "AB", "1000");
    expect(gap([dry, wide, r, cold])).toEqual(["fail", "fail", "fail"]);
    const closed = read(dry.id, "gA", "0.4", {}, "feeler");
    expect(gap([dry, wide, closed, r, cold])[0]).toBe("pass");
  });
  it("is judged on straightness, level, gaps and steps where they were read", () => {
    const all = evaluate(
      job(
        [
          r,
          read(r.id, "sAB", "0.4", {}, "feeler"),
          read(r.id, "lAB", null, { value: slope("3") }, "spirit-level"),
          read(r.id, "gA", "0.3", {}, "feeler"),
          read(r.id, "fB", "0.8", {}, "feeler"),
        ],
        limits,
      ),
    ).cold?.verdicts;
    const verdict = (what: string) => all?.find((v) => v.limit.id === what)?.result?.verdict;
    expect([verdict("straight"), verdict("level"), verdict("gap"), verdict("flush")]).toEqual([
      "pass",
      "fail",
      "pass",
      "fail",
    ]);
  });
});

describe("the two meanings of flat", () => {
  const r = opened("cold");
  const held = (p: Plan): Plan => ({ ...p, limits: { ...p.limits, flatBy: "held" } });
  const heights = (a: string): Entry[] =>
    ["zA", "zB", "zC", "zD"].map((w) => read(r.id, w, w === "zA" ? a : "0", {}, "feeler"));
  const flat = (entries: Entry[], change?: (p: Plan) => Plan) => {
    const round = evaluate(job([r, ...entries], change)).cold;
    return { value: round?.flatMm?.value, why: round?.verdicts.find((v) => v.limit.id === "flat")?.why };
  };
  it("are twice apart on four corners, whichever way they are read, and every verdict names its own", () => {
    expect(flat(heights("1.4")).value).toBeCloseTo(0.7, 5);
    expect(flat(heights("1.4"), held).value).toBeCloseTo(1.4, 5);
    const rock = [read(r.id, { kind: "rock", held: "A" }, "1.4", {}, "feeler")];
    expect(flat(rock).value).toBeCloseTo(0.7, 5);
    expect(flat(rock, held).value).toBeCloseTo(1.4, 5);
    expect(flat(rock).why).toMatch(/the thinnest slab that holds it/);
    expect(flat(rock, held).why).toMatch(/the gap with a corner held down/);
  });
});

describe("moves of a frame without corners", () => {
  const free = (p: Plan): Plan => withDrawn(p, started("A-shaped drawbar"));
  it("are told from where it is set up for what the weld takes, unless it is to be set to the drawing", () => {
    const L = (aim: Plan["aim"]) => (p: Plan) => ({ ...withDrawn(p, FREE_FRAMES["an L"]), aim });
    const drawing = job([], L("drawing"));
    const prediction = predict(drawing.plan)?.prediction;
    const { places } = evaluate(drawing);
    if (!places || !prediction) throw new Error("a prediction expected");
    const setUp = wantedPlaces(places, prediction.setUp.offsetsMm);
    const off = setUpWords(places, prediction, "mm") ?? "";
    const [, far = "", mm = "0"] = /laid over the drawing, (\w+) lies ([\d.]+) mm off/.exec(off) ?? [];
    expect(Number(mm)).toBeGreaterThan(0.3);
    const told = (aim: Plan["aim"], at: Places["nodes"]) => {
      const r = opened("dry fit");
      const all = walkingSet(places).map(([p, q]) =>
        read(r.id, { kind: "distance", from: p, to: q }, distance(at[p] as Vec2, at[q] as Vec2).toFixed(3)),
      );
      const round = evaluateWith(job([r, ...all], L(aim)), prediction).frameRounds[0] ?? null;
      return {
        offMm: round?.general?.farthest?.value ?? Number.NaN,
        place: round?.general?.farthest?.place,
        why: round?.verdicts.find((v) => v.limit.id === "place")?.why,
        words: placeWords(round, places, "mm"),
      };
    };
    expect(told("set-up", setUp).offMm).toBeLessThan(0.02);
    expect(told("drawing", places.nodes).offMm).toBeLessThan(0.02);
    // As drawn, it is as far from where it is set up as that is from the drawing.
    const asDrawn = told("set-up", places.nodes);
    expect(asDrawn.place).toBe(far);
    expect(asDrawn.offMm).toBeCloseTo(Number(mm), 1);
    expect(asDrawn.why).toMatch(new RegExp(`at ${far}, from where it is set up;`));
    expect(asDrawn.words.why).toMatch(/^Laid over where it is set up for what the weld takes/);
    expect(told("drawing", setUp).words.why).toMatch(/^Laid over the drawing/);
    expect(told("drawing", setUp).why).not.toMatch(/set up/);
  });
  it("are asked for with what checks them, where more is taped than fixes the shape; three places have nothing to spare", () => {
    const why = (frame: DrawnFrame): string => {
      const { places } = evaluate(job([], (p) => withDrawn(p, frame)));
      if (!places) throw new Error("places expected");
      return placeWords(null, places, "mm").why;
    };
    expect(why(FREE_FRAMES["three sides"])).toMatch(/a misread tape shows nowhere\. Read each of them twice\.$/);
    for (const name of ["six sides", "an L", "six posts"] as const)
      expect(why(FREE_FRAMES[name])).toMatch(/some more than it takes/);
  });
  it("are told while its pieces lie loose, and none in a tacked one of triangles: that would stretch a tube", () => {
    const { places } = evaluate(job([], free));
    if (!places) throw new Error("places expected");
    const [moved = ""] = Object.keys(places.nodes);
    const words = (gate: "dry fit" | "tacked") => {
      const r = opened(gate);
      const at = (n: string) => ({ x: (places.nodes[n]?.x ?? 0) + (n === moved ? 7 : 0), y: places.nodes[n]?.y ?? 0 });
      const all = walkingSet(places).map(([p, q]) =>
        read(r.id, { kind: "distance", from: p, to: q }, distance(at(p), at(q)).toFixed(2)),
      );
      return placeWords(evaluate(job([r, ...all], free)).frameRounds[0] ?? null, places, "mm").say;
    };
    expect(words("dry fit")).toMatch(new RegExp(`^Tap ${moved}:`));
    expect(words("tacked")).toMatch(new RegExp(`^No tap mends it: ${moved} is \\d`));
  });
});

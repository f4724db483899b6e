import { describe, expect, it } from "vitest";
import {
  comb,
  deckWithPole,
  drawn,
  drawnAnyhow,
  FRAMES_THAT_REACH_BEYOND,
  FREE_FRAMES,
  inexactly,
  LEANING_FRAMES,
  started,
  stool,
  table,
} from "../../../tests/support/drawnFrames";
import { built } from "../../../tests/support/ladder";
import { readOff, tape } from "../../../tests/support/networks";
import { rectangle } from "../../../tests/support/plans";
import { type DrawnFrame, resolveStructure, STARTERS } from "../frame";
import { distance, seeded, type Vec2 } from "../numeric";
import { length, statedExactly } from "../units";
import { generalCheck } from "./generalCheck";
import { heightPlaces, mouthsOf, placesOf, spanningHeights } from "./places";
import { walkingSet } from "./walkingSet";

describe("places between which one measures", () => {
  it("are outside corners and the branches' middles on a rectangle", () => {
    const places = placesOf(built(rectangle({ cross: [{ id: "M1", at: length("500") }] })));
    expect(Object.keys(places.nodes).sort()).toEqual(["A", "B", "C", "D", "M1AB", "M1CD"]);
    expect(places.nodes.M1AB).toEqual({ x: places.nodes.M1CD?.x, y: 0 });
    expect(places.nodes.M1CD?.y).toBe(600);
    expect(places.along).toContainEqual(["A", "M1AB"]);
  });
  it("of a gate with a brace are its corners and the rail's ends: the brace stands in a corner and at the rail's end, and has no marks of its own", () => {
    for (const hinge of ["DA", "BC"])
      for (const brace of ["below the rail", "above the rail"]) {
        const { nodes, along } = placesOf(resolveStructure(started("gate leaf", { hinge, brace })).structure);
        expect(Object.keys(nodes).sort()).toEqual(["A", "B", "C", "D", "M1BC", "M1DA"]);
        for (const [p, q] of along) expect(distance(nodes[p] as Vec2, nodes[q] as Vec2)).toBeGreaterThan(400);
        // From corner to rail, aslant across a panel.
        const foot = brace === "below the rail" ? (hinge === "DA" ? "A" : "B") : hinge === "DA" ? "C" : "D";
        expect(along).toContainEqual(expect.arrayContaining([foot, foot === "A" || foot === "D" ? "M1BC" : "M1DA"]));
      }
  });
  it("of a frame with corners are what reaches well beyond them, too, whoever drew it, but for the sides themselves; no heights are read there", () => {
    const random = seeded(11);
    for (const [name, { frame, beyond }] of Object.entries(FRAMES_THAT_REACH_BEYOND)) {
      const { structure } = resolveStructure(frame);
      expect(structure.quad, name).not.toBeNull();
      const places = placesOf(structure);
      expect([...places.beyond].sort(), name).toEqual(beyond);
      for (const place of beyond) {
        expect(places.nodes[place], name).toBeDefined();
        expect(Object.keys(heightPlaces(places)), name).not.toContain(place);
      }
      for (let i = 0; i < 3; i++) {
        const again = placesOf(resolveStructure(inexactly(drawnAnyhow(frame, random), 0.02, random)).structure);
        const where = ({ nodes, beyond: names }: typeof places) =>
          names.map((n) => nodes[n] as Vec2).sort((p, q) => p.y - q.y);
        where(again).forEach((p, k) => {
          expect(distance(p, where(places)[k] as Vec2), name).toBeLessThan(0.2);
        });
      }
    }
    // A side called E: the joint of P on it is called as the end of P would be.
    const side = deckWithPole(800);
    const renamed = placesOf(
      resolveStructure({ ...side, members: side.members.map((m) => (m.id === "E2" ? { ...m, id: "E" } : m)) })
        .structure,
    );
    expect(renamed.beyond).toEqual(["PEX"]);
    expect(renamed.freeEnds.PEX?.member).toBe("P");
    expect(distance(renamed.nodes.PE as Vec2, renamed.nodes.PEX as Vec2)).toBeCloseTo(780, 0);
    const asked = (poleMm: number) => placesOf(resolveStructure(deckWithPole(poleMm)).structure).beyond;
    // A quarter of the shorter side, 940 outside, beyond the outside of the end.
    expect(asked(250)).toEqual([]);
    expect(asked(260)).toEqual(["PE"]);
    for (const starter of STARTERS) {
      const { structure } = resolveStructure(started(starter.name));
      if (structure.quad) expect(placesOf(structure).beyond, starter.name).toEqual([]);
    }
  });
  it("are the same, and reached along the same members, whoever drew the frame some hundredths out", () => {
    const random = seeded(5);
    for (const frame of [...STARTERS.map((s) => started(s.name)), ...Object.values(FREE_FRAMES)]) {
      const told = (f: typeof frame) => {
        const { nodes, along, middles } = placesOf(resolveStructure(f).structure);
        return { nodes: Object.keys(nodes), along, middles: Object.keys(middles) };
      };
      for (let i = 0; i < 3; i++) expect(told(inexactly(frame, 0.02, random))).toEqual(told(frame));
    }
  });
  it("of a free frame are the same whichever way it lies on the bed: what gapes is measured", () => {
    const turned = (frame: DrawnFrame, deg: number): DrawnFrame => {
      const [c, s] = [Math.cos((deg * Math.PI) / 180), Math.sin((deg * Math.PI) / 180)];
      const place = ({ x, y, z }: DrawnFrame["members"][number]["from"]) => ({
        x: statedExactly(c * x.mm - s * y.mm, "mm"),
        y: statedExactly(s * x.mm + c * y.mm, "mm"),
        z,
      });
      return { ...frame, members: frame.members.map((m) => ({ ...m, from: place(m.from), to: place(m.to) })) };
    };
    const all = Object.entries({ ...FREE_FRAMES, ...LEANING_FRAMES });
    const lying = all.filter(([, f]) => placesOf(resolveStructure(f).structure).seen === "from above");
    expect(lying.length).toBeGreaterThan(5);
    for (const [name, frame] of lying) {
      const told = (f: DrawnFrame) => {
        const places = placesOf(resolveStructure(f).structure);
        return { nodes: Object.keys(places.nodes).sort(), mouths: mouthsOf(places).sort() };
      };
      for (const deg of [20, 33, 45, 71, 90]) expect(told(turned(frame, deg)), `${name} ${deg}`).toEqual(told(frame));
    }
  });
  it("of what stands on posts with rails round them lie in the rails' plane, whichever is the longer way and however it is drawn", () => {
    const random = seeded(20261202);
    const at: [number, number][] = [0, 1, 2].flatMap((i) => [0, 1].map((j): [number, number] => [i, j]));
    const rails: [number, number][] = [
      [0, 2],
      [2, 4],
      [1, 3],
      [3, 5],
      [0, 1],
      [2, 3],
      [4, 5],
    ];
    for (let i = 0; i < 12; i++) {
      const [long, wide, highMm] = [400 + 1200 * random(), 300 + 600 * random(), 350 + 1200 * random()];
      const posts = at.map(([x, y]) => [x * long, y * wide] as const);
      const frame = drawnAnyhow(table(posts, rails, { highMm, levelsMm: [highMm - 20] }), random);
      const { structure } = resolveStructure(frame);
      expect(structure.quad).toBeNull();
      const places = placesOf(structure);
      expect(places.seen).toBe("from above");
      // Every post has its place, and every rail is taped along.
      const found = Object.values(places.nodes);
      for (const [x, y] of posts) expect(found.some((p) => distance(p, { x: x + 20, y: y + 20 }) < 1)).toBe(true);
      expect(places.along).toHaveLength(rails.length);
    }
    expect(placesOf(resolveStructure(stool(300, 480)).structure).seen).toBe("from above");
    // Open behind, nothing goes round: it is measured as it stands.
    expect(placesOf(resolveStructure(FREE_FRAMES["stand open behind"]).structure).seen).toBe("standing");
  });
  it("are there for every starter, and taped along members and across they fix its shape", () => {
    for (const { name } of STARTERS) {
      const { structure } = resolveStructure(started(name));
      const places = placesOf(structure);
      const { nodes } = places;
      const names = Object.keys(nodes);
      expect(names.length, name).toBeGreaterThanOrEqual(3);
      for (const n of names) expect(n, name).toMatch(/^[A-Z][A-Z0-9]{0,9}$/);
      const set = walkingSet(places).map(([p, q]) => tape(p, q));
      const check = generalCheck(nodes, readOff(nodes, set));
      expect(check.fit.status, name).toBe("ok");
      expect(check.untied, name).toEqual([]);
      expect(check.farthest?.value, name).toBeLessThan(1e-6);
      expect(set.length, name).toBeLessThan(3 * names.length + 2);
    }
  });
  it("are the teeth's ends too where all joints lie in one row: taped, they tell whether the teeth stand square", () => {
    for (const [teeth, apart, tooth] of [
      [8, 160, 200],
      [2, 300, 150],
      [14, 120, 100],
    ] as const) {
      const { structure } = resolveStructure(comb(teeth, apart, tooth));
      const places = placesOf(structure);
      const set = walkingSet(places);
      const taped = new Set(set.flat());
      const check = (nodes: typeof places.nodes) =>
        generalCheck(
          places.nodes,
          readOff(
            nodes,
            set.map(([p, q]) => tape(p, q)),
          ),
        );
      expect(check(places.nodes).untied).toEqual([]);
      const last = `T${teeth}E`;
      expect(taped.has(last)).toBe(true);
      // The last tooth leans by 5 mm over its length.
      const { x = 0, y = 0 } = places.nodes[last] ?? {};
      const leans = check({ ...places.nodes, [last]: { x: x + 5, y } });
      expect(leans.fit.status).toBe("ok");
      expect(leans.farthest?.value).toBeGreaterThan(1);
    }
  });
  it("gape where free ends stand across from each other: a comb between its teeth, not from its rail; an elbow between its legs", () => {
    const mouthsIn = (frame: Parameters<typeof resolveStructure>[0]) =>
      mouthsOf(placesOf(resolveStructure(frame).structure)).map((p) => p.join(" "));
    for (const [teeth, apartMm, toothMm] of [
      [2, 300, 250],
      [3, 200, 400],
      [5, 180, 220],
      [6, 260, 190],
      [4, 210, 300],
      [3, 150, 420],
    ] as const)
      expect(mouthsIn(comb(teeth, apartMm, toothMm)).sort()).toEqual(
        Array.from({ length: teeth - 1 }, (_, i) => `T${i + 1}E T${i + 2}E`),
      );
    // Long and narrow: the ends of two rails, nearer to each other than a quarter of the frame.
    const rails = drawn({
      LEFT: [
        [0, 0, 20],
        [3000, 0, 20],
      ],
      RIGHT: [
        [0, 400, 20],
        [3000, 400, 20],
      ],
      NEAR: [
        [900, 0, 20],
        [900, 400, 20],
      ],
      FAR: [
        [2100, 0, 20],
        [2100, 400, 20],
      ],
    });
    expect(mouthsIn(rails).sort()).toEqual(["LEFTE RIGHTE", "LEFTS RIGHTS"]);
    const elbow = drawn({
      LEG: [
        [0, 0, 20],
        [900, 0, 20],
      ],
      ARM: [
        [900, 0, 20],
        [900, 700, 20],
      ],
    });
    expect(mouthsIn(elbow)).toEqual(["ARME LEGS"]);
  });
  it("are the free ends too where a frame is open: three sides are measured across their mouth", () => {
    const open = drawn({
      AB: [
        [20, 20, 20],
        [1980, 20, 20],
      ],
      BC: [
        [1980, 20, 20],
        [1980, 880, 20],
      ],
      CD: [
        [1980, 880, 20],
        [20, 880, 20],
      ],
    });
    const { structure } = resolveStructure(open);
    expect(structure.quad).toBeNull();
    const places = placesOf(structure);
    expect(Object.keys(places.nodes)).toHaveLength(4);
    expect(places.freeEnds).toEqual({
      ABS: { member: "AB", end: "from", way: { x: -1, y: 0 } },
      CDE: { member: "CD", end: "to", way: { x: -1, y: 0 } },
    });
    const set = walkingSet(places);
    const pairs = set.map(([p, q]) => [p, q].sort().join());
    expect(pairs).toContain("ABS,CDE");
    // Gaping by 12 mm at the mouth is found.
    const bent = { ...places.nodes, CDE: { x: places.nodes.CDE?.x ?? 0, y: (places.nodes.CDE?.y ?? 0) + 12 } };
    const check = generalCheck(
      places.nodes,
      readOff(
        bent,
        set.map(([p, q]) => tape(p, q)),
      ),
    );
    expect(check.fit.status).toBe("ok");
    expect(check.farthest?.value).toBeGreaterThan(2);
  });
  it("of many heights as many are read as span the frame: a rack's four ends among them, not one rail and a stray place of the other", () => {
    for (const uprights of [5, 7, 12]) {
      const { structure } = resolveStructure(started("rack", { uprights }));
      const places = placesOf(structure);
      const read = spanningHeights(places, 8);
      expect(read).toHaveLength(8);
      expect(read).toEqual(Object.keys(places.nodes).filter((n) => read.includes(n)));
      expect(read).toEqual(expect.arrayContaining(["U1RAIL", "U1TOP", `U${uprights}RAIL`, `U${uprights}TOP`]));
      expect(spanningHeights(places, 100)).toEqual(Object.keys(places.nodes));
    }
  });
});

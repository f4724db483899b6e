import { describe, expect, it } from "vitest";
import { good, points, section } from "../../../tests/support/corner";
import { condense, type MechanicalFrame, movedFrame } from "../mechanics";
import { frameProblems } from "./frameProblems";
import { jointStiffness } from "./stateOfJoint";
import { weldedModel } from "./weldedModel";

describe("joints beyond the tables", () => {
  it("are built and say so: flat angles, slim tube, thin walls, a lap, unequal corners, narrow branches, a stacked frame", () => {
    const why = (change: Partial<MechanicalFrame>, id = "J") =>
      weldedModel({ ...good, ...change })
        .joints.find((j) => j.id === id)
        ?.unfitted.join("; ") ?? "";
    expect(why({})).toBe("");
    // Within the tables: a mitre of 127 degrees, tube half as high again as wide.
    expect(why(points({ B: [-300, 400, 0] }))).toBe("");
    expect(why(points({ B: [-600, 200, 0] }))).toMatch(/162° between the legs/);
    const of = (change: Partial<typeof section>) =>
      why({ members: good.members.map((m) => ({ ...m, section: { ...section, ...change } })) });
    expect(of({ widthMm: 80 })).toBe("");
    expect(of({ widthMm: 120 })).toMatch(/more than twice/);
    expect(of({ wallMm: 1 })).toMatch(/a wall of 1\/50 of the width/);
    expect(
      why({ members: good.members.map((m) => (m.id === "LB" ? { ...m, section: { ...section, wallMm: 4 } } : m)) }),
    ).toMatch(/unequal/);
    const thin = { ...section, widthMm: 19, heightMm: 19 };
    expect(why({ members: good.members.map((m) => (m.id === "TT" ? { ...m, section: thin } : m)) }, "K")).toMatch(
      /narrower/,
    );
    const round = { ...section, shape: "round tube" as const };
    expect(why({ members: good.members.map((m) => ({ ...m, section: round })) })).toMatch(
      /no square or rectangular tube/,
    );
    // A second frame's member across the first one's, one tube higher.
    const stacked: Partial<MechanicalFrame> = {
      ...points({ Q: [450, 0, 0], U: [450, -200, 50], V: [450, 0, 50], W: [450, 300, 50] }),
      members: [
        { id: "LA", section, points: ["P", "M", "Q", "A"] },
        ...good.members.slice(1),
        { id: "UP", section, points: ["U", "V", "W"] },
      ],
      joints: [...good.joints, { id: "S", kind: "lap", a: "LA", b: "UP", point: "Q", pointB: "V" }],
    };
    expect(frameProblems({ ...good, ...stacked })).toEqual([]);
    expect(why(stacked, "S")).toMatch(/lap/);
  });
  it("tees land on any face, several at one point, and legs stand under a mitre", () => {
    const legs: MechanicalFrame = {
      ...good,
      points: { ...good.points, down: [0, 0, -400], up: [300, 0, 400], far: [300, -400, 0] },
      members: [
        ...good.members,
        { id: "leg", section, points: ["P", "down"] },
        { id: "post", section, points: ["M", "up"] },
        { id: "arm", section, points: ["M", "far"] },
      ],
      joints: [
        ...good.joints,
        { id: "leg", kind: "tee", a: "LA", b: "leg", point: "P" },
        { id: "post", kind: "tee", a: "LA", b: "post", point: "M" },
        { id: "arm", kind: "tee", a: "LA", b: "arm", point: "M" },
      ],
    };
    expect(frameProblems(legs)).toEqual([]);
    const model = weldedModel(legs);
    const at = (id: string) => model.joints.find((j) => j.id === id);
    expect(at("leg")?.at).toEqual([0, 0, -25]);
    expect(at("post")?.at).toEqual([300, 0, 25]);
    expect(at("post")?.faces.normal).toEqual([0, 0, 1]);
    expect(at("arm")?.at).toEqual([300, -25, 0]);
    expect(at("K")?.at).toEqual([300, 25, 0]);
  });
  it("members are split where a branch lands that nobody listed, and the answer is that of the listed one", () => {
    const bare = { ...good, members: good.members.map((m) => (m.id === "LA" ? { ...m, points: ["P", "A"] } : m)) };
    expect(frameProblems(bare)).toEqual([]);
    const [split, listed] = [weldedModel(bare), weldedModel(good)];
    expect(split.nodes.map((n) => `${n.member} ${n.point} ${n.at}`)).toEqual(
      listed.nodes.map((n) => `${n.member} ${n.point} ${n.at}`),
    );
    const off = { ...bare, points: { ...bare.points, M: [300, 5, 0] as const } };
    expect(frameProblems(off)[0]?.message).toMatch(/LA does not reach K/);
  });
  it("a frame that its supports let go of is refused by name and not worked through", () => {
    const loose: MechanicalFrame = { ...good, supports: [{ member: "LA", point: "A", fix: ["x"] }] };
    const model = weldedModel(loose);
    expect(() => condense({ model, springs: [], posts: 0, loads: [], actions: [] }, [])).toThrow(
      /is not held at .*: the frame can move there/,
    );
  });
  it("a fit too loose to be worked out is refused", () => {
    const model = weldedModel(good, { joint: 1, fitup: 1e-6, gapMm: null });
    expect(() => condense({ model, springs: [], posts: 0, loads: [], actions: [] }, [])).toThrow(/too loose/);
  });
});

describe("a frame set up off its drawing", () => {
  const moves = { P: [0.6, -0.4, 0], A: [1.5, 0.2, 0] } as const;
  const set = movedFrame(good, moves);
  it("has its joints where they are set, and as they were cut", () => {
    const [drawn, off] = [good, set].map((f) => weldedModel(f).joints);
    drawn?.forEach((joint, i) => {
      const moved = off?.[i];
      expect([moved?.form, moved?.faces, moved?.chords]).toEqual([joint.form, joint.faces, joint.chords]);
    });
    const corner = off?.find((j) => j.id === "J");
    expect(corner?.at).toEqual((drawn?.find((j) => j.id === "J")?.at ?? []).map((x, i) => x + (moves.P[i] ?? 0)));
    // Set up once more, it is still cut as it was drawn.
    expect(weldedModel(movedFrame(set, { B: [0, 2, 0] })).joints.map((j) => j.form)).toEqual(drawn?.map((j) => j.form));
  });
  it("holds as it would if it were cut for where it stands, but for a hundredth", () => {
    const { cutBy: _, ...cutAnew } = set;
    const [kept, anew] = [set, cutAnew].map((f) => weldedModel(f).joints);
    kept?.forEach((joint, i) => {
      const other = anew?.[i];
      if (!other) throw new Error("no joint");
      const [k, own] = [joint, other].map((j) => jointStiffness(j, ["welded", "welded", 10, 10]).k);
      const most = Math.max(...(own ?? []).map(Math.abs));
      for (let e = 0; e < 36; e++) expect(Math.abs((k?.[e] ?? 0) - (own?.[e] ?? 0))).toBeLessThan(1e-2 * most);
    });
  });
});

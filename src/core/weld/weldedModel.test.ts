import { describe, expect, it } from "vitest";
import { good, points, section } from "../../../tests/support/corner";
import { condense, type MechanicalFrame } from "../mechanics";
import { frameProblems } from "./frameProblems";
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

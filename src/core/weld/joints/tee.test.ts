import { describe, expect, it } from "vitest";
import { good, points, section } from "../../../../tests/support/corner";
import { frameProblems } from "../frameProblems";
import { weldedModel } from "../weldedModel";

describe("a tee", () => {
  it("holds its branch at the chord's face, half the chord's depth out", () => {
    const model = weldedModel(good);
    const tee = model.joints.find((j) => j.id === "K");
    const node = model.nodes[tee?.nodeB ?? -1];
    expect(node?.at[0]).toBeCloseTo(300, 9);
    expect(node?.at[1]).toBeCloseTo(25, 9);
  });
  it("says that a branch much narrower than its chord is beyond its table", () => {
    const narrow = { ...section, widthMm: 19, heightMm: 19 };
    const model = (branch: typeof section) =>
      weldedModel({ ...good, members: good.members.map((m) => (m.id === "TT" ? { ...m, section: branch } : m)) });
    const unfitted = (branch: typeof section) =>
      model(branch)
        .joints.find((j) => j.id === "K")
        ?.unfitted.join();
    expect(unfitted(section)).toBe("");
    expect(unfitted(narrow)).toMatch(/narrower than its chord/);
    const wide = { ...section, widthMm: 2 * section.widthMm, heightMm: 2 * section.heightMm };
    expect(unfitted(wide)).toMatch(/stands out beside its chord/);
  });
  it("is refused along its chord, beside its chord, and inside its chord", () => {
    const wrong = (change: Parameters<typeof points>[0]) => frameProblems({ ...good, ...points(change) });
    expect(wrong({ T: [800, 20, 0] })[0]?.message).toMatch(/under 10°/);
    expect(wrong({ T: [300, 20, 0] })[0]?.message).toMatch(/ends inside LA/);
  });
});

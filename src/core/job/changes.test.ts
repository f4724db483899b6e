import { describe, expect, it } from "vitest";
import { sized, withDrawn } from "../../../tests/support/plans";
import { type DrawnFrame, fromRectangle } from "../frame";
import { length } from "../units";
import { collide, planChanges } from "./changes";
import { newPlan } from "./plan";
import { type Plan, planSchema } from "./planSchema";

const plan = newPlan("Test frame", "mm");
const drawnOf = ({ frame }: Plan): DrawnFrame => {
  if (frame.by !== "members") throw new Error("no drawn frame");
  return frame.drawn;
};

describe("two people", () => {
  it("see each other's changes by name", () => {
    const after = { ...sized(plan, { length: length("47 1/4", "in") }), name: "Other" };
    expect(planChanges(plan, after)).toEqual([
      { path: "name", label: "Name", from: "Test frame", to: "Other" },
      { path: "frame.sizes.length", label: "Length", from: "1000 mm", to: "47 1/4 in" },
    ]);
    expect(planChanges(plan, plan)).toEqual([]);
  });
  it("read a number with the unit of the job, as its field shows it", () => {
    const inches: Plan = { ...plan, units: "inch-decimal" };
    const after: Plan = { ...inches, weld: { ...inches.weld, travelMmPerS: 6 } };
    const [change] = planChanges(inches, after);
    expect(change).toMatchObject({ label: "Travel speed", to: expect.stringMatching(/^14\.\d+ in\/min$/) });
    expect(planChanges(plan, { ...plan, weld: { ...plan.weld, travelMmPerS: 6 } })[0]?.to).toBe("6 mm/s");
  });
  it("keep both where they changed different things, and know where they did not", () => {
    const mine = sized(plan, { width: length("650"), length: length("1100") });
    const theirs = { ...sized(plan, { length: length("1200") }), name: "Theirs" };
    const c = collide(plan, mine, theirs);
    expect(c.both).toEqual(["frame.sizes.length"]);
    expect(c.theirs.map((t) => t.label)).toEqual(["Name", "Length"]);
    expect(c.merged).toMatchObject({ name: "Theirs", frame: { sizes: { length: { mm: 1100 }, width: { mm: 650 } } } });
  });
  it("change nothing by the order in which fields are written: the server writes them in its own", () => {
    const turnedRound = (value: unknown): unknown =>
      Array.isArray(value)
        ? value.map(turnedRound)
        : typeof value === "object" && value !== null
          ? Object.fromEntries(
              Object.entries(value)
                .reverse()
                .map(([k, v]) => [k, turnedRound(v)]),
            )
          : value;
    const drawn = withDrawn(plan, {
      ...fromRectangle(plan.frame.sizes, "mm"),
      gap: length("1"),
    });
    for (const p of [plan, drawn]) {
      const other = turnedRound(p) as Plan;
      expect(JSON.stringify(other)).not.toBe(JSON.stringify(p));
      expect(planChanges(p, other)).toEqual([]);
      const mine = { ...p, name: "Mine" };
      const c = collide(p, mine, other);
      expect(c.theirs).toEqual([]);
      expect(c.both).toEqual([]);
      expect(c.merged.name).toBe("Mine");
    }
  });
  it("never mix two kinds of limits", () => {
    const mine: Plan = { ...plan, limits: { kind: "class", linear: "A", flat: "E", levelMmPerM: null, confirmed: {} } };
    const theirs: Plan = {
      ...plan,
      limits: plan.limits.kind === "own" ? { ...plan.limits, flat: length("3") } : plan.limits,
    };
    expect(planSchema.safeParse(collide(plan, mine, theirs).merged).success).toBe(true);
    expect(collide(plan, mine, theirs).merged.limits).toEqual(mine.limits);
  });
  it("name cross members and rests by their own names", () => {
    const after = {
      ...sized(plan, { cross: [{ id: "M1", at: length("300") }] }),
      bed: { ...plan.bed, rests: plan.bed.rests.slice(1) },
    };
    expect(planChanges(plan, after).map((c) => [c.label, c.to])).toEqual([
      ["Rest R1, x", "taken out"],
      ["Rest R1, y", "taken out"],
      ["Cross member M1", "300 mm"],
    ]);
  });
});

describe("two people at one drawn frame", () => {
  const frame = fromRectangle(plan.frame.sizes, "mm");
  const base = withDrawn(plan, frame);
  const moved = (id: string, y: string): Plan =>
    withDrawn(base, {
      ...frame,
      members: frame.members.map((m) => (m.id === id ? { ...m, from: { ...m.from, y: length(y) } } : m)),
    });
  it("who moves one member does not undo who moved another; both are told by name", () => {
    const { theirs, both, merged } = collide(base, moved("AB", "33"), moved("CD", "555"));
    expect(both).toEqual([]);
    expect(theirs.map((c) => c.label)).toEqual(["Member CD"]);
    expect(drawnOf(merged).members.find((m) => m.id === "AB")?.from.y.mm).toBe(33);
    expect(drawnOf(merged).members.find((m) => m.id === "CD")?.from.y.mm).toBe(555);
  });
  it("what one took out stays out, unless the other changed it; what one put in stays", () => {
    const without = withDrawn(base, { ...frame, members: frame.members.filter((m) => m.id !== "CD") });
    expect(drawnOf(collide(base, moved("AB", "33"), without).merged).members.map((m) => m.id)).toEqual([
      "AB",
      "BC",
      "DA",
    ]);
    expect(
      drawnOf(collide(base, moved("CD", "555"), without).merged)
        .members.map((m) => m.id)
        .sort(),
    ).toEqual(["AB", "BC", "CD", "DA"]);
  });
  it("the same member moved by both is told as such", () => {
    expect(collide(base, moved("AB", "33"), moved("AB", "44")).both).toEqual(["frame.drawn.members.AB"]);
  });
  it("a member that each added under one name stays both: mine goes by the next name, wherever mine is named", () => {
    const adding = (y: string, id = "M1", joined = false): Plan => {
      const [like] = frame.members;
      if (!like) throw new Error("no member");
      const at = (p: typeof like.from) => ({ ...p, y: length(y) });
      const more = { ...like, id, from: at(like.from), to: at(like.to) };
      const own = [{ between: ["AB", id], kind: "auto", through: null }] as unknown as DrawnFrame["joints"];
      const joints = joined ? own : frame.joints;
      return withDrawn(base, { ...frame, members: [...frame.members, more], joints });
    };
    const { merged, both, renamed } = collide(base, adding("200", "M1", true), adding("400"));
    expect(renamed).toEqual([{ from: "M1", to: "M2" }]);
    expect(both).toEqual([]);
    const found = drawnOf(merged);
    expect(found.members.filter((m) => /^M/.test(m.id)).map((m) => [m.id, m.from.y.mm])).toEqual([
      ["M1", 400],
      ["M2", 200],
    ]);
    expect(found.joints.map((j) => j.between)).toContainEqual(["AB", "M2"]);
    // The same member added by both is one member; a long name keeps to six letters.
    expect(collide(base, adding("200"), adding("200")).renamed).toEqual([]);
    expect(collide(base, adding("200", "RAILAB"), adding("400", "RAILAB")).renamed).toEqual([
      { from: "RAILAB", to: "RAILA2" },
    ]);
    const cross = (at: string): Plan => sized(plan, { cross: [{ id: "M1", at: length(at) }] });
    const two = collide(plan, cross("300"), cross("700"));
    expect(two.merged.frame.sizes.cross.map((c) => [c.id, c.at.mm])).toEqual([
      ["M1", 700],
      ["M2", 300],
    ]);
  });
  it("a frame started anew is one line of the log, not hundreds", () => {
    const many = {
      ...frame,
      members: Array.from({ length: 390 }, (_, i) => ({
        ...(frame.members[0] as DrawnFrame["members"][number]),
        id: `M${i}`,
      })),
    };
    const changes = planChanges(base, withDrawn(base, many));
    expect(changes.find((c) => c.path === "frame.drawn")).toMatchObject({ from: "4 members", to: "390 members" });
    expect(changes.length).toBeLessThan(400);
  });
  it("does not take what is left out for a change to nothing", () => {
    const plan = newPlan("Left out", "mm");
    expect(planChanges({ ...plan, fixed: undefined }, plan)).toEqual([]);
    expect(planChanges(plan, { ...plan, bed: { ...plan.bed, laid: undefined } })).toHaveLength(1);
  });
});

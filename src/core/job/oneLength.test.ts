import { describe, expect, it } from "vitest";
import { drawn, squareTube, started } from "../../../tests/support/drawnFrames";
import { job as jobOf, opened, read } from "../../../tests/support/jobs";
import { drawnPlan } from "../../../tests/support/plans";
import { type DrawnFrame, resolveStructure } from "../frame";
import { ends, SIDES } from "../geometry";
import { distance } from "../numeric";
import { evaluate } from "./evaluate";
import type { Plan } from "./planSchema";
import { predict } from "./predict";
import { sharedWords } from "./sharedWords";

/** A deck with a bar and two arms on one of its ends: what is welded there draws in that end alone. */
const withBar = (face: number, wall: number): DrawnFrame =>
  drawn(
    {
      L: [
        [0, 0, 0],
        [1500, 0, 0],
      ],
      R: [
        [0, 900, 0],
        [1500, 900, 0],
      ],
      E1: [
        [0, 0, 0],
        [0, 900, 0],
      ],
      E2: [
        [1500, 0, 0],
        [1500, 900, 0],
      ],
      BAR: [
        [1500, 450, 0],
        [2200, 450, 0],
      ],
      ARM1: [
        [1500, 100, 0],
        [2000, 450, 0],
      ],
      ARM2: [
        [1500, 800, 0],
        [2000, 450, 0],
      ],
    },
    [squareTube(face, wall)],
  );

const FRAMES: readonly (readonly [string, DrawnFrame])[] = [
  ["a deck with a bar, thick", withBar(50, 5)],
  ["a deck with a bar, thin", withBar(40, 2)],
  ["a gate leaf", started("gate leaf")],
  ["a ladder", started("ladder")],
  ["two frames stacked", started("two frames stacked")],
];

const worked = (plan: Plan, entries: Parameters<typeof jobOf>[0] = []) => {
  const prediction = predict(plan)?.prediction ?? null;
  return {
    prediction,
    e: evaluate(
      jobOf(entries, () => plan),
      prediction,
    ),
  };
};

describe("sides of a ring", () => {
  it.each(FRAMES)("are set up as long as their pieces are cut: %s", (_, frame) => {
    const { e } = worked(drawnPlan(frame));
    const quad = e.structure?.quad;
    if (!quad || !e.setUp) throw new Error("corners expected");
    for (const side of SIDES) {
      const piece = e.cut.find((p) => p.members.includes(quad.sides[side]));
      const [p, q] = ends(side).map((c) => quad.corners[c]);
      if (!piece || !p || !q) throw new Error(`no piece ${side}`);
      expect(e.setUp.targets[side] - distance(p, q), side).toBeCloseTo(piece.cutLongPointMm - piece.longPointMm, 2);
    }
    // Nor does that lean it: diagonals are set up as far apart as drawn, where no lean is aimed at.
    const told = e.prediction?.setUp.targets.flatMap((t) =>
      t.id.kind === "span" ? [[t.id.span, t.target.value] as const] : [],
    );
    for (const [span, mm] of told ?? []) expect(e.setUp.targets[span], span).toBeCloseTo(mm, 2);
  });
  it("are set up as they came off the saw where both of a pair were read", () => {
    const plan = drawnPlan(started("rectangle", { length: 1200, width: 700 }));
    const { structure } = resolveStructure(started("rectangle", { length: 1200, width: 700 }));
    const { AB, CD } = structure.quad?.sides ?? { AB: "", CD: "" };
    const cut = opened("cut");
    const pieces = { [AB]: "1200.6", [CD]: "1201.4" };
    const { e } = worked(plan, [
      cut,
      ...Object.entries(pieces).map(([member, mm]) => read(cut.id, { kind: "piece", member }, mm)),
    ]);
    expect(e.setUp?.targets.AB).toBeCloseTo(1200.6, 2);
    expect(e.setUp?.targets.CD).toBeCloseTo(1201.4, 2);
  });
  it("say where one length is cut for two of which the weld takes more of one", () => {
    const plan = drawnPlan(withBar(50, 5));
    const { prediction, e } = worked(plan);
    const line = e.cut.find((p) => p.members.includes("E2"));
    const words = line && sharedWords(plan, line, e.prediction, "mm");
    expect(line?.members).toEqual(["E1", "E2"]);
    const more = (prediction?.allowancesMm.E2?.value ?? 0) - (prediction?.allowancesMm.E1?.value ?? 0);
    expect(more).toBeGreaterThan(0.5);
    expect(words).toContain(`of E2 the weld takes ${more.toFixed(1)}`);
    // What the cold frame is told to end at says the same.
    const side = Object.entries(e.structure?.quad?.sides ?? {}).find(([, id]) => id === "E2")?.[0];
    const cold = e.forecasts.find((f) => f.limit.id === side)?.cold;
    const off = Number(/ends ([\d.]+)\smm shorter/.exec(words ?? "")?.[1]);
    expect(cold && cold.value - (900 + 50)).toBeCloseTo(-off, 1);
    for (const other of e.cut.filter((p) => p !== line))
      expect(sharedWords(plan, other, e.prediction, "mm")).toBeNull();
  });
});

import { type DrawnFrame, type DrawnSection, emptyFrame, member, STARTERS, usualValues } from "@/core/frame";
import type { Vec3 } from "@/core/numeric";
import { length, statedExactly, type UnitPreference } from "@/core/units";

/** Square tube of one size. */
export const squareTube = (mm = 40, wallMm = 3, id = "S1"): DrawnSection => ({
  id,
  shape: "tube",
  profile: null,
  width: length(String(mm)),
  height: length(String(mm)),
  wall: length(String(wallMm)),
  material: "mild steel",
});

/** Square tube of an inch and a half, as it is sold in inches. */
export const inchTube: DrawnSection = {
  ...squareTube(),
  width: length("1 1/2", "in"),
  height: length("1 1/2", "in"),
  wall: length("1/8", "in"),
};

export const roundTube = (mm: number, wallMm = 3, id = "S1"): DrawnSection => ({
  ...squareTube(mm, wallMm, id),
  shape: "round tube",
});

/** A starter's frame with its usual sizes, some of them changed. */
export function started(
  name: string,
  change: Record<string, number | string> = {},
  section = squareTube(),
  units: UnitPreference = "mm",
): DrawnFrame {
  const starter = STARTERS.find((s) => s.name === name);
  if (!starter) throw new Error(`no starter ${name}`);
  const built = starter.build({ ...usualValues(starter, units), ...change }, section, units);
  if (!built.ok) throw new Error(built.message);
  return built.value;
}

/** Members by name with both ends and, where it is not the first, their section. */
export const drawn = (
  members: Record<string, [Vec3, Vec3] | [Vec3, Vec3, string]>,
  sections: DrawnSection[] = [squareTube()],
): DrawnFrame => ({
  ...emptyFrame(sections[0] as DrawnSection),
  sections,
  members: Object.entries(members).map(([id, [from, to, section]]) =>
    member(id, from, to, section ?? (sections[0] as DrawnSection).id, "mm"),
  ),
});

/** Corners of a ring that goes round its middle, each so far from it, mm. */
export const aroundMiddle = (radii: readonly number[]): Vec3[] =>
  radii.map((r, i) => {
    const angle = (2 * Math.PI * i) / radii.length;
    return [r * Math.cos(angle), r * Math.sin(angle), 0];
  });

/** A closed ring of straight tubes from corner to corner. */
export const ring = (at: readonly Vec3[], section = squareTube()): DrawnFrame =>
  drawn(Object.fromEntries(at.map((p, i) => [`S${i + 1}`, [p, at[(i + 1) % at.length] as Vec3]])), [section]);

/** A rail with teeth on one side of it, so far apart and so long, mm; the rail reaches as far beyond the outer ones. */
export const comb = (teeth: number, apartMm: number, toothMm: number, faceMm = 40): DrawnFrame =>
  drawn(
    Object.fromEntries([
      ["RAIL", [[0, 0, 0] as Vec3, [(teeth + 1) * apartMm, 0, 0] as Vec3]],
      ...Array.from({ length: teeth }, (_, i) => {
        const x = (i + 1) * apartMm;
        return [`T${i + 1}`, [[x, faceMm / 2, 0] as Vec3, [x, faceMm / 2 + toothMm, 0] as Vec3]];
      }),
    ]),
    [squareTube(faceMm, 3)],
  );

/** Rails laid across a ring, from the middle of one side to the middle of the other, with so many uprights on each. */
export const railsOnRing = (rails: number, uprights: number, faceMm = 40): DrawnFrame => {
  const [L, W, h] = [1600, 900, faceMm / 2];
  const across = Array.from({ length: rails }, (_, r) => ({ id: `L${r + 1}`, y: (W * (r + 1)) / (rails + 1) }));
  return drawn(
    {
      B1: [
        [0, 0, h],
        [L, 0, h],
      ],
      B2: [
        [L, 0, h],
        [L, W, h],
      ],
      B3: [
        [L, W, h],
        [0, W, h],
      ],
      B4: [
        [0, W, h],
        [0, 0, h],
      ],
      ...Object.fromEntries(
        across.flatMap(({ id, y }) => [
          [id, [[0, y, 3 * h] as Vec3, [L, y, 3 * h] as Vec3]],
          ...Array.from({ length: uprights }, (_, i) => {
            const x = (L * (i + 1)) / (uprights + 1);
            return [`P${id.slice(1)}${i + 1}`, [[x, y, 4 * h] as Vec3, [x, y, 4 * h + 400] as Vec3, "S2"]];
          }),
        ]),
      ),
    },
    [squareTube(faceMm, 3), roundTube(16, 2, "S2")],
  );
};

/** How tubes of unlike height lie in one plane: with their undersides level, their middles, or their tops. */
export const FLUSH = ["below", "middle", "above"] as const;
export type Flush = (typeof FLUSH)[number];

/** Two rails R1 and R2 with E1 and E2 between their ends and some members M across, of another tube; lengths in mm. */
export function twoTubes(
  rail: DrawnSection,
  cross: DrawnSection,
  flush: Flush,
  { long = 1600, wide = 900, across = 2 } = {},
): DrawnFrame {
  const [rails, others] = [rail, cross].map((s) => ({ wide: Number(s.width.mm), high: Number(s.height.mm) })) as [
    { wide: number; high: number },
    { wide: number; high: number },
  ];
  const highest = Math.max(rails.high, others.high);
  const middle = (high: number): number =>
    flush === "below" ? high / 2 : flush === "above" ? highest - high / 2 : highest / 2;
  const between = (x: number): [Vec3, Vec3, string] => [
    [x, rails.wide / 2, middle(others.high)],
    [x, wide - rails.wide / 2, middle(others.high)],
    "S2",
  ];
  return drawn(
    {
      ...Object.fromEntries(
        [0, wide].map((y, i) => [
          `R${i + 1}`,
          [
            [0, y, middle(rails.high)],
            [long, y, middle(rails.high)],
          ] as [Vec3, Vec3],
        ]),
      ),
      E1: between(others.wide / 2),
      E2: between(long - others.wide / 2),
      ...Object.fromEntries(
        Array.from({ length: across }, (_, i) => [`M${i + 1}`, between((long * (i + 1)) / (across + 1))]),
      ),
    },
    [
      { ...rail, id: "S1" },
      { ...cross, id: "S2" },
    ],
  );
}

/** Rectangular tube, so wide as it lies and so high. */
export const flatTube = (wideMm: number, highMm: number, wallMm = 3, id = "S1"): DrawnSection => ({
  ...squareTube(wideMm, wallMm, id),
  height: length(String(highMm)),
});

/** The same frame as somebody draws it who is out by up to so much everywhere, mm. @param random from 0 to 1. */
export function inexactly(frame: DrawnFrame, outMm: number, random: () => number): DrawnFrame {
  const near = (p: DrawnFrame["members"][number]["from"]) => {
    const off = (v: { mm: number }) => statedExactly(v.mm + outMm * (2 * random() - 1), "mm");
    return { x: off(p.x), y: off(p.y), z: off(p.z) };
  };
  return { ...frame, members: frame.members.map((m) => ({ ...m, from: near(m.from), to: near(m.to) })) };
}

/** The same frame as somebody else draws it: its members in any order, each from either end. @param random from 0 to 1. */
export function drawnAnyhow(frame: DrawnFrame, random: () => number): DrawnFrame {
  const members = frame.members
    .map((m) => ({ m: random() < 0.5 ? m : { ...m, from: m.to, to: m.from }, place: random() }))
    .sort((p, q) => p.place - q.place)
    .map(({ m }) => m);
  return { ...frame, members };
}

/** A frame without one of its members. */
export const without = (frame: DrawnFrame, id: string): DrawnFrame => ({
  ...frame,
  members: frame.members.filter((m) => m.id !== id),
});

/** Posts P at places, mm, with rails R from post to post at some heights: what lands on them runs round, and they stand on the floor. */
export const table = (
  at: readonly (readonly [number, number])[],
  rails: readonly (readonly [number, number])[],
  {
    highMm = 800,
    levelsMm = [780],
    sections = [squareTube()],
  }: {
    highMm?: number;
    levelsMm?: readonly number[];
    sections?: DrawnSection[];
  } = {},
): DrawnFrame =>
  drawn(
    Object.fromEntries([
      ...at.map(([x, y], i) => [`P${i + 1}`, [[x, y, 0] as Vec3, [x, y, highMm] as Vec3]]),
      ...levelsMm.flatMap((z, level) =>
        rails.map(([p, q], i) => [
          `R${level * rails.length + i + 1}`,
          [
            [...(at[p] as [number, number]), z] as Vec3,
            [...(at[q] as [number, number]), z] as Vec3,
            sections.at(-1)?.id,
          ],
        ]),
      ),
    ]),
    sections,
  );

/** Four posts at the corners of a rectangle, with rails round them at some heights, mm. */
export const onPosts = (
  longMm: number,
  wideMm: number,
  levelsMm: readonly number[],
  sections?: DrawnSection[],
): DrawnFrame =>
  table(
    [
      [0, 0],
      [longMm, 0],
      [longMm, wideMm],
      [0, wideMm],
    ],
    [
      [0, 1],
      [1, 2],
      [2, 3],
      [3, 0],
    ],
    { levelsMm, ...(sections ? { sections } : {}) },
  );

/** Three posts of round tube round a middle, so far from it, with rails round them above and below, mm. */
export const stool = (radiusMm: number, highMm: number): DrawnFrame =>
  table(
    aroundMiddle([radiusMm, radiusMm, radiusMm]).map(([x, y]) => [x, y] as const),
    [
      [0, 1],
      [1, 2],
      [2, 0],
    ],
    { highMm: highMm + 20, levelsMm: [150, highMm], sections: [roundTube(38, 2)] },
  );

/** Frames without corners: closed and open, standing and lying, round and square tube, thick and thin. */
export const FREE_FRAMES = {
  drawbar: started("A-shaped drawbar", {}, squareTube(60, 4)),
  rack: started("rack", { uprights: 5 }),
  "stand open behind": without(started("stand", { shelves: 1 }), "CD"),
  "six posts": table(
    [
      [0, 0],
      [900, 0],
      [1800, 0],
      [0, 600],
      [900, 600],
      [1800, 600],
    ],
    [
      [0, 1],
      [1, 2],
      [3, 4],
      [4, 5],
      [0, 3],
      [1, 4],
      [2, 5],
    ],
  ),
  stool: stool(300, 480),
  "rails with a kink": started("rails with a kink"),
  foot: drawn(
    {
      A: [
        [0, 0, 0],
        [560, 0, 0],
      ],
      B: [
        [0, 0, 0],
        [0, 380, 0],
      ],
      C: [
        [560, 0, 0],
        [560, 380, 0],
      ],
    },
    [squareTube(25, 1.6)],
  ),
  hoop: drawn(
    {
      X1: [
        [0, 0, 0],
        [900, 0, 0],
      ],
      P1: [
        [150, 0, 0],
        [150, 700, 0],
      ],
      P2: [
        [750, 0, 0],
        [750, 700, 0],
      ],
      TOP: [
        [150, 700, 0],
        [750, 700, 0],
      ],
    },
    [roundTube(38, 2)],
  ),
  "three sides": ring(aroundMiddle([500, 500, 500])),
  "six sides": ring(aroundMiddle([400, 400, 430, 400, 400, 430]), squareTube(30, 2)),
  // The ties go on from its inner corner.
  "an L": drawn({
    S1: [
      [0, 0, 0],
      [1600, 0, 0],
    ],
    S2: [
      [1600, 0, 0],
      [1600, 600, 0],
    ],
    S3: [
      [1600, 600, 0],
      [700, 600, 0],
    ],
    S4: [
      [700, 600, 0],
      [700, 1400, 0],
    ],
    S5: [
      [700, 1400, 0],
      [0, 1400, 0],
    ],
    S6: [
      [0, 1400, 0],
      [0, 0, 0],
    ],
    T1: [
      [20, 600, 0],
      [680, 600, 0],
    ],
    T2: [
      [1150, 20, 0],
      [1150, 580, 0],
    ],
  }),
} as const satisfies Record<string, DrawnFrame>;

/** Frames whose legs lean in beyond what holds them: two rails with the feet free, and one rail in the middle. */
/** A ring that lies, so long and wide on its centre lines, with what is drawn besides. */
/** A deck with members besides; the first section is the deck's. */
export const deckWith = (
  [lengthMm, widthMm]: readonly [number, number],
  more: Parameters<typeof drawn>[0],
  ...sections: DrawnSection[]
): DrawnFrame =>
  drawn(
    {
      L: [
        [0, 0, 0],
        [lengthMm, 0, 0],
      ],
      R: [
        [0, widthMm, 0],
        [lengthMm, widthMm, 0],
      ],
      E1: [
        [0, 0, 0],
        [0, widthMm, 0],
      ],
      E2: [
        [lengthMm, 0, 0],
        [lengthMm, widthMm, 0],
      ],
      ...more,
    },
    sections.length > 0 ? sections : undefined,
  );

/** A deck with one tube that stands out from the middle of its end, so far from its centre line. */
export const deckWithPole = (poleMm: number, deckMm: readonly [number, number] = [1500, 900]): DrawnFrame => {
  const [x, y] = [deckMm[0], deckMm[1] / 2];
  return deckWith(deckMm, {
    P: [
      [x, y, 0],
      [x + poleMm, y, 0],
    ],
  });
};

/** Frames with corners of which something lies well beyond them, and what that is called. */
export const FRAMES_THAT_REACH_BEYOND: Record<string, { frame: DrawnFrame; beyond: string[] }> = {
  "a pole": { frame: deckWithPole(800), beyond: ["PE"] },
  "an A-shaped drawbar": {
    frame: deckWith(
      [2400, 1200],
      {
        P: [
          [2400, 600, 0],
          [3600, 600, 0],
        ],
        A1: [
          [2400, 150, 0],
          [3300, 600, 0],
        ],
        A2: [
          [2400, 1050, 0],
          [3300, 600, 0],
        ],
      },
      squareTube(60, 4),
    ),
    beyond: ["PE"],
  },
  forks: {
    frame: deckWith(
      [1200, 800],
      {
        F1: [
          [1200, 200, 0],
          [1700, 200, 0],
        ],
        F2: [
          [1200, 600, 0],
          [1700, 600, 0],
        ],
      },
      squareTube(50, 3),
    ),
    beyond: ["F1E", "F2E"],
  },
  "a smaller bay": {
    frame: deckWith([1800, 900], {
      B1: [
        [1800, 150, 0],
        [2400, 150, 0],
      ],
      B2: [
        [1800, 750, 0],
        [2400, 750, 0],
      ],
      B3: [
        [2400, 150, 0],
        [2400, 750, 0],
      ],
    }),
    beyond: ["B3B1", "B3B2"],
  },
};

export const LEANING_FRAMES = {
  "side of a stand": drawn({
    L1: [
      [0, 0, 0],
      [0, 900, 0],
    ],
    L2: [
      [760, 0, 0],
      [760, 900, 0],
    ],
    R1: [
      [20, 860, 0],
      [740, 860, 0],
    ],
    R2: [
      [20, 250, 0],
      [740, 250, 0],
    ],
  }),
  "an H": drawn({
    L1: [
      [0, 0, 0],
      [0, 900, 0],
    ],
    L2: [
      [600, 0, 0],
      [600, 900, 0],
    ],
    R1: [
      [20, 450, 0],
      [580, 450, 0],
    ],
  }),
} as const satisfies Record<string, DrawnFrame>;

/** A deck that lies upside down or the right way up, with a leg at each corner, its foot so far out from under it. */
export const tableWith = (
  legMm: number,
  outMm: number,
  [long, wide]: readonly [number, number] = [1200, 700],
  ...sections: DrawnSection[]
): DrawnFrame => {
  const leg = (x: number, y: number): [Vec3, Vec3] => [
    [x, y, 0],
    [x + Math.sign(x - long / 2) * outMm, y + Math.sign(y - wide / 2) * outMm, legMm],
  ];
  const legs = { G1: leg(0, 0), G2: leg(long, 0), G3: leg(long, wide), G4: leg(0, wide) };
  return deckWith([long, wide], legs, ...sections);
};

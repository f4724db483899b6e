import type { Vec3 } from "../numeric";
import { fail, ok, plainLength, type Result, rangeWords, type UnitPreference } from "../units";
import type { DrawnFrame, DrawnMember, DrawnSection } from "./drawnSchema";
import { butted, emptyFrame, member, rectangleMembers } from "./drawnStart";
import { shapeOf } from "./placing";
import { sectionSize } from "./sectionOutline";

/**
 * One thing that a starter asks for. Lengths in mm; a count is a whole number; a choice is one of its words. A length that lies along another
 * one is usually the same share of it.
 */
export type StarterField =
  | { key: string; label: string; kind: "length"; usualMm: number; from: number; to: number; along?: string }
  | { key: string; label: string; kind: "count"; usual: number; from: number; to: number }
  | { key: string; label: string; kind: "angle"; usual: number; from: number; to: number }
  | { key: string; label: string; kind: "choice"; words: readonly string[]; usual: string };

export type StarterValues = Record<string, number | string>;

/** A frame that many people build, from a handful of sizes. */
export interface Starter {
  name: string;
  says: string;
  fields: readonly StarterField[];
  build: (v: StarterValues, section: DrawnSection, units: UnitPreference) => Result<DrawnFrame>;
}

const len = (key: string, label: string, usualMm: number, from = 60, to = 20_000) => ({
  key,
  label,
  kind: "length" as const,
  usualMm,
  from,
  to,
});
const count = (key: string, label: string, usual: number, from: number, to: number): StarterField => ({
  key,
  label,
  kind: "count",
  usual,
  from,
  to,
});
const choice = (key: string, label: string, words: readonly [string, ...string[]]): StarterField => ({
  key,
  label,
  kind: "choice",
  words,
  usual: words[0],
});
const angle = (key: string, label: string, usual: number, from: number, to: number): StarterField => ({
  key,
  label,
  kind: "angle",
  usual,
  from,
  to,
});

const num = (v: StarterValues, key: string): number => Number(v[key]);
const sizeOf = (s: DrawnSection) => sectionSize(shapeOf(s));

/** Centres of n bars with equal clear gaps between each other and what stands at both ends. */
function equalGaps(n: number, insideMm: number, barMm: number, units: UnitPreference): Result<number[]> {
  const gap = (insideMm - n * barMm) / (n + 1);
  if (gap < 5)
    return fail(
      `${n} of ${plainLength(barMm, units)} leave no gap in ${plainLength(Math.round(insideMm), units)}: take fewer.`,
    );
  return ok(Array.from({ length: n }, (_, i) => gap + barMm / 2 + i * (gap + barMm)));
}

const RECTANGLE_FIELDS = [len("length", "Length, AB", 1200), len("width", "Width, BC", 800)] as const;
const SECOND = ["E", "F", "G", "H"] as const;
const FIRST = ["A", "B", "C", "D"] as const;

const base = (v: StarterValues, s: DrawnSection, units: UnitPreference, zMm = sizeOf(s).heightMm / 2) =>
  rectangleMembers(
    { lengthMm: num(v, "length"), widthMm: num(v, "width"), faceMm: sizeOf(s).widthMm, zMm },
    FIRST,
    s.id,
    units,
  );

const opening = (v: StarterValues, s: DrawnSection): string | null => {
  const w = sizeOf(s).widthMm;
  return Math.min(num(v, "length"), num(v, "width")) > 2.5 * w
    ? null
    : "The tubes leave no opening: take a longer side or a smaller tube.";
};

const free = (s: DrawnSection, members: DrawnMember[], more: Partial<DrawnFrame> = {}): Result<DrawnFrame> =>
  ok({ ...emptyFrame(s), members, ...more });

/** A member on the other side of one like it: a section that is one-sided is laid end for end, so that both are a pair. */
const otherHand = (id: string, from: Vec3, to: Vec3, s: DrawnSection, units: UnitPreference): DrawnMember =>
  s.shape === "angle" || s.shape === "channel" ? member(id, to, from, s.id, units) : member(id, from, to, s.id, units);

/** Rise of a slope from how it was typed: rise over a run, an angle, or two heights measured from a string. */
const RISE_WORDS = ["rise over the run", "angle", "two heights from a string"] as const;
function riseOf(how: string, runMm: number, v: StarterValues): number {
  if (how === RISE_WORDS[1]) return runMm * Math.tan((num(v, "angle") * Math.PI) / 180);
  if (how === RISE_WORDS[2]) return num(v, "heightEnd") - num(v, "heightStart");
  return num(v, "rise");
}

/** How a frame with a top is drawn: as it lies on the bed while it is welded, or as it stands then. */
const WAYS = ["upside down, as it is welded", "on its feet"] as const;

/** A starter that begins with a rectangle: it needs an opening. */
const around =
  (build: Starter["build"]): Starter["build"] =>
  (v, s, units) => {
    const none = opening(v, s);
    return none ? fail(none) : build(v, s, units);
  };

export const STARTERS: readonly Starter[] = [
  {
    name: "rectangle",
    says: "Four sides, mitred or butted.",
    fields: [...RECTANGLE_FIELDS, choice("corners", "Corners", ["mitred", "butted"])],
    build: around((v, s, units) => {
      const sides = base(v, s, units);
      return free(s, sides, { joints: v.corners === "butted" ? butted(sides) : [] });
    }),
  },
  {
    name: "ladder",
    says: "A rectangle with rungs at equal gaps.",
    fields: [...RECTANGLE_FIELDS, count("rungs", "Rungs", 4, 1, 60)],
    build: around((v, s, units) => {
      const { widthMm: w, heightMm } = sizeOf(s);
      const at = equalGaps(num(v, "rungs"), num(v, "length") - 2 * w, w, units);
      if (!at.ok) return at;
      const z = heightMm / 2;
      const rungs = at.value.map((x, i) =>
        member(`M${i + 1}`, [w + x, w / 2, z], [w + x, num(v, "width") - w / 2, z], s.id, units),
      );
      return free(s, [...base(v, s, units), ...rungs]);
    }),
  },
  {
    name: "gate leaf",
    says: "A frame with a rail across and a brace up from the hinge side's foot, drawn lying on the bed.",
    fields: [
      len("length", "Width of the leaf, AB", 1000),
      len("width", "Height of the leaf, BC", 1800),
      { ...len("rail", "Middle of the rail above the foot", 900), along: "width" },
      choice("hinge", "Hinges at", ["DA", "BC"]),
      choice("brace", "Brace", ["below the rail", "above the rail", "none"]),
    ],
    build: around((v, s, units) => {
      const { widthMm: w, heightMm } = sizeOf(s);
      const [L, H, rail, z] = [num(v, "length"), num(v, "width"), num(v, "rail"), heightMm / 2];
      if (rail < 2 * w || rail > H - 2 * w) return fail("The rail runs into the head or the foot of the leaf.");
      const members = [...base(v, s, units), member("M1", [w / 2, rail, z], [L - w / 2, rail, z], s.id, units)];
      if (v.brace !== "none") {
        const [low, high] = v.brace === "below the rail" ? [w / 2, rail] : [rail, H - w / 2];
        const [foot, head] = v.hinge === "DA" ? [w / 2, L - w / 2] : [L - w / 2, w / 2];
        members.push(member("X1", [foot, low, z], [head, high, z], s.id, units));
      }
      return free(s, members);
    }),
  },
  {
    name: "rails with a kink",
    says: "Two rails, straight and then drawn in and up, with members across.",
    fields: [
      len("straight", "Straight part", 2000),
      len("run", "Run of the drawn part", 900),
      len("wide", "Outside width of the straight part", 900),
      len("narrow", "Outside width at the far end", 600),
      choice("how", "Rise given as", RISE_WORDS),
      len("rise", "Rise", 120, -3000, 3000),
      angle("angle", "Angle up", 7.6, -60, 60),
      len("heightStart", "String to rail, at the kink", 400, 0, 5000),
      len("heightEnd", "String to rail, at the far end", 520, 0, 5000),
      count("across", "Members across the straight part", 2, 1, 20),
    ],
    build: (v, s, units) => {
      const { widthMm: w, heightMm } = sizeOf(s);
      const [L, run, z] = [num(v, "straight"), num(v, "run"), heightMm / 2];
      const rise = riseOf(String(v.how), run, v);
      const [wide, narrow] = [num(v, "wide"), num(v, "narrow")];
      if (Math.min(wide, narrow) < 3 * w) return fail("The rails leave no room between them.");
      const at = equalGaps(num(v, "across"), L, w, units);
      if (!at.ok) return at;
      const mid = wide / 2;
      const [a, b] = [mid - wide / 2 + w / 2, mid + wide / 2 - w / 2];
      const [c, d] = [mid - narrow / 2 + w / 2, mid + narrow / 2 - w / 2];
      const rails = [
        member("RH1", [0, a, z], [L, a, z], s.id, units),
        member("RH2", [L, a, z], [L + run, c, z + rise], s.id, units),
        otherHand("LH1", [0, b, z], [L, b, z], s, units),
        otherHand("LH2", [L, b, z], [L + run, d, z + rise], s, units),
      ];
      const across = at.value.map((x, i) => member(`M${i + 1}`, [x, a, z], [x, b, z], s.id, units));
      const head = member(`M${across.length + 1}`, [L + run, c, z + rise], [L + run, d, z + rise], s.id, units);
      return free(s, [...rails, ...across, head], { pairs: [{ left: ["LH1", "LH2"], right: ["RH1", "RH2"] }] });
    },
  },
  {
    name: "A-shaped drawbar",
    says: "Two arms that come together on a nose tube, a member behind and a stay across.",
    fields: [
      len("back", "Outside width behind", 1200),
      len("reach", "From the back member to the nose", 1500),
      len("nose", "Length of the nose tube", 400),
      len("stay", "Stay, forward of the back member", 600),
      choice("supports", "Angled supports", ["none", "from the back member to the stay"]),
    ],
    build: (v, s, units) => {
      const { widthMm: w, heightMm } = sizeOf(s);
      const [W, reach, nose, stay, z] = [num(v, "back"), num(v, "reach"), num(v, "nose"), num(v, "stay"), heightMm / 2];
      if (nose > reach - 2 * w) return fail("The nose tube is longer than the arms reach.");
      if (stay > reach - nose - 2 * w || stay < 2 * w)
        return fail("The stay does not lie between the back member and the nose.");
      const y = W / 2;
      const tip: Vec3 = [reach - nose / 2, y, z];
      const foot = (side: number): Vec3 => [w / 2, y + side * (W / 2 - 1.2 * w), z];
      const on = (side: number, x: number): Vec3 => {
        const f = foot(side);
        const t = (x - f[0]) / (tip[0] - f[0]);
        return [x, f[1] + t * (tip[1] - f[1]), z];
      };
      return free(
        s,
        [
          member("B1", [w / 2, 0, z], [w / 2, W, z], s.id, units),
          member("N1", [reach - nose, y, z], [reach, y, z], s.id, units),
          member("RH", foot(-1), tip, s.id, units),
          otherHand("LH", foot(1), tip, s, units),
          member("M1", on(-1, stay), on(1, stay), s.id, units),
          ...(v.supports === "none"
            ? []
            : [
                member("X1", [w / 2, y - 0.6 * w, z], [stay, on(-1, stay)[1] + 1.5 * w, z], s.id, units),
                otherHand("X2", [w / 2, y + 0.6 * w, z], [stay, on(1, stay)[1] - 1.5 * w, z], s, units),
              ]),
        ],
        {
          pairs: [{ left: ["LH"], right: ["RH"] }, ...(v.supports === "none" ? [] : [{ left: ["X2"], right: ["X1"] }])],
        },
      );
    },
  },
  {
    name: "table base",
    says: "Four legs, rails under the top, stretchers below.",
    fields: [
      ...RECTANGLE_FIELDS,
      len("height", "Height", 720),
      choice("stretchers", "Stretchers", ["H", "all round", "none"]),
      len("low", "Stretchers, middle above the floor", 150),
      choice("way", "Drawn", WAYS),
    ],
    build: around((v, s, units) => {
      const { widthMm: w, heightMm: h } = sizeOf(s);
      const [L, W, H, low] = [num(v, "length"), num(v, "width"), num(v, "height"), num(v, "low")];
      if (low > H - 2 * h || low < h / 2) return fail("The stretchers lie outside the legs.");
      // Upside down the rails lie on the bed, and the legs stand on them.
      const z = (aboveFloor: number): number => (v.way === WAYS[0] ? H - aboveFloor : aboveFloor);
      const rails = base(v, s, units, z(H - h / 2));
      const [a, b, c, d]: [number, number, number, number] = [w / 2, L - w / 2, w / 2, W - w / 2];
      const feet: [number, number][] = [
        [a, c],
        [b, c],
        [b, d],
        [a, d],
      ];
      const legs = feet.map(([x, y], i) => member(`L${i + 1}`, [x, y, z(0)], [x, y, z(H - h)], s.id, units));
      const stretch =
        v.stretchers === "none"
          ? []
          : v.stretchers === "H"
            ? [
                member("T1", [a, c, z(low)], [a, d, z(low)], s.id, units),
                member("T2", [b, c, z(low)], [b, d, z(low)], s.id, units),
                member("T3", [a, W / 2, z(low)], [b, W / 2, z(low)], s.id, units),
              ]
            : feet.map(([x, y], i) => {
                const [x2, y2] = feet[(i + 1) % 4] as [number, number];
                return member(`T${i + 1}`, [x, y, z(low)], [x2, y2, z(low)], s.id, units);
              });
      return free(s, [...rails, ...legs, ...stretch]);
    }),
  },
  {
    name: "stand",
    says: "Legs run through from floor to top, with a ring of rails for each shelf.",
    fields: [...RECTANGLE_FIELDS, len("height", "Height", 1400), count("shelves", "Rings of rails", 3, 1, 8)],
    build: around((v, s, units) => {
      const { widthMm: w, heightMm: h } = sizeOf(s);
      const [L, W, H, n] = [num(v, "length"), num(v, "width"), num(v, "height"), num(v, "shelves")];
      const lowest = Math.min(120, H / 4) + h / 2;
      if (n > 1 && (H - h / 2 - lowest) / (n - 1) < 2 * h) return fail("So many rings do not fit into the height.");
      const feet: [number, number][] = [
        [w / 2, w / 2],
        [L - w / 2, w / 2],
        [L - w / 2, W - w / 2],
        [w / 2, W - w / 2],
      ];
      const legs = feet.map(([x, y], i) => member(`L${i + 1}`, [x, y, 0], [x, y, H], s.id, units));
      const names = "AEJNRVYC".split("");
      const rings = Array.from({ length: n }, (_, k) => {
        const z = n === 1 ? H - h / 2 : H - h / 2 - (k * (H - h / 2 - lowest)) / (n - 1);
        return feet.map(([x, y], i) => {
          const [x2, y2] = feet[(i + 1) % 4] as [number, number];
          return member(
            k === 0 ? `${FIRST[i]}${FIRST[(i + 1) % 4]}` : `${names[k]}${i + 1}`,
            [x, y, z],
            [x2, y2, z],
            s.id,
            units,
          );
        });
      });
      return free(s, [...legs, ...rings.flat()]);
    }),
  },
  {
    name: "rack",
    says: "A rail with uprights at equal gaps, centred on it, and a second rail on top if wanted.",
    fields: [
      len("length", "Rail", 2000),
      len("height", "Height over all", 900),
      count("uprights", "Uprights", 6, 2, 80),
      len("margin", "Rail's end to the first upright's face", 100, 0, 5000),
      choice("top", "Top rail", ["yes", "no"]),
    ],
    build: (v, s, units) => {
      const { widthMm: w, heightMm: h } = sizeOf(s);
      const [L, H, n, margin] = [num(v, "length"), num(v, "height"), num(v, "uprights"), num(v, "margin")];
      const inside = L - 2 * margin;
      const gap = (inside - n * w) / (n - 1);
      if (gap < 5)
        return fail(
          `${n} uprights do not fit between the margins: the gap would be ${plainLength(Math.round(gap), units)}.`,
        );
      if (H < 3 * h) return fail("The rails leave no room for an upright.");
      const uprights = Array.from({ length: n }, (_, i) => {
        const x = margin + w / 2 + i * (w + gap);
        return member(`U${i + 1}`, [x, 0, h / 2], [x, 0, v.top === "yes" ? H - h / 2 : H], s.id, units);
      });
      return free(s, [
        member("RAIL", [0, 0, h / 2], [L, 0, h / 2], s.id, units),
        ...(v.top === "yes" ? [member("TOP", [0, 0, H - h / 2], [L, 0, H - h / 2], s.id, units)] : []),
        ...uprights,
      ]);
    },
  },
  {
    name: "two frames stacked",
    says: "A second rectangle laid on the first, set in by as much as is typed.",
    fields: [
      ...RECTANGLE_FIELDS,
      len("in", "Second frame set in by", 0, 0, 5000),
      count("rungs", "Rungs in the lower", 1, 0, 40),
    ],
    build: around((v, s, units) => {
      const { widthMm: w, heightMm: h } = sizeOf(s);
      const [L, W, inset] = [num(v, "length"), num(v, "width"), num(v, "in")];
      if (Math.min(L, W) - 2 * inset < 3 * w) return fail("Set in so far, the second frame has no opening.");
      const second = rectangleMembers(
        { lengthMm: L - 2 * inset, widthMm: W - 2 * inset, faceMm: w, zMm: 1.5 * h, xMm: inset, yMm: inset },
        SECOND,
        s.id,
        units,
      );
      const at = num(v, "rungs") === 0 ? ok([]) : equalGaps(num(v, "rungs"), L - 2 * w, w, units);
      if (!at.ok) return at;
      const rungs = at.value.map((x, i) =>
        member(`M${i + 1}`, [w + x, w / 2, h / 2], [w + x, W - w / 2, h / 2], s.id, units),
      );
      return free(s, [...base(v, s, units), ...rungs, ...second], {
        groups: [
          {
            id: "U1",
            name: "lower frame",
            members: [...FIRST.map((c, i) => `${c}${FIRST[(i + 1) % 4]}`), ...rungs.map((r) => r.id)],
          },
          { id: "U2", name: "upper frame", members: second.map((m) => m.id) },
        ],
      });
    }),
  },
];

/** What is wrong with what was typed for a starter, by field; empty when it can be built. */
export function starterProblems(
  starter: Starter,
  v: StarterValues,
  units: UnitPreference = "mm",
): { key: string; message: string }[] {
  return starter.fields.flatMap((f) => {
    if (f.kind === "choice") return [];
    const x = num(v, f.key);
    if (!Number.isFinite(x)) return [{ key: f.key, message: `${f.label}: nothing usable typed.` }];
    if (f.kind === "count" && !Number.isInteger(x)) return [{ key: f.key, message: `${f.label}: a whole number.` }];
    return x < f.from || x > f.to
      ? [
          {
            key: f.key,
            message: `${f.label}: ${f.kind === "length" ? rangeWords(f.from, f.to, units) : `${f.from} to ${f.to}`}.`,
          },
        ]
      : [];
  });
}

/** A usual length in the system that one works in: whole inches, halves under six. */
function usualLength(mm: number, units: UnitPreference): number {
  if (units === "mm") return mm;
  const inches = mm / 25.4;
  return 25.4 * (Math.abs(inches) < 6 ? Math.round(2 * inches) / 2 : Math.round(inches));
}

/** What is usual, the sizes of the frame that were typed already put in. */
function valuesOf(starter: Starter, units: UnitPreference, typed: Readonly<Record<string, number>>): StarterValues {
  const lengths = new Map(starter.fields.flatMap((f) => (f.kind === "length" ? [[f.key, f] as const] : [])));
  return Object.fromEntries(
    starter.fields.map((f) => {
      if (f.kind !== "length") return [f.key, f.usual];
      const whole = f.along === undefined ? undefined : lengths.get(f.along);
      const share = whole ? (typed[whole.key] ?? whole.usualMm) / whole.usualMm : 1;
      return [f.key, typed[f.key] ?? usualLength(share * f.usualMm, units)];
    }),
  );
}

/**
 * The values of a starter to begin with: what was typed of the frame already where that builds something, else what is usual.
 * @param typed length and width, mm.
 */
export function usualValues(
  starter: Starter,
  units: UnitPreference = "mm",
  typed: Readonly<Record<string, number>> = {},
  section?: DrawnSection,
): StarterValues {
  const own = valuesOf(starter, units, typed);
  const builds =
    starterProblems(starter, own, units).length === 0 && (!section || starter.build(own, section, units).ok);
  return builds ? own : valuesOf(starter, units, {});
}

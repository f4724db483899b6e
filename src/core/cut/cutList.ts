import { MATERIALS, middleOf, type Structure, type StructureMember, TOLERANCES } from "../frame";
import { dot3, entry, sub3 } from "../numeric";
import type { Estimate, UnitPreference } from "../units";
import { type PieceEnd, pieceEnd, type SawScale } from "./pieceEnds";

/** Lengths are compared to this; slopes and angles to a thousandth. */
const SAME_MM = TOLERANCES.samePieceMm;

/** A cut in the piece's own axes: place along it from its middle, slopes across; or the axis of a round that it fits. */
interface LocalCut {
  end: "from" | "to";
  kind: "plane" | "cylinder";
  at: number;
  y: number;
  z: number;
  /** Of a round: direction and place of its axis. */
  more: number[];
}

function localCuts(m: StructureMember): LocalCut[] {
  const middle = middleOf(m);
  const local = (v: readonly [number, number, number]) => m.axes.map((d) => dot3(d, v)) as [number, number, number];
  return (["from", "to"] as const).flatMap((end) =>
    m.ends[end].cutters.map((c): LocalCut => {
      const p = local(sub3(c.point, middle));
      if (c.kind === "plane") {
        const n = local(c.normal);
        return { end, kind: "plane", at: dot3(p, n) / n[0], y: -n[1] / n[0], z: -n[2] / n[0], more: [] };
      }
      const a = local(c.axis);
      // Point of the axis nearest to the piece's middle.
      const k = dot3(p, a);
      return {
        end,
        kind: "cylinder",
        at: p[0] - k * a[0],
        y: p[1] - k * a[1],
        z: p[2] - k * a[2],
        more: upward(a, c.radiusMm),
      };
    }),
  );
}

type Turn = (c: LocalCut) => LocalCut;
const other = (end: "from" | "to") => (end === "from" ? ("to" as const) : ("from" as const));
/** Signs along, across, up: slopes and places follow them. */
const signs =
  (x: 1 | -1, y: 1 | -1, z: 1 | -1): Turn =>
  (c) => ({
    ...c,
    end: x === 1 ? c.end : other(c.end),
    at: x * c.at,
    y: c.kind === "plane" ? x * y * c.y : y * c.y,
    z: c.kind === "plane" ? x * z * c.z : z * c.z,
    more:
      c.more.length === 0
        ? []
        : upward([x * entry(c.more, 0), y * entry(c.more, 1), z * entry(c.more, 2)], entry(c.more, 3)),
  });
const quarter: Turn = (c) => ({
  ...c,
  y: -c.z,
  z: c.y,
  more: c.more.length === 0 ? [] : upward([entry(c.more, 0), -entry(c.more, 2), entry(c.more, 1)], entry(c.more, 3)),
});

/** Direction and radius of a round, the same whichever way its axis runs. */
function upward([x, y, z]: [number, number, number], radius: number): number[] {
  const s = y + z * 1e-3 < -1e-12 || (Math.abs(y) < 1e-9 && Math.abs(z) < 1e-9 && x < 0) ? -1 : 1;
  return [s * x, s * y, s * z, radius];
}

/** Ways to turn a piece that leave its section as it is. */
function turnsOf(m: StructureMember): Turn[] {
  const base: Turn[] = [(c) => c];
  const ends = signs(-1, -1, 1);
  switch (m.shape.shape) {
    case "angle":
      return base;
    case "channel":
      // Web up and flanges to one side: end for end about its width.
      return [...base, signs(-1, 1, -1)];
    default: {
      const half = signs(1, -1, -1);
      const turns = [...base, half, ends, (c: LocalCut) => ends(half(c))];
      const square = Math.abs(m.properties.widthMm - m.properties.heightMm) < SAME_MM;
      return square
        ? [
            ...turns,
            ...turns.map(
              (t): Turn =>
                (c) =>
                  t(quarter(c)),
            ),
          ]
        : turns;
    }
  }
}

const number = (v: number, step: number): string => (Math.round(v / step) * step + 0).toFixed(3);

function written(cuts: readonly LocalCut[]): string {
  return cuts
    .map((c) =>
      [
        c.end,
        c.kind,
        number(c.at, SAME_MM),
        number(c.y, 1e-3),
        number(c.z, 1e-3),
        ...c.more.map((v) => number(v, 1e-3)),
      ].join(" "),
    )
    .sort()
    .join("|");
}

/** One text for all pieces that can be laid over each other by turning. */
const signature = (m: StructureMember, mirrored: boolean): string => {
  const cuts = localCuts(m).map((c) => (mirrored ? signs(1, -1, 1)(c) : c));
  const own = turnsOf(m).map((t) => written(cuts.map(t)));
  return `${m.section} ${m.seam} ${own.sort()[0]}`;
};

/** One line of the cut list: pieces that can be laid over each other. Nominal lengths and the allowance stand apart. */
export interface CutPiece {
  /** Members that this line makes, for example `AB` and `CD`. */
  members: string[];
  quantity: number;
  longPointMm: number;
  shortPointMm: number;
  centreMm: number;
  /** Added to every length for what the weld takes; null while that is not known: then the lengths to cut are without. */
  allowanceMm: Estimate | null;
  /** Added besides, so that the cold frame is in the middle of its limits. */
  aimMm: number;
  /** The length must not move: nothing is added. */
  fixed: boolean;
  /** Cut to the gap that it goes into, as that was measured; beside it what would be cut without, where that is known. */
  toGap: { gapMm: number; workedOutMm: number | null } | null;
  cutLongPointMm: number;
  cutShortPointMm: number;
  /** Saw setting from a square cut at each end, deg. */
  sawDeg: [number, number];
  /** How the two cuts lie to each other; `other` when they are copes, compound or pointed. */
  cuts: "opposed" | "parallel" | "square" | "one end" | "other";
  /** In words: what to set and which way. */
  ends: string;
  massKg: number;
  section: string;
  material: StructureMember["material"];
  detail: [PieceEnd, PieceEnd];
  /** Its mirror image is another piece: left and right must not be mixed up. Members that are that image, if any. */
  handed: { mirrorOf: string[] } | null;
}

/** How the cuts of both ends lie to each other. */
function lieOf([a, b]: [PieceEnd, PieceEnd]): CutPiece["cuts"] {
  if (a.cope || b.cope || a.cuts.length > 1 || b.cuts.length > 1) return "other";
  const [p, q] = [a.cuts[0], b.cuts[0]];
  if (!p || !q || (p.long === null && q.long === null)) return "square";
  if (p.tiltDeg !== 0 || q.tiltDeg !== 0) return "other";
  if (p.long === null || q.long === null) return "one end";
  const same = dot3(p.long, q.long);
  if (Math.abs(same) < 0.5) return "other";
  // Long points on one edge: the two cuts lean towards each other.
  return same > 0 ? "opposed" : "parallel";
}

const none: Estimate = { value: 0, low: 0, high: 0 };

/** Pieces whose lengths differ by less are cut to one stop, mm: what a tape is read to (own judgement). */
const ONE_STOP_MM = 0.5;

/**
 * Alike pieces in lots that are cut to one stop each: those that are wanted about as long as each other. Sides across from each other stay
 * together, for equal diagonals prove nothing where they differ.
 */
function lots(structure: Structure, alike: readonly StructureMember[], addedTo: (m: StructureMember) => number) {
  const sides = new Set<string>(Object.values(structure.quad?.sides ?? {}));
  const across = alike.filter((m) => sides.has(m.id));
  const mean = across.reduce((sum, m) => sum + addedTo(m), 0) / across.length;
  const out = across.length > 0 ? [{ mm: mean, members: across }] : [];
  for (const m of alike.filter((x) => !sides.has(x.id)).sort((a, b) => addedTo(a) - addedTo(b))) {
    const lot = out.find((l) => Math.abs(addedTo(m) - l.mm) <= ONE_STOP_MM);
    if (lot) lot.members.push(m);
    else out.push({ mm: addedTo(m), members: [m] });
  }
  const inTurn = out.map(({ members }) => alike.filter((m) => members.includes(m)));
  return inTurn.sort(([a], [b]) => alike.indexOf(a as StructureMember) - alike.indexOf(b as StructureMember));
}

/**
 * Cut list of a frame: pieces that can be laid over each other, and are wanted about as long, make one line.
 * @param structure resolved. @param allowances by member, added to its lengths; null while they are not known.
 * @param aimed how much longer than drawn a member shall be. @param fixed members to which nothing is added: they stand apart.
 * @param scale what angles are counted from. @param gaps that members are cut to as they were measured, mm: they stand apart, too.
 */
export function cutList(
  structure: Structure,
  allowances: Readonly<Record<string, Estimate>> | null = null,
  aimed: (m: StructureMember) => number = () => 0,
  fixed: ReadonlySet<string> = new Set(),
  scale: SawScale = "square",
  units: UnitPreference = "mm",
  gaps: ReadonlyMap<string, number> = new Map(),
): CutPiece[] {
  const lines = new Map<string, StructureMember[]>();
  const mirror = new Map<string, string>();
  for (const m of structure.members) {
    const gap = gaps.get(m.id);
    // What is fitted to its own gap is a piece by itself.
    const apart = gap !== undefined ? ` to the gap of ${m.id}` : fixed.has(m.id) ? " fixed" : "";
    const own = `${signature(m, false)}${apart}`;
    lines.set(own, [...(lines.get(own) ?? []), m]);
    mirror.set(own, `${signature(m, true)}${apart}`);
  }
  const workedOut = (m: StructureMember): number => (allowances?.[m.id]?.value ?? 0) + aimed(m);
  const lengthAdded = (m: StructureMember): number => {
    const gap = gaps.get(m.id);
    if (gap !== undefined) return gap - 2 * structure.rootGapMm - m.longMm;
    return fixed.has(m.id) ? 0 : workedOut(m);
  };
  const parts = [...lines].flatMap(([own, alike]) =>
    lots(structure, alike, lengthAdded).map((members) => [own, members] as const),
  );
  return parts.map(([own, members]): CutPiece => {
    const m = members[0] as StructureMember;
    const detail: [PieceEnd, PieceEnd] = [
      pieceEnd(structure, m, "from", scale, units),
      pieceEnd(structure, m, "to", scale, units),
    ];
    const gapMm = gaps.get(m.id);
    const isFixed = gapMm === undefined && fixed.has(m.id);
    const isSaid = isFixed || gapMm !== undefined;
    const all = members.map((x) => (isSaid ? none : (allowances?.[x.id] ?? none)));
    const mean = (k: keyof Estimate): number => all.reduce((s, e) => s + e[k], 0) / all.length;
    const extra = { value: mean("value"), low: mean("low"), high: mean("high") };
    const aimMm = isSaid ? 0 : members.reduce((s, x) => s + aimed(x), 0) / members.length;
    const added = gapMm === undefined ? extra.value + aimMm : lengthAdded(m);
    const cuts = lieOf(detail);
    const image = mirror.get(own) as string;
    const words =
      detail[0].words === detail[1].words && cuts !== "parallel"
        ? `both ends ${detail[0].words}${cuts === "opposed" ? ", opposed" : ""}`
        : `first end ${detail[0].words}; second end ${detail[1].words}${cuts === "parallel" ? "; the two cuts lie parallel" : cuts === "opposed" ? "; opposed" : ""}`;
    const perMm = m.properties.areaMm2 * MATERIALS[m.material].densityKgPerMm3;
    return {
      members: members.map((x) => x.id),
      quantity: members.length,
      longPointMm: m.longMm,
      shortPointMm: m.shortMm,
      centreMm: m.centreMm,
      allowanceMm: allowances || isSaid ? extra : null,
      aimMm,
      fixed: isFixed,
      toGap: gapMm === undefined ? null : { gapMm, workedOutMm: allowances ? m.longMm + workedOut(m) : null },
      cutLongPointMm: m.longMm + added,
      cutShortPointMm: m.shortMm + added,
      sawDeg: [detail[0].cuts[0]?.fromSquareDeg ?? 0, detail[1].cuts[0]?.fromSquareDeg ?? 0],
      cuts,
      ends: words,
      massKg: m.massKg + added * perMm,
      section: m.section,
      material: m.material,
      detail,
      handed: image === own ? null : { mirrorOf: (lines.get(image) ?? []).map((x) => x.id) },
    };
  });
}

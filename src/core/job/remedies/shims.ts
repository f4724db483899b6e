import { GRAVITY_N_PER_KG } from "../../bed";
import { footWedge } from "../../check";
import { MATERIALS, type Structure, seenAt } from "../../frame";
import { hull, SIDES } from "../../geometry";
import { distance, norm3, solveSmall, sub, sub3, type Vec2 } from "../../numeric";
import { placesOf } from "../../square";
import { formatSmall } from "../../units";
import { type ColdContext, LEAST_EFFECT, mostOf, type Offered, outOfPlane, tubeOf } from "./remedy";

/** Minutes, chance to spoil something, scatter: geometry, but for how it settles on its shims. Source: own judgement. */
const SHIMS = { effortMin: 6, risk: 0, cv: 0.02 } as const;

/** A point that a frame stands or lies on, in the horizontal plane, mm. */
interface Foot {
  name: string;
  at: Vec2;
}

/** Outermost points of what lies lowest, named by the place that is nearest. */
export function restingOn(structure: Structure): Foot[] {
  const { nodes, view, origin } = placesOf(structure);
  const ends = structure.members.flatMap((m) => [m.from, m.to]);
  const lowest = Math.min(...ends.map((p) => p[2]));
  const thick = Math.max(...structure.members.map((m) => Math.max(m.properties.widthMm, m.properties.heightMm)));
  const named = new Map<string, Foot>();
  for (const end of ends.filter((p) => p[2] < lowest + thick)) {
    const seen = sub(seenAt(end, view), origin);
    const [nearest] = Object.entries(nodes).sort((a, b) => distance(a[1], seen) - distance(b[1], seen));
    if (nearest && !named.has(nearest[0])) named.set(nearest[0], { name: nearest[0], at: { x: end[0], y: end[1] } });
  }
  const all = [...named.values()];
  const outer = hull(all.map((f) => f.at));
  return all.filter((f) => outer.some((p) => distance(p, f.at) < 1e-6));
}

/** A member along which a slope was read: its way in the horizontal plane, and what was read, mm/m. */
interface Slope {
  key: string;
  way: Vec2;
  value: number;
  u: number;
}

/** A hair that keeps the tilt whole where only one way was read. */
const HAIR = 1e-9;

/** The tilt, mm/m along either axis, that takes most out of all slopes by their uncertainties. Least squares in closed form. */
function levellingTilt(slopes: readonly Slope[]): Vec2 {
  const sum = (of: (s: Slope) => number): number => slopes.reduce((t, s) => t + of(s) / s.u ** 2, 0);
  const [xx, xy, yy] = [sum((s) => s.way.x ** 2), sum((s) => s.way.x * s.way.y), sum((s) => s.way.y ** 2)];
  const most = Math.max(xx, yy);
  const found = solveSmall(
    [
      [xx + HAIR * most, xy],
      [xy, yy + HAIR * most],
    ],
    [-sum((s) => s.way.x * s.value), -sum((s) => s.way.y * s.value)],
  );
  return { x: found?.[0] ?? 0, y: found?.[1] ?? 0 };
}

/** What a twisted frame does on four feet, shims or none; nothing where its twist was not read. */
function twistWords({ structure, quantities, plan }: ColdContext): string[] {
  const { quad, members } = structure;
  const twist = quantities.twist?.value;
  if (!quad || twist === undefined || Math.abs(twist) <= (quantities.twist?.u ?? 0)) return [];
  const [rail, post] = SIDES.map((s) => members.find((m) => m.id === quad.sides[s]));
  const [railTube, postTube] = [tubeOf(rail), tubeOf(post)];
  if (!rail || !post || !railTube || !postTube) return [];
  const plain = {
    lengthMm: norm3(sub3(rail.to, rail.from)),
    heightMm: norm3(sub3(post.to, post.from)),
    rail: outOfPlane(railTube),
    post: outOfPlane(postTube),
  };
  const weightN = structure.massKg * GRAVITY_N_PER_KG;
  const { largestAllTouchMm } = footWedge(plain, MATERIALS[rail.material], weightN, Math.abs(twist));
  const small = (mm: number): string => formatSmall(mm, plan.units, { decimals: plan.units === "mm" ? 1 : 0 });
  const high = twist > 0 ? "A and C" : "B and D";
  return [
    Math.abs(twist) <= largestAllTouchMm
      ? `Shims take no twist out; its own weight presses ${small(Math.abs(twist))} of it down, so that all four feet touch.`
      : `Shims take no twist out: on four feet it rocks by ${small(Math.abs(twist))}. One shim of that under ${high} or the two halved, and all four carry; its weight alone presses down ${small(largestAllTouchMm)}.`,
  ];
}

/** Shims under its feet where it is mounted: they tilt it level, and move nothing else. */
export function shims(context: ColdContext): Offered {
  const { structure, quantities } = context;
  const slopes = structure.members.flatMap((m): Slope[] => {
    const stands = quantities[`level ${m.id}`];
    const along = sub3(m.to, m.from);
    const long = norm3(along);
    return stands && long > 0
      ? [
          {
            key: `level ${m.id}`,
            way: { x: along[0] / long, y: along[1] / long },
            value: stands.value,
            u: stands.u,
          },
        ]
      : [];
  });
  if (slopes.length === 0) return { offers: [], refused: [] };
  const tilt = levellingTilt(slopes);
  const feet = restingOn(structure);
  const rises = feet.map(({ at }) => (tilt.x * at.x + tilt.y * at.y) / 1000);
  const least = Math.min(...rises);
  const mostMm = Math.max(...rises) - least;
  if (!(mostMm > LEAST_EFFECT)) return { offers: [], refused: [] };
  return {
    refused: [],
    offers: [
      {
        id: { do: "shim" },
        counts: "mm",
        push: null,
        places: feet
          .map((f, i) => ({ at: f.name, share: ((rises[i] ?? 0) - least) / mostMm }))
          .sort((a, b) => a.at.localeCompare(b.at)),
        cautions: [
          "Steel shims, not wood, and none where the load stands beside them: lift, slide in, let down; no hand under it.",
          ...twistWords(context),
        ],
        option: {
          ...SHIMS,
          effect: Object.fromEntries(
            slopes.map(({ key, way }) => [key, (tilt.x * way.x + tilt.y * way.y) / mostMm] as const),
          ),
          max: mostOf(mostMm),
        },
      },
    ],
  };
}

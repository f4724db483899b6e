import { cross3, dot3, sub3, unit3, type Vec3 } from "../numeric";
import { type Meeting, type Placed, reach } from "./meeting";

/** How two members that lie along each other are held: pieces of seam of so many mm on either side, at so many places. */
export interface Stitches {
  count: number;
  lengthMm: number;
}

/** Usual pieces are as long as the narrower member is wide, their middles so far apart at most, mm; on a long member farther, so that there are no more than so many (own judgement; shops say 300 to 600). */
const APART_MM = 400;
const MOST = 9;
/** An overlap shorter than so many pieces is held by one in its middle. */
const SHORT = 3;
/** The outer pieces stand so many widths of the wider member from the ends of the overlap: clear of the corners there. */
const SET_IN_WIDTHS = 2;

type Along = Extract<Meeting, { kind: "lap" }> & { alongMm: number };

/** How wide the two are, side by side. */
function widthsOf(m: Placed, n: Placed, { at, atN }: Along): [narrower: number, wider: number] {
  const across = unit3(cross3(m.axes[0], sub3(atN, at)));
  const [a, b] = [2 * reach(m, across), 2 * reach(n, across)];
  return a < b ? [a, b] : [b, a];
}

/**
 * Where two members that lie along each other are joined, from left to right, front to back, bottom to top, whichever was drawn first.
 * @param met how they meet: `at` in the middle of the overlap. @param said how many pieces, how long; what is usual when left out.
 */
export function stitched(
  m: Placed,
  n: Placed,
  met: Along,
  said?: Stitches,
): { at: Vec3; atN: Vec3; lengthMm: number }[] {
  const { alongMm } = met;
  const [narrower, wider] = widthsOf(m, n, met);
  const lengthMm = said?.lengthMm ?? Math.min(narrower, alongMm);
  const between = alongMm - 2 * Math.max(lengthMm / 2, Math.min(SET_IN_WIDTHS * wider, alongMm / 4));
  const usual = alongMm < SHORT * lengthMm ? 1 : Math.min(MOST, 1 + Math.max(1, Math.ceil(between / APART_MM - 1e-9)));
  const count = Math.max(1, Math.round(said?.count ?? usual));
  const u = m.axes[0];
  const main = [0, 1, 2].find((i) => Math.abs(u[i] ?? 0) > 0.5) ?? 0;
  const sign = dot3(u, [Number(main === 0), Number(main === 1), Number(main === 2)]) < 0 ? -1 : 1;
  return Array.from({ length: count }, (_, i) => {
    const s = count === 1 ? 0 : sign * between * (i / (count - 1) - 0.5);
    const move = (p: Vec3): Vec3 => [p[0] + s * u[0], p[1] + s * u[1], p[2] + s * u[2]];
    return { at: move(met.at), atN: move(met.atN), lengthMm };
  });
}

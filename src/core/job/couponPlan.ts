import { emptyFrame, fromRectangle, member, setJoint } from "../frame";
import { length, plainLength, type UnitPreference } from "../units";
import type { Plan } from "./planSchema";

/** Coupons that are small frames: read at the tacked gate and cold like any other. */
export const FRAME_COUPONS = ["square of four", "L corner", "tee", "rail"] as const;
export type FrameCoupon = (typeof FRAME_COUPONS)[number];

/** Sizes that are cut for one, mm or in, in the system that one works in. */
const SIZES = {
  mm: { side: "400", branch: "300", long: "600", rail: "1000", stub: "100" },
  in: { side: "16", branch: "12", long: "24", rail: "40", stub: "4" },
} as const;

/** Stubs along a rail. */
const STUBS = 5;

const HOW: Record<FrameCoupon, string> = {
  "square of four":
    "A coupon: four pieces mitred to a square. Tack it, read four sides, two diagonals and the heights of its corners; weld it in your usual order; read it again when it is cold, and let it teach under Check.",
  "L corner":
    "A coupon: two pieces mitred to a corner. Tack it, read the distance between its two free ends; weld the inside alone; read it again when it is cold, and let it teach under Check.",
  rail: "A coupon: a rail with five stubs along one side. Tack it, lay a straightedge along the side of the rail that is bare and read the gap; weld all round; read it again in the same place when it is cold, and let it teach under Check. It tells most of what bows a rail.",
  tee: "A coupon: a branch on the middle of a piece. Tack it on its first side, read from the branch's free end to both ends of the piece; weld the first side only; read it again when it is cold, and let it teach under Check. It tells most of fillets.",
};

/** The plan of a coupon, of the section that a new job has. */
export function couponPlan(kind: FrameCoupon, plan: Plan): Plan {
  const unit = plan.units === "mm" ? "mm" : "in";
  const { side, branch, long, rail, stub } = SIZES[unit];
  const [a, b, l] = [length(side, unit), length(branch, unit), length(long, unit)];
  const named = { ...plan, name: `Coupon, ${kind}`, purpose: HOW[kind] };
  if (kind === "square of four")
    return { ...named, frame: { by: "sizes", sizes: { ...plan.frame.sizes, length: a, width: a, cross: [] } } };
  const [own] = fromRectangle(plan.frame.sizes, plan.units).sections;
  if (!own) return named;
  const empty = emptyFrame(own);
  const of = own.id;
  const half = plan.frame.sizes.section.depth.mm / 2;
  const at = (x: number, y: number): [number, number, number] => [x, y, half];
  if (kind === "rail") {
    const [longMm, stubMm] = [length(rail, unit).mm, length(stub, unit).mm];
    const stubs = Array.from({ length: STUBS }, (_, i) => {
      const x = (longMm * (i + 1)) / (STUBS + 1);
      return member(`M${i + 2}`, at(x, 0), at(x, stubMm), of, plan.units);
    });
    const members = [member("M1", at(0, 0), at(longMm, 0), of, plan.units), ...stubs];
    return { ...named, frame: { by: "members", sizes: plan.frame.sizes, drawn: { ...empty, members } } };
  }
  const members =
    kind === "L corner"
      ? [member("M1", at(0, 0), at(a.mm, 0), of, plan.units), member("M2", at(a.mm, 0), at(a.mm, a.mm), of, plan.units)]
      : [
          member("M1", at(0, 0), at(l.mm, 0), of, plan.units),
          member("M2", at(l.mm / 2, 0), at(l.mm / 2, b.mm), of, plan.units),
        ];
  // One side alone: welded all round its pulls nearly cancel, and tell nothing.
  const only = kind === "tee" ? "plus" : "inside";
  const lines =
    kind === "tee" ? (["top", "bottom", "plus", "minus"] as const) : (["inside", "outside", "top", "bottom"] as const);
  const faces = lines
    .filter((line) => line !== only)
    .map((line) => ({ line, bead: false, leg: null, care: "none" as const }));
  const drawn = setJoint({ ...empty, members }, "M1", "M2", { faces });
  return { ...named, frame: { by: "members", sizes: plan.frame.sizes, drawn } };
}

/** What one is cut from, in words. */
export const couponCut = (kind: FrameCoupon, units: UnitPreference): string => {
  const unit = units === "mm" ? "mm" : "in";
  const { side, branch, long, rail, stub } = SIZES[unit];
  const words = (text: string): string => plainLength(length(text, unit).mm, units);
  return kind === "square of four"
    ? `four of ${words(side)}`
    : kind === "L corner"
      ? `two of ${words(side)}`
      : kind === "rail"
        ? `one of ${words(rail)}, ${STUBS} of ${words(stub)}`
        : `one of ${words(long)}, one of ${words(branch)}`;
};

import type { CutPiece, PieceEnd } from "@/core/cut";

const end = (which: PieceEnd["end"]): PieceEnd => ({ end: which, cuts: [], cope: null, beside: null, words: "" });

/** A line of the cut list: so many pieces of one length. @param saw angle of both cuts from square, deg. */
export const pieces = (name: string, longMm: number, quantity: number, saw = 0, faceMm = 40): CutPiece => ({
  members: Array.from({ length: quantity }, (_, i) => `${name}${i + 1}`),
  quantity,
  longPointMm: longMm,
  shortPointMm: saw ? longMm - 2 * faceMm : longMm,
  centreMm: saw ? longMm - faceMm : longMm,
  allowanceMm: { value: 0, low: 0, high: 0 },
  aimMm: 0,
  fixed: false,
  toGap: null,
  cutLongPointMm: longMm,
  cutShortPointMm: saw ? longMm - 2 * faceMm : longMm,
  sawDeg: [saw, saw],
  cuts: saw ? "opposed" : "square",
  section: "40×40×3",
  material: "mild steel",
  detail: [end("from"), end("to")],
  handed: null,
  ends: "",
  massKg: 1,
});

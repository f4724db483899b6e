import type { CutPiece } from "@/core/cut";

/** Slant of an end in the picture, as a share of its height: which way it leans and how much. */
function slants(piece: CutPiece): [number, number] {
  const t = (deg: number): number => Math.min(1.2, Math.tan((Math.min(60, Math.abs(deg)) * Math.PI) / 180));
  const [a, b] = [t(piece.sawDeg[0]), t(piece.sawDeg[1])];
  switch (piece.cuts) {
    case "opposed":
      return [a, b];
    case "parallel":
      return [a, -b];
    case "one end":
      return piece.sawDeg[0] === 0 ? [0, b] : [a, 0];
    default:
      return [0, 0];
  }
}

const coped = ({ detail }: CutPiece): [boolean, boolean] => [detail[0].cope !== null, detail[1].cope !== null];
const pointed = ({ detail }: CutPiece): [boolean, boolean] => [detail[0].cuts.length > 1, detail[1].cuts.length > 1];

/** Side view of a piece: which way its two cuts lie. Its long edge is drawn on top. */
export function PiecePicture({
  piece,
  width = 120,
  height = 24,
}: {
  piece: CutPiece;
  width?: number;
  height?: number;
}) {
  const pad = 4;
  const h = height - 2 * pad;
  const [sa, sb] = slants(piece);
  const [ca, cb] = coped(piece);
  const [pa, pb] = pointed(piece);
  const [l, r, top, low] = [pad, width - pad, pad, height - pad];
  // Positive leans in at the bottom, negative at the top.
  const left = pa
    ? `L${l + h / 2} ${low}L${l} ${(top + low) / 2}L${l + h / 2} ${top}`
    : ca
      ? `L${l} ${low}Q${l + h / 2} ${(top + low) / 2} ${l} ${top}`
      : `L${l + Math.max(0, sa) * h} ${low}L${l + Math.max(0, -sa) * h} ${top}`;
  const right = pb
    ? `L${r - h / 2} ${top}L${r} ${(top + low) / 2}L${r - h / 2} ${low}`
    : cb
      ? `L${r} ${top}Q${r - h / 2} ${(top + low) / 2} ${r} ${low}`
      : `L${r - Math.max(0, -sb) * h} ${top}L${r - Math.max(0, sb) * h} ${low}`;
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      width={width}
      height={height}
      aria-hidden="true"
      className="block max-w-full"
    >
      <path
        d={`M${width / 2} ${top}${right}L${width / 2} ${low}${left}Z`}
        fill="var(--tube)"
        stroke="var(--ink)"
        strokeLinejoin="round"
      />
    </svg>
  );
}

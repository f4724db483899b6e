"use client";

/** Where a bubble sits, off the middle: -1 to 1, toward the right. */
interface Vial {
  label: string;
  /** Which end of the level is marked, so that its turning shows. */
  marked: "left" | "right";
  off: number;
}

const W = 300;
const ROW = 58;
const VIAL = { x: 84, w: 132 };

/** A level on its bench, one row for each way it lies: the bubble, and the end of the level that carries its mark. */
export function BubblePicture({ left, right, rows }: { left: string; right: string; rows: readonly Vial[] }) {
  const height = ROW * rows.length + 8;
  const said = rows
    .map(({ label, off }) => `${label}: bubble ${off === 0 ? "in the middle" : `toward ${off > 0 ? right : left}`}`)
    .join("; ");
  return (
    <svg viewBox={`0 0 ${W} ${height}`} width="100%" className="max-w-80" role="img" aria-label={said}>
      {rows.map(({ label, marked, off }, i) => {
        const y = 8 + i * ROW;
        const middle = VIAL.x + VIAL.w / 2;
        return (
          <g key={label}>
            <text x={W / 2} y={y + 6} textAnchor="middle" className="fill-soft text-[11px]">
              {label}
            </text>
            <rect x={40} y={y + 12} width={W - 80} height={22} className="fill-well stroke-ink" />
            <rect x={VIAL.x} y={y + 15} width={VIAL.w} height={16} rx={8} className="fill-brass-soft stroke-edge" />
            {[-14, 14].map((d) => (
              <line
                key={d}
                x1={middle + d}
                x2={middle + d}
                y1={y + 15}
                y2={y + 31}
                className="stroke-ink"
                strokeWidth={1}
              />
            ))}
            <ellipse cx={middle + off * 40} cy={y + 23} rx={13} ry={5.5} className="fill-sheet stroke-brass" />
            <circle cx={marked === "left" ? 52 : W - 52} cy={y + 23} r={5} className="fill-plum" />
            <line x1={4} x2={W - 4} y1={y + 37} y2={y + 37} className="stroke-ink" strokeWidth={2} />
            <text x={4} y={y + 28} className="fig fill-ink text-[12px] font-bold">
              {left}
            </text>
            <text x={W - 4} y={y + 28} textAnchor="end" className="fig fill-ink text-[12px] font-bold">
              {right}
            </text>
          </g>
        );
      })}
    </svg>
  );
}

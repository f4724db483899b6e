/** Figures beside a chart's upright axis. */
export function YTicks({
  ticks,
  y,
  x,
  words,
}: {
  ticks: readonly number[];
  y: (t: number) => number;
  /** Right edge of the figures, px. */
  x: number;
  words: (t: number) => string;
}) {
  return ticks.map((t) => (
    <text
      key={t}
      x={x}
      y={y(t)}
      textAnchor="end"
      dominantBaseline="central"
      fontSize={12}
      fill="var(--ink-soft)"
      className="fig"
    >
      {words(t)}
    </text>
  ));
}

"use client";

import { line, scaleLinear } from "d3";
import { chanceWords, EQUAL, frontier, type OrderOutlook } from "@/core/job";
import { type OrderChoice, orderKey, orderWords, timeWords } from "@/core/plan";
import { useWidth } from "../drawing/useWidth";
import { YTicks } from "../parts/YTicks";

const HEIGHT = 190;
const LEFT = 40;
const BOTTOM = 34;
const MINUTE_S = 60;

/** Chance against time, an order a point: those that no other beats both ways are joined. Choosing one makes it the plan. */
export function OrderChart({
  outlooks,
  current,
  onTake,
}: {
  outlooks: readonly OrderOutlook[];
  current: OrderChoice;
  onTake: (c: OrderChoice) => void;
}) {
  const [ref, width] = useWidth(360);
  const told = outlooks.filter((o): o is OrderOutlook & { chance: number } => o.chance !== null);
  if (told.length < 2) return null;
  const minutes = (o: OrderOutlook): number => o.totalS / MINUTE_S;
  const [quick, slow] = [Math.min(...told.map(minutes)), Math.max(...told.map(minutes))];
  const room = Math.max(5, 0.08 * (slow - quick));
  const x = scaleLinear([quick - room, slow + room], [LEFT, width - 12]);
  const chances = told.map((o) => 100 * o.chance);
  const y = scaleLinear(
    [Math.max(0, Math.min(...chances) - 5), Math.min(100, Math.max(...chances) + 5)],
    [HEIGHT - BOTTOM, 10],
  );
  const best = frontier(told, EQUAL);
  const path = line<(typeof told)[number]>(
    (o) => x(minutes(o)),
    (o) => y(100 * o.chance),
  )(best);
  const planned = orderKey(current);
  return (
    <figure ref={ref} data-testid="order-chart">
      <figcaption className="pb-1 text-sm text-soft">
        Chance in 100 against time, an order a point. Joined: none is both quicker and likelier.
      </figcaption>
      <svg viewBox={`0 0 ${width} ${HEIGHT}`} width="100%">
        <title>Chance that every limit is kept against the time that an order takes</title>
        {y.ticks(4).map((t) => (
          <line key={t} x1={LEFT} x2={width - 12} y1={y(t)} y2={y(t)} stroke="var(--line)" />
        ))}
        <YTicks ticks={y.ticks(4)} y={y} x={LEFT - 8} words={String} />
        {x.ticks(4).map((t) => (
          <text
            key={t}
            x={x(t)}
            y={HEIGHT - 12}
            textAnchor="middle"
            fontSize={12}
            fill="var(--ink-soft)"
            className="fig"
          >
            {t} min
          </text>
        ))}
        {path ? <path d={path} fill="none" stroke="var(--plum)" strokeWidth={1.5} /> : null}
        {told.map((o) => {
          const isPlanned = orderKey(o.choice) === planned;
          const take = () => !isPlanned && onTake(o.choice);
          return (
            // biome-ignore lint/a11y/useSemanticElements: a point of a drawing, which no button element can be
            <g
              key={orderKey(o.choice)}
              role="button"
              tabIndex={0}
              aria-pressed={isPlanned}
              aria-label={`${isPlanned ? "As planned" : "Take"}: ${orderWords(o.choice)}, ${chanceWords(o.chance)}, about ${timeWords(o.totalS)}`}
              onClick={take}
              onKeyDown={(e) => {
                if (e.key !== "Enter" && e.key !== " ") return;
                e.preventDefault();
                take();
              }}
              className="cursor-pointer"
            >
              <circle cx={x(minutes(o))} cy={y(100 * o.chance)} r={13} fill="transparent" />
              <circle
                cx={x(minutes(o))}
                cy={y(100 * o.chance)}
                r={isPlanned ? 7 : 5}
                fill={o.choice.by === "schools" ? "var(--sheet)" : "var(--plum)"}
                stroke={isPlanned ? "var(--ink)" : "var(--plum)"}
                strokeWidth={isPlanned ? 3 : 2}
              />
            </g>
          );
        })}
      </svg>
      <p className="text-sm text-soft">Filled: laid step by step or searched for. Thick: as planned.</p>
    </figure>
  );
}

"use client";

import { Plus, Trash2 } from "lucide-react";
import type { BarPiece, CutBar, Nesting, Stock } from "@/core/cut";
import { builtOf, buyingParts, buyingWords } from "@/core/job";
import { formatLength, length, type UnitPreference } from "@/core/units";
import { useWidth } from "../drawing/useWidth";
import { useJob } from "../job/JobProvider";
import { usePlanField } from "../job/usePlanField";
import { Button } from "../parts/Button";
import { Choice } from "../parts/Choice";
import { LengthField } from "../parts/LengthField";
import { NumberField } from "../parts/NumberField";
import { SelectField } from "../parts/SelectField";
import { AlsoPieces } from "./AlsoPieces";
import { useNesting } from "./useNesting";

const HEIGHT = 46;

/** One bar with its pieces, to scale against the longest. */
function Bar({
  bar,
  longestMm,
  width: full,
  units,
}: {
  bar: CutBar;
  longestMm: number;
  /** Of the longest bar, px. */
  width: number;
  units: UnitPreference;
}) {
  const px = full / longestMm;
  const say = (mm: number): string => formatLength(mm, units, { trim: true }).text;
  const share =
    bar.usedMm /
    Math.max(
      1,
      bar.pieces.reduce((s, p) => s + p.longMm, 0),
    );
  let x = 0;
  return (
    <li className="grid gap-0.5">
      <span className="text-sm">
        <strong>{bar.offcut ? `Offcut ${bar.id}` : say(bar.lengthMm)}</strong>{" "}
        <span className="text-soft">
          {bar.pieces.map((p) => p.member).join(", ")}; {say(bar.leftMm)} left{bar.keep ? ", keep it" : ""}
        </span>
      </span>
      <svg viewBox={`0 0 ${full} ${HEIGHT}`} width="100%" aria-hidden="true" className="block">
        <rect x={0.5} y={8} width={bar.lengthMm * px - 1} height={30} fill="none" stroke="var(--edge)" />
        {bar.pieces.map((p) => {
          const from = x;
          const width = p.longMm * Math.min(1, share) * px;
          x += width;
          return (
            <g key={p.member}>
              <rect x={from + 0.5} y={8} width={width - 1} height={30} fill="var(--tube)" stroke="var(--ink)" />
              {width > 34 ? (
                <text
                  x={from + width / 2}
                  y={23}
                  textAnchor="middle"
                  dominantBaseline="central"
                  fontSize={14}
                  fill="var(--ink)"
                  className="fig"
                >
                  {p.member}
                </text>
              ) : null}
            </g>
          );
        })}
      </svg>
    </li>
  );
}

function Plan({ nesting, stock, units }: { nesting: Nesting; stock: Stock | null; units: UnitPreference }) {
  const words = buyingWords(nesting, stock, units);
  const [ref, width] = useWidth(640);
  const longestMm = Math.max(...nesting.bars.map((b) => b.lengthMm), 1);
  return (
    <div ref={ref}>
      <p className="text-lg font-semibold text-plum" data-testid="buy">
        {words.say}
      </p>
      {words.why ? <p className="max-w-prose text-soft">{words.why}</p> : null}
      <ol className="mt-3 grid gap-2" aria-label="Bars and what is cut from each">
        {nesting.bars.map((bar, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: bars of one length are alike but for their place
          <Bar key={`${bar.id}/${i}`} bar={bar} longestMm={longestMm} width={width} units={units} />
        ))}
      </ol>
    </div>
  );
}

function StockFields({ stock, sections }: { stock: Stock; sections: readonly string[] }) {
  const { units, edit, field, forget } = usePlanField();
  const set = (change: Partial<Stock>) => edit((p) => ({ ...p, stock: { ...(p.stock ?? stock), ...change } }));
  const free = (letter: "B" | "O", taken: readonly { id: string }[]): string =>
    Array.from({ length: 99 }, (_, i) => `${letter}${i + 1}`).find((id) => !taken.some((t) => t.id === id)) ?? "";
  const inch = units !== "mm";
  const small = (key: "kerf" | "grip" | "least", label: string) => (
    <LengthField
      label={label}
      units={units}
      value={stock[key]}
      {...field(`stock.${key}`)}
      onChange={(v) => v && set({ [key]: v })}
    />
  );
  return (
    <div className="grid gap-4">
      <ul className="grid gap-2" aria-label="Lengths to buy">
        {stock.bars.map((bar, i) => (
          <li key={bar.id} className="grid grid-cols-[1fr_1fr_auto] items-start gap-2">
            <LengthField
              label={`Bar ${bar.id}`}
              units={units}
              value={bar.length}
              {...field(`stock.bars.${i}.length`, `stock.bars.${bar.id}.length`)}
              onChange={(v) => v && set({ bars: stock.bars.map((b) => (b.id === bar.id ? { ...b, length: v } : b)) })}
            />
            <NumberField
              label={`Price of ${bar.id}`}
              unit="each"
              min={0}
              max={1e6}
              optional
              value={bar.price}
              {...field(`stock.bars.${i}.price`, `stock.bars.${bar.id}.price`)}
              onChange={(price) => set({ bars: stock.bars.map((b) => (b.id === bar.id ? { ...b, price } : b)) })}
            />
            <Button
              look="quiet"
              className="mt-6.5"
              aria-label={`Take bar ${bar.id} out`}
              onClick={() => {
                forget(`stock.bars.${bar.id}.`);
                set({ bars: stock.bars.filter((b) => b.id !== bar.id) });
              }}
            >
              <Trash2 size={18} aria-hidden="true" />
            </Button>
          </li>
        ))}
      </ul>
      <ul className="grid gap-2" aria-label="Offcuts on hand">
        {stock.offcuts.map((offcut, i) => (
          <li key={offcut.id} className="grid grid-cols-[1fr_1fr_auto] items-start gap-2">
            <LengthField
              label={`Offcut ${offcut.id}`}
              units={units}
              value={offcut.length}
              {...field(`stock.offcuts.${i}.length`, `stock.offcuts.${offcut.id}.length`)}
              onChange={(v) =>
                v && set({ offcuts: stock.offcuts.map((o) => (o.id === offcut.id ? { ...o, length: v } : o)) })
              }
            />
            <NumberField
              label={`How many of ${offcut.id}`}
              unit="pieces"
              min={1}
              max={50}
              value={offcut.quantity}
              {...field(`stock.offcuts.${i}.quantity`, `stock.offcuts.${offcut.id}.quantity`)}
              onChange={(v) =>
                v !== null &&
                set({
                  offcuts: stock.offcuts.map((o) => (o.id === offcut.id ? { ...o, quantity: Math.round(v) } : o)),
                })
              }
            />
            <Button
              look="quiet"
              className="mt-6.5"
              aria-label={`Take offcut ${offcut.id} out`}
              onClick={() => {
                forget(`stock.offcuts.${offcut.id}.`);
                set({ offcuts: stock.offcuts.filter((o) => o.id !== offcut.id) });
              }}
            >
              <Trash2 size={18} aria-hidden="true" />
            </Button>
            {sections.length > 0 ? (
              <SelectField
                label={`${offcut.id} is of`}
                value={offcut.section ?? sections[0] ?? ""}
                options={sections.map((x) => [x, x] as const)}
                onChange={(section) =>
                  set({ offcuts: stock.offcuts.map((o) => (o.id === offcut.id ? { ...o, section } : o)) })
                }
              />
            ) : null}
          </li>
        ))}
      </ul>
      <div className="flex flex-wrap gap-2">
        <Button
          disabled={stock.bars.length >= 12}
          onClick={() =>
            set({
              bars: [
                ...stock.bars,
                { id: free("B", stock.bars), length: inch ? length("240", "in") : length("6000"), price: null },
              ],
            })
          }
        >
          <Plus size={18} aria-hidden="true" /> A length to buy
        </Button>
        <Button
          disabled={stock.offcuts.length >= 20}
          onClick={() =>
            set({
              offcuts: [
                ...stock.offcuts,
                { id: free("O", stock.offcuts), length: inch ? length("36", "in") : length("1000"), quantity: 1 },
              ],
            })
          }
        >
          <Plus size={18} aria-hidden="true" /> An offcut
        </Button>
      </div>
      <AlsoPieces stock={stock} sections={sections} />
      <div className="grid gap-4 sm:grid-cols-3">
        {small("kerf", "Saw cut")}
        {small("grip", "End for the vice")}
        {small("least", "Offcut worth keeping")}
      </div>
      <Choice
        label="Mitred pieces"
        value={stock.flip ? "turned" : "same"}
        options={[
          ["turned", "every other one turned over: they share a cut"],
          ["same", "all the same way up"],
        ]}
        onChange={(v) => set({ flip: v === "turned" })}
      />
    </div>
  );
}

/** How the bars of one section are cut. */
function SectionBars({
  cut,
  stock,
  faceMm,
  title,
  units,
}: {
  cut: readonly BarPiece[];
  stock: Stock | null;
  faceMm: number;
  title: string | null;
  units: UnitPreference;
}) {
  const state = useNesting(cut, stock, faceMm);
  return (
    <div aria-live="polite" className="grid gap-1">
      {title ? <h3 className="font-semibold">{title}</h3> : null}
      {state.status === "ready" ? (
        <Plan nesting={state.nesting} stock={stock} units={units} />
      ) : state.status === "too long" ? (
        <p className="text-close">
          {state.members}: longer than any bar at hand. Add a longer bar, or splice it where the load allows.
        </p>
      ) : state.status === "failed" ? (
        <p className="text-close">The plan could not be worked out on this device. Change a length to try again.</p>
      ) : (
        <p className="text-soft">Working out how to cut the bars…</p>
      )}
    </div>
  );
}

/** What to buy, what to cut from each bar, and what is left: section by section. */
export function BuyingList() {
  const { job, evaluation } = useJob("job", "evaluation");
  const { units, stock } = job.plan;
  const { members } = builtOf(job.plan);
  const broken = evaluation.problems.some((p) => p.severity === "error" && p.path.startsWith("stock"));
  const parts = buyingParts(job.plan, evaluation);
  return (
    <div className="grid gap-8 xl:grid-cols-[minmax(0,1fr)_minmax(0,25rem)]">
      <div className="grid content-start gap-6">
        {broken ? (
          <p className="text-close">Put the lengths beside this right first.</p>
        ) : (
          parts.map((part) => (
            <SectionBars
              key={part.section}
              cut={part.pieces}
              stock={part.stock}
              faceMm={part.faceMm}
              title={parts.length > 1 ? `${part.section}: ${part.title}` : null}
              units={units}
            />
          ))
        )}
      </div>
      <StockFields
        stock={stock}
        sections={members && members.sections.length > 1 ? members.sections.map((s) => s.id) : []}
      />
    </div>
  );
}

"use client";

import { ChevronDown, ChevronUp, Delete } from "lucide-react";
import { type ReactNode, useEffect, useRef } from "react";
import type { UnitPreference } from "@/core/units";
import { useDevice } from "../parts/device";
import { keysFor, pressed } from "./keys";

const keyClass =
  "fig flex min-h-14 items-center justify-center rounded-[3px] border border-edge bg-well font-semibold select-none touch-manipulation active:bg-brass-soft";

/**
 * Keys for one hand in a glove, at the bottom of the screen as long as the field is read into: what a reading in these units needs, and one
 * step up or down on its instrument.
 */
export function Keypad({
  units,
  isSlant,
  text,
  step,
  onText,
  onStep,
  children,
}: {
  units: UnitPreference;
  isSlant: boolean;
  text: string;
  /** What one step is, in words; null where a step has no meaning. */
  step: string | null;
  onText: (text: string) => void;
  onStep: (by: 1 | -1) => void;
  /** What keeps the reading. */
  children: ReactNode;
}) {
  const { hand } = useDevice();
  const dock = useRef<HTMLFieldSetElement>(null);
  // The page ends above the keys, so that everything on it can be brought into sight, and the field stands in what is left.
  useEffect(() => {
    const { current } = dock;
    if (!current) return;
    const { style } = document.documentElement;
    style.scrollPaddingBottom = `${current.offsetHeight + 64}px`;
    style.paddingBottom = `${current.offsetHeight}px`;
    document.activeElement?.scrollIntoView({ block: "nearest" });
    return () => {
      style.scrollPaddingBottom = "";
      style.paddingBottom = "";
    };
  }, []);
  const control = (key: string, label: string, shown: ReactNode, run: () => void) => (
    <button key={key} type="button" className={keyClass} aria-label={label} onClick={run}>
      {shown}
    </button>
  );
  const controls = [
    control("back", "Take the last sign off", <Delete size={24} aria-hidden="true" />, () => onText(text.slice(0, -1))),
    control("clear", "Clear", <span className="text-base">Clear</span>, () => onText("")),
    ...(step === null
      ? []
      : [
          control("up", `${step} more`, <Step icon={<ChevronUp size={20} aria-hidden="true" />} words={step} />, () =>
            onStep(1),
          ),
          control(
            "down",
            `${step} less`,
            <Step icon={<ChevronDown size={20} aria-hidden="true" />} words={step} />,
            () => onStep(-1),
          ),
        ]),
  ];
  return (
    <fieldset
      ref={dock}
      className="screen-only fixed inset-x-0 bottom-0 z-30 border-0 border-t-2 border-ink bg-sheet p-2"
      data-testid="keypad"
      data-hand={hand}
      // The field keeps the focus, and with it these keys.
      onPointerDown={(e) => e.preventDefault()}
      onMouseDown={(e) => e.preventDefault()}
    >
      <legend className="sr-only">Keys for the reading</legend>
      <div className={`grid max-w-md gap-1 short:max-w-none ${hand === "left" ? "mr-auto" : "ml-auto"}`}>
        <div className="grid grid-cols-4 gap-1 short:grid-cols-8">
          {keysFor(units, isSlant).flatMap((row, i) => {
            const keys = row.map((key) => (
              <button
                key={key}
                type="button"
                className={`${keyClass} ${key.length > 2 ? "text-lg" : "text-2xl"}`}
                aria-label={key === "-" ? "minus" : key}
                onClick={() => onText(pressed(text, key))}
              >
                {key === "space" ? "space" : key === "-" ? "−" : key}
              </button>
            ));
            const own = controls[i] ?? <span key={`none ${row[0]}`} />;
            return hand === "left" ? [own, ...keys] : [...keys, own];
          })}
        </div>
        {children}
      </div>
    </fieldset>
  );
}

function Step({ icon, words }: { icon: ReactNode; words: string }) {
  return (
    <span className="flex flex-col items-center text-xs leading-none">
      {icon}
      {words}
    </span>
  );
}

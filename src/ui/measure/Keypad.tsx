"use client";

import { Delete, Minus, Plus } from "lucide-react";
import type { UnitPreference } from "@/core/units";
import { useDevice } from "../parts/device";
import { keysFor, pressed } from "./keys";

const keyClass =
  "fig min-h-14 rounded-[3px] border border-edge bg-well text-2xl font-semibold select-none touch-manipulation active:bg-brass-soft";

/** Keys for one hand in a glove: what a reading in these units needs, and a step up or down on its instrument. */
export function Keypad({
  units,
  isSlant,
  text,
  onText,
  onStep,
}: {
  units: UnitPreference;
  isSlant: boolean;
  text: string;
  onText: (text: string) => void;
  /** Null where a step has no meaning. */
  onStep: ((by: 1 | -1) => void) | null;
}) {
  const { hand } = useDevice();
  return (
    <fieldset
      className={`mt-2 grid max-w-sm grid-cols-4 gap-1 border-0 p-0 ${hand === "left" ? "mr-auto" : "ml-auto"}`}
      data-testid="keypad"
      data-hand={hand}
    >
      <legend className="sr-only">Keys for the reading</legend>
      <div className="col-span-3 grid grid-cols-3 gap-1">
        {keysFor(units, isSlant).flatMap((row) =>
          row.map((key) => (
            <button
              key={key}
              type="button"
              className={keyClass}
              aria-label={key === "-" ? "minus" : key}
              onClick={() => onText(pressed(text, key))}
            >
              {key === "space" ? "␣" : key === "-" ? "−" : key}
            </button>
          )),
        )}
      </div>
      <div className={`grid content-start gap-1 ${hand === "left" ? "order-first" : ""}`}>
        <button
          type="button"
          className={keyClass}
          aria-label="Take the last sign off"
          onClick={() => onText(text.slice(0, -1))}
        >
          <Delete size={24} aria-hidden="true" className="mx-auto" />
        </button>
        <button type="button" className={`${keyClass} text-base`} onClick={() => onText("")}>
          Clear
        </button>
        {onStep ? (
          <>
            <button type="button" className={keyClass} aria-label="One step more" onClick={() => onStep(1)}>
              <Plus size={24} aria-hidden="true" className="mx-auto" />
            </button>
            <button type="button" className={keyClass} aria-label="One step less" onClick={() => onStep(-1)}>
              <Minus size={24} aria-hidden="true" className="mx-auto" />
            </button>
          </>
        ) : null}
      </div>
    </fieldset>
  );
}

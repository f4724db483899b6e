"use client";

import type { Rest } from "@/core/job";
import { length, type UnitPreference } from "@/core/units";
import { LengthField } from "../parts/LengthField";
import { NumberField } from "../parts/NumberField";
import { SelectField } from "../parts/SelectField";
import { firstEdge, type Method } from "./surveyQuantities";

const WORDS: readonly (readonly [Method["by"], string])[] = [
  ["usual", "as the round was begun"],
  ["height", "heights from another datum"],
  ["rod", "rod, from a set-up of the level"],
  ["slope", "level or angle gauge, rest to rest"],
  ["difference", "height above another rest"],
  ["edge", "gap under a straightedge or string"],
];

/** How the next rests are read: a survey may mix its methods, in any order. */
export function MethodFields({
  method,
  rests,
  units,
  to,
  onTo,
  onChange,
}: {
  method: Method;
  /** The rest that is read next, and those that can be. */
  to: { rest: string | null; from: readonly string[] };
  onTo: (rest: string) => void;
  rests: readonly Rest[];
  units: UnitPreference;
  onChange: (m: Method) => void;
}) {
  const names = rests.map((r) => [r.id, r.id] as const);
  const from = [["before", "the rest before it, along the sides"] as const, ...names];
  const toField =
    to.from.length > 0 ? (
      <SelectField
        label={method.by === "slope" ? "To" : "Rest"}
        value={to.rest ?? ""}
        options={[...(to.rest === null ? [["", "all read"] as const] : []), ...to.from.map((r) => [r, r] as const)]}
        onChange={onTo}
      />
    ) : null;
  const begin = (by: Method["by"]): Method => {
    switch (by) {
      case "usual":
        return { by };
      case "height":
        return { by, datum: 2 };
      case "rod":
        return { by, setUp: 1, sightM: null };
      case "slope":
        return { by, from: "before", arrow: "on" };
      case "difference":
        return { by, from: "before" };
      case "edge":
        return {
          by,
          from: firstEdge(rests)[0],
          to: firstEdge(rests)[1],
          blocks: [length("0"), length("0")],
        };
    }
  };
  return (
    <div className="grid gap-3">
      <SelectField
        label="Read the next ones by"
        value={method.by}
        options={WORDS}
        onChange={(by) => onChange(begin(by))}
      />
      {method.by === "height" ? (
        <NumberField
          label="Datum"
          unit="1 to 9"
          min={1}
          max={9}
          value={method.datum}
          onChange={(v) => v !== null && onChange({ ...method, datum: Math.round(v) })}
        />
      ) : null}
      {method.by === "rod" ? (
        <div className="grid grid-cols-2 gap-3">
          <NumberField
            label="Set-up"
            unit="1 to 9"
            min={1}
            max={9}
            value={method.setUp}
            onChange={(v) => v !== null && onChange({ ...method, setUp: Math.round(v) })}
          />
          <NumberField
            label="Sight"
            unit="m"
            min={0}
            max={200}
            optional
            value={method.sightM}
            onChange={(sightM) => onChange({ ...method, sightM })}
          />
        </div>
      ) : null}
      {method.by === "slope" ? (
        <div className="grid grid-cols-2 gap-3">
          <SelectField
            label="From"
            value={method.from}
            options={from}
            onChange={(v) => onChange({ ...method, from: v })}
          />
          {toField}
          <SelectField
            label="Its arrow points"
            value={method.arrow}
            options={[
              ["on", "on, to the next rest"],
              ["back", "back"],
            ]}
            onChange={(arrow) => onChange({ ...method, arrow })}
          />
        </div>
      ) : null}
      {method.by === "difference" ? (
        <div className="grid grid-cols-2 gap-3">
          {toField}
          <SelectField
            label="Above"
            value={method.from}
            options={from}
            onChange={(v) => onChange({ ...method, from: v })}
          />
        </div>
      ) : null}
      {method.by === "edge" ? (
        <div className="grid grid-cols-2 gap-3">
          <SelectField
            label="Edge from"
            value={method.from}
            options={names}
            onChange={(v) => onChange({ ...method, from: v })}
          />
          <SelectField label="to" value={method.to} options={names} onChange={(v) => onChange({ ...method, to: v })} />
          {([0, 1] as const).map((i) => (
            <LengthField
              key={i}
              label={`Block on ${i === 0 ? method.from : method.to}`}
              units={units}
              value={method.blocks[i]}
              onChange={(v) => {
                if (!v) return;
                onChange({ ...method, blocks: i === 0 ? [v, method.blocks[1]] : [method.blocks[0], v] });
              }}
            />
          ))}
          {method.from === method.to ? (
            <p className="text-sm text-fail">An edge lies on two rests: choose another.</p>
          ) : null}
        </div>
      ) : null}
    </div>
  );
}

"use client";

import { useState } from "react";
import { bubbleMmPerM, packerMmPerM, statedSlope, type Taken, turnedLevel } from "@/core/job";
import { type Length, length, physical, type Slant, unitOf } from "@/core/units";
import { useJob } from "../job/JobProvider";
import { Button } from "../parts/Button";
import { Choice } from "../parts/Choice";
import { FieldMessage } from "../parts/Field";
import { LengthField } from "../parts/LengthField";
import { NumberField } from "../parts/NumberField";
import { BubblePicture } from "./BubblePicture";

type Toward = "from" | "middle" | "to";

/** A slope as it was seen: its value, and what was seen. */
export interface SeenSlope {
  value: Slant;
  taken: Taken;
  /** Read with the level turned end for end. */
  turned: boolean;
}

/** Where a bubble sits; until it is said nothing is taken for it. */
interface Sits {
  /** How many divisions off the middle. */
  n: number | null;
  toward: Toward | null;
}
const UNSAID: Sits = { n: null, toward: null };

interface Props {
  /** The ends of the step: where one comes from, and where one reads. */
  ends: readonly [from: string, to: string];
  /** What a division of this level is, mm/m, where its card says it. */
  divisionMmPerM: number | undefined;
  /** Whether the last step was read turned end for end too: then this one is. */
  twice: boolean;
  onKeep: (seen: readonly SeenSlope[]) => void;
}

/** Off the middle of the picture by so much for each division, at most all the way. */
const PICTURE_DIVISIONS = 3;

/**
 * A level read by its bubble: so many divisions toward one end, once or turned end for end too; or by packers under one foot
 * that bring it to the middle. Asked by the ends of the step, so that no sign can be taken two ways.
 */
export function BubbleFields({ ends, divisionMmPerM, twice, onKeep }: Props) {
  const { units } = useJob("units");
  const [from, to] = ends;
  const [by, setBy] = useState<"bubble" | "packers">("bubble");
  const [division, setDivision] = useState<number | null>(divisionMmPerM ?? null);
  const [seen, setSeen] = useState<Sits[]>(twice ? [UNSAID, UNSAID] : [UNSAID]);
  const [packer, setPacker] = useState<{ thick: Length | null; base: Length | null; under: "from" | "to" }>({
    thick: null,
    base: length(units === "mm" ? "1200" : "48", units === "mm" ? "mm" : "in"),
    under: "from",
  });
  const [said, setSaid] = useState<string | null>(null);
  const bubbleOf = ({ n, toward }: Sits) =>
    division === null || toward === null || (n === null && toward !== "middle")
      ? null
      : {
          divisions: toward === "middle" ? 0 : (n ?? 0),
          toward: toward === "from" ? ("from" as const) : ("to" as const),
          perDivisionMmPerM: division,
        };
  const bubbles = seen.map(bubbleOf);
  const turnedUnsaid = seen[1] === undefined || (seen[1].toward === null && seen[1].n === null);
  const [first, turned] = bubbles.map((b) => (b ? bubbleMmPerM(b) : null));
  const both =
    first === null || first === undefined || turned === null || turned === undefined
      ? null
      : turnedLevel(first, turned);
  const off = ({ n, toward }: Sits): number =>
    toward === "middle" || toward === null ? 0 : (toward === "to" ? 1 : -1) * Math.min(1, (n ?? 1) / PICTURE_DIVISIONS);
  /** @param samePlace turned end for end the bubble sat where it had sat before. */
  const keep = (samePlace = false) => {
    if (by === "packers") {
      const { thick, base, under } = packer;
      if (!thick || !base || base.mm <= 0) return setSaid("Give how thick the packers are, and how long the level is.");
      const how = { thick, base, under };
      setSaid(null);
      return onKeep([{ value: statedSlope(packerMmPerM(how), units), taken: { packer: how }, turned: false }]);
    }
    if (division === null)
      return setSaid(
        `Say what one division of this level is, in ${unitOf("slope", units)}: it stands on the vial or its sheet.`,
      );
    const rows = samePlace ? [seen[0] ?? UNSAID, seen[0] ?? UNSAID] : seen;
    const read = rows.map(bubbleOf);
    if (rows.some((s) => s.toward === null)) return setSaid("Say where the bubble sits.");
    if (read.some((b) => b === null)) return setSaid("Say how many divisions the bubble sits off the middle.");
    setSaid(null);
    onKeep(
      read.flatMap((bubble, i) =>
        bubble ? [{ value: statedSlope(bubbleMmPerM(bubble), units), taken: { bubble }, turned: i === 1 }] : [],
      ),
    );
  };
  return (
    <div className="grid gap-3">
      <Choice
        label="Read by"
        value={by}
        options={[
          ["bubble", "its bubble"],
          ["packers", "packers under one end"],
        ]}
        onChange={setBy}
      />
      {by === "bubble" ? (
        <>
          <NumberField
            label="One division is"
            unit=""
            kind={{ is: "slope", units }}
            min={0.001}
            max={50}
            optional
            value={division}
            onChange={setDivision}
          />
          {seen.map((s, i) => (
            <div key={i === 0 ? "first" : "turned"} className="grid gap-2 border-t border-line pt-2">
              <Choice
                label={i === 0 ? "The bubble sits toward" : "Turned end for end, it sits toward"}
                value={s.toward}
                options={[
                  ["from", from],
                  ["middle", "neither, the middle"],
                  ["to", to],
                ]}
                onChange={(toward) => setSeen(seen.map((x, k) => (k === i ? { ...x, toward } : x)))}
              />
              {s.toward === "middle" || s.toward === null ? null : (
                <NumberField
                  label={i === 0 ? "By how many divisions" : "By how many divisions, turned"}
                  unit="divisions"
                  min={0}
                  max={20}
                  optional
                  value={s.n}
                  onChange={(n) => setSeen(seen.map((x, k) => (k === i ? { ...x, n } : x)))}
                />
              )}
            </div>
          ))}
          <BubblePicture
            left={from}
            right={to}
            rows={seen.map((s, i) => ({
              label: i === 0 ? "as laid first" : "turned end for end, on the same place",
              marked: i === 0 ? "left" : "right",
              off: off(s),
            }))}
          />
          {seen.length < 2 ? (
            <Button className="justify-self-start" onClick={() => setSeen([...seen, UNSAID])}>
              Turned end for end too
            </Button>
          ) : (
            <>
              <p className="text-sm text-soft">
                Toward the same end of the bench both times: the bench slopes. Toward the other end: the level is out.
              </p>
              <Button className="justify-self-start" onClick={() => setSeen(seen.slice(0, 1))}>
                Read once only
              </Button>
            </>
          )}
          {both ? (
            <p className="fig text-brass">
              {Math.abs(both.slope) < 5e-4
                ? "Level between them"
                : `${both.slope > 0 ? to : from} is the higher end, by ${physical("slope", Math.abs(both.slope), units)}`}
              ; the level itself is out by {physical("slope", Math.abs(both.zero), units)}.
            </p>
          ) : null}
        </>
      ) : (
        <>
          <Choice
            label="Packers lie under its end at"
            value={packer.under}
            options={[
              ["from", from],
              ["to", to],
            ]}
            onChange={(under) => setPacker({ ...packer, under })}
          />
          <div className="grid grid-cols-2 gap-2">
            <LengthField
              label="Packers together"
              units={units}
              optional
              value={packer.thick}
              onChange={(thick) => setPacker({ ...packer, thick })}
            />
            <LengthField
              label="Length of the level"
              units={units}
              optional
              value={packer.base}
              onChange={(base) => setPacker({ ...packer, base })}
            />
          </div>
          {packer.thick && packer.base && packer.base.mm > 0 ? (
            <p className="fig text-brass">
              {packer.under === "from" ? to : from} is the higher end, by{" "}
              {physical(
                "slope",
                Math.abs(packerMmPerM({ thick: packer.thick, base: packer.base, under: packer.under })),
                units,
              )}
              .
            </p>
          ) : null}
        </>
      )}
      {said ? <FieldMessage severity="error">{said}</FieldMessage> : null}
      <div className="flex flex-wrap gap-2">
        <Button onClick={() => keep()}>Keep what the level says</Button>
        {by === "bubble" && turnedUnsaid ? (
          <Button onClick={() => keep(true)}>Turned too, same place both times: keep</Button>
        ) : null}
      </div>
    </div>
  );
}

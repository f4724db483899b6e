"use client";

import { useState } from "react";
import { v4 as uuid } from "uuid";
import { MATERIAL_NAMES, MATERIALS, type MaterialName } from "@/core/frame";
import { type Book, cellOf, couponPower } from "@/core/learn";
import { formatSmall, type Length, type UnitPreference } from "@/core/units";
import { PROCESSES, type ProcessName, startingSettings } from "@/core/weld";
import { messageOf } from "../job/store/sender";
import { transport } from "../job/store/transport";
import { Button } from "../parts/Button";
import { Choice } from "../parts/Choice";
import { origin } from "../parts/device";
import { LengthField } from "../parts/LengthField";
import { NumberField } from "../parts/NumberField";
import { SelectField } from "../parts/SelectField";
import { FACTOR_NAMES, narrowsWords } from "./words";

type Of = "butt" | "along";

/** How to make each, and what is read of it. */
const HOW: Record<Of, string> = {
  butt: "Two pieces of plate as thick as the wall, edge to edge. Punch a mark in each about 50 mm (2 in) from the seam, read the distance with callipers, weld the seam in one run, let it get cold, read again. Four such seams tell twice as much as one.",
  along:
    "A piece of straight tube. Read how far it is off straight over its length, lay one bead along the middle of a face, let it get cold, read again over the same points.",
};

/** Uncertainty that a pair of marks or a straightedge is read with, mm: the form says it, and one may say better. */
const USUAL_U_MM: Record<Of, number> = { butt: 0.06, along: 0.1 };

const LENGTHS = { width: null, depth: null, bead: null, piece: null } as const;

/** A coupon: what it would tell before it is made, and what it told. */
export function CouponForm({ book, units, onBook }: { book: Book; units: UnitPreference; onBook: (b: Book) => void }) {
  const [of, setOf] = useState<Of>("butt");
  const [process, setProcess] = useState<ProcessName>("MAG");
  const [material, setMaterial] = useState<MaterialName>("mild steel");
  const [wall, setWall] = useState<Length | null>(null);
  const [arc, setArc] = useState<{ volts: number | null; amps: number | null; travelMmPerS: number | null } | null>(
    null,
  );
  const [sizes, setSizes] = useState<Record<keyof typeof LENGTHS, Length | null>>({ ...LENGTHS });
  const [before, setBefore] = useState<Length | null>(null);
  const [after, setAfter] = useState<Length | null>(null);
  const [u, setU] = useState<Length | null>(null);
  const [said, setSaid] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const wallMm = wall?.mm ?? null;
  const begins = wallMm !== null ? startingSettings(process, wallMm, material) : null;
  const settings = {
    volts: arc?.volts ?? begins?.volts ?? null,
    amps: arc?.amps ?? begins?.amps ?? null,
    travelMmPerS: arc?.travelMmPerS ?? begins?.travelMmPerS ?? null,
  };
  const uMm = u?.mm ?? USUAL_U_MM[of];
  const coupon =
    of === "butt"
      ? ({ of: "butt" } as const)
      : sizes.width && sizes.depth && sizes.bead && sizes.piece
        ? ({
            of: "along",
            widthMm: sizes.width.mm,
            depthMm: sizes.depth.mm,
            beadMm: sizes.bead.mm,
            pieceMm: sizes.piece.mm,
          } as const)
        : null;
  const { volts, amps, travelMmPerS } = settings;
  const known =
    coupon && wallMm !== null && volts !== null && amps !== null && travelMmPerS !== null && uMm > 0
      ? { coupon, wallMm, material, process, volts, amps, travelMmPerS, uMm }
      : null;
  const power = known && couponPower(book.learned, cellOf(process, known.wallMm, material), known);
  const send = async () => {
    if (!known) return setSaid("Give the wall, and the sizes of the piece, first.");
    if (!before || !after) return setSaid("Give what it measured before, and after.");
    setBusy(true);
    setSaid(null);
    try {
      const { status, body } = await transport("POST", "/api/lessons", {
        kind: "coupon",
        id: uuid(),
        at: new Date().toISOString(),
        origin: origin(),
        ...known,
        beforeMm: before.mm,
        afterMm: after.mm,
      });
      if (status === 200) {
        onBook(body as Book);
        setBefore(null);
        setAfter(null);
        setSaid("It is in the book: the next jobs are predicted by it too.");
      } else setSaid(messageOf(body));
    } catch {
      setSaid("The server cannot be reached just now. What you typed stays here.");
    }
    setBusy(false);
  };
  const size = (key: keyof typeof LENGTHS, label: string) => (
    <LengthField
      key={key}
      label={label}
      units={units}
      value={sizes[key]}
      onChange={(v) => setSizes((s) => ({ ...s, [key]: v }))}
    />
  );
  return (
    <div className="grid gap-4">
      <Choice
        label="Coupon"
        value={of}
        options={[
          ["butt", "Two plates, a seam between marks"],
          ["along", "A bead along a tube"],
        ]}
        onChange={setOf}
      />
      <p className="max-w-prose text-soft">{HOW[of]}</p>
      <div className="grid gap-4 sm:grid-cols-3">
        <SelectField
          label="Process"
          value={process}
          options={(Object.keys(PROCESSES) as ProcessName[]).map((p) => [p, PROCESSES[p].label] as const)}
          onChange={setProcess}
        />
        <SelectField
          label="Material"
          value={material}
          options={MATERIAL_NAMES.map((m) => [m, MATERIALS[m].label] as const)}
          onChange={setMaterial}
        />
        <LengthField label="Wall" units={units} value={wall} onChange={setWall} />
        <NumberField
          label="Volts"
          unit={arc?.volts == null && begins ? "V, to begin with" : "V"}
          value={volts}
          min={5}
          max={50}
          optional
          onChange={(v) => setArc((a) => ({ amps: null, travelMmPerS: null, ...a, volts: v }))}
        />
        <NumberField
          label="Amps"
          unit={arc?.amps == null && begins ? "A, to begin with" : "A"}
          value={amps}
          min={5}
          max={600}
          optional
          onChange={(v) => setArc((a) => ({ volts: null, travelMmPerS: null, ...a, amps: v }))}
        />
        <NumberField
          label="Travel"
          unit={arc?.travelMmPerS == null && begins ? "to begin with" : ""}
          kind={{ is: "speed", units }}
          value={travelMmPerS}
          min={0.5}
          max={50}
          optional
          onChange={(v) => setArc((a) => ({ volts: null, amps: null, ...a, travelMmPerS: v }))}
        />
        {of === "along"
          ? [
              size("width", "Face, across"),
              size("depth", "Depth under it"),
              size("bead", "Bead, long"),
              size("piece", "Piece, long"),
            ]
          : null}
      </div>
      {power ? (
        <p className="max-w-prose border-l-4 border-plum pl-4" data-testid="coupon-power">
          Before you make it: expect about {formatSmall(power.expectedMm, units, { decimals: units === "mm" ? 2 : 1 })}.{" "}
          {FACTOR_NAMES[power.factor]} would be {narrowsWords(power.narrowedTo)} by it
          {power.narrowedTo > 0.97 ? ": too little to be worth the plate. Read finer, or weld hotter" : ""}. Such a
          coupon narrows sizes, not squareness or twist.
        </p>
      ) : null}
      <div className="grid gap-4 sm:grid-cols-3">
        <LengthField
          label="Before"
          hint={of === "butt" ? "mark to mark" : "off straight"}
          units={units}
          value={before}
          onChange={setBefore}
        />
        <LengthField label="Cold, after" units={units} value={after} onChange={setAfter} />
        <LengthField
          label="Difference sure to"
          hint={`± ${formatSmall(USUAL_U_MM[of], units, { decimals: units === "mm" ? 2 : 1 })} taken`}
          units={units}
          value={u}
          onChange={setU}
        />
      </div>
      <div aria-live="polite">{said ? <p data-testid="coupon-said">{said}</p> : null}</div>
      <Button look="advise" disabled={busy} className="justify-self-start" onClick={() => void send()}>
        Put it in the book
      </Button>
    </div>
  );
}

"use client";

import { useState } from "react";
import { LAYERS, type LayerName } from "@/core/drawing";
import type { FullScaleView } from "@/core/job";
import { useJob } from "../job/JobProvider";
import { Choice } from "../parts/Choice";
import { Download } from "../parts/Download";
import { Fold } from "../parts/Fold";
import { NumberField } from "../parts/NumberField";
import { SelectField } from "../parts/SelectField";
import { Tick } from "../parts/Tick";

/** Layers as one says them. */
const LAYER_WORDS: Record<LayerName, string> = {
  outline: "outlines",
  centre: "centre lines",
  cut: "cut lines with their angles",
  joint: "joints and names",
  distance: "running distances of what lands",
  hole: "hole centres",
  stop: "stops and clamps",
  datum: "the corner that counts as nought",
};

const PAPERS = [
  ["A4", "A4 sheets"],
  ["A3", "A3 sheets"],
  ["Letter", "Letter sheets"],
  ["Tabloid", "Tabloid sheets"],
  ["one", "one page, as large as it is"],
] as const;

/** A bar of so many mm on every sheet says whether the printer is true. */
const BAR_MM = 100;

/** The frame at full size, to lay it out on: on paper or as a file. */
export function FullSize() {
  const { job, units, evaluation, unsent } = useJob("job", "units", "evaluation", "unsent");
  const [size, setSize] = useState<"drawing" | "set-up">("drawing");
  const [view, setView] = useState<FullScaleView>("above");
  const [paper, setPaper] = useState<(typeof PAPERS)[number][0]>(units === "mm" ? "A4" : "Letter");
  const [layers, setLayers] = useState<readonly LayerName[]>(LAYERS);
  const [bar, setBar] = useState(BAR_MM);
  // Both bars stand on every sheet, drawn by one scale.
  const bars = units === "mm" ? { says: "100 mm", unit: "mm", per: 1 } : { says: "4 in", unit: "in", per: 4 / BAR_MM };
  const isKnown = view === "above" && evaluation.prediction !== null && evaluation.prediction.setUp.beyondMm === null;
  const sized = isKnown ? size : "drawing";
  const address = (as: "pdf" | "dxf" | "svg"): string => {
    const asked = new URLSearchParams({ as, view, size: sized, paper, layers: layers.join(), bar: String(bar) });
    return `/api/jobs/${job.id}/layout?${asked}`;
  };
  const file = (as: "pdf" | "dxf" | "svg", words: string) => <Download href={address(as)}>{words}</Download>;
  return (
    <Fold title="At full size" note="PDF, DXF, SVG, 1:1">
      <div className="grid gap-4" data-testid="full-size">
        <Choice
          label="Seen"
          value={view}
          options={[
            ["above", "from above"],
            ["front", "from the front"],
            ["right", "from the right"],
          ]}
          onChange={setView}
        />
        <Choice
          label="Sizes"
          value={sized}
          options={[
            ["drawing", "as drawn"],
            ...(isKnown ? ([["set-up", "as it is set up, off nominal"]] as const) : []),
          ]}
          onChange={setSize}
        />
        <SelectField label="Paper" value={paper} options={PAPERS} onChange={setPaper} />
        <fieldset className="grid gap-1">
          <legend className="text-sm font-semibold">What is drawn</legend>
          {LAYERS.map((layer) => (
            <Tick
              key={layer}
              checked={layers.includes(layer)}
              onChange={(on) => setLayers((l) => LAYERS.filter((x) => (x === layer ? on : l.includes(x))))}
            >
              {LAYER_WORDS[layer]}
            </Tick>
          ))}
        </fieldset>
        <NumberField
          label={`The ${bars.says} bar of a print measured`}
          unit={bars.unit}
          value={+(bar * bars.per).toPrecision(6)}
          min={80 * bars.per}
          max={125 * bars.per}
          onChange={(v) => setBar(v === null ? BAR_MM : v / bars.per)}
        />
        <p className="max-w-prose text-sm text-soft">
          Print at 100 %, measure the bar of {bars.says} on the first sheet; where it is off, put in what it measured
          and print again. Sheets lie over each other line on line.
        </p>
        {layers.length === 0 ? <p className="text-close">Tick something to draw.</p> : null}
        <div className="flex flex-wrap gap-3">
          {layers.length > 0 ? (
            <>
              {file("pdf", "PDF")}
              {file("dxf", "DXF")}
              {file("svg", "SVG")}
            </>
          ) : null}
        </div>
        {unsent.size > 0 ? <p className="text-sm text-soft">What is not sent yet is not in it.</p> : null}
      </div>
    </Fold>
  );
}

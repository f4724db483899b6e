"use client";

import { line } from "d3";
import { useState } from "react";
import { type CopeEdge, templatesOf, type WrapTemplate } from "@/core/cut";
import { formatLength, type UnitPreference } from "@/core/units";
import { useJob } from "../job/JobProvider";
import { Choice } from "../parts/Choice";
import { Download } from "../parts/Download";
import { Section } from "../parts/Sheet";

/** Paper kept round the curve, mm. */
const MARGIN_MM = 8;
/** Rule to be measured before use: two inches, or 50 mm. */
const ruleOf = (units: UnitPreference): { mm: number; says: string } =>
  units === "mm" ? { mm: 50, says: "50 mm" } : { mm: 50.8, says: "2 in" };

/** Width of a template with its paper, mm. */
export const sheetWidthMm = (t: WrapTemplate): number => t.aroundMm + 2 * MARGIN_MM;

/** A wrap-around template at 1:1, in mm: what is cut away lies above the curve. @param part one sheet of several. */
export function TemplateSheet({
  template,
  name,
  units,
  part,
}: {
  template: WrapTemplate;
  name: string;
  units: UnitPreference;
  part?: { fromMm: number; wideMm: number };
}) {
  const { aroundMm, deepMm, points } = template;
  const rule = ruleOf(units);
  const height = deepMm + 45;
  const from = part?.fromMm ?? 0;
  const width = Math.min(part?.wideMm ?? Number.POSITIVE_INFINITY, sheetWidthMm(template) - from);
  const left = from + MARGIN_MM;
  const path = line<WrapTemplate["points"][number]>(
    (p) => MARGIN_MM + p.aroundMm,
    (p) => MARGIN_MM + p.inMm,
  )(points as WrapTemplate["points"]);
  return (
    <svg
      width={`${width.toFixed(2)}mm`}
      height={`${height.toFixed(2)}mm`}
      viewBox={`${from.toFixed(2)} 0 ${width.toFixed(2)} ${height.toFixed(2)}`}
      role="img"
      aria-label={`Template for ${name}, ${formatLength(aroundMm, units).text} round, ${formatLength(deepMm, units).text} deep`}
      className="block border border-line bg-white"
    >
      <path
        d={`M${MARGIN_MM} ${MARGIN_MM + deepMm + 20}V${MARGIN_MM}M${MARGIN_MM + aroundMm} ${MARGIN_MM + deepMm + 20}V${MARGIN_MM}`}
        stroke="#000"
        strokeWidth={0.2}
      />
      <path d={`M${MARGIN_MM} ${MARGIN_MM + deepMm + 20}H${MARGIN_MM + aroundMm}`} stroke="#000" strokeWidth={0.2} />
      {[0.25, 0.5, 0.75].map((s) => (
        <path
          key={s}
          d={`M${MARGIN_MM + s * aroundMm} ${MARGIN_MM}v${deepMm + 20}`}
          stroke="#777"
          strokeWidth={0.1}
          strokeDasharray="2 1"
        />
      ))}
      <path d={path ?? ""} fill="none" stroke="#000" strokeWidth={0.35} />
      <text x={left + 2} y={MARGIN_MM + deepMm + 17} fontSize={4} fill="#000">
        {name}: wrap round, this edge square to the tube
      </text>
      <g stroke="#000" strokeWidth={0.25}>
        <path d={`M${left} ${MARGIN_MM + deepMm + 27}h${rule.mm}m0 -2v4M${left} ${MARGIN_MM + deepMm + 25}v4`} />
      </g>
      <text x={left + rule.mm + 3} y={MARGIN_MM + deepMm + 28.5} fontSize={3.5} fill="#000">
        measure: {rule.says}
      </text>
    </svg>
  );
}

/** Templates to wrap round ends that a saw does not cut. */
export function Templates() {
  const { job, evaluation, units } = useJob("job", "evaluation", "units");
  const [edge, setEdge] = useState<CopeEdge>("inner");
  const { structure } = evaluation;
  const list = structure ? templatesOf(structure, edge) : [];
  if (list.length === 0) return null;
  return (
    <Section
      title="Templates for ends that a saw does not cut"
      aside={<span className="text-sm text-soft">1:1 on paper; print at 100 %</span>}
    >
      {list.some((t) => t.template.for === "round") ? (
        <Choice
          label="What touches"
          value={edge}
          options={[
            ["inner", "inner edge of the wall: leaves a groove for the bead (advised)"],
            ["outer", "outer edge: closed outside, ground away inside"],
          ]}
          onChange={setEdge}
        />
      ) : null}
      <p className="mt-3 flex flex-wrap items-center gap-3 text-sm">
        {(["pdf", "dxf", "svg"] as const).map((as) => (
          <Download
            key={as}
            href={`/api/jobs/${job.id}/layout?${new URLSearchParams({ of: "templates", as, edge, paper: units === "mm" ? "A4" : "Letter" })}`}
          >
            {as.toUpperCase()}
          </Download>
        ))}
        <span className="text-soft">all of them at full size, to print or to cut from card</span>
      </p>
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: scrolls sideways, so the keyboard must reach it */}
      <section className="mt-3 grid gap-4 overflow-x-auto" aria-label="Templates" tabIndex={0}>
        {list.map((t) => (
          <TemplateSheet key={t.name} template={t.template} name={t.name} units={units} />
        ))}
      </section>
    </Section>
  );
}

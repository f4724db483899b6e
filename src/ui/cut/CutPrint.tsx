"use client";

import { drillList, holeAdvice, sheetStartsMm, templatesOf } from "@/core/cut";
import { addedWords, cutToWords, pieceSection, predictedDecimals, STAGE_CAUTIONS, sharedWords } from "@/core/job";
import { drillWords, formatSmall, nearLength } from "@/core/units";
import { FrameDrawing, useScene } from "../drawing";
import { useJob } from "../job/JobProvider";
import { NotYet } from "../job/NotYet";
import { stagePath } from "../job/stages";
import { Paper } from "../parts/Paper";
import { Laying } from "./Laying";
import { PiecePicture } from "./PiecePicture";
import { sheetWidthMm, TemplateSheet } from "./Templates";

const COLUMNS = ["Pieces", "Members", "Long point", "Short point", "Added", "Cut to", "Done"];

/** The cut list on paper: list, holes, a card a piece, templates. */
export function CutPrint() {
  const { job, evaluation, predicted } = useJob("job", "evaluation", "predicted");
  const { units } = job.plan;
  const { structure, cut, prediction } = evaluation;
  const waits = predicted.state.status === "working";
  const scene = useScene(structure);
  if (!structure || !scene) return <NotYet stage="Cut list on paper" />;
  const show = (mm: number): string => nearLength(mm, units);
  const holes = holeAdvice(structure, job.plan.finish);
  const drills = drillList(structure, job.plan.drill, job.plan.units);
  const templates = templatesOf(structure, "inner");
  return (
    <Paper units={units} back="Back to the cut list" backTo={stagePath(job.id, "cut")}>
      {(wideMm) => (
        <>
          <h1 className="text-2xl">Cut list: {job.plan.name}</h1>
          <p>{STAGE_CAUTIONS.cut}</p>
          <FrameDrawing scene={scene} units={units} label={`Frame of ${job.plan.name}`} maxHeight={260} />
          <table className="w-full text-left text-sm">
            <thead>
              <tr>
                {COLUMNS.map((h) => (
                  <th key={h} className="border-b border-ink py-1 pr-3 font-semibold">
                    {h}
                  </th>
                ))}
              </tr>
            </thead>
            {cut.map((p) => (
              <tbody key={p.members.join()} className="break-inside-avoid border-b border-line align-top">
                <tr>
                  <td className="fig pt-1 pr-3 whitespace-nowrap">{p.quantity} ×</td>
                  <td className="pt-1 pr-3">
                    {p.members.join(", ")}
                    <span className="block whitespace-nowrap text-soft">{pieceSection(job.plan, p)}</span>
                  </td>
                  <td className="fig pt-1 pr-3 whitespace-nowrap">{show(p.longPointMm)}</td>
                  <td className="fig pt-1 pr-3 whitespace-nowrap">{show(p.shortPointMm)}</td>
                  <td className="fig pt-1 pr-3">
                    {addedWords(p, units)}
                    {p.aimMm !== 0
                      ? ` and ${formatSmall(p.aimMm, units, { decimals: predictedDecimals(units), signed: true })} to the middle of the limits`
                      : ""}
                  </td>
                  <td className="fig pt-1 pr-3 font-bold">{cutToWords(p, units, waits)}</td>
                  <td className="pt-1">☐</td>
                </tr>
                {/* What a compound cut takes to say goes over the whole width. */}
                <tr>
                  <td />
                  <td colSpan={COLUMNS.length - 1} className="pb-1 text-soft">
                    {[p.ends, sharedWords(job.plan, p, prediction, units)].filter(Boolean).join("; ")}
                  </td>
                </tr>
              </tbody>
            ))}
          </table>
          <section>
            <h2 className="text-lg">Holes, finish: {job.plan.finish}</h2>
            <ul className="text-sm">
              {holes.map((a) => (
                <li key={a.volume.members.join()}>
                  {a.volume.members.join(", ")}: {a.count === 1 ? "one hole" : `${a.count} holes`} of{" "}
                  {drillWords(a.diameterMm, units)}, {a.where}
                </li>
              ))}
              {drills.map(({ drill, pilotMm, notes }) => (
                <li key={drill.id}>
                  {drill.id}, {drill.for}: {drillWords(drill.diameter.mm, units)} in {drill.member}, {show(drill.at.mm)}{" "}
                  from its first end, {drill.face}
                  {drill.through ? ", through both walls" : ""}
                  {pilotMm ? `; pilot ${drillWords(pilotMm, units)}` : ""}. {notes.join(" ")}
                </li>
              ))}
            </ul>
          </section>
          {cut.map((p) => (
            <section key={p.members.join()} className="grid break-inside-avoid gap-1 border-t border-ink pt-2">
              <p className="text-xl">
                <strong className="fig">{p.quantity} ×</strong> {p.members.join(", ")}
              </p>
              <p className="fig text-5xl font-bold">{cutToWords(p, units, waits)}</p>
              <PiecePicture piece={p} width={360} height={48} />
              <p>{p.ends}</p>
              <Laying structure={structure} members={p.members} />
            </section>
          ))}
          {templates.flatMap((t) => {
            const sheets = sheetStartsMm(sheetWidthMm(t.template), wideMm);
            return sheets.map((fromMm, i) => (
              <section key={`${t.name}/${fromMm}`} className="break-before-page overflow-hidden">
                <h2 className="text-lg">Template: {t.name}</h2>
                <p className="text-sm">
                  Print at 100 % and measure the rule. Fits the inner edge of the wall.
                  {sheets.length > 1
                    ? ` Sheet ${i + 1} of ${sheets.length}: lay the curve and the dashed lines over those of the sheet before.`
                    : ""}
                </p>
                <TemplateSheet template={t.template} name={t.name} units={units} part={{ fromMm, wideMm }} />
              </section>
            ));
          })}
        </>
      )}
    </Paper>
  );
}

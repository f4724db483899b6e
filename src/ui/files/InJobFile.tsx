"use client";

import { useState } from "react";
import { type ListedPiece, withListed } from "@/core/cut";
import {
  beside,
  DRAWING_UNITS,
  type DrawingUnit,
  type DrawnFrame,
  type DrawnSection,
  emptyFrame,
  type Measure,
  surveyFrom,
} from "@/core/frame";
import { builtOf, type Plan } from "@/core/job";
import { bareUnit } from "@/core/units";
import type { TableFile } from "@/formats/tableCsv";
import type { DrawingHeld, FileHeld, Files } from "@/workers/files";
import { drawnAs, sectionOfSizes } from "../frame/entry";
import { usePlanField } from "../job/usePlanField";
import { Button } from "../parts/Button";
import { FieldMessage } from "../parts/Field";
import { DrawingPanel } from "./DrawingPanel";
import { OpenedDialog } from "./OpenedDialog";
import { TablePanel } from "./TablePanel";

/** The frame of a plan as it is drawn; null where it is a rectangle by its sizes. */
const drawnOf = (plan: Plan): DrawnFrame | null => (plan.frame.by === "members" ? plan.frame.drawn : null);

const SURVEY_LETTERS = 8000;

/** What a file is taken into. */
interface TakeProps {
  files: () => Files | null;
  section: DrawnSection;
  /** How far what is drawn reaches to the right. */
  rightMm: number;
  /** A frame with nothing in it, to write measured sizes into. */
  empty: DrawnFrame;
  onClose: () => void;
}

/** What can be done in a job with a drawing. */
function TakeDrawing({ held, files, section, rightMm, onClose }: TakeProps & { held: DrawingHeld }) {
  const { plan, units, edit } = usePlanField();
  const [wrong, setWrong] = useState<string | null>(null);
  const drawn = drawnOf(plan);
  const put = (frame: DrawnFrame) => {
    edit((p) => drawnAs(p, frame));
    onClose();
  };
  return (
    <DrawingPanel held={held} files={files} section={section} units={units}>
      {(frame) => (
        <>
          {wrong ? <FieldMessage severity="error">{wrong}</FieldMessage> : null}
          <div className="flex flex-wrap gap-2">
            <Button look="advise" disabled={!frame} onClick={() => frame && put(frame)}>
              Put it in place of what is drawn
            </Button>
            {drawn && drawn.members.length > 0 ? (
              <Button
                disabled={!frame}
                onClick={() => {
                  const both = frame && beside(drawn, frame, rightMm, units);
                  if (both?.ok) put(both.value);
                  else setWrong(both?.message ?? null);
                }}
              >
                Put it beside what is drawn
              </Button>
            ) : null}
            <Button onClick={onClose}>Leave it</Button>
          </div>
          <p className="text-sm text-soft">Undo brings back what is drawn now.</p>
        </>
      )}
    </DrawingPanel>
  );
}

/** What can be done in a job with a table. */
function TakeTable({ table, empty, onClose }: Pick<TakeProps, "empty" | "onClose"> & { table: TableFile }) {
  const { plan, units, edit } = usePlanField();
  const [wrong, setWrong] = useState<string | null>(null);
  const { rows, unit, unread } = table;
  const drawn = drawnOf(plan);
  const takePieces = (u: DrawingUnit, pieces: readonly ListedPiece[]) => {
    const stock = withListed(plan.stock, pieces, DRAWING_UNITS[u], plan.units);
    if (!stock.ok) return setWrong(stock.message);
    edit((p) => ({ ...p, stock: stock.value }));
    onClose();
  };
  const takeMeasures = (u: DrawingUnit, measures: readonly Measure[]) => {
    const base = drawn ?? empty;
    const survey = [base.survey.trimEnd(), surveyFrom(measures, u)].filter((t) => t !== "").join("\n");
    if (survey.length > SURVEY_LETTERS) return setWrong("More than fits beside what was measured so far.");
    edit((p) => drawnAs(p, { ...base, survey }));
    onClose();
  };
  const isPieces = rows.kind === "pieces";
  return (
    <TablePanel
      what={
        isPieces
          ? `${rows.of.length} kinds of pieces`
          : `${rows.of.length} measured ${rows.of[0]?.kind === "point" ? "points" : "distances"}`
      }
      rows={rows.of}
      unit={unit}
      usual={bareUnit(units)}
      unread={unread}
    >
      {(u) => (
        <>
          {wrong ? <FieldMessage severity="error">{wrong}</FieldMessage> : null}
          <div className="flex flex-wrap gap-2">
            <Button look="advise" onClick={() => (isPieces ? takePieces(u, rows.of) : takeMeasures(u, rows.of))}>
              {isPieces ? "Cut them from the same bars" : "Put them to what was measured from an object"}
            </Button>
            <Button onClick={onClose}>Leave it</Button>
          </div>
          <p className="text-sm text-soft">
            {isPieces
              ? "They stand on the Cut stage, under the bars, as pieces for something else."
              : `${drawn ? "They" : "The frame is drawn member by member from then on; they"} stand on the Frame stage under “Measured from an object”, where they are fitted and drawn.`}
          </p>
        </>
      )}
    </TablePanel>
  );
}

/** What can be done in a job with a file that was opened. */
function Take({ held, ...props }: TakeProps & { held: FileHeld }) {
  if (held.kind === "drawing") return <TakeDrawing held={held} {...props} />;
  if (held.kind === "table") return <TakeTable table={held.table} empty={props.empty} onClose={props.onClose} />;
  return (
    <>
      <p>
        This is a whole {held.kind}, “{held.name}”: read it in on the page of jobs.
      </p>
      <Button className="justify-self-start" onClick={props.onClose}>
        Leave it
      </Button>
    </>
  );
}

/** A file that was chosen in a job: what of it is taken into the job. */
export default function InJobFile({ file, onClose }: { file: File; onClose: () => void }) {
  const { plan } = usePlanField();
  const section = drawnOf(plan)?.sections[0] ?? sectionOfSizes(plan);
  const props = { section, rightMm: builtOf(plan).structure?.high[0] ?? 0, empty: emptyFrame(section), onClose };
  return (
    <OpenedDialog file={file} onClose={onClose}>
      {(held, files) => <Take held={held} files={files} {...props} />}
    </OpenedDialog>
  );
}

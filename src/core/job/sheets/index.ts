import type { Laid } from "../buyingParts";
import type { Evaluation } from "../evaluate";
import type { Job } from "../jobSchema";
import { buyingSheet } from "./buyingSheet";
import { certificate } from "./certificate";
import { checkSheet } from "./checkSheet";
import { cutSheet } from "./cutSheet";
import { fixtureSheet } from "./fixtureSheet";
import { markingSheet } from "./markingSheet";
import { orderSheet } from "./orderSheet";
import type { Sheet, SheetBlock, SheetName } from "./sheet";
import { sketchSheet } from "./sketchSheet";

export { SHEETS, type Sheet, type SheetBlock, type SheetCell, type SheetName } from "./sheet";

const MADE: Record<
  SheetName,
  {
    title: string;
    stage: Sheet["stage"];
    blocks: (job: Job, evaluation: Evaluation, laid: readonly Laid[]) => SheetBlock[];
  }
> = {
  sketch: { title: "Sketch of the whole frame", stage: "frame", blocks: sketchSheet },
  buying: { title: "Buying list", stage: "cut", blocks: buyingSheet },
  marking: { title: "Marking out and drilling", stage: "cut", blocks: markingSheet },
  fixture: { title: "Bed and fixture", stage: "layout", blocks: fixtureSheet },
  certificate: { title: "Certificate of what was measured", stage: "check", blocks: certificate },
  check: { title: "Check sheet", stage: "check", blocks: checkSheet },
  order: { title: "Order of work", stage: "weld", blocks: orderSheet },
  cut: { title: "Cut list", stage: "cut", blocks: cutSheet },
};

/**
 * A sheet of paper about a job.
 * @param on day that it is made, ISO 8601. @param laid how the bars are cut, for the buying list.
 */
export function sheetOf(
  name: SheetName,
  job: Job,
  evaluation: Evaluation,
  on: string,
  laid: readonly Laid[] = [],
): Sheet {
  const { title, stage, blocks } = MADE[name];
  const { units } = job.plan;
  const lengths = units === "mm" ? "lengths in mm" : "lengths in inches";
  return {
    title,
    about: `${job.plan.name}, version ${job.version}, ${on.slice(0, 10)}, ${lengths}`,
    stage,
    blocks: blocks(job, evaluation, laid),
  };
}

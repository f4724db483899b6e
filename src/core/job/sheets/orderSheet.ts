import { orderWords, seamCaution, stepsInWords, timeWords } from "../../plan";
import { STAGE_CAUTIONS } from "../cautions";
import type { Evaluation } from "../evaluate";
import type { Job } from "../jobSchema";
import { timeOf } from "../orderOutlook";
import { settingsWords } from "../settings";
import type { SheetBlock } from "./sheet";

/** The order of work with boxes to tick, and room for what is read at its gates. */
export function orderSheet(job: Job, evaluation: Evaluation): SheetBlock[] {
  const { units } = job.plan;
  const { structure, order, steps, ticked } = evaluation;
  if (!structure || !order) return [{ kind: "text", text: "The frame has errors: there is no order yet." }];
  const time = timeOf(job);
  const words = stepsInWords(structure, steps, units);
  const cautions = [...new Set(steps.flatMap((s) => seamCaution(structure, s, units) ?? []))];
  return [
    {
      kind: "text",
      text: `${orderWords(order)}; ${steps.length} steps${time ? `, about ${timeWords(time.totalS)}` : ""}. ${settingsWords(job.plan).replace(/^./, (c) => c.toUpperCase())}.`,
    },
    ...[STAGE_CAUTIONS.weld, ...cautions].map((text) => ({ kind: "text" as const, text })),
    {
      kind: "table",
      columns: [
        { title: "", share: 0.05 },
        { title: "", share: 0.07 },
        { title: "Step", share: 0.58 },
        { title: "Read, or time", share: 0.3 },
      ],
      rows: steps.map((s, i) => {
        const before = steps[i - 1]?.up ?? "top";
        const say = words.get(s.key)?.say ?? s.key;
        return [
          { tick: ticked.has(s.key) },
          String(i + 1),
          `${say}${s.up !== before ? ` (${s.up} face up from here)` : ""}`,
          { room: true },
        ];
      }),
    },
  ];
}

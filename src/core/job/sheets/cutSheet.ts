import { formatLength, nearLength } from "../../units";
import { STAGE_CAUTIONS } from "../cautions";
import type { Evaluation } from "../evaluate";
import type { Job } from "../jobSchema";
import { sharedWords } from "../sharedWords";
import { addedInWords, cutToWords, pieceSection } from "../words";
import type { SheetBlock } from "./sheet";

/** The cut list with boxes, and how each end is set on the saw. */
export function cutSheet(job: Job, evaluation: Evaluation): SheetBlock[] {
  const { units } = job.plan;
  const { cut } = evaluation;
  const also = job.plan.stock.also ?? [];
  return [
    { kind: "text", text: STAGE_CAUTIONS.cut },
    {
      kind: "table",
      columns: [
        { title: "", share: 0.05 },
        { title: "Pieces", share: 0.2 },
        { title: "Section", share: 0.2 },
        { title: "Long / short point", share: 0.2 },
        { title: "Cut to", share: 0.2 },
        { title: "Measured", share: 0.15 },
      ],
      rows: cut.flatMap((p) => [
        [
          { tick: false },
          `${p.quantity} × ${p.members.join(", ")}`,
          pieceSection(job.plan, p),
          `${nearLength(p.longPointMm, units)} / ${nearLength(p.shortPointMm, units)}; ${addedInWords(p, units)}`,
          cutToWords(p, units, false),
          { room: true },
        ],
        ["", "", p.ends, sharedWords(job.plan, p, evaluation.prediction, units) ?? "", "", ""],
      ]),
    },
    { kind: "heading", text: "Cards for the saw" },
    ...cut.map(
      (p): SheetBlock => ({
        kind: "card",
        title: `${p.quantity} × ${p.members.join(", ")}, ${pieceSection(job.plan, p)}`,
        figure: cutToWords(p, units, false),
        lines: [
          `Stop to long point; short point ${nearLength(p.cutShortPointMm, units)}.`,
          ...p.detail.map((d) => `${d.end === "from" ? "First end" : "Second end"}: ${d.words}`),
          ...(p.cuts === "parallel" ? ["The two cuts lie parallel: slide it on, do not turn it over."] : []),
          ...(p.cuts === "opposed" ? ["The two cuts lean towards each other: turn it over end for end."] : []),
          ...(p.handed ? ["One hand only: do not mix it up with its mirror image."] : []),
        ],
      }),
    ),
    ...(also.length === 0
      ? []
      : ([
          { kind: "heading", text: "For something else, from the same bars" },
          {
            kind: "table",
            columns: [
              { title: "", share: 0.05 },
              { title: "Pieces", share: 0.35 },
              { title: "Ends", share: 0.25 },
              { title: "Cut to", share: 0.2 },
              { title: "Measured", share: 0.15 },
            ],
            rows: also.map((p) => [
              { tick: false },
              `${p.quantity} × ${p.id}${p.name === "" ? "" : `, ${p.name}`}`,
              p.ends,
              formatLength(p.length.mm, units).text,
              { room: true },
            ]),
          },
        ] as const satisfies SheetBlock[])),
  ];
}

import { drillList } from "../../cut";
import { drillWords, formatLength } from "../../units";
import { STAGE_CAUTIONS } from "../cautions";
import type { Evaluation } from "../evaluate";
import type { Job } from "../jobSchema";
import { equalGapWords, markingOutOf, markWords, measuredFromWords } from "../markingOutOf";
import { PLACED_AS_WORDS } from "../placedAs";
import type { SheetBlock } from "./sheet";

/** Running distances on each piece, and the holes with their drills and pilots. */
export function markingSheet(job: Job, evaluation: Evaluation): SheetBlock[] {
  const { plan } = job;
  const { units } = plan;
  const { structure } = evaluation;
  if (!structure) return [{ kind: "text", text: "The frame has errors: nothing is marked out yet." }];
  const { pieces, placed } = markingOutOf(plan, evaluation);
  const drills = drillList(structure, plan.drill, units);
  return [
    { kind: "text", text: STAGE_CAUTIONS.cut },
    {
      kind: "text",
      text: `Every distance runs from one end of its piece: hook the tape once. Places are ${PLACED_AS_WORDS[placed]}. Scribe the edges, and a cross on the side where the part goes.`,
    },
    ...pieces.flatMap((piece): SheetBlock[] => [
      {
        kind: "heading",
        text: `${piece.member}, ${formatLength(piece.longMm, units).text} long: ${measuredFromWords(piece)}`,
      },
      ...[equalGapWords(piece, units)].flatMap((text): SheetBlock[] => (text ? [{ kind: "text", text }] : [])),
      {
        kind: "table",
        columns: [
          { title: "", share: 0.06 },
          { title: "Middle", share: 0.22 },
          { title: "Edges", share: 0.34 },
          { title: "What", share: 0.22 },
          { title: "Where", share: 0.16 },
        ],
        rows: piece.marks.map((mark) => {
          const { at, edges, what, face } = markWords(mark, units);
          return [{ tick: false }, at, edges, what, face];
        }),
      },
    ]),
    ...(pieces.length === 0
      ? [{ kind: "text" as const, text: "Nothing lands along a piece: there is nothing to mark out." }]
      : []),
    ...(drills.length === 0
      ? []
      : ([
          { kind: "heading", text: "Holes" },
          {
            kind: "table",
            columns: [
              { title: "", share: 0.06 },
              { title: "Hole", share: 0.16 },
              { title: "Drill, pilot", share: 0.34 },
              { title: "In", share: 0.44 },
            ],
            rows: drills.flatMap(({ drill, pilotMm, notes }) => [
              [
                { tick: false },
                `${drill.id}, ${drill.for}`,
                `${drillWords(drill.diameter.mm, units)}${pilotMm === null ? "" : `, pilot ${drillWords(pilotMm, units)}`}`,
                `${drill.member}, ${drill.face}${drill.through ? ", through both walls" : ""}`,
              ],
              ...notes.map((n) => ["", "", n, ""]),
            ]),
          },
        ] as SheetBlock[])),
  ];
}

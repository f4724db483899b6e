import { allowedWords } from "../../check";
import { CORNERS } from "../../geometry";
import { walkingSet } from "../../square";
import type { Evaluation } from "../evaluate";
import type { Job } from "../jobSchema";
import { distanceId, quantityWords } from "../quantityId";
import type { SheetBlock } from "./sheet";

/** What is read of a frame, in walking order, with room for three rounds: typed back in the same order. */
export function checkSheet(job: Job, evaluation: Evaluation): SheetBlock[] {
  const { units } = job.plan;
  const { structure, places, limits } = evaluation;
  const words = structure?.quad
    ? ["AB", "BC", "CD", "DA", "AC", "BD", ...CORNERS.map((c) => quantityWords({ kind: "height", at: c }))]
    : places
      ? [
          ...walkingSet(places).map(([p, q]) => quantityWords(distanceId(p, q))),
          ...Object.keys(places.nodes)
            .slice(0, 8)
            .map((at) => quantityWords({ kind: "height", at })),
        ]
      : [];
  const room = { room: true } as const;
  return [
    {
      kind: "text",
      text: "Walk once round. Write what the instrument shows; what is known of it is taken off when it is typed in. Cold means: as warm as the tape.",
    },
    {
      kind: "table",
      columns: [
        { title: "What", share: 0.28 },
        { title: "Before welding", share: 0.24 },
        { title: "Cold", share: 0.24 },
        { title: "Cold, again", share: 0.24 },
      ],
      rows: words.map((w) => [w, room, room, room]),
    },
    { kind: "heading", text: "Limits" },
    {
      kind: "table",
      columns: [
        { title: "Limit", share: 0.4 },
        { title: "Allowed", share: 0.6 },
      ],
      rows: limits.map((l) => [l.label, allowedWords(l, units)]),
    },
    { kind: "lines", of: ["Instruments", "Read by", "Date and time", "Warmth of frame and tape"] },
  ];
}

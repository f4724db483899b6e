import { coldSet } from "../coldSet";
import type { Evaluation } from "../evaluate";
import type { Job } from "../jobSchema";
import { quantityWords } from "../quantityId";
import { limitsBlocks } from "./limitsBlocks";
import type { SheetBlock } from "./sheet";

/** What is read of a frame, in walking order, with room for three rounds: typed back in the same order. */
export function checkSheet(job: Job, evaluation: Evaluation): SheetBlock[] {
  const { units } = job.plan;
  const { limits, places } = evaluation;
  const middles = Object.entries(places?.middles ?? {}).map(([name, { member }]) => `${name} the middle of ${member}`);
  const words = coldSet(evaluation).map(quantityWords);
  const room = { room: true } as const;
  return [
    {
      kind: "text",
      text: "Walk once round. Write what the instrument shows; what is known of it is taken off when it is typed in, in this order: a figure, Enter, the next. Cold means: as warm as the tape.",
    },
    ...(middles.length > 0 ? [{ kind: "text" as const, text: `Heights: ${middles.join(", ")}.` }] : []),
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
    ...limitsBlocks(limits, units),
    { kind: "lines", of: ["Instruments", "Read by", "Date and time", "Warmth of frame and tape"] },
  ];
}

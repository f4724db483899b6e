import { formatLength } from "../../units";
import { type BuyingPart, buyingParts, type Laid } from "../buyingParts";
import { buyingWords } from "../buyingWords";
import type { Evaluation } from "../evaluate";
import type { Job } from "../jobSchema";
import type { SheetBlock } from "./sheet";

function part(job: Job, { title, stock }: BuyingPart, laid: Laid): SheetBlock[] {
  const { units } = job.plan;
  const words = (mm: number): string => formatLength(mm, units, { trim: true }).text;
  const heading: SheetBlock = { kind: "heading", text: title };
  if (!laid) return [heading, { kind: "text", text: "How the bars are cut could not be worked out just now." }];
  if ("tooLong" in laid)
    return [
      heading,
      {
        kind: "text",
        text: `${laid.tooLong}: longer than any bar at hand. Add a longer bar, or splice it where the load allows.`,
      },
    ];
  const { say, why } = buyingWords(laid, stock, units);
  return [
    heading,
    { kind: "text", text: why ? `${say} ${why}` : say },
    {
      kind: "table",
      columns: [
        { title: "", share: 0.06 },
        { title: "Bar", share: 0.24 },
        { title: "Cut from it, in this order", share: 0.5 },
        { title: "Left", share: 0.2 },
      ],
      rows: laid.bars.map((bar) => [
        { tick: false },
        bar.offcut ? `offcut ${bar.id}, ${words(bar.lengthMm)}` : words(bar.lengthMm),
        bar.pieces.map((p) => `${p.member} ${words(p.longMm)}`).join(", "),
        `${words(bar.leftMm)}${bar.keep ? ", keep it" : ""}`,
      ]),
    },
  ];
}

/** What to buy, and what is cut from each bar. @param laid how each section's bars are cut, in the order of the parts. */
export function buyingSheet(job: Job, evaluation: Evaluation, laid: readonly Laid[]): SheetBlock[] {
  const parts = buyingParts(job.plan, evaluation);
  if (parts.length === 0) return [{ kind: "text", text: "The frame has errors: nothing is known to buy yet." }];
  return [
    {
      kind: "text",
      text: "Lengths are long points, with what is added for the weld. Measure a bar before the first cut: stock runs long or short.",
    },
    ...parts.flatMap((p, i) => part(job, p, laid[i] ?? null)),
  ];
}

import { type Picture, pictureOf, sceneOf } from "../../drawing";
import { measuredFrom } from "../../fixture";
import { FROM_ABOVE } from "../../frame";
import { barWords } from "../../plan";
import { formatLength, plainLength } from "../../units";
import type { Evaluation } from "../evaluate";
import { barsOf } from "../held";
import type { Job } from "../jobSchema";
import { type LaidOut, layOut } from "../layOut";
import { clampCaution, fixtureChecks, laidWords } from "../layOutWords";
import { restWords } from "../words";
import type { SheetBlock } from "./sheet";

const KIND_WORDS = { stop: "stops", "end stop": "end stops", clamp: "clamps", square: "squares" } as const;

/** What is taken from the shelf, counted. */
function pickList({ elements }: LaidOut, bars: readonly { id: string; kind: string }[], rests: number): string[][] {
  const kinds = Object.keys(KIND_WORDS) as (keyof typeof KIND_WORDS)[];
  const counted = kinds.flatMap((kind) => {
    const n = elements.filter((e) => e.element.kind === kind).length;
    return n > 0 ? [[String(n), KIND_WORDS[kind]]] : [];
  });
  const packers = elements.filter((e) => (e.hole?.packMm ?? 0) > 0.05).length;
  const blocks = bars.filter((b) => b.kind === "block").length;
  return [
    ...counted,
    ...(packers > 0 ? [[String(packers), "packers, by the list below"]] : []),
    ...(bars.length - blocks > 0 ? [[String(bars.length - blocks), "bars to tack across"]] : []),
    ...(blocks > 0 ? [[String(blocks), "blocks"]] : []),
    ...(rests > 0 ? [[String(rests), "rests, with their shims"]] : []),
  ];
}

/** The bed and what stands on it, as a plan, with what is taken from the shelf and where each goes. */
export function fixtureSheet(job: Job, evaluation: Evaluation): SheetBlock[] {
  const { plan } = job;
  const { units, bed } = plan;
  const { structure, prediction, bedRounds } = evaluation;
  if (!structure) return [{ kind: "text", text: "The frame has errors: nothing is laid out yet." }];
  const laid = layOut(plan, structure, prediction);
  const bars = barsOf(structure, plan);
  const origin = measuredFrom(structure);
  const scene = sceneOf(structure, { view: FROM_ABOVE, origin });
  const base = pictureOf(scene, (mm) => formatLength(mm, units, { trim: true }).text);
  const picture: Picture = {
    ...base,
    items: [
      ...base.items,
      ...bed.rests.flatMap((r): Picture["items"] => {
        const at = { x: r.x.mm, y: r.y.mm };
        return [
          { kind: "mark", at },
          { kind: "label", at, text: r.id, isBold: false },
        ];
      }),
      ...laid.elements.flatMap(({ element, from }): Picture["items"] => [
        { kind: "mark", at: from },
        { kind: "label", at: from, text: element.id, isBold: true },
      ]),
    ],
  };
  const advice = bedRounds.at(-1)?.verdict.rests ?? [];
  return [
    {
      kind: "text",
      text: `Places are ${laid.isSetOff ? "as the frame is set up, off nominal for what the weld will take" : "as drawn"}. ${clampCaution(units)}`,
    },
    { kind: "picture", picture, highMm: 105 },
    { kind: "heading", text: "From the shelf" },
    {
      kind: "table",
      columns: [
        { title: "", share: 0.06 },
        { title: "How many", share: 0.2 },
        { title: "What", share: 0.74 },
      ],
      rows: pickList(laid, bars, bed.rests.length).map((row) => [{ tick: false }, ...row]),
    },
    { kind: "heading", text: "Stops and clamps" },
    {
      kind: "table",
      columns: [
        { title: "", share: 0.06 },
        { title: "Element", share: 0.24 },
        { title: "Where", share: 0.7 },
      ],
      rows: laid.elements.map((e) => [{ tick: false }, e.element.id, laidWords(e, units)]),
    },
    ...bars.map((bar): SheetBlock => ({ kind: "text", text: `${barWords(structure, bar, true, units).say}.` })),
    ...fixtureChecks(structure, laid, units).map((c): SheetBlock => ({ kind: "text", text: c.say })),
    ...(bed.rests.length === 0
      ? []
      : ([
          { kind: "heading", text: "Rests" },
          {
            kind: "table",
            columns: [
              { title: "", share: 0.06 },
              { title: "Rest", share: 0.14 },
              { title: "Along, across", share: 0.3 },
              { title: "Under it", share: 0.3 },
              { title: "Read", share: 0.2 },
            ],
            rows: bed.rests.map((r) => {
              const known = advice.find((a) => a.id === r.id);
              return [
                { tick: false },
                r.id,
                `${plainLength(r.x.mm, units)}, ${plainLength(r.y.mm, units)}`,
                known ? restWords(known, units) : "not read",
                { room: true },
              ];
            }),
          },
        ] as SheetBlock[])),
  ];
}

import { type Picture, pictureOf, sceneOf } from "../../drawing";
import { measuredFrom } from "../../fixture";
import { FROM_ABOVE } from "../../frame";
import { ALONG_WORDS, barWords } from "../../plan";
import { formatLength, plainLength } from "../../units";
import type { Evaluation } from "../evaluate";
import { barsOf } from "../held";
import type { Job } from "../jobSchema";
import { layOut } from "../layOut";
import { clampCaution, fixtureChecks, laidWords, pickList, thingWords } from "../layOutWords";
import { PLACED_AS_WORDS } from "../placedAs";
import { restWords } from "../words";
import type { SheetBlock } from "./sheet";

/** The bed and what stands on it, as a plan, with what is taken from the shelf and where each goes. */
export function fixtureSheet(job: Job, evaluation: Evaluation): SheetBlock[] {
  const { plan } = job;
  const { units, bed } = plan;
  const { structure, prediction, bedRounds } = evaluation;
  if (!structure) return [{ kind: "text", text: "The frame has errors: nothing is laid out yet." }];
  const laid = layOut(plan, structure, prediction);
  const bars = barsOf(structure, plan);
  const bearers = (plan.fixture?.bearers ?? []).map(({ id, from, to }) => ({
    id,
    points: [
      { x: from.x.mm, y: from.y.mm },
      { x: to.x.mm, y: to.y.mm },
    ] as const,
  }));
  const ends = bearers.flatMap((b) => b.points);
  const origin = measuredFrom(structure);
  const scene = sceneOf(structure, { view: FROM_ABOVE, origin });
  const base = pictureOf(scene, (mm) => formatLength(mm, units, { trim: true }).text);
  const picture: Picture = {
    ...base,
    low: { x: Math.min(base.low.x, ...ends.map((p) => p.x)), y: Math.min(base.low.y, ...ends.map((p) => p.y)) },
    high: { x: Math.max(base.high.x, ...ends.map((p) => p.x)), y: Math.max(base.high.y, ...ends.map((p) => p.y)) },
    items: [
      ...base.items,
      ...bearers.flatMap(({ id, points }): Picture["items"] => [
        { kind: "line", points, closed: false, weight: "thin" },
        { kind: "label", at: points[1], text: id, isBold: false },
      ]),
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
      text: `Places are ${PLACED_AS_WORDS[laid.placed]}. ${clampCaution(units)}`,
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
      rows: pickList(plan, laid, bars).map(({ count, what }) => [{ tick: false }, String(count), what]),
    },
    { kind: "heading", text: "Stops and clamps" },
    {
      kind: "table",
      columns: [
        { title: "", share: 0.06 },
        { title: "Element", share: 0.24 },
        { title: "Where", share: 0.7 },
      ],
      rows: laid.elements.map((e) => [
        { tick: false },
        e.element.id,
        [`${laidWords(e, units)}.`, thingWords(e)].filter((w) => w !== null).join(" "),
      ]),
    },
    ...(bars.length > 0 ? [{ kind: "text" as const, text: ALONG_WORDS }] : []),
    ...bars.map((bar): SheetBlock => ({ kind: "text", text: `${barWords(structure, bar, true, units).say}.` })),
    ...fixtureChecks(structure, laid, units, bedRounds.at(-1)?.verdict ?? null).map(
      (c): SheetBlock => ({ kind: "text", text: c.say }),
    ),
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

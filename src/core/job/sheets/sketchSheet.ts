import { pictureOf, sceneOf } from "../../drawing";
import { sectionWords } from "../../frame";
import { ends, SPANS } from "../../geometry";
import { distance, type Vec2 } from "../../numeric";
import { walkingSet } from "../../square";
import { formatLength, physical } from "../../units";
import { builtOf } from "../built";
import { beyondPairs } from "../coldSet";
import type { Evaluation } from "../evaluate";
import { wantedPlaces } from "../frameRound";
import type { Job } from "../jobSchema";
import { distanceId, quantityWords } from "../quantityId";
import { limitsBlocks } from "./limitsBlocks";
import type { SheetBlock } from "./sheet";

/** From corner to corner, and to what lies beyond, as drawn and as it is set up. */
function sizes({ structure, places, setUp, prediction }: Evaluation, words: (mm: number) => string): string[][] {
  if (!places) return [];
  if (structure?.quad) {
    const { corners } = structure.quad;
    const spans = SPANS.map((span) => {
      const [p, q] = ends(span);
      return [span, words(distance(corners[p], corners[q])), setUp ? words(setUp.targets[span]) : "not known yet"];
    });
    const laid = prediction && wantedPlaces(places, prediction.setUp.offsetsMm);
    const ways = beyondPairs(places).map(([p, q]) => [
      quantityWords(distanceId(p, q)),
      words(distance(places.nodes[p] as Vec2, places.nodes[q] as Vec2)),
      laid ? words(distance(laid[p] as Vec2, laid[q] as Vec2)) : "not known yet",
    ]);
    return [...spans, ...ways];
  }
  return walkingSet(places).map(([p, q]) => [
    quantityWords(distanceId(p, q)),
    words(distance(places.nodes[p] as Vec2, places.nodes[q] as Vec2)),
    "not known yet",
  ]);
}

/** The whole frame on one sheet: a picture, sizes from corner to corner, what it is made of, its limits. */
export function sketchSheet(job: Job, evaluation: Evaluation): SheetBlock[] {
  const { plan } = job;
  const { units } = plan;
  const { structure, limits, setUp } = evaluation;
  const { members } = builtOf(plan);
  if (!structure || !members) return [{ kind: "text", text: "The frame has errors: there is nothing to draw yet." }];
  const words = (mm: number): string => formatLength(mm, units).text;
  const best = sceneOf(structure);
  // Corners that are measured between are shown, too, where the best view does not show them.
  const scenes = structure.quad && !best.corners ? [sceneOf(structure, { view: structure.quad.view }), best] : [best];
  const rows = sizes(evaluation, words);
  const isSetOff = setUp !== null && structure.quad !== null;
  return [
    {
      kind: "text",
      text: `${structure.members.length} members, ${structure.joints.length} joints, ${physical("mass", structure.massKg, units)}. ${members.sections.map((s) => sectionWords(members, s.id)).join("; ")}. To no scale: measure nothing off it.`,
    },
    ...scenes.map(
      (scene): SheetBlock => ({
        kind: "picture",
        picture: pictureOf(scene, (mm) => formatLength(mm, units, { trim: true }).text),
        highMm: scenes.length > 1 ? 88 : 120,
      }),
    ),
    ...(rows.length === 0
      ? []
      : ([
          { kind: "heading", text: "From corner to corner" },
          {
            kind: "table",
            columns: [
              { title: "What", share: 0.3 },
              { title: "As drawn", share: 0.25 },
              ...(isSetOff ? [{ title: "Set it up to", share: 0.25 }] : []),
              { title: "Read", share: 0.2 },
            ],
            rows: rows.map(([what = "", drawn = "", target = ""]) => [
              what,
              drawn,
              ...(isSetOff ? [target] : []),
              { room: true },
            ]),
          },
        ] as SheetBlock[])),
    ...limitsBlocks(limits, units),
  ];
}

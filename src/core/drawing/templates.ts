import type { WrapTemplate } from "../cut";
import type { Vec2 } from "../numeric";
import type { FullScale, LayoutItem } from "./fullScale";

/** Paper under a curve, to wrap and to hold, and between one template and the next, mm. */
const UNDER_MM = 20;
const APART_MM = 12;
const LETTER_MM = 4;

/** Templates one above the other, at full size: what is cut away lies above each curve. */
export function templatesDrawing(templates: readonly { name: string; template: WrapTemplate }[]): FullScale {
  const items: LayoutItem[] = [];
  let y = 0;
  let wide = 0;
  for (const { name, template } of templates) {
    const { aroundMm, deepMm, points } = template;
    const top = y + UNDER_MM + deepMm;
    const line = (layer: "outline" | "cut" | "centre", row: readonly Vec2[]): void => {
      items.push({ layer, kind: "line", points: row, closed: false });
    };
    line(
      "cut",
      points.map((p) => ({ x: p.aroundMm, y: top - p.inMm })),
    );
    const [first, last] = [points[0]?.inMm ?? 0, points.at(-1)?.inMm ?? 0];
    line("outline", [
      { x: 0, y: top - first },
      { x: 0, y },
      { x: aroundMm, y },
      { x: aroundMm, y: top - last },
    ]);
    for (const share of [0.25, 0.5, 0.75])
      line("centre", [
        { x: share * aroundMm, y },
        { x: share * aroundMm, y: y + UNDER_MM / 2 },
      ]);
    items.push({
      layer: "joint",
      kind: "text",
      at: { x: 2, y: y + 3 },
      text: `${name}: wrap round, this edge square to the tube`,
      heightMm: LETTER_MM,
    });
    wide = Math.max(wide, aroundMm);
    y = top + APART_MM;
  }
  return { low: { x: 0, y: 0 }, high: { x: wide, y: Math.max(1, y - APART_MM) }, items };
}

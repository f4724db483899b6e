import { crossLines, type FullScale, type LayoutItem } from "@/core/drawing";

/** Room round the drawing, mm. */
const ROOM_MM = 10;

const escaped = (text: string): string =>
  text.replace(/&/g, "&amp;").replace(/</g, "&lt;").replace(/>/g, "&gt;").replace(/"/g, "&quot;");
const mm = (x: number): string => String(+x.toFixed(3));

/** A drawing as SVG in true millimetres, a group for each layer. Source: SVG 1.1, units of the outermost svg element. */
export function layoutSvg({ low, high, items }: FullScale, title: string): string {
  const [w, h] = [high.x - low.x + 2 * ROOM_MM, high.y - low.y + 2 * ROOM_MM];
  const x = (v: number): string => mm(v - low.x + ROOM_MM);
  // Down is positive on paper.
  const y = (v: number): string => mm(high.y - v + ROOM_MM);
  const drawn = (i: LayoutItem): string => {
    switch (i.kind) {
      case "line":
        return `<${i.closed ? "polygon" : "polyline"} points="${i.points.map((p) => `${x(p.x)},${y(p.y)}`).join(" ")}"/>`;
      case "circle":
        return `<circle cx="${x(i.at.x)}" cy="${y(i.at.y)}" r="${mm(i.radiusMm)}"/>`;
      case "cross":
        return `<path d="${crossLines(i)
          .map(([p, q]) => `M${x(p.x)} ${y(p.y)}L${x(q.x)} ${y(q.y)}`)
          .join("")}"/>`;
      case "text":
        return `<text x="${x(i.at.x)}" y="${y(i.at.y)}" font-size="${mm(i.heightMm)}" fill="black" stroke="none">${escaped(i.text)}</text>`;
    }
  };
  const layers = [...new Set(items.map((i) => i.layer))];
  return [
    `<?xml version="1.0" encoding="UTF-8"?>`,
    `<svg xmlns="http://www.w3.org/2000/svg" width="${mm(w)}mm" height="${mm(h)}mm" viewBox="0 0 ${mm(w)} ${mm(h)}" font-family="sans-serif">`,
    `<title>${escaped(title)}</title>`,
    ...layers.map(
      (layer) =>
        `<g id="${layer}" fill="none" stroke="black" stroke-width="${layer === "outline" || layer === "cut" ? "0.35" : "0.18"}"${layer === "centre" ? ` stroke-dasharray="12 3 2 3"` : ""}>\n${items
          .filter((i) => i.layer === layer)
          .map(drawn)
          .join("\n")}\n</g>`,
    ),
    "</svg>",
    "",
  ].join("\n");
}

import { Colors, DxfWriter, point2d, point3d, Units } from "@tarikjabiri/dxf";
import { crossLines, type FullScale, LAYERS, type LayerName } from "@/core/drawing";

const COLOUR: Record<LayerName, number> = {
  outline: Colors.White,
  centre: Colors.Cyan,
  cut: Colors.Red,
  joint: Colors.Yellow,
  distance: Colors.Green,
  hole: Colors.Magenta,
  stop: Colors.Blue,
  datum: Colors.White,
};

/** A drawing as DXF in millimetres, one to one, a layer for each kind of thing, a block for each kind of cross: joints, holes, stops. */
export function layoutDxf({ items }: FullScale): string {
  const dxf = new DxfWriter();
  dxf.setUnits(Units.Millimeters);
  for (const layer of LAYERS) dxf.addLayer(layer, COLOUR[layer], "Continuous");
  const crosses = new Map<string, ReturnType<DxfWriter["addBlock"]>>();
  for (const i of items) {
    const options = { layerName: i.layer };
    switch (i.kind) {
      case "line": {
        const [p, q] = i.points;
        if (i.points.length === 2 && !i.closed && p && q) dxf.addLine(point3d(p.x, p.y), point3d(q.x, q.y), options);
        else
          dxf.addLWPolyline(
            i.points.map((v) => ({ point: point2d(v.x, v.y) })),
            { ...options, ...(i.closed ? { flags: 1 } : {}) },
          );
        break;
      }
      case "circle":
        dxf.addCircle(point3d(i.at.x, i.at.y), i.radiusMm, options);
        break;
      case "cross": {
        let block = crosses.get(i.layer);
        if (!block) {
          block = dxf.addBlock(i.layer);
          for (const [p, q] of crossLines({ at: { x: 0, y: 0 }, armMm: i.armMm }))
            block.addLine(point3d(p.x, p.y), point3d(q.x, q.y), options);
          crosses.set(i.layer, block);
        }
        dxf.addInsert(block.name, point3d(i.at.x, i.at.y), options);
        break;
      }
      case "text":
        dxf.addText(point3d(i.at.x, i.at.y), i.heightMm, plainText(i.text), options);
        break;
    }
  }
  return dxf.stringify();
}

/** Control characters and line breaks would end a value; what is not in ASCII goes as its code. */
const plainText = (text: string): string =>
  // biome-ignore lint/suspicious/noControlCharactersInRegex: these are what must not get through
  [...text.replace(/[\u0000-\u001f\u007f]/g, " ")]
    .map((c) =>
      (c.codePointAt(0) ?? 0) > 126 ? `\\U+${(c.codePointAt(0) ?? 0).toString(16).toUpperCase().padStart(4, "0")}` : c,
    )
    .join("");

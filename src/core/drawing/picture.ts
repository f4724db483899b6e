import { add, scale, type Vec2 } from "../numeric";
import type { Scene } from "./scene";

/** One thing of a picture that is made to fit its paper: lengths in mm of the frame, letters in those of the paper. */
export type PictureItem =
  | { kind: "line"; points: readonly Vec2[]; closed: boolean; weight: "thin" | "thick" | "dashed" }
  /** Words with their middle at a place. */
  | { kind: "label"; at: Vec2; text: string; isBold: boolean }
  /** A small cross, as large on every paper. */
  | { kind: "mark"; at: Vec2 };

/** A picture of a frame, fitted to the room that there is. */
export interface Picture {
  low: Vec2;
  high: Vec2;
  items: PictureItem[];
}

/** Room round a frame for its dimensions and letters, as a share of its larger side. */
const ROOM = 0.09;

/** A scene as a picture on paper. @param words a length as it is written. */
export function pictureOf(scene: Scene, words: (mm: number) => string): Picture {
  const room = ROOM * Math.max(scene.high.x - scene.low.x, scene.high.y - scene.low.y, 1);
  const centre = scale(add(scene.low, scene.high), 0.5);
  const drawn = (i: Scene["items"][number]): PictureItem[] => {
    switch (i.kind) {
      case "outline":
        return [{ kind: "line", points: i.points, closed: true, weight: "thick" }];
      case "part":
        return [{ kind: "line", points: i.points, closed: true, weight: "thin" }];
      case "line":
        return [{ kind: "line", points: i.points, closed: false, weight: "dashed" }];
      case "text": {
        const out = { x: Math.sign(i.at.x - centre.x), y: Math.sign(i.at.y - centre.y) };
        const at = i.role === "corner" ? add(i.at, scale(out, room / 3)) : i.at;
        return [{ kind: "label", at, text: i.text, isBold: i.role === "corner" }];
      }
      case "dimension": {
        const off = scale(i.away, room * 0.75);
        const [from, to] = [add(i.from, off), add(i.to, off)];
        return [
          { kind: "line", points: [from, to], closed: false, weight: "thin" },
          { kind: "line", points: [i.from, from], closed: false, weight: "thin" },
          { kind: "line", points: [i.to, to], closed: false, weight: "thin" },
          { kind: "label", at: scale(add(from, to), 0.5), text: words(i.lengthMm), isBold: false },
        ];
      }
    }
  };
  return {
    low: { x: scene.low.x - room, y: scene.low.y - room },
    high: { x: scene.high.x + room, y: scene.high.y + room },
    items: scene.items.flatMap(drawn),
  };
}

import { sectionProperties } from "./sections";

/** A section by its sizes, mm. `tube` is square or rectangular. `width` lies in the frame's plane, `height` stands up from it. */
export type Shape =
  | { shape: "tube"; widthMm: number; heightMm: number; wallMm: number }
  | { shape: "round tube"; diameterMm: number; wallMm: number }
  /** Legs along width and height; the root is rounded by `rootMm`, the toes by half of it. */
  | { shape: "angle"; widthMm: number; heightMm: number; wallMm: number; rootMm: number }
  /** Web upright, flanges along the width; folded from sheet of one thickness, sharp corners. */
  | { shape: "channel"; widthMm: number; heightMm: number; wallMm: number }
  | { shape: "flat"; widthMm: number; heightMm: number }
  | { shape: "bar"; diameterMm: number };

/** What a beam needs of a section. Second moments are about the axes along width and height through the centroid. */
export interface ShapeProperties {
  shape: Shape["shape"];
  widthMm: number;
  heightMm: number;
  /** Thickness that a bead on it warms. */
  wallMm: number;
  areaMm2: number;
  /** Bending out of the frame's plane. */
  iyMm4: number;
  /** Bending in the frame's plane. */
  izMm4: number;
  jMm4: number;
}

/** A rectangle or a corner piece: area, centroid, own second moments. Negative area takes away. */
interface Piece {
  area: number;
  y: number;
  z: number;
  ownY: number;
  ownZ: number;
}

const rectangle = (y0: number, z0: number, width: number, height: number): Piece => ({
  area: width * height,
  y: y0 + width / 2,
  z: z0 + height / 2,
  ownY: (width * height ** 3) / 12,
  ownZ: (height * width ** 3) / 12,
});

/** What lies between a square corner of size r and its quarter circle; `y`, `z` the corner, `sy`, `sz` where the round lies. */
function spandrel(y: number, z: number, sy: number, sz: number, r: number, sign: number): Piece {
  const off = ((10 - 3 * Math.PI) / (12 - 3 * Math.PI)) * r;
  const own = sign * (1 / 3 - Math.PI / 16 - 1 / (3 * (12 - 3 * Math.PI))) * r ** 4;
  return { area: sign * (1 - Math.PI / 4) * r * r, y: y + sy * off, z: z + sz * off, ownY: own, ownZ: own };
}

function together(pieces: readonly Piece[]) {
  const area = pieces.reduce((s, p) => s + p.area, 0);
  const y = pieces.reduce((s, p) => s + p.area * p.y, 0) / area;
  const z = pieces.reduce((s, p) => s + p.area * p.z, 0) / area;
  return {
    areaMm2: area,
    iyMm4: pieces.reduce((s, p) => s + p.ownY + p.area * (p.z - z) ** 2, 0),
    izMm4: pieces.reduce((s, p) => s + p.ownZ + p.area * (p.y - y) ** 2, 0),
  };
}

/** Torsion constant of a rectangle. Source: Roark, Formulas for Stress and Strain, torsion of solid sections (from memory). */
function rectangleJ(a: number, b: number): number {
  const [long, short] = a > b ? [a, b] : [b, a];
  const ratio = short / long;
  return long * short ** 3 * (1 / 3 - 0.21 * ratio * (1 - ratio ** 4 / 12));
}

/** Width of the face of a shape that a tack is laid on, mm: a quarter of a round one's girth, the broad side of what is open or flat. */
export function faceMm(shape: Shape): number {
  if (shape.shape === "round tube" || shape.shape === "bar") return (Math.PI * shape.diameterMm) / 4;
  const { widthMm, heightMm } = shape;
  return shape.shape === "tube" ? Math.min(widthMm, heightMm) : Math.max(widthMm, heightMm);
}

/**
 * Area, second moments and torsion constant from the sizes of a section. Tubes after EN 10219-2, the others by parts.
 * For an angle the axes along its legs are no principal axes; a beam that uses them is the nearest simple one.
 * @param s sizes in mm, all positive, the wall under half the smaller size.
 */
export function shapeProperties(s: Shape): ShapeProperties {
  switch (s.shape) {
    case "tube": {
      const p = sectionProperties({ faceMm: s.widthMm, depthMm: s.heightMm, wallMm: s.wallMm });
      return { ...s, areaMm2: p.areaMm2, iyMm4: p.iOutOfPlaneMm4, izMm4: p.iInPlaneMm4, jMm4: p.jMm4 };
    }
    case "round tube": {
      const { diameterMm: d, wallMm } = s;
      const inner = d - 2 * wallMm;
      const i = (Math.PI / 64) * (d ** 4 - inner ** 4);
      return {
        shape: s.shape,
        widthMm: d,
        heightMm: d,
        wallMm,
        areaMm2: (Math.PI / 4) * (d ** 2 - inner ** 2),
        iyMm4: i,
        izMm4: i,
        jMm4: 2 * i,
      };
    }
    case "angle": {
      const { widthMm: w, heightMm: h, wallMm: t, rootMm: r, shape } = s;
      const toe = r / 2;
      const sums = together([
        rectangle(0, 0, w, t),
        rectangle(0, t, t, h - t),
        spandrel(t, t, 1, 1, r, 1),
        spandrel(w, t, -1, -1, toe, -1),
        spandrel(t, h, -1, -1, toe, -1),
      ]);
      return { shape, widthMm: w, heightMm: h, wallMm: t, ...sums, jMm4: ((w + h - t) * t ** 3) / 3 };
    }
    case "channel": {
      const { widthMm: w, heightMm: h, wallMm: t, shape } = s;
      const sums = together([rectangle(0, 0, t, h), rectangle(t, 0, w - t, t), rectangle(t, h - t, w - t, t)]);
      return { shape, widthMm: w, heightMm: h, wallMm: t, ...sums, jMm4: ((h + 2 * (w - t)) * t ** 3) / 3 };
    }
    case "flat": {
      const { widthMm: w, heightMm: h, shape } = s;
      return {
        shape,
        widthMm: w,
        heightMm: h,
        wallMm: Math.min(w, h),
        areaMm2: w * h,
        iyMm4: (w * h ** 3) / 12,
        izMm4: (h * w ** 3) / 12,
        jMm4: rectangleJ(w, h),
      };
    }
    case "bar": {
      const d = s.diameterMm;
      const i = (Math.PI / 64) * d ** 4;
      return {
        shape: s.shape,
        widthMm: d,
        heightMm: d,
        wallMm: d,
        areaMm2: (Math.PI / 4) * d ** 2,
        iyMm4: i,
        izMm4: i,
        jMm4: 2 * i,
      };
    }
  }
}

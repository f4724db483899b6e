import DxfParser, {
  type IArcEntity,
  type IBlock,
  type IEntity,
  type IInsertEntity,
  type ILineEntity,
  type ILwpolylineEntity,
  type IPoint,
  type IPolylineEntity,
} from "dxf-parser";
import type { DrawingUnit, LineWork } from "@/core/frame";
import type { Vec3 } from "@/core/numeric";
import { fail, ok, type Result } from "@/core/units";
import { LineCollector, TooManyLines } from "./lineCollector";
import { AS_IT_IS, chords, type Placing, placedBy, within } from "./placing2d";

/** Codes of the header's unit. Source: DXF reference, $INSUNITS. */
const UNITS: Record<number, DrawingUnit> = { 1: "in", 2: "ft", 4: "mm", 5: "cm", 6: "m" };
/** Blocks in blocks in blocks: deeper than this one holds itself. */
const DEEPEST = 12;

/** What is taken besides lines. */
const TAKEN = new Set(["LWPOLYLINE", "POLYLINE", "ARC", "INSERT"]);

/** What a person calls what is not taken. */
const WORDS: Record<string, string> = {
  SPLINE: "spline: draw it as lines",
  CIRCLE: "circle",
  ELLIPSE: "ellipse: draw it as lines",
  TEXT: "text",
  MTEXT: "text",
  ATTDEF: "text",
  ATTRIB: "text",
  DIMENSION: "dimension",
  LEADER: "leader",
  MULTILEADER: "leader",
  HATCH: "hatching",
  POINT: "point",
  "3DSOLID": "solid body",
  "3DFACE": "face",
  SOLID: "filled area",
  VIEWPORT: "viewport",
};

const at = (p: IPoint | undefined): Vec3 => [p?.x ?? 0, p?.y ?? 0, p?.z ?? 0];

/** An entity's own plane: looked at from above, or from below, or tilted, which is not taken. */
function facing(e: { extrusionDirection?: IPoint; extrusionDirectionZ?: number }): 1 | -1 | null {
  const z = e.extrusionDirectionZ ?? e.extrusionDirection?.z ?? 1;
  return z > 0.999 ? 1 : z < -0.999 ? -1 : null;
}

/** Looked at from below x goes to the left. */
const MIRRORED: Placing = { ...AS_IT_IS, a: -1, z: -1 };

const byFacing = (placing: Placing, side: 1 | -1): Placing => (side === 1 ? placing : within(placing, MIRRORED));

/** Places along a polyline, arcs between its corners as chords. @returns whether there was an arc. */
function corners(
  vertices: readonly (IPoint & { bulge?: number })[],
  isClosed: boolean,
  z: number | null,
): { places: Vec3[]; hasArc: boolean } {
  const places: Vec3[] = [];
  let hasArc = false;
  const round = isClosed ? [...vertices, ...vertices.slice(0, 1)] : vertices;
  round.forEach((v, i) => {
    const here: Vec3 = [v.x, v.y, z ?? v.z ?? 0];
    const before = round[i - 1];
    const bulge = before?.bulge ?? 0;
    if (before && Math.abs(bulge) > 1e-9) {
      // The bulge is the tangent of a quarter of the angle that the arc spans.
      hasArc = true;
      const sweep = 4 * Math.atan(bulge);
      const [dx, dy] = [v.x - before.x, v.y - before.y];
      const reach = Math.hypot(dx, dy) / 2;
      const radius = reach / Math.sin(Math.abs(sweep) / 2);
      const rise = Math.sign(bulge) * radius * Math.cos(sweep / 2);
      const centre: Vec3 = [
        (before.x + v.x) / 2 - (rise * dy) / (2 * reach || 1),
        (before.y + v.y) / 2 + (rise * dx) / (2 * reach || 1),
        here[2],
      ];
      const from = Math.atan2(before.y - centre[1], before.x - centre[0]);
      places.push(...chords(centre, radius, from, sweep).slice(1, -1));
    }
    places.push(here);
  });
  return { places, hasArc };
}

/** Goes through the entities of a drawing, and of the blocks that it puts in. */
class Walk {
  constructor(
    private readonly into: LineCollector,
    private readonly blocks: Record<string, IBlock | undefined>,
  ) {}

  all(entities: readonly IEntity[], placing: Placing, layer: string | null, depth: number): void {
    for (const e of entities) this.one(e, placing, e.layer === "0" && layer !== null ? layer : (e.layer ?? "0"), depth);
  }

  private one(e: IEntity, placing: Placing, layer: string, depth: number): void {
    const side = facing(e as Parameters<typeof facing>[0]);
    if (e.type === "LINE")
      this.into.row(
        layer,
        (e as ILineEntity).vertices.map((p) => placedBy(placing, at(p))),
      );
    else if (!TAKEN.has(e.type)) this.into.pass(WORDS[e.type] ?? e.type.toLowerCase());
    else if (side === null) this.into.pass(`${e.type.toLowerCase()} in a tilted plane`);
    else if (e.type === "INSERT") this.put(e as IInsertEntity, byFacing(placing, side), layer, depth);
    else {
      const places =
        e.type === "ARC" ? this.arc(e as IArcEntity) : this.corners(e as ILwpolylineEntity & IPolylineEntity);
      this.into.row(
        layer,
        places.map((p) => placedBy(byFacing(placing, side), p)),
      );
    }
  }

  private arc({ center, radius, startAngle, endAngle }: IArcEntity): Vec3[] {
    const turn = 2 * Math.PI;
    const sweep = (((endAngle - startAngle) % turn) + turn) % turn || turn;
    this.into.pass("arc, taken as straight chords");
    return chords(at(center), radius, startAngle, sweep);
  }

  private corners(line: ILwpolylineEntity & IPolylineEntity): Vec3[] {
    if (line.isPolyfaceMesh || line.is3dPolygonMesh) {
      this.into.pass("mesh");
      return [];
    }
    const { places, hasArc } = corners(
      line.vertices,
      line.shape,
      line.type === "LWPOLYLINE" ? (line.elevation ?? 0) : null,
    );
    if (hasArc) this.into.pass("arc of a polyline, taken as straight chords");
    return places;
  }

  /** A block where it is put in, in rows and columns. */
  private put(e: IInsertEntity, own: Placing, layer: string, depth: number): void {
    const block = this.blocks[e.name];
    if (!block?.entities || depth >= DEEPEST) {
      this.into.pass(depth >= DEEPEST ? "block that holds itself" : "block that is not in the file");
      return;
    }
    const [sx, sy, sz] = [e.xScale ?? 1, e.yScale ?? 1, e.zScale ?? 1];
    const turn = ((e.rotation ?? 0) * Math.PI) / 180;
    const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
    const p = at(e.position);
    const base = at(block.position);
    const many = (n: number | undefined): number => Math.max(1, Math.min(1000, Math.round(n ?? 1)));
    for (let r = 0; r < many(e.rowCount); r++)
      for (let c = 0; c < many(e.columnCount); c++) {
        const [x, y] = [c * (e.columnSpacing ?? 0), r * (e.rowSpacing ?? 0)];
        const turned: Placing = {
          a: sx * cos,
          b: sx * sin,
          c: -sy * sin,
          d: sy * cos,
          e: p[0] + x * cos - y * sin,
          f: p[1] + x * sin + y * cos,
          z: sz,
          up: p[2],
        };
        const toBase: Placing = { ...AS_IT_IS, e: -base[0], f: -base[1], up: -base[2] };
        this.all(block.entities, within(own, within(turned, toBase)), layer, depth + 1);
      }
  }
}

/** Kinds of entities that the reader knows; it passes over others without a word. */
const KNOWN = new Set([
  "3DFACE",
  "ARC",
  "ATTDEF",
  "CIRCLE",
  "DIMENSION",
  "ELLIPSE",
  "INSERT",
  "LINE",
  "LWPOLYLINE",
  "MTEXT",
  "POINT",
  "POLYLINE",
  "SOLID",
  "SPLINE",
  "TEXT",
  "VERTEX",
  "SEQEND",
  "ATTRIB",
  "SECTION",
  "ENDSEC",
]);

/** Entities of the drawing that the reader knows nothing of, from the text itself: pairs of a code and a value, a line each. */
function strangers(text: string, into: LineCollector): void {
  const lines = text.split(/\r?\n/);
  let isInside = false;
  // Remarks before the first section are pairs, too.
  for (let i = 0; i + 1 < lines.length; i += 2) {
    const [code, value] = [(lines[i] as string).trim(), (lines[i + 1] as string).trim()];
    if (code === "2" && value === "ENTITIES") isInside = true;
    else if (code === "0" && value === "ENDSEC") isInside = false;
    else if (isInside && code === "0" && !KNOWN.has(value)) into.pass(WORDS[value] ?? value.toLowerCase());
  }
}

/**
 * Lines of a drawing in DXF text, R12 to current: lines, polylines, arcs as chords, blocks.
 * @returns the lines and what was not taken, or why the file cannot be read.
 */
export function readDxf(text: string): Result<LineWork> {
  const into = new LineCollector();
  let dxf: ReturnType<DxfParser["parseSync"]>;
  try {
    dxf = new DxfParser().parseSync(text);
  } catch (e) {
    return fail(`This drawing cannot be read to its end: ${e instanceof Error ? e.message : "it is broken"}.`);
  }
  if (!dxf) return fail("This drawing cannot be read: it is broken.");
  try {
    new Walk(into, dxf.blocks ?? {}).all(dxf.entities ?? [], AS_IT_IS, null, 0);
  } catch (e) {
    if (e instanceof TooManyLines)
      return fail(`${e.message} Save the layer of the frame's centre lines alone, and read that in.`);
    throw e;
  }
  strangers(text, into);
  const header = dxf.header ?? {};
  const number = (name: string): number | null => {
    const v = header[name];
    return typeof v === "number" ? v : null;
  };
  const code = number("$INSUNITS");
  // Engineering and architectural lengths are in inches by their nature. Source: DXF reference, $LUNITS.
  const style = number("$LUNITS");
  const unit = (code === null ? undefined : UNITS[code]) ?? (style === 3 || style === 4 ? "in" : null);
  if (code !== null && code > 0 && !UNITS[code]) into.pass("unit that no frame is drawn in");
  return ok({ lines: into.lines, unit, isInchHabit: number("$MEASUREMENT") === 0, unread: into.unread });
}

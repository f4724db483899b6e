import { XMLParser } from "fast-xml-parser";
import svgpath from "svgpath";
import type { DrawingUnit, LineWork } from "@/core/frame";
import type { Vec3 } from "@/core/numeric";
import { fail, ok, type Result } from "@/core/units";
import { LineCollector, TooManyLines } from "./lineCollector";
import { AS_IT_IS, type Placing, placedBy, within } from "./placing2d";

/** An element as the reader gives it: its children under its name, its attributes beside. */
type Node = Record<string, unknown> & { ":@"?: Record<string, string> };

const num = (v: string | undefined, otherwise = 0): number => {
  const n = Number.parseFloat(v ?? "");
  return Number.isFinite(n) ? n : otherwise;
};

const numbers = (text: string | undefined): number[] =>
  (text ?? "").match(/[+-]?(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?/g)?.map(Number) ?? [];

/** Units that sizes may carry, as units of a drawing. */
const SIZE_UNITS: Record<string, DrawingUnit> = { mm: "mm", cm: "cm", in: "in" };
/** Deeper than this no drawing is nested. */
const DEEPEST = 60;

/** What moves and turns is told in fewer letters. */
const TRANSFORM_LETTERS = 2000;

/** A list of moves, turns and scales as one. Source: SVG 1.1, 7.6. */
function transformOf(text: string | undefined): Placing | null {
  let out = AS_IT_IS;
  for (const [, name = "", args = ""] of (text ?? "").slice(0, TRANSFORM_LETTERS).matchAll(/(\w+)\s*\(([^)]*)\)/g)) {
    const v = numbers(args);
    const n = (i: number, otherwise = 0): number => v[i] ?? otherwise;
    const turn = (n(0) * Math.PI) / 180;
    const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
    const by: Record<string, Placing> = {
      translate: { ...AS_IT_IS, e: n(0), f: n(1) },
      scale: { ...AS_IT_IS, a: n(0, 1), d: v.length > 1 ? n(1, 1) : n(0, 1) },
      rotate: {
        ...AS_IT_IS,
        a: cos,
        b: sin,
        c: -sin,
        d: cos,
        e: n(1) - n(1) * cos + n(2) * sin,
        f: n(2) - n(1) * sin - n(2) * cos,
      },
      matrix: { ...AS_IT_IS, a: n(0, 1), b: n(1), c: n(2), d: n(3, 1), e: n(4), f: n(5) },
      skewX: { ...AS_IT_IS, c: Math.tan(turn) },
      skewY: { ...AS_IT_IS, b: Math.tan(turn) },
    };
    const next = by[name];
    if (!next) return null;
    out = within(out, next);
  }
  return out;
}

/** Corners of a path, curves as a chord from end to end. @returns rows of places and how many curves there were. */
function pathRows(d: string): { rows: Vec3[][]; curves: number } {
  const rows: Vec3[][] = [];
  let curves = 0;
  let row: Vec3[] = [];
  svgpath(d)
    .abs()
    .iterate(([kind, ...v]) => {
      const values = v.map(Number);
      const [x = Number.NaN, y = Number.NaN] = values.slice(-2);
      const last = row.at(-1) ?? [0, 0, 0];
      switch (kind) {
        case "M":
          row = [[x, y, 0]];
          rows.push(row);
          break;
        case "Z": {
          const first = row[0];
          if (!first) break;
          row.push(first);
          row = [first];
          rows.push(row);
          break;
        }
        case "H":
          row.push([values[0] ?? Number.NaN, last[1], 0]);
          break;
        case "V":
          row.push([last[0], values[0] ?? Number.NaN, 0]);
          break;
        default:
          if (kind !== "L") curves++;
          row.push([x, y, 0]);
      }
    });
  return { rows, curves };
}

/** Elements that hold others and are gone into. */
const GROUPS = new Set(["svg", "g", "a", "switch"]);
/** Elements that draw nothing. */
const SILENT = new Set([
  "defs",
  "title",
  "desc",
  "metadata",
  "style",
  "script",
  "symbol",
  "clipPath",
  "mask",
  "pattern",
]);
const PASSED: Record<string, string> = {
  circle: "circle",
  ellipse: "ellipse",
  text: "text",
  use: "repeated drawing: put it in as lines",
  image: "picture",
};

/** A name by which a person knows a group: a label that a program gave it, else its id. */
const labelOf = (own: Record<string, string>): string | undefined =>
  Object.entries(own).find(([key]) => key === "label" || key.endsWith(":label"))?.[1] ?? own.id;

/** Places of a plain shape; null for what is none. */
function shapeRow(name: string, own: Record<string, string>): [number, number][] | null {
  switch (name) {
    case "line":
      return [
        [num(own.x1), num(own.y1)],
        [num(own.x2), num(own.y2)],
      ];
    case "polyline":
    case "polygon": {
      const v = numbers(own.points);
      const places = Array.from({ length: v.length >> 1 }, (_, i) => [v[2 * i], v[2 * i + 1]] as [number, number]);
      return name === "polygon" ? [...places, ...places.slice(0, 1)] : places;
    }
    case "rect": {
      const [x, y, w, h] = [num(own.x), num(own.y), num(own.width), num(own.height)];
      return [
        [x, y],
        [x + w, y],
        [x + w, y + h],
        [x, y + h],
        [x, y],
      ];
    }
    default:
      return null;
  }
}

class Walk {
  constructor(private readonly into: LineCollector) {}

  all(nodes: readonly Node[], placing: Placing, layer: string, depth: number): void {
    for (const node of nodes) {
      const key = Object.keys(node).find((k) => k !== ":@" && !k.startsWith("#") && !k.startsWith("?"));
      if (key) this.one(key.replace(/^svg:/, ""), node, key, placing, layer, depth);
    }
  }

  private one(name: string, node: Node, key: string, placing: Placing, layer: string, depth: number): void {
    const own = node[":@"] ?? {};
    if (SILENT.has(name) || /display\s*:\s*none/.test(own.style ?? "") || own.display === "none") return;
    const turned = transformOf(own.transform);
    if (!turned) {
      this.into.pass("drawing that is placed in a way that is not known");
      return;
    }
    const here = within(placing, turned);
    if (GROUPS.has(name)) {
      if (depth < DEEPEST) this.all((node[key] as Node[]) ?? [], here, labelOf(own) ?? layer, depth + 1);
      else this.into.pass("drawing nested too deep");
      return;
    }
    if (name === "path") {
      this.path(own.d ?? "", here, layer);
      return;
    }
    const places = shapeRow(name, own);
    if (!places) {
      this.into.pass(PASSED[name] ?? name);
      return;
    }
    this.into.row(
      layer,
      places.map(([x, y]) => placedBy(here, [x, y, 0])),
    );
  }

  private path(d: string, here: Placing, layer: string): void {
    const { rows, curves } = pathRows(d);
    if (curves > 0) this.into.pass("curve, taken as a straight chord", curves);
    for (const places of rows)
      this.into.row(
        layer,
        places.map((p) => placedBy(here, p)),
      );
  }
}

/** Size of what is drawn in the unit that it says: how many of it one user unit is. */
function scaleOf(own: Record<string, string>): { unit: DrawingUnit | null; per: number } {
  const [, size = "", unit = ""] = /^\s*([\d.eE+-]+)\s*(mm|cm|in)\s*$/.exec(own.width ?? "") ?? [];
  const box = numbers(own.viewBox);
  const wide = box[2] ?? 0;
  const known = SIZE_UNITS[unit];
  if (!known || !(num(size) > 0)) return { unit: null, per: 1 };
  // Without a view box a user unit is 1/96 in. Source: CSS Values, absolute lengths.
  const perInch = { mm: 25.4, cm: 2.54, in: 1, m: 0.0254, ft: 1 / 12 }[known];
  return { unit: known, per: wide > 0 ? num(size) / wide : perInch / 96 };
}

/**
 * Lines of a drawing in SVG, upright: lines, polylines, rectangles, paths, with what moves and turns them.
 * @returns the lines and what was not taken, or why the file cannot be read.
 */
export function readSvg(text: string): Result<LineWork> {
  const into = new LineCollector();
  let nodes: Node[];
  try {
    nodes = new XMLParser({
      preserveOrder: true,
      ignoreAttributes: false,
      attributeNamePrefix: "",
      parseAttributeValue: false,
      parseTagValue: false,
      processEntities: false,
    }).parse(text) as Node[];
  } catch (e) {
    return fail(`This drawing cannot be read: ${e instanceof Error ? e.message : "it is broken"}.`);
  }
  const root = nodes.find((n) => "svg" in n || "svg:svg" in n);
  if (!root) return fail("There is no drawing in this file: it has no svg.");
  const { unit, per } = scaleOf(root[":@"] ?? {});
  try {
    // Down is up on paper.
    new Walk(into).all([root], { ...AS_IT_IS, a: per, d: -per }, "drawing", 0);
  } catch (e) {
    if (e instanceof TooManyLines) return fail(`${e.message} Save the frame's centre lines alone, and read that in.`);
    throw e;
  }
  return ok({ lines: into.lines, unit, isInchHabit: false, unread: into.unread });
}

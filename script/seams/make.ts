import { writeFileSync } from "node:fs";
import { luSolve, symmetricEigen } from "../../src/core/numeric";
import { mitreState, stripOf } from "../../src/core/weld/tables";
import { Contacts } from "./contacts";
import { leg } from "./leg";

/** Width of the tube that all is worked out on, and of the strip that contracts beside a bead, mm. */
const WIDTH_MM = 50;
const STRIP_MM = 4.2426;
const FORMS = [
  ...[90, 180].flatMap((angle) => [8, 12.5, 20, 32, 45].map((bt) => ({ bt, hw: 1, angle }))),
  ...[60, 120].flatMap((angle) => [8, 18, 45].map((bt) => ({ bt, hw: 1, angle }))),
  ...[0.5, 2].flatMap((hw) => [8, 18, 45].map((bt) => ({ bt, hw, angle: 90 }))),
];

const CODES = Array.from({ length: 81 }, (_, i) => i.toString(3).padStart(4, "0")).filter(
  (code) => code !== "0000" && code !== "2222" && (code[3] as string) <= (code[2] as string),
);
const thousandth = (v: number): number => Math.round(1000 * v);

/** Writes the table of how open seams of a mitre touch. Usage: tsx script/seams/make.ts <file> */
const [, , file] = process.argv;
if (!file) throw new Error("Say where to: tsx script/seams/make.ts <file>");
/** Directions of the tables that closing has to do with. */
const IN_PLANE = [1, 3, 5];

/** Flexibility of a joint, fully welded, by the tables, per modulus of 1: d2, r1, r3. */
function whole({ bt, hw, angle }: (typeof FORMS)[number]): Float64Array {
  const form = { bMm: WIDTH_MM, tMm: WIDTH_MM / bt, eMPa: 1, hw, angleDeg: angle, tk: 0.2, strip: stripOf(WIDTH_MM) };
  const { k } = mitreState("2222", form);
  const left = Float64Array.from(IN_PLANE.flatMap((i) => IN_PLANE.map((j) => k[6 * i + j])));
  const out = Float64Array.of(1, 0, 0, 0, 1, 0, 0, 0, 1);
  if (!luSolve(left, out, 3, 3)) throw new RangeError("a joint without flexibility");
  return out;
}

let least = Number.POSITIVE_INFINITY;
const geoms = FORMS.map(({ bt, hw, angle }) => {
  const form = {
    widthMm: hw < 1 ? WIDTH_MM / hw : WIDTH_MM,
    heightMm: hw > 1 ? WIDTH_MM * hw : WIDTH_MM,
    wallMm: WIDTH_MM / bt,
    angleDeg: angle,
    stripMm: STRIP_MM,
  };
  const contacts = new Contacts(leg(form), form, whole({ bt, hw, angle }));
  const states: Record<string, number[]> = {};
  for (const code of CODES) {
    const { opens, closed, gives } = contacts.state(code);
    const per = 1 / WIDTH_MM;
    const scaled = gives.map((row) => row.map((v) => v * form.wallMm));
    least = Math.min(least, ...symmetricEigen(scaled).values);
    states[code] = [
      ...opens.flatMap((p) => [p[0], p[1] * per, p[2] * per]),
      ...closed.flat(),
      ...scaled.flatMap((row, i) => row.slice(i)),
    ].map(thousandth);
  }
  console.log(`width over wall ${bt}, height over width ${hw}, ${angle} degrees`);
  return { bt, hw, angle, states };
});
console.log(`least own value of a flexibility: ${least.toFixed(4)}`);
writeFileSync(file, JSON.stringify({ kind: "open seams of a mitre", code: ["outside", "inside", "kp", "km"], geoms }));

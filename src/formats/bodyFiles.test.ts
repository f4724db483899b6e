import type { Mesh } from "three";
import { GLTFLoader } from "three/examples/jsm/loaders/GLTFLoader.js";
import { STLLoader } from "three/examples/jsm/loaders/STLLoader.js";
import { describe, expect, it } from "vitest";
import { type SolidBody, solidBodies } from "@/core/drawing";
import { STARTERS, type Structure } from "@/core/frame";
import { builtOf } from "@/core/job";
import { roundTube, squareTube, started } from "../../tests/support/drawnFrames";
import { drawnPlan } from "../../tests/support/plans";
import { bodyGlb, bodyStl } from "./bodyFiles";

const structureOf = (name: string): Structure => {
  const { structure } = builtOf(drawnPlan(started(name)));
  if (!structure) throw new Error(name);
  return structure;
};

/** Volume by the divergence theorem over the triangles of another library's reading. */
function volume(positions: ArrayLike<number>): number {
  let six = 0;
  const v = (i: number) => [positions[3 * i], positions[3 * i + 1], positions[3 * i + 2]] as [number, number, number];
  for (let t = 0; t < positions.length / 9; t++) {
    const [p, q, r] = [v(3 * t), v(3 * t + 1), v(3 * t + 2)];
    six += p[0] * (q[1] * r[2] - q[2] * r[1]) - p[1] * (q[0] * r[2] - q[2] * r[0]) + p[2] * (q[0] * r[1] - q[1] * r[0]);
  }
  return six / 6;
}

/** Each edge of a closed body is in two triangles, once each way. */
function isClosed({ triangles }: SolidBody): boolean {
  const edges = new Map<string, number>();
  for (let t = 0; t < triangles.length; t += 3)
    for (const [a, b] of [
      [0, 1],
      [1, 2],
      [2, 0],
    ] as const) {
      const [p, q] = [triangles[t + a] as number, triangles[t + b] as number];
      const key = p < q ? `${p} ${q}` : `${q} ${p}`;
      edges.set(key, (edges.get(key) ?? 0) + (p < q ? 1 : -1) * 1 + 10);
    }
  return [...edges.values()].every((n) => n === 20);
}

describe("a frame as bodies", () => {
  it("has closed ones that look outward, for every starter and section", () => {
    const sections = [squareTube(), roundTube(42.4)];
    for (const { name } of STARTERS)
      for (const section of sections) {
        const plan = drawnPlan(started(name, {}, section));
        const { structure } = builtOf(plan);
        for (const body of structure ? solidBodies(structure) : []) {
          expect(isClosed(body), `${name} ${body.name}`).toBe(true);
          expect(body.positions.every(Number.isFinite), `${name} ${body.name}`).toBe(true);
        }
      }
  });
  it("weighs what the frame weighs, by its volume: within the rounding of a tube's corners", () => {
    for (const name of ["rectangle", "ladder", "stand", "rails with a kink"]) {
      const structure = structureOf(name);
      const read = new STLLoader().parse(bodyStl(solidBodies(structure)).slice().buffer);
      const kg = volume(read.getAttribute("position").array) * 7.85e-6;
      expect(kg / structure.massKg, name).toBeGreaterThan(0.99);
      // Drawn with sharp corners: a 40 × 40 × 3 tube has 444 mm² instead of 421.
      expect(kg / structure.massKg, name).toBeLessThan(1.07);
    }
  });
  it("is read by a library that did not write it: members by name, metres, upright", async () => {
    const structure = structureOf("stand");
    const bytes = await bodyGlb(solidBodies(structure), "Stand");
    const { scene } = await new Promise<{ scene: { traverse: (f: (o: unknown) => void) => void } }>((done, fail) => {
      new GLTFLoader().parse(bytes.slice().buffer, "", done as never, fail);
    });
    const names: string[] = [];
    let top = 0;
    scene.traverse((o) => {
      const mesh = o as Mesh;
      if (!mesh.isMesh) return;
      names.push(mesh.name);
      mesh.geometry.computeBoundingBox();
      top = Math.max(top, mesh.geometry.boundingBox?.max.y ?? 0);
    });
    expect(names.sort()).toEqual(structure.members.map((m) => m.id).sort());
    expect(top).toBeCloseTo(structure.high[2] / 1000, 5);
  });
});

import { Document, WebIO } from "@gltf-transform/core";
import { BufferAttribute, BufferGeometry, Group, Mesh } from "three";
import { STLExporter } from "three/examples/jsm/exporters/STLExporter.js";
import type { SolidBody } from "@/core/drawing";
import { entry } from "@/core/numeric";

/** Bodies as one binary STL, in millimetres as such files have them by habit, up along z. */
export function bodyStl(bodies: readonly SolidBody[]): Uint8Array {
  const group = new Group();
  for (const { positions, triangles } of bodies) {
    const geometry = new BufferGeometry();
    geometry.setAttribute("position", new BufferAttribute(Float32Array.from(positions), 3));
    geometry.setIndex(new BufferAttribute(triangles, 1));
    group.add(new Mesh(geometry));
  }
  const view = new STLExporter().parse(group, { binary: true });
  return new Uint8Array(view.buffer, view.byteOffset, view.byteLength);
}

const MM_PER_M = 1000;

/** Bodies as binary glTF 2.0: metres, up along y as it asks for, a node for each member under its name. */
export async function bodyGlb(bodies: readonly SolidBody[], title: string): Promise<Uint8Array> {
  const document = new Document();
  const buffer = document.createBuffer();
  const scene = document.createScene(title);
  const steel = document.createMaterial("metal").setBaseColorFactor([0.62, 0.63, 0.65, 1]).setMetallicFactor(0.6);
  for (const { name, positions, triangles } of bodies) {
    const place = new Float32Array(positions.length);
    for (let i = 0; i < positions.length; i += 3) {
      place[i] = entry(positions, i) / MM_PER_M;
      place[i + 1] = entry(positions, i + 2) / MM_PER_M;
      place[i + 2] = -entry(positions, i + 1) / MM_PER_M;
    }
    const position = document.createAccessor().setType("VEC3").setArray(place).setBuffer(buffer);
    const indices = document.createAccessor().setType("SCALAR").setArray(Uint32Array.from(triangles)).setBuffer(buffer);
    const primitive = document
      .createPrimitive()
      .setAttribute("POSITION", position)
      .setIndices(indices)
      .setMaterial(steel);
    const mesh = document.createMesh(name).addPrimitive(primitive);
    scene.addChild(document.createNode(name).setMesh(mesh));
  }
  return new WebIO().writeBinary(document);
}

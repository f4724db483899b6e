"use client";

import { Canvas, useThree } from "@react-three/fiber";
import { useEffect, useMemo, useRef } from "react";
import { BufferAttribute, BufferGeometry, EdgesGeometry, OrthographicCamera, Vector3 } from "three";
import { ConvexGeometry } from "three/examples/jsm/geometries/ConvexGeometry.js";
import { bodyPoints, type Structure, type StructureMember } from "@/core/frame";

/** A member's body as triangles: its two ends and the sides between. Ends are fans, right for outlines without hollows. */
function geometryOf(m: StructureMember): BufferGeometry {
  const n = m.outline.length;
  const points = bodyPoints(m);
  const index: number[] = [];
  for (let i = 0; i < n; i++) {
    const k = (i + 1) % n;
    index.push(i, k, n + k, i, n + k, n + i);
  }
  for (let i = 1; i < n - 1; i++) index.push(0, i + 1, i, n, n + i, n + i + 1);
  const geometry = new BufferGeometry();
  geometry.setAttribute("position", new BufferAttribute(Float32Array.from(points.flat()), 3));
  geometry.setIndex(index);
  const flat = geometry.toNonIndexed();
  flat.computeVertexNormals();
  geometry.dispose();
  return flat;
}

interface Colours {
  tube: string;
  ink: string;
  plum: string;
  brass: string;
}

function Body({
  m,
  chosen,
  colours,
  onPick,
}: {
  m: StructureMember;
  chosen: boolean;
  colours: Colours;
  onPick: (id: string) => void;
}) {
  const [body, edges] = useMemo(() => {
    const b = geometryOf(m);
    return [b, new EdgesGeometry(b, 25)] as const;
  }, [m]);
  useEffect(
    () => () => {
      body.dispose();
      edges.dispose();
    },
    [body, edges],
  );
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: an object in a 3-D scene; members are picked by key in the list beside it
    <group
      onClick={(e) => {
        e.stopPropagation();
        onPick(m.id);
      }}
    >
      <mesh geometry={body}>
        <meshLambertMaterial
          color={chosen ? colours.plum : colours.tube}
          polygonOffset
          polygonOffsetFactor={1}
          polygonOffsetUnits={1}
        />
      </mesh>
      <lineSegments geometry={edges}>
        <lineBasicMaterial color={colours.ink} />
      </lineSegments>
    </group>
  );
}

/** Looks at the whole from a turn and a tilt. */
function Look({ s, turnDeg, tiltDeg }: { s: Structure; turnDeg: number; tiltDeg: number }) {
  const { camera, size, invalidate } = useThree();
  useEffect(() => {
    if (!(camera instanceof OrthographicCamera)) return;
    const middle = new Vector3(...s.low).add(new Vector3(...s.high)).multiplyScalar(0.5);
    const reach = new Vector3(...s.high).sub(new Vector3(...s.low)).length() || 1000;
    const [a, b] = [(turnDeg * Math.PI) / 180, (tiltDeg * Math.PI) / 180];
    camera.up.set(0, 0, 1);
    camera.position.set(
      middle.x + 3 * reach * Math.sin(a) * Math.cos(b),
      middle.y - 3 * reach * Math.cos(a) * Math.cos(b),
      middle.z + 3 * reach * Math.sin(b),
    );
    camera.near = 1;
    camera.far = 10 * reach;
    camera.zoom = Math.min(size.width, size.height) / (1.05 * reach);
    camera.lookAt(middle);
    camera.updateProjectionMatrix();
    invalidate();
  }, [camera, size, s, turnDeg, tiltDeg, invalidate]);
  return null;
}

/** The frame as a body that can be turned. */
export default function Solid({
  structure,
  picked,
  turnDeg,
  tiltDeg,
  onPick,
  onTurn,
}: {
  structure: Structure;
  picked: readonly string[];
  turnDeg: number;
  tiltDeg: number;
  onPick: (id: string) => void;
  onTurn: (turnDeg: number, tiltDeg: number) => void;
}) {
  const hand = useRef<{ x: number; y: number } | null>(null);
  const colours = useMemo<Colours>(() => {
    const style = getComputedStyle(document.documentElement);
    const dark =
      matchMedia("(prefers-color-scheme: dark)").matches && document.documentElement.dataset.theme !== "light";
    const night = dark || document.documentElement.dataset.theme === "dark";
    const of = (name: string): string => {
      const both = /light-dark\((#\w+),\s*(#\w+)\)/.exec(style.getPropertyValue(name));
      return both ? ((night ? both[2] : both[1]) as string) : style.getPropertyValue(name).trim() || "#888888";
    };
    return { tube: of("--line"), ink: of("--ink"), plum: of("--plum"), brass: of("--brass") };
  }, []);
  return (
    <Canvas
      orthographic
      frameloop="demand"
      gl={{ preserveDrawingBuffer: true }}
      style={{ height: 470, touchAction: "none" }}
      onPointerDown={(e) => {
        hand.current = { x: e.clientX, y: e.clientY };
      }}
      onPointerMove={(e) => {
        if (!hand.current || e.buttons === 0) return;
        const [dx, dy] = [e.clientX - hand.current.x, e.clientY - hand.current.y];
        hand.current = { x: e.clientX, y: e.clientY };
        onTurn(turnDeg - 0.4 * dx, Math.max(-90, Math.min(90, tiltDeg + 0.4 * dy)));
      }}
      onPointerUp={() => {
        hand.current = null;
      }}
    >
      <ambientLight intensity={1.4} />
      <directionalLight position={[-2, -3, 5]} intensity={1.6} />
      <Look s={structure} turnDeg={turnDeg} tiltDeg={tiltDeg} />
      {structure.members.map((m) => (
        <Body key={m.id} m={m} chosen={picked.includes(m.id)} colours={colours} onPick={onPick} />
      ))}
      {structure.parts.map((p) => (
        <mesh key={p.id} geometry={new ConvexGeometry(p.corners.map(([x, y, z]) => new Vector3(x, y, z)))}>
          <meshLambertMaterial color={colours.brass} />
        </mesh>
      ))}
    </Canvas>
  );
}

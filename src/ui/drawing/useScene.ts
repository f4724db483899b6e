import { useMemo } from "react";
import { type Scene, sceneOf } from "@/core/drawing";
import type { Structure } from "@/core/frame";

/** The scene of a structure in its best view, made again only when the structure changes; null without one. */
export const useScene = <S extends Structure | null>(structure: S): S extends Structure ? Scene : Scene | null =>
  useMemo(() => (structure ? sceneOf(structure) : null), [structure]) as S extends Structure ? Scene : Scene | null;

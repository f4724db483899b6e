import { MATERIALS, type MaterialName } from "../frame";
import type { ProcessName } from "../weld";
import type { Cell } from "./pooled";

/** Classes of walls that shrink alike, by their upper end, mm. Source: own judgement. */
const WALLS = [
  { name: "under 2.5 mm", toMm: 2.5 },
  { name: "2.5 to 4 mm", toMm: 4.001 },
  { name: "over 4 mm", toMm: Number.POSITIVE_INFINITY },
] as const;
export const WALL_CLASSES = WALLS.map((w) => w.name) as ["under 2.5 mm", "2.5 to 4 mm", "over 4 mm"];
export type WallClassName = (typeof WALL_CLASSES)[number];

/** Metals whose factors go together. */
export const METALS = ["steel", "stainless", "aluminium"] as const;
export type Metal = (typeof METALS)[number];

export const metalOf = (material: MaterialName): Metal =>
  MATERIALS[material].heatSoftens ? "aluminium" : material === "mild steel" ? "steel" : "stainless";

/** Where a factor of a shop is the same. */
export interface ShopCell extends Cell {
  process: ProcessName;
  wall: WallClassName;
  metal: Metal;
}

/** Cell of a weld. @param wallMm of the thinner part. */
export const cellOf = (process: ProcessName, wallMm: number, material: MaterialName): ShopCell => ({
  process,
  wall: WALLS.find((w) => wallMm < w.toMm)?.name ?? "over 4 mm",
  metal: metalOf(material),
});

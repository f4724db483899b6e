import { formatLength } from "../units";
import type { DrawnFrame } from "./drawnSchema";

/** What a section of a drawn frame is called: its size in the table, or its shape and sizes. @param id of the section. */
export function sectionWords(frame: Pick<DrawnFrame, "sections">, id: string): string {
  const s = frame.sections.find((x) => x.id === id);
  if (!s) return id;
  if (s.profile) return s.profile;
  const size = (mm: number): string => formatLength(mm, "mm", { decimals: 1, trim: true }).text.replace(" mm", "");
  if (s.shape === "bar") return `round bar ${size(s.width.mm)} mm`;
  if (s.shape === "round tube") return `round tube ${size(s.width.mm)}×${size(s.wall.mm)}`;
  if (s.shape === "flat") return `flat ${size(s.width.mm)}×${size(s.height.mm)}`;
  return `${s.shape} ${size(s.width.mm)}×${size(s.height.mm)}×${size(s.wall.mm)}`;
}

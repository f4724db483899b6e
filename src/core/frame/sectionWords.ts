import { type Length, plainLength } from "../units";
import type { DrawnFrame } from "./drawnSchema";

/**
 * What a section of a drawn frame is called: its size in the table, or its shape and sizes, in inches where all of it was said in inches.
 * @param id of the section.
 */
export function sectionWords(frame: Pick<DrawnFrame, "sections">, id: string): string {
  const s = frame.sections.find((x) => x.id === id);
  if (!s) return id;
  if (s.profile) return s.profile;
  const sized = (...lengths: Length[]): string => {
    const unit = lengths.every((l) => l.unit === "in") ? "in" : "mm";
    const figures = lengths.map(({ mm }) =>
      plainLength(mm, unit === "in" ? "inch-fraction" : "mm").replace(/\s*(in|mm)$/, ""),
    );
    return `${figures.join("×")}${unit === "in" ? " in" : ""}`;
  };
  if (s.shape === "bar") return `round bar ${sized(s.width)}${s.width.unit === "in" ? "" : " mm"}`;
  if (s.shape === "round tube") return `round tube ${sized(s.width, s.wall)}`;
  if (s.shape === "flat") return `flat ${sized(s.width, s.height)}`;
  return `${s.shape} ${sized(s.width, s.height, s.wall)}`;
}

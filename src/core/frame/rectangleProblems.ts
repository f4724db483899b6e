import { farLength, type Problem, plainLength, rangeWords, type UnitPreference } from "../units";
import type { Rectangle } from "./rectangleSchema";

/** Smallest and largest side that the tool takes, mm. A lorry is 12 m; beyond 20 m it is a typing slip. */
const SIDE_MM = { min: 60, max: 20_000 } as const;
const TUBE_MM = { min: 8, max: 400 } as const;

const error = (path: string, message: string): Problem => ({ path, message, severity: "error" });

/**
 * What keeps a frame from being resolved, each at its field.
 * @param frame lengths in mm. @returns an empty list when the frame can be built.
 */
export function rectangleProblems(frame: Rectangle, units: UnitPreference = "mm"): Problem[] {
  const found: Problem[] = [];
  const { length, width, section } = frame;
  const side = (path: string, label: string, mm: number) => {
    if (mm <= 0) found.push(error(path, `${label} must be more than zero.`));
    else if (mm < SIDE_MM.min)
      found.push(
        error(path, `${label} is ${plainLength(mm, units)}: under ${plainLength(SIDE_MM.min, units)}. Check the unit.`),
      );
    else if (mm > SIDE_MM.max)
      found.push(
        error(path, `${label} is ${farLength(mm, units)}: over ${farLength(SIDE_MM.max, units)}. Check the unit.`),
      );
  };
  side("frame.sizes.length", "Length", length.mm);
  side("frame.sizes.width", "Width", width.mm);
  const tube = (path: string, label: string, mm: number) => {
    if (mm <= 0) found.push(error(path, `${label} must be more than zero.`));
    else if (mm < TUBE_MM.min || mm > TUBE_MM.max)
      found.push(
        error(
          path,
          `${label} is ${plainLength(mm, units)}: outside ${rangeWords(TUBE_MM.min, TUBE_MM.max, units)}. Check the unit.`,
        ),
      );
  };
  tube("frame.sizes.section.face", "Tube width in plan", section.face.mm);
  tube("frame.sizes.section.depth", "Tube height", section.depth.mm);
  const half = Math.min(section.face.mm, section.depth.mm) / 2;
  if (section.wall.mm <= 0) found.push(error("frame.sizes.section.wall", "Wall must be more than zero."));
  else if (section.wall.mm >= half)
    found.push(
      error(
        "frame.sizes.section.wall",
        `A wall of ${plainLength(section.wall.mm, units)} fills the tube: it must be under half the smaller side (${plainLength(half, units)}).`,
      ),
    );
  else if (section.wall.mm < 0.5)
    found.push(error("frame.sizes.section.wall", `A wall under ${plainLength(0.5, units)} is foil. Check the unit.`));
  if (frame.gap && !(frame.gap.mm >= 0 && frame.gap.mm <= 10))
    found.push(error("frame.sizes.gap", `A root gap is ${rangeWords(0, 10, units)}.`));
  if (found.length > 0) return found;

  const shortest = Math.min(length.mm, width.mm);
  if (shortest <= 2 * section.face.mm)
    found.push(
      error(
        length.mm <= width.mm ? "frame.sizes.length" : "frame.sizes.width",
        `The tubes leave no opening: the side must be more than twice the tube width (${plainLength(2 * section.face.mm, units)}).`,
      ),
    );
  const run = frame.crossRuns === "across" ? length.mm : width.mm;
  const face = section.face.mm;
  const ids = new Set<string>();
  frame.cross.forEach((member, i) => {
    const path = `frame.sizes.cross.${i}.at`;
    if (ids.has(member.id)) found.push(error(`frame.sizes.cross.${i}.id`, `${member.id} is there twice.`));
    ids.add(member.id);
    if (member.at.mm < 1.5 * face || member.at.mm > run - 1.5 * face)
      found.push(
        error(
          path,
          `${member.id} would run into a side: its centre must lie between ${plainLength(1.5 * face, units)} and ${plainLength(run - 1.5 * face, units)}.`,
        ),
      );
  });
  const order = [...frame.cross].sort((a, b) => a.at.mm - b.at.mm);
  order.forEach((member, i) => {
    const next = order[i + 1];
    if (next && next.at.mm - member.at.mm < face)
      found.push(
        error(
          `frame.sizes.cross.${frame.cross.indexOf(next)}.at`,
          `${next.id} overlaps ${member.id}: their centres must be ${plainLength(face, units)} apart or more.`,
        ),
      );
  });
  return found;
}

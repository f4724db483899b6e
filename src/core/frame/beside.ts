import { add3 } from "../numeric";
import { fail, ok, type Result, type UnitPreference } from "../units";
import type { DrawnFrame, DrawnSection } from "./drawnSchema";
import { statedPoint } from "./drawnStart";
import { nextName } from "./editing";
import { place } from "./placing";

/** So far apart two frames are put side by side, mm. */
const APART_MM = 200;
const MOST_MEMBERS = 400;
const MOST_SECTIONS = 20;

const sameSection = (a: DrawnSection, b: DrawnSection): boolean =>
  a.shape === b.shape &&
  a.material === b.material &&
  a.width.mm === b.width.mm &&
  a.height.mm === b.height.mm &&
  a.wall.mm === b.wall.mm;

/**
 * A frame with the members of another beside it, under free names, each of the section that there is of its size.
 * @param rightMm how far what is drawn reaches to the right.
 */
export function beside(
  frame: DrawnFrame,
  added: DrawnFrame,
  rightMm: number,
  units: UnitPreference,
): Result<DrawnFrame> {
  if (frame.members.length + added.members.length > MOST_MEMBERS)
    return fail(`That would be over ${MOST_MEMBERS} members.`);
  let sections = frame.sections;
  const sectionId = new Map<string, string>();
  for (const s of added.sections) {
    const own = sections.find((x) => sameSection(x, s));
    const free = Array.from({ length: 99 }, (_, i) => `S${i + 1}`).find((id) => !sections.some((x) => x.id === id));
    if (!own && (!free || sections.length >= MOST_SECTIONS))
      return fail(`That would be over ${MOST_SECTIONS} sections.`);
    if (!own) sections = [...sections, { ...s, id: free as string }];
    sectionId.set(s.id, own?.id ?? (free as string));
  }
  const by = frame.members.length > 0 ? rightMm + APART_MM : 0;
  let out: DrawnFrame = { ...frame, sections };
  for (const m of added.members) {
    const taken = out.members.some((x) => x.id === m.id);
    out = {
      ...out,
      members: [
        ...out.members,
        {
          ...m,
          id: taken ? nextName(out, "M") : m.id,
          section: sectionId.get(m.section) ?? m.section,
          from: statedPoint(add3(place(m.from), [by, 0, 0]), units),
          to: statedPoint(add3(place(m.to), [by, 0, 0]), units),
        },
      ],
    };
  }
  return ok(out);
}

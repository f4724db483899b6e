import { type DrawnFrame, type DrawnSection, emptyFrame, member, STARTERS, usualValues } from "@/core/frame";
import type { Vec3 } from "@/core/numeric";
import { length } from "@/core/units";

/** Square tube of one size. */
export const squareTube = (mm = 40, wallMm = 3, id = "S1"): DrawnSection => ({
  id,
  shape: "tube",
  profile: null,
  width: length(String(mm)),
  height: length(String(mm)),
  wall: length(String(wallMm)),
  material: "mild steel",
});

export const roundTube = (mm: number, wallMm = 3, id = "S1"): DrawnSection => ({
  ...squareTube(mm, wallMm, id),
  shape: "round tube",
});

/** A starter's frame with its usual sizes, some of them changed. */
export function started(
  name: string,
  change: Record<string, number | string> = {},
  section = squareTube(),
): DrawnFrame {
  const starter = STARTERS.find((s) => s.name === name);
  if (!starter) throw new Error(`no starter ${name}`);
  const built = starter.build({ ...usualValues(starter), ...change }, section, "mm");
  if (!built.ok) throw new Error(built.message);
  return built.value;
}

/** Members by name with both ends and, where it is not the first, their section. */
export const drawn = (
  members: Record<string, [Vec3, Vec3] | [Vec3, Vec3, string]>,
  sections: DrawnSection[] = [squareTube()],
): DrawnFrame => ({
  ...emptyFrame(sections[0] as DrawnSection),
  sections,
  members: Object.entries(members).map(([id, [from, to, section]]) =>
    member(id, from, to, section ?? (sections[0] as DrawnSection).id, "mm"),
  ),
});

import type { DrawnFrame, DrawnSection, Rectangle } from "@/core/frame";
import type { Plan } from "@/core/job";

/** The plan with other sizes of its rectangle. */
export const withSizes = (plan: Plan, change: Partial<Rectangle>): Plan => ({
  ...plan,
  frame: { ...plan.frame, sizes: { ...plan.frame.sizes, ...change } },
});

/** The plan with its frame drawn member by member; its sizes are kept for going back to them. */
export const drawnAs = (plan: Plan, drawn: DrawnFrame): Plan => ({
  ...plan,
  frame: { by: "members", sizes: plan.frame.sizes, drawn },
});

/** The plan with its frame by its sizes again. */
export const bySizes = (plan: Plan): Plan => ({ ...plan, frame: { by: "sizes", sizes: plan.frame.sizes } });

/** What a frame by its sizes is made of, as the section of one that is drawn. */
export function sectionOfSizes({ frame: { sizes } }: Plan): DrawnSection {
  const { profile, face, depth, wall } = sizes.section;
  return { id: "S1", shape: "tube", profile, width: face, height: depth, wall, material: sizes.material };
}

import * as z from "zod";
import { isVisible } from "./visible";

/** A name that a person can see: trimmed, so long at most. @param missing what is asked for where there is none. */
export const visibleName = (missing: string, most: number) =>
  z
    .string()
    .trim()
    .min(1, missing)
    .max(most, `At most ${most} characters.`)
    // Nothing at all is said once.
    .refine((text) => text === "" || isVisible(text), "Nothing of this name can be seen: use letters or digits.");

import * as z from "zod";

/** Whether a text shows anything: a letter, a digit, a sign. Control characters and marks of writing direction show nothing. */
export const isVisible = (text: string): boolean => /[\p{L}\p{N}\p{P}\p{S}]/u.test(text);

/** A name that a person can see: trimmed, so long at most. @param missing what is asked for where there is none. */
export const visibleName = (missing: string, most: number) =>
  z
    .string()
    .trim()
    .min(1, missing)
    .max(most, `At most ${most} characters.`)
    // Nothing at all is said once.
    .refine((text) => text === "" || isVisible(text), "Nothing of this name can be seen: use letters or digits.");

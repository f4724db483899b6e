import * as z from "zod";
import { MAX_TEXT, parseLength } from "./length";

/**
 * A stated length: the value and the text as typed, with what a bare number meant then.
 * The schema refuses a value that its own text does not say.
 */
export const lengthSchema = z
  .strictObject({ mm: z.number(), text: z.string().max(MAX_TEXT), unit: z.enum(["mm", "in"]) })
  .superRefine((length, context) => {
    const parsed = parseLength(length.text, length.unit);
    if (!parsed.ok) context.addIssue({ code: "custom", message: parsed.message });
    else if (Math.abs(parsed.value.mm - length.mm) > 1e-6)
      context.addIssue({
        code: "custom",
        message: `The text "${length.text}" says ${parsed.value.mm} mm, not ${length.mm} mm.`,
      });
  });
export type Length = z.infer<typeof lengthSchema>;
